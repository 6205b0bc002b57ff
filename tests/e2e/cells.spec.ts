import { saved, tally } from "./pages";
import { expect, test } from "./test";
import { addEverywhere, cell, command, rooms, sent, sheet } from "./workPages";

test("cells of one column are set together, say where they differ, and are taken back by one undo", async ({
  page,
}) => {
  await rooms(page, "Plover House", 6);
  await addEverywhere(page, "Walls Paint");
  const hours = tally(page, "Labour");
  const before = await hours.innerText();
  await cell(page, /Paint, Room 2:/).click();
  await page.getByRole("tab", { name: "In Room 2" }).click();
  await page.getByLabel("Coats here").selectOption("1");
  await expect(cell(page, /Paint, Room 2: .*differs/)).toBeVisible();
  await cell(page, /Paint, Room 2:/).click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Shift+ArrowDown");
  await page.getByRole("tab", { name: "In these 3 places" }).click();
  await expect(sheet(page)).toContainText(
    "What is set here is set in all 3 places.",
  );
  await expect(page.getByLabel("Coats here")).toHaveValue("*");
  await page.getByLabel("Coats here").selectOption("3");
  await expect(page.getByRole("gridcell", { name: /differs/ })).toHaveCount(3);
  await page.getByLabel("Colour here").fill("Samphire");
  await page.keyboard.press("Enter");
  await saved(page);

  // A condition that one of the places has is taken by all, and left by all.
  await sheet(page).getByText("Conditions only here").click();
  const occupied = sheet(page).getByLabel("occupied").first();
  await occupied.click();
  await saved(page);
  await expect(occupied).toBeChecked();
  await cell(page, /Paint, Room 5:/).click();
  await page.keyboard.press("Shift+ArrowUp");
  await expect(
    page.getByRole("tab", { name: "In these 2 places" }),
  ).toBeVisible();
  await expect(occupied).toHaveJSProperty("indeterminate", true);
  await expect(page.getByLabel("Colour here")).toHaveValue("");
  await expect(page.getByLabel("Colour here")).toHaveAccessibleDescription(
    "they differ",
  );

  await page.getByRole("button", { name: "Fall back to the item" }).click();
  await expect(page.getByRole("gridcell", { name: /differs/ })).toHaveCount(2);
  // Fall back, condition, colour, coats of three, coats of one: five edits.
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press("Control+z");
    await saved(page);
  }
  await expect(page.getByRole("gridcell", { name: /differs/ })).toHaveCount(0);
  await expect(hours).toHaveText(before);
});

test("cells of which some are not there, and cells of several kinds of work, say so", async ({
  page,
}) => {
  await rooms(page, "Stint House", 4);
  await addEverywhere(page, "Walls Paint", "Doors");
  await cell(page, /Paint, Room 2:/).click();
  await page.keyboard.press("Delete");
  await cell(page, /Paint, Room 1:/).click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.getByRole("tab", { name: "In these 2 places" }).click();
  await expect(sheet(page)).toContainText("in 1 of these 2 places");
  await cell(page, /Paint, Room 2:/).click();
  await page.keyboard.press("Shift+ArrowRight");
  await expect(sheet(page)).toContainText("Select within one column");
  await expect(page.getByRole("tab", { name: "In these" })).toHaveCount(0);
});

test("what is said of one cell, and what is hidden there, is what the customer reads", async ({
  page,
}) => {
  await rooms(page, "Turnstone House", 4);
  await addEverywhere(page, "Walls Paint", "Doors");
  const price = await tally(page, "Price before tax").innerText();
  await cell(page, /Paint, Room 3:/).click();
  await page.getByRole("tab", { name: "In Room 3" }).click();
  await sheet(page).getByText("What is said here").click();
  await page.getByLabel("Customer reads here").fill("Wipe-clean paint");
  await page.getByLabel("Customer note here").fill("By the sinks only.");
  await page.getByLabel("Customer note here").blur();
  await saved(page);
  await expect(cell(page, /Paint, Room 3: .*differs/)).toBeVisible();
  await cell(page, /Doors, Room 4:/).click();
  await page
    .getByLabel("What the customer sees here")
    .selectOption("hidden; its price is spread over the rest");
  await expect(cell(page, /Doors, Room 4: .*differs/)).toBeVisible();

  await page.getByRole("link", { name: /^Proposal/ }).click();
  const paper = page.getByRole("article");
  await expect(paper).toContainText("Wipe-clean paint");
  await expect(
    paper.getByRole("listitem").filter({ hasText: "Wipe" }),
  ).toHaveText(/Wipe-clean paint.*: ?Room 3\. By the sinks only\./);
  await expect(
    paper.getByRole("listitem").filter({ hasText: /doors/i }),
  ).toHaveText(/in every room except Room 4\./);
  await expect(paper).toContainText(price.replace(/[^\d.,]/g, ""));
});

