import { accessible, saved, tally } from "./pages";
import { addEverywhere, rooms } from "./workPages";
import { type Page, expect, test } from "./test";

const region = (page: Page, name: string) =>
  page.getByRole("region", { name, exact: true });
const price = (page: Page, variant: string) =>
  page.getByRole("button", {
    name: new RegExp(`^${variant}, price before tax `),
  });

test("variants stand side by side, one is taken by one key, its edits are its own, and undo takes it back", async ({
  page,
}) => {
  await rooms(page, "Sanderling Place", 3);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+3");
  await page.getByRole("button", { name: "Options", exact: true }).click();
  const before = await tally(page, "Price before tax").innerText();
  await page
    .getByRole("button", { name: "New variant", exact: true })
    .press("Enter");
  await page
    .getByRole("textbox", { name: "Name of the new variant" })
    .fill("Walls alone");
  await page.keyboard.press("Enter");
  await expect(price(page, "Walls alone")).toHaveText(before);
  await expect(price(page, "As first made")).toHaveText(before);
  await page.getByRole("button", { name: "Take Walls alone" }).press("Enter");
  await expect(
    page.getByRole("button", { name: "Take As first made" }),
  ).toBeVisible();
  // Every station says which one it is.
  await expect(page.getByText(/ · variant Walls alone$/)).toBeVisible();
  // The ceilings leave this one, and stay in the other.
  await page.getByRole("button", { name: "Worth", exact: true }).click();
  await page
    .getByRole("combobox", { name: "Ceilings stands" })
    .selectOption("left out");
  await saved(page);
  await page.getByRole("button", { name: "Options", exact: true }).click();
  await expect(price(page, "As first made")).toHaveText(before);
  await expect(price(page, "Walls alone")).not.toHaveText(before);
  await expect(price(page, "Walls alone")).toHaveText(
    await tally(page, "Price before tax").innerText(),
  );
  // What differs, with its workings.
  await page
    .getByRole("button", { name: "What differs in As first made" })
    .press("Enter");
  const differs = page.getByRole("table", {
    name: "What differs in As first made",
  });
  await expect(differs).toContainText("Ceilings: Paint");
  await expect(differs).toContainText("3 cells");
  await differs
    .getByRole("button", { name: /^Ceilings: Paint, price, theirs less ours/ })
    .press("e");
  await expect(region(page, "Workings")).toContainText("theirs less ours");
  await page.keyboard.press("Escape");
  await price(page, "As first made").press("e");
  await expect(region(page, "Workings")).toContainText("Price before tax");
  await page.keyboard.press("Escape");
  await accessible(page, "variants");
  // The first is taken again, by one key, and given back by one.
  await page.getByRole("button", { name: "Take As first made" }).press("Enter");
  await expect(tally(page, "Price before tax")).toHaveText(before);
  await region(page, "Variants").click({ position: { x: 5, y: 5 } });
  await page.keyboard.press("Control+z");
  await expect(tally(page, "Price before tax")).not.toHaveText(before);
  // What is refused stands beside its field.
  const name = page.getByRole("textbox", { name: "Name of As first made" });
  await name.fill("walls alone");
  await name.press("Enter");
  await expect(
    page.getByText("There is a variant “Walls alone” already."),
  ).toBeVisible();
  await name.press("Escape");
  await page.getByRole("button", { name: "Remove As first made" }).click();
  await expect(region(page, "Variants")).toContainText(
    "A variant begins as the job stands.",
  );
});
