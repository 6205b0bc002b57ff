import { readFileSync } from "node:fs";
import { type Page, expect, test } from "./test";
import { accessible, addWork, measure, newJob, tally } from "./pages";

/** The entry whose page is open. */
function entry(page: Page, name: string) {
  return page.getByRole("region", { name, exact: true });
}

/** Finds an entry by typing and opens the first. */
async function open(page: Page, words: string, name: string) {
  await page.getByLabel("Find an entry").fill(words);
  await expect(
    page.getByRole("list", { name: "Found" }).getByRole("button").first(),
  ).toContainText(name);
  await page.getByLabel("Find an entry").press("Enter");
  await expect(entry(page, name)).toBeVisible();
}

/** A figure of the trial. */
function tried(page: Page, label: string) {
  return page
    .getByRole("list", { name: "What it comes to" })
    .getByRole("button", { name: new RegExp(`^${label} `) });
}

test("an assembly with a question, a chained driver and an either-or group is written, tried and used on a job", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await page.goto("/book");
  await page.getByRole("button", { name: "New entry" }).click();
  await page.getByRole("menuitem", { name: "assembly" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Cork border");
  await page.getByRole("button", { name: "Add it" }).click();
  const form = entry(page, "Cork border");

  // A question: how much border.
  await form
    .getByRole("button", { name: "Ask something when it is used" })
    .click();
  const question = form.getByRole("group", { name: "Questions 1" });
  await question.getByLabel("Question", { exact: true }).fill("Border length");
  await question.getByLabel("Question", { exact: true }).press("Enter");
  await question.getByLabel("Usual answer").fill("30");
  await question.getByLabel("Usual answer").press("Enter");
  await expect(
    form.getByRole("group", { name: "Questions 1", exact: true }),
  ).toBeVisible();

  async function part(
    name: string,
    costs: string,
    what: string,
    driver: string,
    ratio: string,
    or?: string,
  ) {
    // An assembly without a part asks for the first.
    const add = form.getByRole("button", { name: "Add a part" });
    if (await add.isVisible()) await add.click();
    const group = form.getByRole("group", { name: "New part" });
    await group.getByLabel("Part", { exact: true }).fill(name);
    await group.getByLabel("Costs as").selectOption(costs);
    await group.getByRole("combobox", { name: /Role|Material/ }).fill(what);
    await page.getByRole("option", { name: what, exact: true }).click();
    await group.getByLabel("Driven by").selectOption({ label: driver });
    await group.getByLabel("How much").fill(ratio);
    if (or) {
      await group.getByText("Layer, coats, either-or").click();
      await group.getByLabel("Either this or").selectOption({ label: or });
    }
    return group;
  }
  // A rate of the wrong kind is refused beside its field and stays there to be mended.
  const strip = await part(
    "Aluminium",
    "material",
    "Edge strip, aluminium",
    "Border length",
    "1 gal per ft",
  );
  await strip.getByRole("button", { name: "Keep the part" }).click();
  await expect(strip.getByRole("alert")).toContainText(
    "“1 gal per ft” does not turn",
  );
  await strip.getByLabel("How much").fill("1 ft per ft");
  await strip.getByRole("button", { name: "Keep the part" }).click();
  await expect(strip).toHaveCount(0);
  const white = await part(
    "White",
    "material",
    "Tile edge, white PVC",
    "Border length",
    "1 ft per ft",
    "Aluminium",
  );
  await white.getByRole("button", { name: "Keep the part" }).click();
  await expect(white).toHaveCount(0);
  // Fixing follows whatever strip is taken.
  const fix = await part(
    "Fix the strip",
    "labour",
    "Joiner",
    "Aluminium",
    "12 ft per h",
  );
  await fix.getByRole("button", { name: "Keep the part" }).click();
  await expect(fix).toHaveCount(0);

  // 30 ft and 5 % waste are 31.5 ft, four lengths of 2.5 m; fixing takes the net 30 ft.
  await expect(tried(page, "Joiner")).toHaveText("2.5h");
  await expect(tried(page, "Edge strip, aluminium, bought")).toHaveText("10m");
  await page.getByLabel("Border length").fill("60");
  await expect(tried(page, "Joiner")).toHaveText("5h");
  await page
    .getByLabel("Try it")
    .getByLabel("Aluminium", { exact: true })
    .selectOption({ label: "White" });
  await expect(tried(page, "Tile edge, white PVC, bought")).toHaveText("64ft");
  await expect(tried(page, "Joiner")).toHaveText("5h");
  await tried(page, "Joiner").click();
  const drawer = page.getByRole("region", { name: "Workings" });
  await drawer.getByRole("button", { name: /Fix the strip/ }).click();
  await expect(drawer).toContainText("÷ 12 ft/h");
  await page.keyboard.press("Escape");

  await newJob(page, "Dulse Row Clinic", "Corridors");
  await measure(page, "Corridor 40 x 6 x 9");
  await page.getByRole("link", { name: /^Work/ }).click();
  await addWork(page, "cork border");
  const cell = page.getByRole("gridcell", { name: /Cork border, Corridor/ });
  await cell.click();
  await page.keyboard.press("i");
  await expect(cell).toHaveAccessibleName(/included/);
  const sheet = page.getByRole("complementary", { name: "Work item" });
  await sheet.getByLabel("Border length, ft").fill("92");
  await sheet.getByLabel("Border length, ft").press("Enter");
  // Nothing but the border takes time: 92 ft at 12 ft an hour, 7.667 h.
  await expect(tally(page, "Labour")).toHaveText("7.7h");
  await sheet
    .getByRole("combobox", { name: /Aluminium/ })
    .selectOption({ label: "White" });
  await page.getByRole("link", { name: /^Price/ }).click();
  await expect(page.getByRole("region", { name: "Materials" })).toContainText(
    "Tile edge, white PVC",
  );
});

test("a new rate begins empty, says what it needs, and is refused in a job until it has it; what was begun stays", async ({
  page,
}) => {
  await page.goto("/book");
  await page.getByRole("button", { name: "New entry" }).click();
  await page.getByRole("menuitem", { name: "rate", exact: true }).click();
  await page.getByLabel("Name", { exact: true }).fill("Casein glaze");
  await page.getByRole("button", { name: "Add it" }).click();
  const form = entry(page, "Casein glaze");
  await expect(
    form.getByText("Before it can be used it needs a role and a pace."),
  ).toBeVisible();
  const pace = form.getByRole("group", { name: "Pace 1" });
  await expect(pace.getByLabel("For all coats together")).toHaveValue("");
  // What cannot be is refused beside the field, and is still there after another entry was looked at.
  await pace.getByLabel("For all coats together").fill("quick");
  await pace.getByLabel("For all coats together").press("Enter");
  await expect(pace.getByText(/quick/)).toBeVisible();
  await open(page, "Skim coat", "Skim coat");
  await open(page, "Casein glaze", "Casein glaze");
  await expect(pace.getByLabel("For all coats together")).toHaveValue("quick");
  // A job takes no unfinished entry, and says why.
  await newJob(page, "Teal Cottage", "Teal Cottage");
  await measure(page, "Hall 10 x 12 x 8");
  await page.getByRole("link", { name: /^Work/ }).click();
  await page.getByRole("button", { name: "Add work", exact: true }).click();
  await page.getByLabel("Find in the Book").fill("Casein glaze");
  await page.getByLabel("Find in the Book").press("Enter");
  await expect(
    page.getByText(
      "Casein glaze needs a role in the Book before it can be used.",
    ),
  ).toBeVisible();
  await page.goto("/book");
  await open(page, "Casein glaze", "Casein glaze");
  await form.getByRole("combobox", { name: "Role" }).fill("Painter");
  await page.getByRole("option", { name: "Painter", exact: true }).click();
  await pace.getByLabel("For all coats together").fill("90 ft² per h");
  await pace.getByLabel("For all coats together").press("Enter");
  await expect(form.getByText("Before it can be used")).toHaveCount(0);
  // The next number of coats begins without a pace.
  await form.getByRole("button", { name: "Add a number of coats" }).click();
  const second = form.getByRole("group", { name: "Pace 2" });
  await expect(second.getByLabel("Coats", { exact: true })).toHaveValue("2");
  await expect(second.getByLabel("For all coats together")).toHaveValue("");
});

test("a part that was refused stays while another is opened, and on another entry", async ({
  page,
}) => {
  await page.goto("/book");
  await open(page, "Oak boards", "Oak boards");
  const form = entry(page, "Oak boards");
  await form.getByRole("button", { name: "Add a part" }).click();
  const added = form.getByRole("group", { name: "New part" });
  await added.getByLabel("Part", { exact: true }).fill("Felt below");
  await added.getByRole("button", { name: "Keep the part" }).click();
  await expect(added.getByRole("alert")).toContainText(
    "Choose what it costs as.",
  );
  await form.getByRole("button", { name: "Lay", exact: true }).click();
  await expect(form.getByRole("group", { name: "Part Lay" })).toBeVisible();
  await expect(added.getByLabel("Part", { exact: true })).toHaveValue(
    "Felt below",
  );
  await open(page, "Skim coat", "Skim coat");
  await open(page, "Oak boards", "Oak boards");
  await expect(added.getByLabel("Part", { exact: true })).toHaveValue(
    "Felt below",
  );
  await added.getByRole("button", { name: "Leave it as it was" }).click();
  await expect(added).toHaveCount(0);
});

test("a rate is found, copied and changed, and its versions lead back", async ({
  page,
}) => {
  await page.goto("/book");
  await open(page, "limewash", "Limewash");
  await page.getByRole("button", { name: "Copy", exact: true }).click();
  const copy = entry(page, "Limewash, copy");
  await expect(copy).toBeVisible();
  const pace = copy
    .getByRole("group", { name: "Pace 2" })
    .getByLabel("For all coats together");
  await expect(pace).toHaveValue("8.2 m² per h");
  await pace.fill("9 gallons");
  await pace.press("Enter");
  await expect(copy.getByRole("alert")).toContainText("is not a rate");
  await expect(pace).toHaveValue("9 gallons");
  await pace.fill("0.1 h per m²");
  await pace.press("Enter");
  // Read back the other way round, with what a hundred take.
  await expect(copy).toContainText("10 m² per h · 100 m²: 10 h");
  await page.getByRole("button", { name: "Versions" }).click();
  const versions = page.getByRole("dialog");
  await expect(versions).toContainText(
    "paces 2: pace: 8.2 m² per h → 0.1 h per m²",
  );
  await versions.getByRole("button", { name: "Go back to version 1" }).click();
  await expect(pace).toHaveValue("8.2 m² per h");
  await page.getByRole("button", { name: "Archive" }).click();
  await page.getByLabel("Find an entry").fill("limewash");
  await expect(page.getByRole("list", { name: "Found" })).not.toContainText(
    "copy",
  );
  await page.getByRole("button", { name: "Delete" }).click();
  await expect(page.getByText("It may have been deleted")).toBeVisible();
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(copy).toBeVisible();
});

test("a material shows its picture, and only a picture", async ({ page }) => {
  await page.goto("/book");
  await open(page, "panel adhesive", "Panel adhesive");
  const shown = entry(page, "Panel adhesive");
  const choose = shown.getByLabel(/^Picture: /);
  await choose.setInputFiles({
    name: "picture.png",
    mimeType: "image/png",
    buffer: Buffer.from("no picture at all"),
  });
  await expect(shown.getByRole("alert")).toHaveText(
    "That is not a PNG, JPEG or WebP picture.",
  );
  await choose.setInputFiles({
    name: "picture.png",
    mimeType: "image/png",
    buffer: Buffer.from(
      "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
      "base64",
    ),
  });
  const picture = shown.getByRole("img", { name: "Picture of Panel adhesive" });
  await expect(picture).toBeVisible();
  await expect(shown.getByRole("alert")).toHaveCount(0);
  expect(
    await picture.evaluate((img: HTMLImageElement) => img.naturalWidth),
  ).toBe(1);
  await shown.getByRole("button", { name: "Take the picture away" }).click();
  await expect(picture).toBeHidden();
});

test("a table with changes, new entries and a bad row shows what it would do, and is taken by choice", async ({
  page,
}) => {
  await page.goto("/book");
  await page.getByRole("button", { name: "In and out" }).click();
  const dialog = page.getByRole("dialog");
  const lines = [
    "Kind,Name,Section,Unit,Packs,Waste %",
    "material,Radiator enamel,Paint,qt,1 qt tin: 1 at 31.20,3",
    "material,Sea-green glaze,Paint,qt,1 qt tin: 1 at 40,2",
    "material,Broken pot,Paint,qt,a pot,2",
  ];
  await dialog
    .getByLabel("A CSV or .xlsx file, headings in its first row")
    .setInputFiles({
      name: "prices.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(lines.join("\n")),
    });
  await expect(dialog).toContainText("1 new, 1 changed, 0 the same");
  await expect(dialog).toContainText("packs 1: price: 27.6 → 31.2");
  await expect(
    dialog.getByRole("list", { name: "Rows that cannot be read" }),
  ).toContainText("Row 3: Broken pot: Packs: “a pot” is not a pack");
  const take = dialog.getByRole("button", { name: "Take 2 entries" });
  await expect(take).toBeDisabled();
  await dialog.getByLabel(/Leave out the 1 row/).check();
  await take.click();
  await expect(dialog).toContainText("1 new, 1 changed.");
  // The file of the whole Book comes in again and changes nothing.
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    dialog.getByRole("link", { name: "Book file (.json)" }).click(),
  ]);
  const file = readFileSync(await download.path());
  await dialog.getByLabel("A Book file (.json)").setInputFiles({
    name: "Book.json",
    mimeType: "application/json",
    buffer: file,
  });
  await expect(dialog).toContainText("0 new, 0 changed");
  await dialog.getByRole("button", { name: "Close" }).click();
  await open(page, "sea-green", "Sea-green glaze");
});

