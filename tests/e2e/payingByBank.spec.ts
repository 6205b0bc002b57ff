import { accessible } from "./pages";
import { accepted } from "./sendPages";
import { type Page, expect, test } from "./test";
import { addEverywhere, rooms } from "./workPages";

const region = (page: Page, name: string) =>
  page.getByRole("region", { name, exact: true });

/** A statement as camt.053 has it, of yesterday. */
function statement(entries: readonly { amount: string; words: string }[]) {
  const day = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  const ntry = entries.map(
    (e, i) =>
      `<Ntry><Amt Ccy="USD">${e.amount}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>${day}</Dt></BookgDt><AcctSvcrRef>E2E${i}</AcctSvcrRef><NtryDtls><TxDtls><RltdPties><Dbtr><Nm>M. Odd</Nm></Dbtr></RltdPties><RmtInf><Ustrd>${e.words}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>`,
  );
  return `<?xml version="1.0"?><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.02"><BkToCstmrStmt><Stmt>${ntry.join("")}</Stmt></BkToCstmrStmt></Document>`;
}

test("a bank file pays the invoice it names, once, and what is too much is used by a person", async ({
  page,
}) => {
  // Two invoices on account.
  await rooms(page, "Whimbrel Steps", 1);
  await addEverywhere(page, "Walls Paint");
  await accepted(page);
  await page.keyboard.press("Alt+5");
  await page.getByRole("button", { name: "Invoices", exact: true }).click();
  const numbers: string[] = [];
  for (const amount of ["11", "13"]) {
    await page.getByRole("button", { name: "New invoice" }).press("Enter");
    const dialog = page.getByRole("dialog", { name: "New invoice" });
    await dialog.getByRole("radio", { name: /An amount on account/ }).check();
    await dialog
      .getByRole("textbox", { name: "Amount before tax" })
      .fill(amount);
    await expect(dialog).toContainText("To be paid, with tax");
    await dialog.getByRole("button", { name: "Issue it" }).press("Enter");
    await expect(dialog).toHaveCount(0);
    numbers.push(
      await region(page, "Invoices").getByRole("rowheader").first().innerText(),
    );
  }
  await page.goto("/office");
  await page.getByRole("link", { name: "Bank" }).press("Enter");
  const file = region(page, "Bank file");
  const bring = (entries: readonly { amount: string; words: string }[]) =>
    page
      .getByLabel("Bank file", { exact: true })
      .last()
      .setInputFiles({
        name: "statement.xml",
        mimeType: "application/xml",
        buffer: Buffer.from(statement(entries)),
      });
  const came = [
    { amount: "100.00", words: `for ${numbers[0]}` },
    { amount: "2.00", words: "a present" },
  ];
  await bring(came);
  await expect(file).toContainText(
    "2 entries of money that came, 2 of them new",
  );
  await accessible(page, "a bank file");
  // What has found its invoice is ticked, what has not is not.
  await expect(file.getByRole("checkbox", { name: /^.*for / })).toBeChecked();
  await expect(
    file.getByRole("checkbox", { name: /a present/ }),
  ).not.toBeChecked();
  await expect(file).toContainText(`to ${numbers[0]}`);
  await file.getByRole("button", { name: "Take 1 in" }).press("Enter");
  const credits = region(page, "Money on no invoice");
  await expect(credits).toContainText(`for ${numbers[0]}`);
  await expect(region(page, "What is owed")).not.toContainText(numbers[0]!);
  // Once more: it says so, and only the other can be taken.
  await bring(came);
  await expect(file).toContainText("taken in before");
  await expect(file.getByRole("checkbox")).toHaveCount(1);
  // The rest is used for the other invoice.
  await credits.getByRole("button", { name: /^Use / }).first().press("Enter");
  const use = page.getByRole("dialog");
  await use
    .getByRole("combobox", { name: "For the invoice" })
    .selectOption({ label: await label(page, numbers[1]!) });
  const amount = use.getByRole("textbox", { name: "How much" });
  await amount.fill("1000000");
  await page.keyboard.press("Enter");
  await expect(use).toContainText("of that invoice is open");
  await amount.fill("1");
  await page.keyboard.press("Enter");
  await expect(use).toHaveCount(0);
  await expect(region(page, "Taken in last")).toContainText(
    `for ${numbers[0]}`,
  );
});

/** How an invoice is offered. */
async function label(page: Page, number: string) {
  const option = page
    .getByRole("dialog")
    .getByRole("option")
    .filter({ hasText: number });
  return (await option.innerText()).trim();
}
