import { readFileSync } from "node:fs";
import { accessible, measure, newJob, saved, tally } from "./pages";
import { command, rooms, addEverywhere } from "./workPages";
import { type Page, expect, test } from "./test";
import { sheets } from "./workbook";

const region = (page: Page, name: string) =>
  page.getByRole("region", { name, exact: true });
const built = (page: Page) => region(page, "How the price is built");
const typed = (page: Page, what: string) =>
  region(page, "Type any one of these").getByRole("textbox", {
    name: `${what}, to be`,
  });
/** A term of the job, by its label. */
const term = (page: Page, name: string) =>
  page.getByRole("textbox", { name, exact: true });

async function keep(page: Page, name: string, text: string) {
  await term(page, name).fill(text);
  await term(page, name).press("Enter");
  await saved(page);
}

/** Three painted rooms on the Price station. */
async function painted(page: Page, name: string) {
  await rooms(page, name, 3);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+3");
  await expect(built(page)).toBeVisible();
}

test("a price is typed: what would move is said, Esc leaves it, Enter keeps it, and below the floor it wants a reason", async ({
  page,
}) => {
  await painted(page, "Redshank Terrace");
  const before = await tally(page, "Price before tax").innerText();
  await typed(page, "Price before tax").fill("2000");
  await expect(page.getByText(/profit markup 18 → /)).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByText(/profit markup 18 → /)).toHaveCount(0);
  await expect(tally(page, "Price before tax")).toHaveText(before);

  await typed(page, "Price before tax").fill("2,000.00");
  await expect(page.getByText(/profit markup 18 → /)).toBeVisible();
  await page.keyboard.press("Enter");
  // A job of three rooms at 2,000 is far above its target.
  await expect(tally(page, "Price before tax")).toHaveText("2,000.00");
  await page.keyboard.press("Control+z");
  await expect(tally(page, "Price before tax")).toHaveText(before);

  await typed(page, "Margin").fill("20");
  const reason = page.getByRole("textbox", {
    name: "Why it goes below your floor",
  });
  await expect(reason).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toHaveText(
    "Say why it goes below your floor.",
  );
  await reason.fill("A slow month");
  await reason.press("Enter");
  await expect(tally(page, "Margin")).toHaveText("20.0%");
  await expect(term(page, "Why it goes out below your floor")).toHaveValue(
    "A slow month",
  );
  // The check is answered with it.
  await page.keyboard.press("Alt+2");
  await page.getByRole("button", { name: /check/i }).first().click();
  await expect(page.getByText("A slow month")).toBeVisible();
});

test("what cannot be had is said beside the field: no number, a margin of 100, a total between two cents", async ({
  page,
}) => {
  await painted(page, "Turnstone Yard");
  await typed(page, "Margin").fill("100");
  await expect(page.getByRole("alert")).toContainText(
    "no price is high enough",
  );
  await typed(page, "Margin").fill("a lot");
  await expect(page.getByRole("alert")).toContainText("Write a number");
  await page.keyboard.press("Escape");
  // Everything taxed at 7 %: 1,000.07 lies between 934.64 and 934.65 before tax.
  const taxes = region(page, "Taxes");
  for (const on of ["labour", "equipment", "subcontracts", "fixed charges"]) {
    await taxes.getByRole("checkbox", { name: on }).click();
    await saved(page);
  }
  await typed(page, "Customer pays").fill("1000.07");
  await expect(
    page.getByRole("button", { name: "Take 1,000.06" }),
  ).toBeVisible();
  await page
    .getByRole("textbox", { name: "Why it goes below your floor" })
    .fill("Friends");
  await page.getByRole("button", { name: "Take 1,000.08" }).click();
  await expect(tally(page, "Customer pays")).toHaveText("1,000.08");
});

