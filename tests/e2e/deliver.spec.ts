import { expect, test } from "./test";
import { accessible } from "./pages";
import { accepted, phone } from "./sendPages";
import { addEverywhere, rooms } from "./workPages";

test("with the yes a crew has its order on the telephone, ticks and writes hours, and the office sees both as they happen", async ({
  page,
  browser,
}) => {
  await rooms(page, "Sandpiper Terrace", 3);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+5");
  await expect(page.getByText("Nothing was accepted yet")).toBeVisible();
  await accepted(page);
  await page.keyboard.press("Alt+5");
  const order = page.getByRole("region", { name: "Work order" });
  const first = order.getByRole("region", { name: "Room 1", exact: true });
  await expect(first).toContainText("0 of 2 done");
  await accessible(page, "the work order");

  // The office ticks one and says that a part of another is done, by keys.
  await first
    .getByRole("checkbox", { name: "Paint, 2 coats, Room 1: done" })
    .first()
    .press("Space");
  await expect(first).toContainText("1 of 2 done");
  await first
    .getByRole("button", { name: /^How much of Paint.*, Room 1,/ })
    .last()
    .press("Enter");
  const part = page.getByRole("dialog");
  await part.getByRole("textbox").fill("101");
  await part.getByRole("textbox").press("Enter");
  await expect(part.getByRole("alert")).toContainText("0 to 100 %");
  await part.getByRole("textbox").fill("60");
  await part.getByRole("textbox").press("Enter");
  await expect(part).toHaveCount(0);
  await expect(first).toContainText("60 % done");

  // A link for one section; its address is said once.
  const links = page.getByRole("region", { name: "Crews' pages" });
  await links.getByRole("button", { name: "New link" }).press("Enter");
  await page.keyboard.type("Idris");
  const making = page.getByRole("dialog");
  await making.getByRole("checkbox", { name: "Walls" }).press("Space");
  await accessible(page, "a crew's new link");
  await making.getByRole("button", { name: "Make the link" }).press("Enter");
  const made = page.getByRole("dialog", { name: "The link of Idris" });
  const address = await made.getByRole("link").innerText();
  await page.keyboard.press("Escape");
  await expect(made).toHaveCount(0);
  await expect(links).toContainText("Walls");

  // What is to be mended is read on the telephone, and mended there.
  const snags = page.getByRole("region", { name: "Snags and completion" });
  await snags.getByRole("button", { name: "Write a snag" }).press("Enter");
  await page.keyboard.type("a run by the sill");
  const writingSnag = page.getByRole("dialog", { name: "Write a snag" });
  await writingSnag
    .getByRole("combobox", { name: "Where" })
    .selectOption({ label: "Room 1" });
  await writingSnag.getByRole("button", { name: "Write it" }).press("Enter");
  await expect(writingSnag).toHaveCount(0);

  const crew = await phone(browser, address);
  const mended = crew
    .getByRole("region", { name: "To be mended" })
    .getByRole("checkbox", { name: "a run by the sill: mended" });
  await mended.press("Space");
  await expect(mended).toBeChecked();
  await expect(
    snags.getByRole("checkbox", { name: "a run by the sill: mended" }),
  ).toBeChecked();
  const lobby = crew.getByRole("region", { name: "Room 2", exact: true });
  await expect(lobby).toContainText("0 of 1 done");
  await expect(crew.getByText("Ceilings")).toHaveCount(0);
  await accessible(crew, "a crew's page");
  await lobby.getByRole("checkbox").press("Space");
  await expect(lobby).toContainText("1 of 1 done");
  await expect(lobby).toContainText("done: Idris");
  // The office has it without asking.
  await expect(
    order.getByRole("region", { name: "Room 2", exact: true }),
  ).toContainText("done: Idris");

  // Hours by keys; what is refused stays beside its field.
  await crew.getByRole("button", { name: "Hours", exact: true }).press("Enter");
  const hours = crew.getByRole("textbox", { name: "Hours" });
  await crew
    .getByRole("combobox", { name: "On" })
    .selectOption({ label: "Walls: Paint" });
  await crew
    .getByRole("combobox", { name: "Where" })
    .selectOption({ label: "Room 2" });
  await hours.fill("30");
  await hours.press("Enter");
  await expect(crew.getByRole("alert")).toContainText("at most 24");
  await expect(hours).toHaveValue("30");
  await accessible(crew, "hours that are refused");
  await hours.fill("2.5");
  await hours.press("Enter");
  const written = crew.getByRole("region", { name: "Hours written here" });
  await expect(written).toContainText("2.5 h Idris");
  await expect(hours).toHaveValue("");

  // Used against allowed, in the office.
  await page.getByRole("button", { name: "Hours used" }).press("Enter");
  const used = page.getByRole("region", { name: "Hours used", exact: true });
  const walls = used.getByRole("row", { name: /^Walls: Paint/ });
  await expect(walls).toContainText("2.5");
  await expect(walls).toContainText("left out of the rate", {
    ignoreCase: true,
  });
  await expect(
    page.getByRole("list", { name: "Hours by person" }),
  ).toContainText("Idris");
  await page.getByRole("button", { name: "Write hours" }).press("Enter");
  const writing = page.getByRole("dialog", { name: "Write hours" });
  await writing.getByRole("textbox", { name: "Who" }).fill("Wyn");
  await writing.getByRole("textbox", { name: "Hours" }).fill("1.25");
  await writing
    .getByRole("combobox", { name: "For" })
    .selectOption({ label: "set-up and travel" });
  await writing.getByRole("button", { name: "Write them" }).press("Enter");
  await expect(writing).toHaveCount(0);
  await expect(used.getByRole("row", { name: /^Set-up/ })).toContainText("1.3");
  await accessible(page, "hours used");

  // Taken back on the telephone, it is gone in the office.
  await written
    .getByRole("button", { name: /^Take back 2\.5 h of Idris/ })
    .press("Enter");
  await expect(written).toContainText("Nothing yet.");
  await expect(
    page.getByRole("list", { name: "Hours written" }),
  ).not.toContainText("2.5 h");

  // The office looks at the page, and revokes the link.
  await page.getByRole("button", { name: "Work order" }).press("Enter");
  const look = await page
    .getByRole("link", { name: "Look at the page of Idris" })
    .getAttribute("href");
  const looked = await page.context().newPage();
  await looked.goto(look!);
  await expect(looked.getByText("What the crew sees")).toBeVisible();
  await expect(looked.getByRole("checkbox").first()).toBeDisabled();
  await looked.close();
  await page
    .getByRole("button", { name: "Revoke the link of Idris" })
    .press("Enter");
  await page.getByRole("button", { name: "Revoke it" }).press("Enter");
  await expect(links).toContainText("revoked");
  await crew.reload();
  await expect(
    crew.getByRole("heading", { name: "Nothing here" }),
  ).toBeVisible();
  await crew.context().close();
});

