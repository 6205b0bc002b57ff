import { accessible } from "./pages";
import { type Page, expect, test } from "./test";

const round = "/jobs/01930000-0000-7000-8000-000000000995";
const region = (page: Page, name: string) =>
  page.getByRole("region", { name, exact: true });

async function open(page: Page, view: string) {
  await page.goto(`${round}/deliver`);
  await page.getByRole("button", { name: view, exact: true }).click();
}

test("visits of the year are said by keys: one left out comes off the contract, and a month is billed", async ({
  page,
}) => {
  await open(page, "Visits");
  const visits = region(page, "Visits");
  const months = page.getByRole("group", {
    name: "Months of the contract year",
  });
  await expect(months.getByRole("button")).toHaveCount(12);
  // The third month is shown; of what is past all was said.
  await expect(months.getByRole("button", { pressed: true })).toHaveCount(1);
  await expect(months.getByRole("button").nth(2)).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await accessible(page, "visits of a round");
  // A month is chosen by keys, and what stands in it is the month's.
  await months.getByRole("button").nth(3).press("Enter");
  const next = visits
    .getByRole("button", { name: /^Leave out: Fortnightly/ })
    .first();
  const called = (await next.getAttribute("aria-label"))!.replace(
    "Leave out: ",
    "",
  );
  await next.press("Enter");
  const dialog = page.getByRole("dialog", { name: `Leave out ${called}` });
  await expect(
    dialog.getByRole("button", { name: "Leave it out" }),
  ).toBeDisabled();
  await dialog
    .getByRole("textbox", { name: "Why" })
    .fill("the clinic is painted");
  await page.keyboard.press("Enter");
  await expect(dialog).toHaveCount(0);
  const row = visits
    .getByRole("row", { name: new RegExp(called.split(", ")[1]!) })
    .filter({ hasText: "Fortnightly" });
  await expect(row).toContainText("left out, not billed");
  await expect(row).toContainText("the clinic is painted");
  await page.getByRole("button", { name: "Invoices", exact: true }).click();
  const stands = region(page, "How the contract stands");
  // The demo has left one out, and this is another.
  await expect(stands).toContainText("less 2 visits that are not done");
  const plan = region(page, "Months of the contract year");
  await plan
    .getByRole("button", { name: /^Bill / })
    .first()
    .press("Enter");
  const invoice = page.getByRole("dialog", { name: "New invoice" });
  await expect(
    invoice.getByRole("radio", { name: "A month of the contract year" }),
  ).toBeChecked();
  await expect(
    invoice.getByRole("radio", { name: /Work done to date/ }),
  ).toHaveCount(0);
  await expect(invoice).toContainText("To be paid, with tax");
  await invoice.getByRole("button", { name: "Issue it" }).press("Enter");
  await expect(invoice).toHaveCount(0);
  await expect(region(page, "Invoices")).toContainText(
    "Month 1 of the contract year",
  );
  await expect(plan.getByRole("button", { name: /^Bill / })).toHaveCount(11);
  // Taken back, it is to come again.
  await page.getByRole("button", { name: "Visits", exact: true }).click();
  await months.getByRole("button").nth(3).press("Enter");
  await visits
    .getByRole("button", { name: `Take back: ${called}`, exact: true })
    .press("Enter");
  await expect(row).toContainText("to come");
  await page.getByRole("button", { name: "Invoices", exact: true }).click();
  await expect(stands).toContainText("less 1 visit that is not done");
});

test("a visit that is laid out is put on another day, and a crew says on its page that one was done", async ({
  page,
  browser,
}) => {
  await open(page, "Schedule");
  await page.getByRole("button", { name: "Lay it out" }).press("Enter");
  const lay = page.getByRole("dialog", { name: "Lay it out" });
  await expect(lay).toContainText("46 tasks");
  await lay.getByRole("button", { name: "Lay it out" }).press("Enter");
  await expect(lay).toHaveCount(0);
  await page.getByRole("button", { name: "Visits", exact: true }).click();
  await page
    .getByRole("group", { name: "Months of the contract year" })
    .getByRole("button")
    .nth(5)
    .press("Enter");
  const visits = region(page, "Visits");
  const move = visits
    .getByRole("button", { name: /^Move: Fortnightly/ })
    .first();
  const was = (await move.getAttribute("aria-label"))!.split(", ")[1]!;
  await move.press("Enter");
  const dialog = page.getByRole("dialog", { name: /^Move Fortnightly/ });
  const day = dialog.getByRole("textbox", { name: "To the day" });
  await day.fill("soon");
  await expect(dialog).toContainText("Write the day like 2027-01-31.");
  // Two days later, which is a Wednesday: the round goes by Mondays.
  const monday = new Date(`${await rowDay(page, was)}T12:00:00Z`);
  monday.setUTCDate(monday.getUTCDate() + 2);
  await day.fill(monday.toISOString().slice(0, 10));
  await expect(dialog).toContainText("Moves with it");
  await dialog.getByRole("button", { name: "Move it" }).press("Enter");
  await expect(dialog).toHaveCount(0);
  await expect(
    visits
      .getByRole("row")
      .filter({ hasText: `was ${was}` })
      .filter({ hasText: "Fortnightly" }),
  ).toHaveCount(1);
  // What was planned is undone by its keys.
  await page.keyboard.press("Control+z");
  await expect(visits.getByText(`was ${was}`)).toHaveCount(0);
  // A crew's page, on a telephone.
  await page.getByRole("button", { name: "Work order", exact: true }).click();
  await page.getByRole("button", { name: "New link" }).press("Enter");
  await page.keyboard.type("Sedge");
  await page
    .getByRole("dialog")
    .getByRole("button", { name: "Make the link" })
    .press("Enter");
  const address = await page
    .getByRole("dialog", { name: "The link of Sedge" })
    .getByRole("link")
    .innerText();
  const phone = await browser.newPage({
    viewport: { width: 390, height: 844 },
  });
  await phone.goto(address);
  const asked = region(phone, "Visits");
  const done = asked.getByRole("button", { name: /^Done: / }).first();
  await expect(done).toBeVisible();
  await accessible(phone, "a crew's visits");
  await done.press("Enter");
  await asked.getByRole("textbox", { name: "Hours" }).fill("2");
  await asked.getByRole("button", { name: "It was done" }).press("Enter");
  await expect(asked).toContainText("done · Sedge");
  await phone.close();
});

/** The day of a visit, as it is written: the office's own answer says it. */
async function rowDay(page: Page, words: string) {
  const view = (await (
    await page.request.get(`/api${round}/deliver/visits`)
  ).json()) as { visits: { words: string; day: string }[] };
  return view.visits.find((v) => v.words === words)!.day;
}
