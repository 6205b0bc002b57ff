import { readFileSync } from "node:fs";
import { expect, test } from "./test";
import { accessible, newJob, tally } from "./pages";

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

test("a mail server is set, what is none is refused beside its field, its password is shown to nobody, and it is tried", async ({
  page,
}) => {
  await page.goto("/office");
  const panel = page.getByRole("region", { name: "Mail server" });
  await expect(panel).toContainText("off: mail waits in the outbox");
  // Nobody answers at a port that is nobody's.
  const host = panel.getByRole("textbox", { name: "Server (SMTP)" });
  await host.fill("not a host");
  await host.press("Enter");
  await expect(panel.getByText("That is no name of a server.")).toBeVisible();
  await host.fill("127.0.0.1");
  await host.press("Enter");
  await panel.getByRole("textbox", { name: "Port" }).fill("9");
  await page.keyboard.press("Enter");
  await panel
    .getByRole("combobox", { name: "Encryption" })
    .selectOption({ label: "none: a server on this machine" });
  await panel.getByLabel("Password", { exact: true }).fill("open-sesame");
  await page.keyboard.press("Enter");
  await expect(panel).toContainText("there is one; it is shown to nobody");
  await expect(panel.getByLabel("Password", { exact: true })).toHaveValue("");
  await panel
    .getByRole("button", { name: "Send a mail to ourselves" })
    .press("Enter");
  await expect(panel.getByRole("status")).toContainText(
    "It did not go: the server could not be spoken to",
  );
  await panel
    .getByRole("checkbox", { name: "Take mail there by itself" })
    .click();
  await expect(panel).toContainText("mail goes there by itself");
  await expect(page.getByRole("region", { name: "Outbox" })).toContainText(
    "mail goes to your mail server",
  );
  await accessible(page, "the office with a mail server");
  // Off again, for whoever comes after.
  await panel
    .getByRole("checkbox", { name: "Take mail there by itself" })
    .click();
  await expect(panel).toContainText("off: mail waits in the outbox");
  await panel.getByRole("button", { name: "Forget it" }).press("Enter");
  await expect(panel).toContainText("with a key that is in no backup");
});