test("supplier prices are marked as a stand-in, say which jobs would move, and are taken by choice", async ({
  page,
}) => {
  await page.goto("/book");
  await page.getByRole("button", { name: "Supplier prices" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("Stand-in.");
  const jobs = dialog.getByRole("region", { name: "Jobs that would move" });
  await expect(jobs).toContainText("Saltmarsh Lending Library");
  const boxes = dialog.getByRole("checkbox");
  const all = await boxes.count();
  for (let i = 1; i < all; i++) await boxes.nth(i).uncheck();
  const take = dialog.getByRole("button", { name: "Take 1 into the Book" });
  await take.click();
  await expect(dialog).toContainText("1 prices taken");
  await expect(dialog.getByRole("checkbox")).toHaveCount(all - 1);
});

test("no accessibility violations on any Book view", async ({ page }) => {
  // Fifteen whole-page checks, each several seconds where the machine is busy with other work.
  test.setTimeout(400_000);
  const check = (what: string) => accessible(page, what);
  await page.goto("/book");
  await expect(page.getByText(/^\d+ found$|^first \d+ of \d+$/)).toBeVisible();
  await check("list");
  const entries = [
    ["fill and sand", "Fill and sand"],
    ["resin-bound", "Resin-bound path, 18 mm"],
    ["notice board", "Notice board, oiled frame"],
    ["stain-block", "Stain-block primer"],
    ["labourer", "Labourer"],
    ["scissor", "Scissor lift"],
    ["asbestos survey", "Asbestos survey"],
    ["occupied", "occupied"],
    ["profiled", "Profiled sheet"],
    ["up the coast", "Up the coast"],
    ["weather", "Weather"],
  ] as const;
  for (const [words, name] of entries) {
    await open(page, words, name);
    await check(name);
  }
  await open(page, "resin-bound", "Resin-bound path, 18 mm");
  await page.getByRole("button", { name: "Gravel, slate" }).click();
  await page.getByText("Layer, coats, either-or").click();
  await check("a part");
  await page.getByRole("button", { name: "Versions" }).click();
  await expect(page.getByRole("dialog")).toContainText("Version 1");
  await check("versions");
  await page.getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: "In and out" }).click();
  await check("in and out");
  await page.getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: "Supplier prices" }).click();
  await expect(
    page.getByRole("region", { name: "Jobs that would move" }),
  ).toBeVisible();
  await check("supplier prices");
});
