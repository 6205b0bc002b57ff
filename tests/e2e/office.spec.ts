import { readFileSync } from "node:fs";
import { expect, test } from "./test";

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
