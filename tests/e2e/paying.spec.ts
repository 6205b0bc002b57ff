import { readFileSync } from "node:fs";
import { expect, test } from "./test";
import { accessible } from "./pages";
import { accepted } from "./sendPages";
import { addEverywhere, rooms } from "./workPages";

test("what is retained waits for the completion note and for snags; a discount is for paying early; papers go by mail", async ({
  page,
}) => {
  await rooms(page, "Petrel Court", 2);
  await addEverywhere(page, "Walls Paint");
  await accepted(page);
  await page.keyboard.press("Alt+5");

  // A snag, mended by keys, and written again as open.
  const snags = page.getByRole("region", { name: "Snags and completion" });
  await snags.getByRole("button", { name: "Write a snag" }).press("Enter");
  await page.keyboard.type("a run beside the door");
  const writing = page.getByRole("dialog", { name: "Write a snag" });
  await writing
    .getByRole("combobox", { name: "Where" })
    .selectOption({ label: "Room 1" });
  await accessible(page, "a snag that is written");
  await writing.getByRole("button", { name: "Write it" }).press("Enter");
  await expect(writing).toHaveCount(0);
  const snag = snags.getByRole("checkbox", {
    name: "a run beside the door: mended",
  });
  await snag.press("Space");
  await expect(snag).toBeChecked();
  await expect(snags).toContainText("mended");
  await snag.press("Space");
  await expect(snags).toContainText("1 open");

  // Five percent is kept back, and two percent saved within ten days.
  await page.getByRole("button", { name: "Invoices" }).press("Enter");
  const terms = page.getByRole("region", { name: "Terms of paying" });
  await expect(terms).toContainText("Nothing is retained");
  await terms.getByRole("button", { name: "Change" }).press("Enter");
  const agreeing = page.getByRole("dialog", { name: "Terms of paying" });
  await agreeing.getByRole("textbox", { name: "Retained" }).fill("5");
  await agreeing.getByRole("textbox", { name: "Given back" }).fill("50, 90");
  await agreeing
    .getByRole("button", { name: "They hold from now on" })
    .press("Enter");
  await expect(agreeing.getByRole("alert")).toContainText(
    "all that was retained",
  );
  await agreeing.getByRole("textbox", { name: "Given back" }).fill("50, 100");
  await agreeing
    .getByRole("textbox", { name: "Discount for paying early" })
    .fill("2");
  await agreeing.getByRole("textbox", { name: "Taken within" }).fill("10");
  await accessible(page, "terms of paying");
  await agreeing
    .getByRole("button", { name: "They hold from now on" })
    .press("Enter");
  await expect(agreeing).toHaveCount(0);
  await expect(terms).toContainText(
    "5 % of the value is retained, given back in steps to 50 %, 100 %",
  );

  // The last invoice waits for the note; half of the work is billed with what is retained said.
  const list = page.getByRole("region", { name: "Invoices", exact: true });
  await list.getByRole("button", { name: "New invoice" }).press("Enter");
  const making = page.getByRole("dialog", { name: "New invoice" });
  await making.getByRole("radio", { name: /^All that is open/ }).check();
  await expect(making.getByRole("alert")).toContainText(
    "waits for the completion note",
  );
  await making.getByRole("radio", { name: /^Work done to date/ }).check();
  await making.getByRole("textbox", { name: "Done to date" }).fill("50");
  await expect(
    making.getByRole("list", { name: "What it comes to" }),
  ).toContainText("Payable now");
  await making.getByRole("button", { name: "Issue it" }).press("Enter");
  await expect(making).toHaveCount(0);
  await expect(list).toContainText("retained");
  await expect(terms).toContainText("waits for the completion note");

  // It goes by mail.
  await list.getByRole("button", { name: /^Mail 20/ }).press("Enter");
  const mail = page.getByRole("dialog", { name: /^Mail 20/ });
  await mail
    .getByRole("textbox", { name: "To", exact: true })
    .fill("office@petrel.example");
  await accessible(page, "the mail of an invoice");
  await mail.getByRole("button", { name: "Send it" }).press("Enter");
  await expect(mail).toHaveCount(0);

  // Paid early, with the discount.
  await list.getByRole("button", { name: /^Payment for/ }).press("Enter");
  const paying = page.getByRole("dialog", { name: /^Payment for/ });
  const amount = paying.getByRole("textbox", { name: "Amount" });
  const whole = await amount.inputValue();
  await paying.getByRole("checkbox", { name: /^Paid early/ }).press("Space");
  await expect(amount).not.toHaveValue(whole);
  await accessible(page, "a payment with a discount");
  await paying.getByRole("button", { name: "Write it" }).press("Enter");
  await expect(paying).toHaveCount(0);
  await expect(list).toContainText("paid but for what is retained");
  await expect(list).toContainText("with a discount of");

  // The note is recorded; the open snag still holds the release, until it is mended.
  await page.getByRole("button", { name: "Work order" }).press("Enter");
  await snags.getByRole("button", { name: "Record the note" }).press("Enter");
  const note = page.getByRole("dialog", { name: "The completion note" });
  await note
    .getByRole("textbox", { name: "Who takes the work" })
    .fill("Ida Marrow");
  await note.getByRole("textbox", { name: "Day" }).fill("2099-01-01");
  await note.getByRole("textbox", { name: "Day" }).press("Enter");
  await expect(note.getByRole("alert")).toContainText("still to come");
  await note.getByRole("button", { name: "Close" }).press("Enter");
  await snags.getByRole("button", { name: "Record the note" }).press("Enter");
  await note
    .getByRole("textbox", { name: "Who takes the work" })
    .fill("Ida Marrow");
  await note.getByRole("button", { name: "Record it" }).press("Enter");
  await expect(note).toHaveCount(0);
  await expect(snags).toContainText("Taken by Ida Marrow");
  await page.getByRole("button", { name: "Invoices" }).press("Enter");
  await expect(terms).toContainText("1 snag open");
  await page.getByRole("button", { name: "Work order" }).press("Enter");
  await snag.press("Space");
  await expect(snag).toBeChecked();
  await accessible(page, "snags and completion");
  await page.getByRole("button", { name: "Invoices" }).press("Enter");
  await terms
    .getByRole("button", { name: /^Ask for the release of/ })
    .press("Enter");
  await expect(terms.getByRole("list", { name: "Releases" })).toContainText(
    "Release 1",
  );
  await accessible(page, "invoices with what is retained");
});

