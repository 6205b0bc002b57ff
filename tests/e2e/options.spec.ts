import { accessible, saved, tally } from "./pages";
import { addEverywhere, rooms } from "./workPages";
import { type Page, expect, test } from "./test";

const region = (page: Page, name: string) =>
  page.getByRole("region", { name, exact: true });
const figure = (page: Page, name: string) =>
  region(page, "Alternates").getByRole("button", {
    name: new RegExp(`^${name}, price `),
  });

/** Three painted rooms, of which the ceilings are offered beside the price. */
async function offered(page: Page, name: string) {
  await rooms(page, name, 3);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+3");
  await page.getByRole("button", { name: "Worth", exact: true }).click();
  await page
    .getByRole("combobox", { name: "Ceilings stands" })
    .selectOption("alternate");
  await saved(page);
  await page.getByRole("button", { name: "Options", exact: true }).click();
}

async function make(page: Page, name: string, kind: RegExp, ticks: string[]) {
  await page
    .getByRole("button", { name: "New alternate", exact: true })
    .press("Enter");
  const dialog = page.getByRole("dialog", { name: "New alternate" });
  await dialog
    .getByRole("textbox", { name: "Name, as the customer reads it" })
    .fill(name);
  await dialog.getByRole("radio", { name: kind }).check();
  for (const tick of ticks)
    await dialog.getByRole("checkbox", { name: tick, exact: true }).press(" ");
  await page.keyboard.press("Enter");
  return dialog;
}

