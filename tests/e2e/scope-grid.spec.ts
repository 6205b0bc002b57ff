import { expect, test } from "./test";
import { saved } from "./pages";
import { addEverywhere, cell, dialog, paste, rooms } from "./workPages";

test("thirty rooms by twelve kinds of work are filled in at most sixty actions", async ({
  page,
}) => {
  await rooms(page, "Kittiwake School", 30);
  let actions = 0;
  const press = async (key: string) => {
    actions++;
    await page.keyboard.press(key);
  };
  await press("a");
  actions++;
  await page.getByRole("radio", { name: "all 30 places" }).check();
  for (const name of [
    "Cover up",
    "Fill and sand",
    "Skim coat",
    "Walls Paint",
    "Ceilings Paint",
    "Doors",
    "Woodwork Windows",
    "Skirting, paint",
    "Carpet tile",
    "Handover clean",
    "Caulk joints",
    "Reveals, make good",
  ]) {
    actions++;
    await page.getByRole("textbox", { name: "Find in the Book" }).fill(name);
    await expect(
      page.getByRole("list", { name: "Entries" }).getByRole("button").first(),
    ).toHaveAccessibleName(new RegExp(name.split(" ").join(".*"), "i"));
    await press("Enter");
    await expect(dialog(page).getByRole("status").last()).toHaveText(
      new RegExp(`${name.split(" ").at(-1)} added$`, "i"),
    );
  }
  await press("Escape");
  // The windows of the first floor are left as they are: to the column, down to its last fifteen, out.
  actions++;
  await cell(page, /Windows, Room 16:/).click();
  await press("Control+Shift+ArrowDown");
  await press("o");
  await saved(page);
  expect(actions).toBeLessThanOrEqual(60);
  await expect(page.getByRole("gridcell", { name: / included/ })).toHaveCount(
    30 * 12 - 15,
  );
  await expect(page.getByRole("gridcell", { name: / excluded/ })).toHaveCount(
    15,
  );
  // One undo takes back the fifteen.
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("gridcell", { name: / excluded/ })).toHaveCount(
    0,
  );
});

test("a block of twenty by eight from a spreadsheet is pasted, as marks and as quantities", async ({
  page,
}) => {
  await rooms(page, "Gannet Hostel", 20);
  await addEverywhere(
    page,
    "Cover up",
    "Fill and sand",
    "Skim coat",
    "Walls Paint",
    "Ceilings Paint",
    "Doors",
    "Woodwork Windows",
    "Carpet tile",
  );
  await cell(page, /Cover up, Room 1:/).click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Delete");
  await expect(page.getByRole("gridcell", { name: / included/ })).toHaveCount(
    0,
  );
  const marks = Array.from({ length: 20 }, (_, row) =>
    Array.from({ length: 8 }, (_, column) =>
      row === 3 && column === 5
        ? "excluded: the fire door stays"
        : (row + column) % 4 === 0
          ? ""
          : "x",
    ).join("\t"),
  ).join("\r\n");
  await cell(page, /Cover up, Room 1:/).click();
  await paste(page, marks);
  await expect(page.getByRole("gridcell", { name: / included/ })).toHaveCount(
    20 * 8 - 40,
  );
  await expect(
    cell(page, /Doors, Room 4: excluded, the fire door stays/),
  ).toBeVisible();
  // One undo takes all of it back.
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("gridcell", { name: / included/ })).toHaveCount(
    0,
  );
  await page.keyboard.press("Control+Shift+z");

  await page.getByRole("button", { name: "Quantities", exact: true }).click();
  await cell(page, /Skim coat, Room 1:/).click();
  await paste(page, "100\t\n12'6 x 8\tx");
  await expect(
    cell(page, /Skim coat, Room 1: 100.0 ft², .*differs/),
  ).toBeVisible();
  await expect(cell(page, /Paint, Room 1: none here/).first()).toBeVisible();
  await expect(cell(page, /Skim coat, Room 2: 100.0 ft²/)).toBeVisible();
  await paste(page, "a lot");
  await expect(page.getByLabel("Signs in the grid")).toContainText(
    "Row 1, column 1 (Skim coat, Room 1): “a lot”.",
  );
  await expect(cell(page, /Skim coat, Room 1: 100.0 ft²/)).toBeVisible();

  // What is copied goes out as a table, and back in to the same cells as the same.
  await cell(page, /Cover up, Room 1:/).click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Control+c");
  const table = await page.evaluate(() => navigator.clipboard.readText());
  expect(table.split("\n")).toHaveLength(20);
  expect(table.split("\n")[0]!.split("\t")).toHaveLength(8);
  const file = async () =>
    (
      await page.request.get(`/api${/\/jobs\/[^/]+/.exec(page.url())![0]}/file`)
    ).text();
  const before = await file();
  await paste(page, table);
  await expect(page.getByLabel("Signs in the grid")).toContainText("Pasted");
  await saved(page);
  expect(await file()).toBe(before);
});