test("a step of the payment plan is billed, paid in parts, credited and billed again; the series of numbers is moved on", async ({
  page,
}) => {
  // The demo's gallery was accepted, with a payment plan.
  await page.goto(
    "/jobs/01930000-0000-7000-8000-000000000994/deliver?view=invoices",
  );
  const list = page.getByRole("region", { name: "Invoices", exact: true });
  await expect(list).toContainText("Nothing was billed yet");
  const plan = page.getByRole("region", { name: "Payment plan" });
  await plan
    .getByRole("button", { name: /^Bill / })
    .first()
    .press("Enter");
  const making = page.getByRole("dialog", { name: "New invoice" });
  const sums = making.getByRole("list", { name: "What it comes to" });
  await expect(sums).toContainText("To be paid, with tax");
  await accessible(page, "a new invoice");
  // By percent: what cannot be is said beside the field, and nothing can be issued.
  await making.getByRole("radio", { name: /^Work done to date/ }).check();
  const percent = making.getByRole("textbox", { name: "Done to date" });
  await percent.fill("140");
  await expect(making.getByRole("alert")).toContainText("at most 100 %");
  await expect(making.getByRole("button", { name: "Issue it" })).toBeDisabled();
  await making.getByRole("radio", { name: /^A step/ }).check();
  await expect(sums).toBeVisible();
  await expect(making.getByRole("button", { name: "Issue it" })).toBeEnabled();
  await making.getByRole("button", { name: "Issue it" }).press("Enter");
  await expect(making).toHaveCount(0);
  const first = list.getByRole("row", { name: /Step 1 of the payment plan/ });
  await expect(first).toContainText("open");
  const number = await first.getByRole("rowheader").innerText();
  expect(number).toMatch(/^20\d\d-\d{4}$/);
  await expect(plan).toContainText(number);

  await list
    .getByRole("button", { name: `Payment for ${number}` })
    .press("Enter");
  const paying = page.getByRole("dialog", { name: `Payment for ${number}` });
  const amount = paying.getByRole("textbox", { name: "Amount" });
  const all = await amount.inputValue();
  await amount.fill("0");
  await amount.press("Enter");
  await expect(paying.getByRole("alert")).toContainText("An amount");
  await amount.fill("1.50");
  await amount.press("Enter");
  await expect(paying).toHaveCount(0);
  await expect(first).toContainText("paid in part");
  await list
    .getByRole("button", { name: `Payment for ${number}` })
    .press("Enter");
  await expect(amount).not.toHaveValue(all);
  await page.keyboard.press("Enter");
  await expect(paying).toHaveCount(0);
  await expect(first).toContainText("paid");
  await expect(first).not.toContainText("in part");

  await list.getByRole("button", { name: `Credit ${number}` }).press("Enter");
  const crediting = page.getByRole("dialog", { name: `Credit ${number}` });
  await page.keyboard.type("billed too early");
  await page.keyboard.press("Enter");
  await expect(crediting).toHaveCount(0);
  await expect(first).toContainText("credited by");
  await expect(
    page.getByRole("region", { name: "How the contract stands" }),
  ).toContainText("To be given back");
  await expect(
    plan.getByRole("button", { name: /^Bill / }).first(),
  ).toBeVisible();
  // Billed again, a part of it is credited; what is more than is left is said beside the field.
  await plan
    .getByRole("button", { name: /^Bill / })
    .first()
    .press("Enter");
  await making.getByRole("button", { name: "Issue it" }).press("Enter");
  await expect(making).toHaveCount(0);
  await list
    .getByRole("button", { name: /^Credit / })
    .first()
    .press("Enter");
  const part = page.getByRole("dialog", { name: /^Credit / });
  await part.getByRole("radio", { name: "A part" }).check();
  const credited = part.getByRole("textbox", { name: /^Before tax/ }).first();
  await credited.fill("99999999");
  await part.getByRole("textbox", { name: "Why" }).fill("less was done");
  await part.getByRole("textbox", { name: "Why" }).press("Enter");
  await expect(part.getByRole("alert").first()).toContainText(
    "more than is left",
  );
  await credited.fill("10");
  await credited.press("Enter");
  await expect(part).toHaveCount(0);
  await expect(list).toContainText("Credits a part of");
  await accessible(page, "invoices");

  // The firm moves the series on, and says why.
  await page.goto("/office");
  const office = page.getByRole("region", { name: "Invoices", exact: true });
  await office
    .getByRole("button", { name: "Move the series on" })
    .press("Enter");
  await page.getByRole("textbox", { name: "The next number is" }).fill("90");
  await page.getByRole("textbox", { name: "Why" }).fill("the old books");
  await page.keyboard.press("Enter");
  await expect(
    office.getByRole("list", { name: "Gaps that a person made" }),
  ).toContainText("the old books");
  await expect(office).toContainText(/the next is 20\d\d-0090/);
  await accessible(page, "the office with its numbers");
});