test("alternates that add and take off are named, put together, taken by one key and undone by one", async ({
  page,
}) => {
  await offered(page, "Whimbrel Row");
  const before = await tally(page, "Price before tax").innerText();
  await expect(region(page, "Alternates")).toContainText("Ceilings: Paint");
  // Two of the three ceilings under one name; the third stays by itself.
  const dialog = await make(page, "Two ceilings", /^adds/, [
    "Room 1",
    "Room 2",
  ]);
  await expect(dialog).toHaveCount(0);
  await expect(figure(page, "Two ceilings")).toBeVisible();
  await expect(figure(page, "Ceilings: Paint")).toBeVisible();
  await page
    .getByRole("button", { name: "Add to Two ceilings" })
    .press("Enter");
  const more = page.getByRole("dialog", { name: "Add to Two ceilings" });
  await more.getByRole("checkbox", { name: "Room 3", exact: true }).press(" ");
  await page.keyboard.press("Enter");
  await expect(figure(page, "Ceilings: Paint")).toHaveCount(0);
  await region(page, "Taken together").click();
  await page.keyboard.press("Control+z");
  await expect(figure(page, "Ceilings: Paint")).toBeVisible();
  // The walls of one room may be left out.
  await make(page, "Without room 3", /^takes off/, ["Room 3"]);
  await expect(figure(page, "Without room 3")).toContainText("−");
  // What some come to together, with its workings.
  for (const name of ["Two ceilings", "Without room 3"])
    await page
      .getByRole("checkbox", { name: `${name}, taken together` })
      .press(" ");
  const together = region(page, "Taken together");
  await expect(together).toContainText("As it stands, before rounding");
  await expect(together).toContainText("Without room 3");
  await together
    .getByRole("button", { name: /^Taken together, taken together/ })
    .press("e");
  await expect(region(page, "Workings")).toContainText("Taken together");
  await page.keyboard.press("Escape");
  const pays = await together
    .getByRole("button", { name: /^Customer pays, taken together/ })
    .innerText();
  // Taken for good, by one key each, the customer pays just that.
  await page.getByRole("button", { name: "Take Two ceilings" }).press("Enter");
  await page
    .getByRole("button", { name: "Take Without room 3" })
    .press("Enter");
  await expect(
    page.getByRole("button", { name: "Give back Without room 3" }),
  ).toBeVisible();
  await expect(tally(page, "Customer pays")).toHaveText(pays);
  await region(page, "Taken together").click();
  await page.keyboard.press("Control+z");
  await expect(
    page.getByRole("button", { name: "Take Without room 3" }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Give back Two ceilings" }).click();
  await expect(tally(page, "Price before tax")).toHaveText(before);
  // The customer reads them with their prices.
  await page.keyboard.press("Alt+4");
  await expect(page.getByText("Without room 3")).toBeVisible();
  await expect(page.getByText("Two ceilings")).toBeVisible();
});

test("a name that is taken is refused beside its field; an alternate is renamed and parted again", async ({
  page,
}) => {
  await offered(page, "Godwit Row");
  await make(page, "Ceilings later", /^adds/, ["Room 1"]);
  await expect(figure(page, "Ceilings later")).toBeVisible();
  const dialog = await make(page, "ceilings LATER", /^takes off/, ["Room 2"]);
  await expect(dialog).toContainText(
    "There is an alternate “Ceilings later” already.",
  );
  await dialog
    .getByRole("textbox", { name: "Name, as the customer reads it" })
    .fill("Without room 2");
  await page.keyboard.press("Enter");
  await expect(dialog).toHaveCount(0);
  const name = page.getByRole("textbox", { name: "Name of Ceilings later" });
  await name.fill("Ceilings next year");
  await name.press("Enter");
  await expect(figure(page, "Ceilings next year")).toBeVisible();
  await page
    .getByRole("button", { name: "Take the name Ceilings next year away" })
    .press("Enter");
  await expect(figure(page, "Ceilings next year")).toHaveCount(0);
  await expect(figure(page, "Ceilings: Paint")).toBeVisible();
  await page
    .getByRole("checkbox", { name: "Without room 2, taken together" })
    .check();
  await accessible(page, "options");
});

test("what other firms ask for a section stands side by side, is taken by one key and undone by one", async ({
  page,
}) => {
  await rooms(page, "Godwit Lane", 2);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+3");
  await page.getByRole("button", { name: "Options", exact: true }).click();
  const quotes = region(page, "Quotes of other firms");
  await quotes.getByRole("button", { name: "New quote" }).press("Enter");
  const dialog = page.getByRole("dialog", { name: "New quote" });
  await dialog
    .getByRole("combobox", { name: "Section" })
    .selectOption({ label: "Ceilings" });
  await dialog
    .getByRole("textbox", { name: "Who quotes" })
    .fill("the plasterer");
  await dialog
    .getByRole("textbox", { name: "Amount for all of it" })
    .fill("640");
  await dialog.getByRole("textbox", { name: "Holds until" }).fill("soon");
  await page.keyboard.press("Enter");
  await expect(dialog).toContainText("Write the last day like 2027-01-31.");
  await dialog.getByRole("textbox", { name: "Holds until" }).fill("2020-01-31");
  await dialog
    .getByRole("textbox", { name: "Leaves out, in words" })
    .fill("scaffolding");
  await page.keyboard.press("Enter");
  await expect(dialog).toHaveCount(0);
  const table = quotes.getByRole("table", { name: "Quotes for Ceilings" });
  await expect(table).toContainText("ends before your own prices do");
  await expect(table).toContainText("scaffolding");
  await expect(
    table.getByRole("button", { name: /^the plasterer, section costs/ }),
  ).toHaveText("640.00");
  const with_ = await table
    .getByRole("button", { name: /^the plasterer, price of the job/ })
    .innerText();
  await accessible(page, "quotes side by side");
  const before = await tally(page, "Price before tax").innerText();
  await table
    .getByRole("button", { name: "Take the plasterer" })
    .press("Enter");
  await expect(tally(page, "Price before tax")).toHaveText(with_);
  // Its workings lead to what was typed.
  await table
    .getByRole("button", { name: /^the plasterer, section costs/ })
    .press("e");
  await expect(region(page, "Workings")).toContainText("the plasterer");
  await page.keyboard.press("Escape");
  await quotes.getByRole("heading", { name: "Quotes of other firms" }).click();
  await page.keyboard.press("Control+z");
  await expect(tally(page, "Price before tax")).toHaveText(before);
  // What it leaves out is ours: then it does nothing of the section.
  await table.getByText("scaffolding").click();
  await table.getByRole("checkbox", { name: "Paint, ours" }).press(" ");
  await expect(
    table.getByRole("button", { name: /^the plasterer, price of the job/ }),
  ).toHaveText(before);
  await table
    .getByRole("button", { name: "Remove the plasterer" })
    .press("Enter");
  await expect(table).toHaveCount(0);
});

test("a supplier's table of seven hundred variations comes in as a choice, is found by typing and taken by one key; what does not go together is explained", async ({
  page,
}) => {
  await rooms(page, "Turnstone Hall", 2);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+3");
  await page.getByRole("button", { name: "Options", exact: true }).click();
  const choices = region(page, "Choices");
  await choices.getByRole("button", { name: "New choice" }).press("Enter");
  const dialog = page.getByRole("dialog", { name: "New choice" });
  await dialog
    .getByRole("textbox", { name: "Name, as the customer reads it" })
    .fill("Paint of the walls");
  await dialog.getByRole("radio", { name: /^from a supplier’s table/ }).check();
  const table = [
    "Product,Finish,Price,Code",
    ...Array.from(
      { length: 700 },
      (_, i) => `Tone ${i},matt,${40 + i / 10},T-${i}`,
    ),
  ].join("\n");
  await dialog.locator('input[type="file"]').setInputFiles({
    name: "variations.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(table),
  });
  await expect(dialog.getByText("700 variations")).toBeVisible();
  await dialog.getByRole("button", { name: "Make the choice" }).press("Enter");
  await expect(dialog).toHaveCount(0);
  const before = await tally(page, "Price before tax").innerText();
  await choices
    .getByRole("button", { name: "Options of Paint of the walls" })
    .press("Enter");
  const options = choices.getByRole("table", {
    name: "Options of Paint of the walls",
  });
  await expect(choices.getByRole("status")).toHaveText("1 to 20 of 700");
  await choices
    .getByRole("searchbox", { name: "Find an option of Paint of the walls" })
    .fill("T-699");
  await expect(choices.getByRole("status")).toHaveText("1 to 1 of 1");
  const difference = await options
    .getByRole("button", { name: /^Tone 699, matt, difference/ })
    .innerText();
  await options
    .getByRole("button", { name: "Take Tone 699, matt" })
    .press("Enter");
  await expect(options.getByRole("row", { name: /taken/ })).toBeVisible();
  await expect(tally(page, "Price before tax")).not.toHaveText(before);
  await expect(
    choices.getByRole("button", {
      name: /^Paint of the walls, difference/,
    }),
  ).toHaveText(difference);
  await choices
    .getByRole("button", { name: /^Paint of the walls, difference/ })
    .press("e");
  await expect(region(page, "Workings")).toContainText("Tone 699, matt");
  await page.keyboard.press("Escape");
  // A second choice, of which one option is only to be had with another tone.
  await choices.getByRole("button", { name: "New choice" }).press("Enter");
  await dialog
    .getByRole("textbox", { name: "Name, as the customer reads it" })
    .fill("Ceilings");
  await dialog
    .getByRole("combobox", { name: "Of which work" })
    .selectOption({ label: "Ceilings: Paint" });
  for (const [i, name, colour] of [
    [1, "plain", "white"],
    [2, "toned", "grey"],
  ] as const) {
    const option = dialog.getByRole("group", { name: `Option ${i}` });
    await option
      .getByRole("textbox", { name: `Option ${i}`, exact: true })
      .fill(name);
    await option.getByRole("textbox", { name: "Colour" }).fill(colour);
  }
  await dialog.getByRole("button", { name: "Make the choice" }).press("Enter");
  await expect(dialog).toHaveCount(0);
  await choices
    .getByRole("button", { name: "Options of Ceilings", exact: true })
    .press("Enter");
  await choices
    .getByRole("button", { name: "What toned needs and rules out" })
    .press("Enter");
  await choices
    .getByRole("textbox", { name: "Find what it needs or rules out" })
    .fill("T-12");
  await choices
    .getByRole("button", { name: "Only with Tone 12, matt" })
    .press("Enter");
  await expect(choices).toContainText(
    "“toned” (Ceilings) is only to be had with “Tone 12, matt” (Paint of the walls); “Tone 699, matt” is taken there.",
  );
  await expect(
    choices.getByRole("button", { name: "Take toned", exact: true }),
  ).toHaveCount(0);
  await accessible(page, "choices");
  // Both together are one step, and one step back.
  await choices
    .getByRole("button", { name: "Take toned with what it needs" })
    .press("Enter");
  const row = (name: string) =>
    choices
      .getByRole("table", { name: "Choices of the job" })
      .getByRole("row")
      .filter({ has: page.getByRole("textbox", { name: `Name of ${name}` }) });
  await expect(row("Paint of the walls")).toContainText("Tone 12, matt");
  await expect(row("Ceilings")).toContainText("toned");
  await choices.getByRole("heading", { name: "Choices" }).click();
  await page.keyboard.press("Control+z");
  await expect(row("Paint of the walls")).toContainText("Tone 699, matt");
  // The customer reads what may be chosen, and not who sells it.
  await page.keyboard.press("Alt+4");
  await expect(page.getByRole("main")).toContainText("and 688 others");
  await expect(page.getByRole("main")).not.toContainText("T-699");
});
