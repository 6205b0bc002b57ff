import { expect, test } from "./test";
import { accessible, addWork, measure, newJob, saved } from "./pages";

test("what is mixed on the spot is spread as one and bought by its parts; the lot is counted in square yards", async ({
  page,
}) => {
  await newJob(page, "Plover Hardware", "Plover Hardware, lot");
  await measure(page, "Lot site 9000 ft2");
  await page.getByRole("link", { name: /^Work/ }).click();
  await addWork(page, "seal lot");
  await page.getByRole("gridcell", { name: /Seal lot, Lot/ }).click();
  await page.keyboard.press("i");
  await saved(page);
  await page.getByRole("button", { name: "Quantities" }).click();
  const cell = page.getByRole("gridcell", { name: /Seal lot, Lot/ });
  await expect(cell).toHaveAccessibleName(/1,000\.0 yd², included/);
  // In this job by the square of 100 ft².
  await page
    .getByRole("combobox", { name: "Counted in" })
    .selectOption("square");
  await expect(cell).toHaveAccessibleName(/90\.00 square, included/);
  await page.keyboard.press("Escape");
  await page.getByRole("link", { name: /^Price/ }).click();
  const goods = page.getByRole("region", { name: "Materials" });
  await expect(goods.getByText(/are mixed from/)).toContainText(
    /Lot sealer, mixed on the spot are mixed from .* Drive sealer, .* Water \(free\), .* Sealer additive and .* Sealer sand/,
  );
  await expect(goods.getByRole("row", { name: /^Drive sealer/ })).toBeVisible();
  await expect(goods.getByRole("row", { name: /^Water/ })).toHaveCount(0);
  // Every amount of it answers why.
  await goods.getByRole("button", { name: /Water/ }).click();
  await expect(
    page.getByRole("region", { name: "Workings" }).getByText(/25/).first(),
  ).toBeVisible();
  await page.keyboard.press("Escape");
  // The price is said for the area that the job has.
  await expect(
    page.getByRole("textbox", { name: /^Per ft² of .*area, to be$/ }),
  ).toBeVisible();
});