test("the ways of pricing stand side by side, one is chosen and taken back; a role without a rate is named", async ({
  page,
}) => {
  await painted(page, "Sanderling Road");
  const before = await tally(page, "Price before tax").innerText();
  await built(page)
    .getByRole("button", { name: /compare or change/ })
    .click();
  const ways = page.getByRole("dialog");
  await expect(ways.getByRole("row", { name: /Cost plus/ })).toContainText(
    before,
  );
  await expect(ways.getByRole("row", { name: /Unit prices/ })).toContainText(
    "has no unit price",
  );
  // What another way would bring says how, too.
  await ways
    .getByRole("button", { name: /^Target margin, price before tax/ })
    .click();
  const workings = page.getByRole("region", { name: "Workings" });
  await expect(workings).toContainText("Price before tax");
  // It stands above the dialog: what is in it can be pressed.
  await workings.getByRole("button", { name: "Close" }).click();
  await expect(workings).toHaveCount(0);
  await ways.getByRole("button", { name: "Choose target margin" }).click();
  await expect(ways).toHaveCount(0);
  await expect(tally(page, "Margin")).toHaveText("45.0%");
  await keep(page, "Target margin", "50");
  await expect(tally(page, "Margin")).toHaveText("50.0%");
  // Out of the field, whose own Ctrl+Z is for what is typed in it.
  await term(page, "Target margin").blur();
  await page.keyboard.press("Control+z");
  await expect(tally(page, "Margin")).toHaveText("45.0%");
  await page.keyboard.press("Control+z");
  await expect(tally(page, "Price before tax")).toHaveText(before);
});

test("least charges, discounts, fees, brackets and rounding stand in order, each with its words", async ({
  page,
}) => {
  await painted(page, "Whimbrel Lane");
  await keep(page, "Least, the job", "3000");
  const discounts = region(page, "Discounts");
  await discounts.getByRole("button", { name: "Add a discount" }).click();
  await page.keyboard.type("Second job");
  await page.keyboard.press("Tab");
  await page.keyboard.type("5 %");
  await page.keyboard.press("Enter");
  await saved(page);
  // 5 % of 3,000 goes below the least charge, and says so.
  await expect(
    built(page).getByRole("listitem").filter({ hasText: "Discount 5 %" }),
  ).toContainText("Second job, below the least charge of the job");
  await expect(tally(page, "Price before tax")).toHaveText("2,850.00");
  await keep(page, "Round to", "100");
  await expect(tally(page, "Price before tax")).toHaveText("2,900.00");
  const after = region(page, "After the basis");
  await after.getByRole("button", { name: "Add a fee" }).click();
  await page.keyboard.type("Card");
  await page.keyboard.press("Tab");
  await page.keyboard.type("2.9");
  await page.keyboard.press("Enter");
  await saved(page);
  // 2,850 ÷ 0.971 = 2,935.12, to the nearest 100.
  await expect(tally(page, "Price before tax")).toHaveText("2,900.00");
  await expect(
    built(page).getByRole("button", { name: /^Card 85.12/ }),
  ).toBeVisible();
  const order = await built(page)
    .getByRole("listitem")
    .locator("b")
    .allInnerTexts();
  expect(order.slice(-7)).toEqual([
    "Least charge of the job",
    "Discount 5 %",
    "Card",
    "Rounding",
    "Price before tax",
    "Sales tax",
    "Customer pays",
  ]);
  // A discount without a reason is refused, and what was typed stays.
  await discounts.getByRole("button", { name: "Add a discount" }).click();
  await page.keyboard.press("Tab");
  await page.keyboard.type("50");
  await page.keyboard.press("Enter");
  await expect(discounts.getByRole("alert")).toContainText("needs its reason");
  await expect(
    discounts.getByRole("textbox", { name: "5 % or money, new discount" }),
  ).toHaveValue("50");
  // The customer reads the discount on the paper.
  await page.keyboard.press("Alt+4");
  await expect(
    page.getByRole("article").getByRole("row", { name: /Discount/ }),
  ).toContainText("Second job");
});

test("a section has its own basis and least charge; a policy is taken, bent and fallen back to", async ({
  page,
}) => {
  await painted(page, "Avocet House");
  const sections = region(page, "Sections");
  await sections
    .getByRole("combobox", { name: "Ceilings is priced by" })
    .selectOption({ label: "fixed price" });
  await saved(page);
  await sections
    .getByRole("textbox", { name: "Fixed price, Ceilings" })
    .fill("640");
  await page.keyboard.press("Enter");
  await saved(page);
  await expect(
    built(page).getByRole("button", { name: /^Ceilings 640.00/ }),
  ).toBeVisible();
  // Paint on walls has no unit price: said, and nothing is changed.
  await sections
    .getByRole("combobox", { name: "Walls is priced by" })
    .selectOption({ label: "unit prices" });
  await expect(page.getByText(/Walls: Paint has no unit price/)).toBeVisible();

  const profit = term(page, "Profit");
  await keep(page, "Profit", "25");
  const cost = region(page, "On the cost");
  await expect(cost).toContainText("≠ policy: 18");
  await cost
    .getByRole("button", { name: "Fall back to the policy, profit" })
    .click();
  await expect(profit).toHaveValue("18");
  await expect(cost).not.toContainText("≠");
});