test("find goes from match to match and brings each into view; a long grid too", async ({
  page,
}) => {
  await rooms(page, "Godwit House", 180);
  await addEverywhere(
    page,
    ...["Walls Paint", "Ceilings Paint", "Doors", "Skim coat", "Cover up"],
    ...["Sheet flooring", "Carpet tile", "Skirting, fit", "Acoustic ceiling"],
    "Fill and sand",
  );
  await cell(page, /Walls: Paint, Room 1:/).click();
  await expect(cell(page, /Walls: Paint, Room 150:/)).toHaveCount(0);
  await page.keyboard.press("Control+f");
  await page.keyboard.type("room 15");
  await page.keyboard.press("Enter");
  const find = page.getByRole("search");
  await expect(find.getByRole("status")).toHaveText("1 of 12");
  await expect(cell(page, /Walls: Paint, Room 15:/)).toBeInViewport();
  await page.keyboard.press("Shift+Enter");
  await expect(find.getByRole("status")).toHaveText("12 of 12");
  const far = cell(page, /Walls: Paint, Room 159:/);
  await expect(far).toBeInViewport();
  await expect(far).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Escape");
  await expect(far).toBeFocused();
  await page.keyboard.press("o");
  await expect(cell(page, /Walls: Paint, Room 159: .*excluded/)).toBeVisible();

  // A sentence is found too, and what is folded away is unfolded for it.
  await page
    .getByLabel("Say why, or what to leave")
    .fill("The tenant hangs a tapestry here");
  await page.keyboard.press("Enter");
  await saved(page);
  await far.click();
  await page.keyboard.press("-");
  await expect(far).toHaveCount(0);
  await page.keyboard.press("Control+f");
  await page.keyboard.press("Control+a");
  await page.keyboard.type("tapestry");
  await page.keyboard.press("Enter");
  await expect(find.getByRole("status")).toHaveText("1 of 1");
  await expect(far).toBeInViewport();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("zebra");
  await page.keyboard.press("Enter");
  await expect(find.getByRole("status")).toHaveText("not found");

  // How the grid was shown stands when one comes back to it.
  await page.getByRole("button", { name: "Quantities" }).click();
  await page.getByRole("link", { name: /^Price/ }).click();
  await page.getByRole("link", { name: /^Work/ }).click();
  await expect(
    page.getByRole("button", { name: "Quantities" }),
  ).toHaveAttribute("aria-pressed", "true");
});

test("a command for several cells of which one has changed since changes none", async ({
  page,
}) => {
  await rooms(page, "Curlew House", 3);
  await addEverywhere(page, "Walls Paint");
  const job = /\/jobs\/[^/]+/.exec(page.url())![0];
  const seen = await (await page.request.get(`/api${job}`)).json();
  const work = seen.work[0].id as string;
  const [one, two] = seen.places.map((p: { id: string }) => p.id) as string[];
  await command(page, {
    type: "setCells",
    work,
    field: "coats",
    at: [{ place: one, was: null, now: 3 }],
  });
  const answer = await page.request.post(`/api${job}/commands`, {
    data: sent({
      type: "setCells",
      work,
      field: "coats",
      at: [
        { place: two, was: null, now: 1 },
        { place: one, was: null, now: 1 },
      ],
    }),
  });
  expect(answer.status()).toBe(409);
  const own = await (
    await page.request.get(`/api${job}/cells/${work}/own`)
  ).json();
  expect(own.map((c: { place: string }) => c.place)).toEqual([one]);
});