test("a cell is copied within the grid with all it has, filled down, and falls back", async ({
  page,
}) => {
  await rooms(page, "Dunlin House", 8);
  await addEverywhere(page, "Walls Paint");
  await cell(page, /Paint, Room 1:/).click();
  await page.getByRole("tab", { name: "In Room 1" }).click();
  await page.getByLabel("Coats here").selectOption("3");
  await expect(cell(page, /Paint, Room 1: .*differs/)).toBeVisible();
  await cell(page, /Paint, Room 1:/).click();
  await page.keyboard.press("Control+c");
  await cell(page, /Paint, Room 3:/).click();
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.keyboard.press("Control+v");
  await expect(cell(page, /Paint, Room 3: .*differs/)).toBeVisible();
  await page.keyboard.press("Control+Shift+End");
  await page.keyboard.press("Control+d");
  await expect(page.getByRole("gridcell", { name: /differs/ })).toHaveCount(7);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("gridcell", { name: /differs/ })).toHaveCount(2);
  await cell(page, /Paint, Room 3:/).click();
  await page.getByRole("button", { name: "Fall back to the item" }).click();
  await expect(page.getByRole("gridcell", { name: /differs/ })).toHaveCount(1);

  // To every place with the same finish: rooms 4 and 7, beside room 1.
  await cell(page, /Paint, Room 1:/).click();
  await page.getByRole("button", { name: "Apply to other places…" }).click();
  await dialog(page)
    .getByLabel(/with the finish “plaster” \(2\)/)
    .check();
  await expect(
    dialog(page).getByRole("region", { name: "What it would move" }),
  ).toContainText("Walls: Paint");
  await dialog(page).getByRole("button", { name: "Apply to 2 places" }).click();
  await expect(cell(page, /Paint, Room 7: .*differs/)).toBeVisible();
  await expect(page.getByRole("gridcell", { name: /differs/ })).toHaveCount(3);
});

test("places and work are filtered, folded and frozen, and edits reach only what is shown", async ({
  page,
}) => {
  await rooms(page, "Avocet Court", 12);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint", "Doors");
  await page.getByRole("button", { name: "Filter" }).click();
  await page.getByRole("searchbox", { name: "Filter places" }).fill("first");
  await expect(cell(page, /Walls: Paint, Room/)).toHaveCount(6);
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+a");
  await page.keyboard.press("o");
  await saved(page);
  await page.getByRole("button", { name: "Show everything" }).click();
  await expect(page.getByRole("gridcell", { name: / excluded/ })).toHaveCount(
    18,
  );
  await page.getByRole("button", { name: "Ground floor" }).click();
  await expect(cell(page, /Walls: Paint, Room/)).toHaveCount(6);
  await page.getByRole("button", { name: "Walls", exact: true }).click();
  await expect(cell(page, /Walls: Paint, Room/)).toHaveCount(0);
  await expect(cell(page, /Walls, folded, Room 7: 1 of 1/)).toBeVisible();
  await page.getByRole("button", { name: "Unfold" }).click();
  await expect(cell(page, /Walls: Paint, Room/)).toHaveCount(12);
  await page.getByRole("button", { name: "Filter" }).click();
  await page.getByLabel("Only places").selectOption("with something excluded");
  await expect(cell(page, /Walls: Paint, Room/)).toHaveCount(6);
  await page.getByRole("button", { name: "Show everything" }).click();
  await cell(page, /Walls: Paint, Room 1:/).click();
  await page.getByLabel("More").selectOption("freeze");
  await expect(cell(page, /Walls: Paint, Room 1:/)).toHaveCSS(
    "position",
    "sticky",
  );
  await page.getByRole("button", { name: "By section" }).click();
  const lines = page.getByRole("table", { name: "Work by section" });
  await expect(lines.getByRole("row")).toHaveCount(3 + 36);
  await lines
    .getByRole("row", { name: /Room 9/ })
    .first()
    .click();
  await page.keyboard.press("i");
  await expect(lines.getByRole("row", { name: /Room 9 included/ })).toHaveCount(
    1,
  );
});