test("the firm's policies are made in the Office, and a job takes one", async ({
  page,
}) => {
  await page.goto("/office");
  const policies = region(page, "Price policies");
  await policies.getByRole("button", { name: "Copy as a new policy" }).click();
  await expect(
    policies.getByRole("textbox", { name: "Name", exact: true }),
  ).toHaveValue(/, copy/);
  await policies
    .getByRole("textbox", { name: "Name", exact: true })
    .fill("Quick work");
  await page.keyboard.press("Enter");
  await expect(
    policies.getByRole("combobox", { name: "Policy", exact: true }),
  ).toContainText("Quick work");
  const least = policies.getByRole("textbox", { name: "Least, the job" });
  await least.fill("-5");
  await least.press("Enter");
  await expect(
    policies.getByText("A least charge is not below zero."),
  ).toBeVisible();
  await least.fill("450");
  await least.press("Enter");
  await expect(
    policies.getByText("A least charge is not below zero."),
  ).toHaveCount(0);
  await page.reload();
  await accessible(page, "policies");

  await newJob(page, "Knot Cottage", "Knot Cottage");
  await page.keyboard.press("Alt+3");
  await page
    .getByRole("combobox", { name: "Price policy" })
    .selectOption({ label: "Quick work" });
  await expect(term(page, "Least, the job")).toHaveValue("450");
});

test("a house is priced while each scope's worth is written down; a piece is left out, offered and put back", async ({
  page,
}) => {
  await newJob(page, "Plover House", "Plover House");
  for (const line of [
    "Hall 12 x 8 x 9; door 3 x 6'8",
    "Parlour 15 x 13 x 9; door 3 x 6'8; window 4 x 4",
    "Kitchen 14 x 11 x 9; door 3 x 6'8; window 4 x 3",
  ])
    await measure(page, line);
  await page.keyboard.press("Alt+2");
  // From here on: a key, a click, or a line typed is one action.
  let actions = 1;
  const pieces = region(page, "By section");
  const worth = new Map<string, string>();
  for (const [find, section] of [
    ["Walls Paint", "Walls"],
    ["Ceilings Paint", "Ceilings"],
    ["Skirting, fit", "Woodwork"],
  ] as const) {
    await expect(page.getByRole("region", { name: "Scope" })).toBeVisible();
    // A, all places, what to find, Enter, Escape.
    await addEverywhere(page, find);
    actions += 5;
    await page.keyboard.press("Alt+3");
    await page.getByRole("button", { name: "Worth", exact: true }).click();
    actions += 2;
    const row = pieces.getByRole("listitem").filter({ hasText: section });
    await expect(row).toBeVisible();
    worth.set(
      section,
      await row.getByRole("button", { name: /, worth/ }).innerText(),
    );
    await page.keyboard.press("Alt+2");
    actions += 1;
  }
  expect([...worth.keys()]).toEqual(["Walls", "Ceilings", "Woodwork"]);
  expect(actions).toBeLessThanOrEqual(40);

  await page.keyboard.press("Alt+3");
  await expect(pieces).toContainText("They need not add up");
  const before = await tally(page, "Price before tax").innerText();
  const stands = page.getByRole("combobox", { name: "Ceilings stands" });
  await stands.selectOption("left out");
  await expect(pieces).toContainText("Not in the price");
  await expect(tally(page, "Price before tax")).not.toHaveText(before);
  await page
    .getByRole("combobox", { name: "Ceilings stands" })
    .selectOption("alternate");
  await page.keyboard.press("Alt+4");
  await expect(page.getByRole("article")).toContainText(
    "Alternates, not in the price",
  );
  await page.keyboard.press("Alt+3");
  await page
    .getByRole("combobox", { name: "Ceilings stands" })
    .selectOption("in the price");
  await expect(tally(page, "Price before tax")).toHaveText(before);
  // Why? is answered by both estimates.
  await pieces.getByRole("button", { name: /^Walls, worth/ }).click();
  await expect(page.getByRole("region", { name: "Workings" })).toContainText(
    "Worth: price with it less price without",
  );
  await page.keyboard.press("Escape");
  await accessible(page, "worth");
  await page.getByRole("button", { name: "Build-up" }).click();
  await accessible(page, "build-up");
});

