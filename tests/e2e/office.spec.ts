import { readFileSync } from "node:fs";
import { expect, test } from "./test";
import { newJob, tally } from "./pages";

test("a backup is made at once, stands in the list, and how many are kept is checked beside the field", async ({
  page,
}) => {
  await page.goto("/office");
  const backups = page.getByRole("region", { name: "Backups" });
  await backups.getByRole("button", { name: "Make one now" }).click();
  const made = backups
    .getByRole("list", { name: "Backups there are" })
    .getByRole("listitem");
  await expect(made.first()).toHaveText(
    /^emendum-\d{4}-\d\d-\d\d\.db made at \d\d:\d\d UTC$/,
  );
  const name = (await made.first().textContent())!.split(" ")[0]!;
  const words = (await backups.textContent())!;
  const folder = /They stand in (.*?); copy/.exec(words)![1]!;
  expect(
    readFileSync(`${folder}/${name}`).subarray(0, 15).toString("latin1"),
  ).toBe("SQLite format 3");
  const daily = backups.getByRole("textbox", { name: "Daily backups kept" });
  await expect(daily).toHaveValue("7");
  await daily.fill("0");
  await daily.press("Enter");
  await expect(backups.getByText("Keep 1 to 365 daily backups.")).toBeVisible();
  await daily.fill("9");
  await daily.press("Enter");
  await expect(backups.getByText("Keep 1 to 365 daily backups.")).toHaveCount(
    0,
  );
  await page.reload();
  await expect(daily).toHaveValue("9");
});

test("the crew that the firm has set is the crew of a new job; what no crew is, is refused beside the field", async ({
  page,
}) => {
  await page.goto("/office");
  const panel = page.getByRole("region", { name: "What new jobs begin with" });
  const people = panel.getByLabel("Crew, people");
  const usual = await people.inputValue();
  await people.fill("0");
  await people.press("Enter");
  await expect(panel.getByText("A crew is 1 to 999 people.")).toBeVisible();
  await people.fill("5");
  await people.press("Enter");
  await expect(panel.getByText("A crew is 1 to 999 people.")).toHaveCount(0);
  await newJob(page, "Dunlin Works", "Dunlin Works");
  await expect(tally(page, "Crew of 5")).toBeVisible();
  await page.goto("/office");
  await expect(people).toHaveValue("5");
  await people.fill(usual);
  await people.press("Enter");
  await page.reload();
  await expect(people).toHaveValue(usual);
});