test("the Office says what e-invoices need, and an invoice has one beside its PDF", async ({
  page,
}) => {
  await page.goto("/office");
  const office = page.getByRole("region", { name: "E-invoices" });
  const country = office.getByRole("textbox", { name: "Country" });
  await country.fill("Ireland");
  await country.press("Enter");
  await expect(office.getByRole("alert")).toContainText("two letters");
  await country.fill("IE");
  await country.press("Enter");
  await expect(office.getByRole("alert")).toHaveCount(0);
  await office.getByRole("textbox", { name: "VAT number" }).fill("IE1234567T");
  await office
    .getByRole("textbox", { name: "Seller" })
    .fill("Larkspur & Pell Finishing");
  await office.getByRole("textbox", { name: "Seller" }).press("Enter");
  await rooms(page, "Dunlin Place", 1);
  await addEverywhere(page, "Walls Paint");
  await accepted(page);
  const job = page.url();
  await page.goto("/customers");
  await page.getByRole("button", { name: /^Dunlin Place/ }).press("Enter");
  const customer = page.getByRole("dialog", { name: "Dunlin Place" });
  await customer
    .getByRole("textbox", { name: "Country, two letters" })
    .fill("IE");
  await customer.getByRole("button", { name: "Keep" }).press("Enter");
  await expect(customer).toHaveCount(0);
  await page.goto(job);
  await expect(page.getByRole("region", { name: "Revisions" })).toBeVisible();
  await page.keyboard.press("Alt+5");
  await page.getByRole("button", { name: "Invoices" }).press("Enter");
  const list = page.getByRole("region", { name: "Invoices", exact: true });
  await list.getByRole("button", { name: "New invoice" }).press("Enter");
  const making = page.getByRole("dialog", { name: "New invoice" });
  await making.getByRole("radio", { name: /^All that is open/ }).check();
  await making.getByRole("button", { name: "Issue it" }).press("Enter");
  await expect(making).toHaveCount(0);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    list.getByRole("link", { name: /^E-invoice / }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^Invoice .*\.xml$/);
  const xml = readFileSync((await download.path())!, "utf8");
  expect(xml).toContain("urn:cen.eu:en16931:2017");
  expect(xml).toContain("Dunlin Place");
});