test("the cost sheet is taken out by keyboard, on paper and as a workbook whose formulas are live", async ({
  page,
}) => {
  await painted(page, "Curlew Bank");
  async function taken(name: string) {
    const link = page.getByRole("link", { name });
    await link.focus();
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.keyboard.press("Enter"),
    ]);
    const file = readFileSync(await download.path());
    return { name: download.suggestedFilename(), file };
  }
  const paper = await taken("Cost sheet, PDF");
  expect(paper.name).toMatch(/^Cost sheet \d+\.pdf$/);
  expect(paper.file.subarray(0, 5).toString()).toBe("%PDF-");
  const book = await taken("Cost sheet, workbook with live prices");
  expect(book.name).toMatch(/^Cost sheet \d+\.xlsx$/);
  const [price, lines] = sheets(book.file);
  expect(price).toContain("Customer pays");
  // Three rooms, walls and ceilings: six quantities, and each line's hours, costs and price are formulas.
  expect(lines!.match(/<x:row /g)!.length).toBeGreaterThanOrEqual(8);
  expect(lines!.match(/<x:f>/g)!.length).toBeGreaterThanOrEqual(6 * 4);
});

test("brackets go by any measure in any unit of its kind", async ({ page }) => {
  await painted(page, "Knot Hill");
  await page
    .getByRole("combobox", { name: "Brackets by size" })
    .selectOption("Walls, net");
  await expect(built(page).getByText("10 % from 0 ft²")).toBeVisible();
  await page
    .getByRole("combobox", { name: "Its edges are in" })
    .selectOption("m²");
  // Below the edge there is nothing on top: three rooms have about 90 m² of wall.
  await keep(page, "From, bracket 1", "200");
  await expect(built(page).getByText(/^10 % from/)).toHaveCount(0);
  await keep(page, "From, bracket 1", "50");
  await expect(built(page).getByText("10 % from 50 m²")).toBeVisible();
  await page.getByRole("button", { name: "Build-up" }).focus();
  await page.keyboard.press("Control+z");
  await expect(built(page).getByText(/^10 % from/)).toHaveCount(0);
});

test("a customer who pays no tax says so once: the job shows that it differs and takes it", async ({
  page,
}) => {
  await painted(page, "Whimbrel Wharf");
  await expect(built(page).getByText(/^not charged/)).toHaveCount(0);
  await page.getByRole("link", { name: "Customers", exact: true }).click();
  await page
    .getByRole("button", { name: /Whimbrel Wharf/ })
    .first()
    .click();
  const form = page.getByRole("dialog", { name: "Whimbrel Wharf" });
  await form
    .getByRole("combobox", { name: "No tax is charged" })
    .selectOption("exempt");
  const why = form.getByRole("textbox", { name: "Why none is charged" });
  await why.fill("");
  await form.getByRole("button", { name: "Keep" }).click();
  await expect(
    form.getByText("Say in at most 200 characters why no tax is charged."),
  ).toBeVisible();
  await why.fill("certificate 4711");
  await form.getByRole("button", { name: "Keep" }).click();
  await expect(form).toHaveCount(0);
  await page.goBack();
  const taxes = region(page, "Taxes");
  await expect(taxes).toContainText("certificate 4711");
  await taxes.getByRole("button", { name: "Take it" }).click();
  await expect(
    built(page).getByText("not charged: certificate 4711").first(),
  ).toBeVisible();
  await expect(taxes.getByRole("button", { name: "Take it" })).toHaveCount(0);
});

test("work sold by the unit: its price stands in the sheet, and a section goes by it", async ({
  page,
}) => {
  await rooms(page, "Dotterel Row", 2);
  await addEverywhere(page, "Walls Paint");
  const sheet = page.getByRole("complementary", { name: "Work item" });
  await page.getByRole("gridcell", { name: /Walls: Paint, Room 1/ }).click();
  await sheet.getByRole("tab", { name: /Everywhere/ }).click();
  await sheet.getByText("Unit price and least charge").click();
  const price = sheet.getByRole("textbox", { name: /^Unit price, per ft²/ });
  await price.fill("1.5");
  await price.press("Enter");
  await saved(page);
  await command(page, {
    type: "chooseBasis",
    was: "markup",
    now: "unitPrice",
    fixedPrice: null,
  });
  await page.keyboard.press("Alt+3");
  await expect(
    built(page).getByText("by unit prices", { exact: true }),
  ).toBeVisible();
  // Walls of 10 x 9 and 11 x 10, 8 high, less a door of 20 ft² and a window of 12: 272 and 304 ft² at 1.50.
  await expect(tally(page, "Price before tax")).toHaveText("864.00");
});