test("a mix is written in the Book, and what is wrong with it stands beside its field", async ({
  page,
}) => {
  await page.goto("/book");
  await page.getByRole("button", { name: "New entry" }).click();
  await page.getByRole("menuitem", { name: "material" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Slurry, mixed");
  await page.getByRole("button", { name: "Add it" }).click();
  const form = page.getByRole("region", { name: "Slurry, mixed" });
  await form.getByRole("combobox", { name: "Unit of use" }).selectOption("gal");
  await form.getByRole("combobox", { name: "Base" }).fill("Drive sealer");
  await page.getByRole("option", { name: "Drive sealer" }).click();
  await form.getByRole("button", { name: "Add a part" }).click();
  const part = form.getByRole("group", { name: "Added 1" });
  await part.getByLabel("How much").fill("35 %");
  await part.getByLabel("How much").press("Enter");
  await expect(part.getByText("a free part needs a name")).toBeVisible();
  await part.getByLabel("Name, where it is free").fill("Water");
  await part.getByLabel("Name, where it is free").press("Enter");
  await expect(form.getByRole("button", { name: "Add a part" })).toBeVisible();
  await expect(part.getByLabel("How much")).toHaveValue("35 %");
  await expect(form.getByRole("heading", { name: "Packs" })).toHaveCount(0);
  await accessible(page, "a mix in the Book");
});

test("goods of the supplier are put in a basket and added with work of theirs, which says what it still needs", async ({
  page,
}) => {
  await newJob(page, "Whimbrel Rooms", "Whimbrel Rooms");
  await measure(page, "Hall 12 x 10 x 8");
  await measure(page, "Study 12 x 11 x 8");
  await page.getByRole("link", { name: /^Work/ }).click();
  await expect(page.getByRole("region", { name: "Scope" })).toBeVisible();
  await page.keyboard.press("a");
  await page
    .getByRole("button", {
      name: "Not there? Look in the supplier's catalogue",
    })
    .click();
  const catalogue = page.getByRole("dialog", { name: "Supplier's catalogue" });
  await expect(catalogue.getByText("Stand-in.")).toBeVisible();
  await catalogue.getByLabel("Find goods").fill("deck oil moss");
  await expect(catalogue.getByText("1 found")).toBeVisible();
  await catalogue.getByLabel("Find goods").press("Enter");
  await catalogue.getByLabel("Find goods").fill("plank flooring ash plum");
  await catalogue
    .getByRole("button", {
      name: /Put in the basket: Plank flooring, ash, 14 mm, plum/,
    })
    .click();
  await accessible(page, "the catalogue");
  await catalogue.getByRole("button", { name: "Add 2 to the Book" }).click();
  await expect(
    catalogue.getByText(
      "4 entries added to the Book; 3 say what is still to be filled in.",
    ),
  ).toBeVisible();
  await catalogue.getByRole("button", { name: "Close" }).click();
  const find = page.getByRole("textbox", { name: "Find in the Book" });
  await find.fill("ash plum");
  await expect(
    page
      .getByRole("list", { name: "Entries" })
      .getByText("needs a role and a pace"),
  ).toBeVisible();
  // Places are picked by name or heading; the preview follows.
  await find.fill("skim coat");
  await page.getByRole("radio", { name: "places picked here" }).check();
  await page.getByLabel("Find places and headings").fill("hall");
  await page.getByRole("checkbox", { name: "Hall", exact: true }).check();
  await expect(
    page.getByRole("radio", { name: "these, 1 place" }),
  ).toBeChecked();
  await find.press("Enter");
  await page.keyboard.press("Escape");
  await expect(
    page.getByRole("gridcell", { name: /Skim.*, Hall: .*included/ }),
  ).toBeVisible();
  await expect(
    page.getByRole("gridcell", { name: /Skim.*, Study: none here/ }),
  ).toBeVisible();
  // The Book finds by what is remembered of a price.
  await page.getByRole("link", { name: "Book", exact: true }).click();
  await page.getByLabel("Find an entry").fill("14.50");
  await expect(
    page.getByRole("list", { name: "Found" }).getByText("Lettering on walls"),
  ).toBeVisible();
});

test("the list of jobs is put in order by its columns, narrowed, and stands so when one comes back", async ({
  page,
}) => {
  await page.goto("/jobs");
  const rows = page.getByRole("table", { name: "Jobs" }).getByRole("row");
  const names = () => rows.locator("td:nth-child(2)").allInnerTexts();
  await expect(rows.nth(1)).toBeVisible();
  await page.getByRole("button", { name: "Price before tax" }).click();
  await expect(
    page.getByRole("columnheader", { name: "Price before tax" }),
  ).toHaveAttribute("aria-sort", "descending");
  const prices = (await rows.locator("td:nth-child(7)").allInnerTexts()).map(
    (text) => Number(/^[\d,.]+/.exec(text)?.[0].replaceAll(",", "") ?? -1),
  );
  expect(prices.length).toBeGreaterThan(3);
  expect(prices).toEqual(prices.toSorted((a, b) => b - a));
  await page
    .getByRole("combobox", { name: "Customer" })
    .selectOption("Quayside Veterinary Clinic");
  // Its refit and its round.
  await expect(rows).toHaveCount(3);
  await rows.nth(1).getByRole("link").click();
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  await page.goBack();
  await expect(rows).toHaveCount(3);
  await page.getByRole("combobox", { name: "Customer" }).selectOption("");
  await page.getByRole("button", { name: "Job", exact: true }).click();
  await expect
    .poll(names)
    .toEqual(
      (await names()).toSorted((a, b) =>
        a.localeCompare(b, "en", { numeric: true, sensitivity: "base" }),
      ),
    );
  await accessible(page, "the list of jobs");
});

test("at 200 % zoom the grid has rows and the sheet stands below it; every station is usable at 640 wide", async ({
  page,
}) => {
  await newJob(page, "Dotterel Court", "Dotterel Court");
  await measure(page, "Hall 12 x 10 x 8");
  await measure(page, "Study 12 x 11 x 8");
  await page.getByRole("link", { name: /^Work/ }).click();
  await addWork(page, "skim coat");
  await page.setViewportSize({ width: 640, height: 400 });
  const cell = page.getByRole("gridcell", { name: /Skim.*, Study/ });
  await cell.scrollIntoViewIfNeeded();
  await expect(cell).toBeInViewport();
  await cell.click();
  await page.keyboard.press("i");
  await expect(cell).toHaveAccessibleName(/included/);
  // The side sheet does not lie over the grid.
  const grid = (await page
    .getByRole("region", { name: "Scope" })
    .boundingBox())!;
  const tab = (await page.getByRole("tab").first().boundingBox())!;
  expect(tab.y).toBeGreaterThanOrEqual(grid.y + grid.height);
  for (const station of [/^Measure/, /^Price/, /^Proposal/]) {
    await page.getByRole("link", { name: station }).click();
    await expect(page.getByRole("main")).not.toHaveAttribute("aria-busy");
    // Nothing has to be moved sideways to be read.
    await expect
      .poll(() =>
        page.evaluate(() => document.documentElement.scrollWidth <= innerWidth),
      )
      .toBe(true);
  }
});
