import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { type Page, expect, test } from "./test";
import { accessible, library, newJob, pottery, saved } from "./pages";
import { addEverywhere, rooms } from "./workPages";

const demoPictures = "../src/Emendum.Storage/Demo/Pictures";
const blocks = (page: Page) =>
  page.getByRole("list", { name: "Blocks in their order" });
const block = (page: Page, name: RegExp) =>
  blocks(page).getByRole("button", { name });
const paper = (page: Page) =>
  page.getByRole("region", { name: "Proposal as the customer sees it" });
const titles = async (page: Page) =>
  (
    await blocks(page)
      .getByRole("button")
      .evaluateAll((all) =>
        all.map((b) =>
          (b.lastElementChild?.firstChild?.textContent ?? "").trim(),
        ),
      )
  ).filter(Boolean);

test("a proposal is written on its page by keys: words with figures that follow, order, hiding, undo", async ({
  page,
}) => {
  await rooms(page, "Turnstone House", 2);
  await addEverywhere(page, "Walls Paint");
  await page.keyboard.press("Alt+4");
  await block(page, /^Letter/).press("w");
  await page.keyboard.type("You pay *{tot");
  const offered = page.getByRole("listbox", { name: "Figures by name" });
  await expect(offered.getByRole("option")).toHaveText([/^total /]);
  await page.keyboard.press("Enter");
  await page.keyboard.type("* in all.\n\n- swept each evening");
  await accessible(page, "a block while it is written");
  await page.keyboard.press("Control+Enter");
  await saved(page);
  const letter = paper(page).getByRole("region", { name: "Letter" });
  const total = letter.getByRole("button", { name: /^total .*why\?$/ });
  await expect(letter.getByRole("listitem")).toHaveText("swept each evening");
  const before = await total.innerText();
  // The figure answers why, and follows an edit of the price.
  await total.press("e");
  await expect(page.getByRole("region", { name: "Workings" })).toContainText(
    "Customer pays",
  );
  await page.keyboard.press("Escape");
  await page.keyboard.press("Alt+3");
  await page.getByRole("textbox", { name: "Overhead", exact: true }).fill("44");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.keyboard.press("Alt+4");
  await expect(total).not.toHaveText(before);
  await expect(total).toHaveText(
    await paper(page)
      .getByRole("row", { name: /^Total/ })
      .getByRole("button")
      .innerText(),
  );
  // A name that is none is refused below, and what was typed stays.
  await block(page, /^Letter/).press("w");
  const area = page.getByRole("combobox", { name: "Words of Letter" });
  await area.press("Control+End");
  await page.keyboard.type(" {what}");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("alert")).toContainText(
    "There is no figure “what”",
  );
  await expect(area).toHaveValue(/\{what\}$/);
  await page.keyboard.press("Escape");
  await expect(area).toHaveCount(0);
  // Order by keys, and hiding; each is one step back.
  await block(page, /^Terms/).press("Alt+ArrowUp");
  await expect
    .poll(async () => (await titles(page)).slice(-3))
    .toEqual(["Terms", "What to expect", "Signatures"]);
  await block(page, /^Signatures/).dragTo(block(page, /^Terms/));
  await expect
    .poll(async () => (await titles(page)).slice(-3))
    .toEqual(["Signatures", "Terms", "What to expect"]);
  await block(page, /^Price/).press("h");
  await expect(block(page, /^Price/)).toContainText("hidden");
  await expect(paper(page).getByRole("row", { name: /^Total/ })).toHaveCount(0);
  await expect(
    page.getByRole("region", { name: "Before it goes out" }),
  ).toContainText("The price is not among what is read.");
  await page.keyboard.press("Control+z");
  await expect(paper(page).getByRole("row", { name: /^Total/ })).toBeVisible();
});

test("payment steps always come to the total; what does not is refused beside them", async ({
  page,
}) => {
  await rooms(page, "Whimbrel Court", 1);
  await addEverywhere(page, "Walls Paint");
  await page.keyboard.press("Alt+4");
  const holes = page.getByRole("region", { name: "Before it goes out" });
  await expect(holes).toContainText("No payment steps.");
  await holes.getByRole("button", { name: "Show it" }).press("Enter");
  const settings = page.getByRole("region", { name: "Block: Payment steps" });
  const add = async (when: string, much: string) => {
    await settings.getByRole("button", { name: "Add a payment step" }).click();
    await settings
      .getByRole("textbox", { name: "When, new payment step" })
      .fill(when);
    await settings
      .getByRole("textbox", { name: /what is left, new payment step$/ })
      .fill(much);
    await page.keyboard.press("Enter");
  };
  await add("on acceptance", "60 %");
  await expect(settings.getByRole("alert")).toContainText(
    "The steps come to 60 %.",
  );
  await settings
    .getByRole("textbox", { name: /what is left, new payment step$/ })
    .fill("");
  await page.keyboard.press("Enter");
  await expect(
    settings.getByRole("textbox", { name: "When, payment step 1" }),
  ).toHaveValue("on acceptance");
  await add("deposit", "30 %");
  await expect(holes).not.toContainText("No payment steps.");
  const rows = paper(page)
    .getByRole("region", { name: "Payment steps" })
    .getByRole("row");
  await expect(rows).toHaveCount(3);
  const cents = async (n: number) =>
    Math.round(
      Number(
        (await rows.nth(n).getByRole("button").innerText()).replace(/,/g, ""),
      ) * 100,
    );
  expect((await cents(0)) + (await cents(1))).toBe(await cents(2));
  // Half a cent goes to the earlier step.
  expect(Math.abs((await cents(2)) * 0.3 - (await cents(1)))).toBeLessThan(1);
});

test("texts of the Book are taken by one key, written otherwise for a job, and kept", async ({
  page,
}) => {
  await newJob(page, "Redshank Row", "Redshank Row");
  await page.keyboard.press("Alt+4");
  await block(page, /^Terms/).press("1");
  await expect(block(page, /^Terms/)).toContainText("as in the Book");
  await block(page, /^Terms/).press("w");
  await page.getByRole("combobox", { name: "Words of Terms" }).fill("Cash.");
  await page.keyboard.press("Control+Enter");
  await expect(block(page, /^Terms/)).toContainText("written for this job");
  const settings = page.getByRole("region", { name: "Block: Terms" });
  await settings.getByRole("button", { name: "Back to the Book’s" }).click();
  await expect(block(page, /^Terms/)).toContainText("as in the Book");
  // Words of a block without a text become a new one.
  await block(page, /^What to expect/).press("w");
  await page.keyboard.type("Ladders are locked at night.");
  await page.keyboard.press("Control+Enter");
  const expecting = page.getByRole("region", { name: "Block: What to expect" });
  await expecting.getByRole("button", { name: "Keep in the Book" }).click();
  await page
    .getByRole("textbox", { name: "Name of the text" })
    .fill("Ladders at night");
  await page.keyboard.press("Enter");
  await expect(block(page, /^What to expect/)).toContainText("as in the Book");
  await page.goto("/book");
  await page.getByLabel("Find an entry").fill("Ladders at night");
  await page
    .getByRole("list", { name: "Found" })
    .getByText("Ladders at night")
    .click();
  await expect(page.getByRole("combobox", { name: "Text" })).toHaveValue(
    "Ladders are locked at night.",
  );
});

test("pictures with captions and attached files are brought in, put in order by keys, undone, and stand on page and PDF", async ({
  page,
}) => {
  await newJob(page, "Knot Lane", "Knot Lane");
  await page.keyboard.press("Alt+4");
  await block(page, /^What we will do/).click();
  await page
    .getByRole("combobox", { name: "Add a block" })
    .selectOption({ label: "Pictures" });
  const settings = page.getByRole("region", { name: "Block: Pictures" });
  const drawn = (name: string) => readFileSync(`${demoPictures}/${name}.jpg`);
  const files = (...names: string[]) =>
    names.map((name) => ({
      name: `${name}.jpg`,
      mimeType: "image/jpeg",
      buffer: drawn(name),
    }));
  await settings.getByLabel(/^Pictures: PNG/).setInputFiles([
    ...files("gravel"),
    {
      name: "notes.txt",
      mimeType: "text/plain",
      buffer: Buffer.from("no picture"),
    },
  ]);
  await expect(settings.getByRole("alert")).toContainText(
    "notes.txt is not a PNG, JPEG or WebP picture.",
  );
  // What is one has come in all the same.
  const captions = settings.getByRole("textbox", { name: /^Caption/ });
  await expect(captions).toHaveCount(1);
  await settings.getByLabel(/^Pictures: PNG/).setInputFiles(files("bricks"));
  await expect(captions).toHaveCount(2);
  await captions.first().fill("Gravel of the path");
  await captions.first().press("Enter");
  const onPage = paper(page).getByRole("region", { name: "Pictures" });
  await expect(
    onPage.getByRole("img", { name: "Gravel of the path" }),
  ).toBeVisible();
  await accessible(page, "a block of pictures");
  // By keys, and the key stays under the hand.
  await settings
    .getByRole("button", { name: "Move Gravel of the path down" })
    .press("Enter");
  await expect(captions.last()).toHaveValue("Gravel of the path");
  await expect(
    settings.getByRole("button", { name: "Move Gravel of the path up" }),
  ).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(captions.first()).toHaveValue("Gravel of the path");
  await settings.getByRole("button", { name: "Take picture 2 away" }).click();
  await expect(captions).toHaveCount(1);
  await page.keyboard.press("Control+z");
  await expect(captions).toHaveCount(2);
  // Side by side they are as high as each other.
  const heights = await onPage
    .getByRole("img")
    .evaluateAll((all) => all.map((i) => i.getBoundingClientRect().height));
  expect(heights[0]).toBeGreaterThan(100);
  expect(Math.abs(heights[0]! - heights[1]!)).toBeLessThan(1);
  await settings
    .getByRole("combobox", { name: "In a row" })
    .selectOption({ label: "One, as wide as the page" });
  await expect
    .poll(() =>
      onPage
        .getByRole("img")
        .first()
        .evaluate((i) => i.getBoundingClientRect().height),
    )
    .toBeGreaterThan(heights[0]! * 1.5);
  await page
    .getByRole("combobox", { name: "Add a block" })
    .selectOption({ label: "Attached" });
  const attached = page.getByRole("region", { name: "Block: Attached" });
  await attached.getByLabel(/^Files: PDF/).setInputFiles({
    name: "Insurance.pdf",
    mimeType: "application/pdf",
    buffer: Buffer.from("%PDF-1.4 a paper of the insurer"),
  });
  await expect(
    paper(page).getByRole("link", { name: "Insurance.pdf" }),
  ).toBeVisible();
  await saved(page);
  const pdf = await page.request.get(
    `/api/jobs/${page.url().split("/")[4]}/proposal.pdf`,
  );
  const text = execFileSync("pdftotext", ["-", "-"], {
    input: await pdf.body(),
  }).toString();
  expect(text).toMatch(/Gravel of the path[^]*Insurance\.pdf/);
});

test("a pattern brings blocks and detail, a proposal is kept as one, and new jobs take the usual", async ({
  page,
}) => {
  await page.goto(`${pottery}/proposal`);
  await page
    .getByRole("combobox", { name: "Make it like a pattern" })
    .selectOption({ label: "One page" });
  await expect
    .poll(() => titles(page))
    .toEqual(["Letter", "What we will do", "Price", "Signatures"]);
  await expect(paper(page).getByRole("row")).toHaveCount(3);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await titles(page)).length).toBe(11);
  await page
    .getByRole("combobox", { name: "Add a block" })
    .selectOption({ label: "Cover" });
  await expect.poll(async () => (await titles(page))[0]).toBe("Cover");
  await page.getByRole("button", { name: "Keep this as a pattern" }).click();
  await page
    .getByRole("textbox", { name: "Name of the pattern" })
    .fill("Harbour");
  await page.keyboard.press("Enter");
  await page.goto("/office");
  const office = page.getByRole("region", { name: "Patterns of proposals" });
  await office
    .getByRole("combobox", { name: "Pattern", exact: true })
    .selectOption({ label: "Harbour" });
  await expect(
    office
      .getByRole("list", { name: "Blocks of the pattern" })
      .getByRole("listitem")
      .first(),
  ).toContainText("Cover");
  await office.getByRole("button", { name: "New jobs take this one" }).click();
  await newJob(page, "Plover Pier", "Plover Pier");
  await page.keyboard.press("Alt+4");
  await expect.poll(async () => (await titles(page))[0]).toBe("Cover");
  await expect(block(page, /^Terms/)).toContainText("as in the Book");
  await page.goto("/office");
  await office
    .getByRole("combobox", { name: "Pattern", exact: true })
    .selectOption({ label: "Usual" });
  await office.getByRole("button", { name: "New jobs take this one" }).click();
  await expect(
    office.getByRole("combobox", { name: "Pattern", exact: true }),
  ).toHaveText(/Usual \(new jobs\)/);
});

test("the firm's paper: look, colour that can be read, dates and numbers as browsers know them, on page and in the PDF", async ({
  page,
}) => {
  await page.goto("/office");
  const office = page.getByRole("region", { name: "Paper", exact: true });
  // Each language against the browser's own data (Unicode CLDR through ICU).
  const languages = office
    .getByRole("combobox", { name: "Dates and numbers" })
    .locator("option");
  await expect(languages).not.toHaveCount(0);
  const offered = await languages.evaluateAll((all) =>
    all.map((o) => ({
      name: (o as HTMLOptionElement).value,
      words: o.textContent,
    })),
  );
  expect(offered.length).toBeGreaterThan(10);
  for (const { name, words } of offered) {
    const [day, number] = await page.evaluate((locale) => {
      const date = new Intl.DateTimeFormat(locale, {
        dateStyle: "long",
        timeZone: "UTC",
      }).format(new Date(Date.UTC(2026, 10, 30)));
      const amount = new Intl.NumberFormat(locale, {
        minimumFractionDigits: 2,
      }).format(12345.6);
      return [date, amount];
    }, name);
    const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, " ");
    expect(plain(words!), name).toContain(`: ${plain(day!)}, `);
    expect(plain(words!), name).toContain(`, ${plain(number!)}`);
  }
  await office.getByText("a band at the left").click();
  const colour = office.getByRole("textbox", { name: "Colour" });
  await colour.fill("yellow");
  await colour.press("Enter");
  await expect(office.getByRole("alert")).toHaveText(
    "A colour reads like #0e5a63.",
  );
  await colour.fill("#7fb069");
  await colour.press("Enter");
  await expect(office).toContainText("darkened to #5b7e4b");
  await office
    .getByRole("combobox", { name: "Dates and numbers" })
    .selectOption("de");
  await office.getByRole("textbox", { name: "Foot of each page" }).fill("HM 1");
  await page.keyboard.press("Enter");
  await page.goto(`${library}/proposal`);
  await expect(paper(page)).toContainText(/Prices hold until \d+\. \w+ \d{4}/);
  const total = await paper(page)
    .getByRole("row", { name: /^Total/ })
    .getByRole("button")
    .innerText();
  expect(total).toMatch(/^\d{3}\.\d{3},\d\d$/);
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download the PDF" }).click();
  const file = (await (await download).path())!;
  const text = execFileSync("pdftotext", ["-layout", file, "-"], {
    encoding: "utf8",
  });
  expect(text).toContain(total);
  expect(text.match(/HM 1/g)!.length).toBe(
    Number(/page 1 of (\d+)/.exec(text)![1]),
  );
  expect(readFileSync(file).subarray(0, 5).toString()).toBe("%PDF-");
  await page.goto("/office");
  await office.getByText("a ticked rule along the head").click();
  await colour.fill("#f5c518");
  await colour.press("Enter");
  await office
    .getByRole("combobox", { name: "Dates and numbers" })
    .selectOption("en-GB");
  await office.getByRole("textbox", { name: "Foot of each page" }).fill("");
  await page.keyboard.press("Enter");
  await keptByOffice(page);
});

/** What the office keeps is kept when it shows it again. */
async function keptByOffice(page: Page) {
  await page.reload();
  await expect(
    page
      .getByRole("region", { name: "Paper", exact: true })
      .getByRole("textbox", { name: "Foot of each page" }),
  ).toHaveValue("");
}

test("a price by line has quantities and unit prices, and headlines bundle sections", async ({
  page,
}) => {
  await rooms(page, "Knot Lane", 3);
  await addEverywhere(page, "Walls Paint", "Skirting, fit", "Doors");
  await page.keyboard.press("Alt+4");
  const sees = page.getByRole("region", { name: "What the customer sees" });
  await sees
    .getByRole("group", { name: "Price by" })
    .getByRole("button", { name: "line", exact: true })
    .click();
  await sees.getByRole("checkbox", { name: "unit prices" }).click();
  const price = paper(page).getByRole("region", { name: "Price" });
  await expect(
    price.getByRole("columnheader", { name: "unit price" }),
  ).toBeVisible();
  const row = price.getByRole("row", { name: /^Room 2 / }).first();
  const [quantity, unit, amount] = await row.getByRole("cell").allInnerTexts();
  expect(
    Math.abs(parseFloat(quantity!) * Number(unit) - Number(amount)),
  ).toBeLessThan(0.05 * Number(unit) + 0.011);
  await accessible(page, "a price by line");
  await sees
    .getByRole("group", { name: "Price by" })
    .getByRole("button", { name: "headline", exact: true })
    .click();
  await sees.getByRole("button", { name: "Add a headline" }).press("Enter");
  const words = sees.getByRole("textbox", { name: "Headline 1" });
  await words.fill("All rooms as we walked them");
  await words.press("Enter");
  await expect(price.getByRole("row")).toHaveText([
    /^All rooms as we walked them/,
    /^Price before tax/,
    /^Sales tax/,
    /^Total/,
  ]);
  await sees.getByRole("checkbox", { name: "Walls" }).click();
  await expect(price.getByRole("row")).toHaveCount(5);
});

test("a revision goes out by mail by keys, stands in the outbox as a file for a mail program, and goes again as it was", async ({
  page,
}) => {
  // The demo's pottery has a customer with an address, and the firm has one.
  await page.goto(`${pottery}/proposal?view=revisions`);
  await page.getByRole("button", { name: "Send revision A" }).press("Enter");
  const dialog = page.getByRole("dialog", { name: "Send revision A" });
  await expect(dialog.getByRole("radio", { name: /^By mail/ })).toBeChecked();
  const address = dialog.getByRole("textbox", { name: "Address", exact: true });
  await expect(address).toHaveValue("kiln@marrow-street.example");
  await expect(dialog.getByRole("textbox", { name: "Words" })).toHaveValue(
    /here is our proposal for Marrow Street Pottery\. It comes to [\d,]+\.\d\d /,
  );
  await accessible(page, "a mail while it is written");
  // What is no address is refused beside its field, and what was typed stays.
  await address.fill("kiln@");
  await dialog.getByRole("button", { name: "One more" }).press("Enter");
  await page.keyboard.type("clay@marrow-street.example");
  await dialog.getByRole("textbox", { name: "Subject" }).fill("Your deck");
  const words = dialog.getByRole("textbox", { name: "Words" });
  await words.fill("Good day,\nit comes to {total}.");
  await dialog
    .getByRole("textbox", { name: "Why it goes out all the same" })
    .fill("as agreed");
  const send = dialog.getByRole("button", { name: "Send the mail" });
  await send.press("Enter");
  await expect(
    dialog.getByText("“kiln@” is not an e-mail address"),
  ).toBeVisible();
  await expect(words).toHaveValue("Good day,\nit comes to {total}.");
  await address.fill("kiln@marrow-street.example");
  await send.press("Enter");
  await expect(dialog).toHaveCount(0);
  const a = page.getByRole("article", { name: "Revision A, sent" });
  await expect(a).toContainText(
    "mail to kiln@marrow-street.example, copy to clay@marrow-street.example",
  );
  // Again, when they have lost it.
  await a.getByRole("button", { name: "Send it again" }).press("Enter");
  const again = page.getByRole("dialog", { name: "Send revision A again" });
  await again
    .getByRole("combobox", { name: "Message" })
    .selectOption({ label: "A reminder" });
  await expect(again.getByRole("textbox", { name: "Words" })).toHaveValue(
    /is with you still/,
  );
  await again.getByRole("textbox", { name: "Subject" }).press("Enter");
  await expect(again).toHaveCount(0);
  // And to a telephone: a few words and a link of its own.
  await a.getByRole("button", { name: "Send it again" }).press("Enter");
  await again.getByRole("radio", { name: "By text message" }).press(" ");
  const telephone = again.getByRole("textbox", { name: "Telephone" });
  await expect(telephone).toHaveValue("555 0166");
  await telephone.fill("call me");
  await again
    .getByRole("button", { name: "Send the text message" })
    .press("Enter");
  await expect(
    again.getByText("“call me” is not a telephone number."),
  ).toBeVisible();
  await telephone.fill("555 0199");
  await again
    .getByRole("button", { name: "Send the text message" })
    .press("Enter");
  await expect(again).toHaveCount(0);
  await expect(a).toContainText("text message to 555 0199");
  // To each a mail of their own.
  await expect(a.getByRole("link", { name: /^the mail/ })).toHaveText([
    "the mail to kiln@marrow-street.example",
    "the mail to clay@marrow-street.example",
    "the mail",
  ]);
  // The outbox has both, to be read and to be taken along.
  await page.getByRole("link", { name: "Office", exact: true }).click();
  const outbox = page.getByRole("region", { name: "Outbox" });
  await expect(outbox).toContainText("nothing leaves this machine");
  await outbox
    .getByRole("button", { name: "Read Text message to 555 0199" })
    .press("Enter");
  await expect(outbox.getByText(/^Larkspur & Pell Finishing: /)).toHaveText(
    /our proposal for Marrow Street Pottery is here, [\d,]+\.\d\d with tax, until .*\. http:\/\/127\.0\.0\.1:\d+\/p\/[\w-]{22}$/,
  );
  await outbox
    .getByRole("button", {
      name: "Read Your deck to kiln@marrow-street.example",
    })
    .press("Enter");
  const said = outbox.getByText(/^Good day,\s+it comes to/);
  await expect(said).toHaveText(
    /it comes to [\d,]+\.\d\d\.\s+http:\/\/127\.0\.0\.1:\d+\/p\/[\w-]{22}\s*$/,
  );
  // Other jobs may have sent something, too.
  await expect(
    outbox.getByRole("listitem").filter({ hasText: "Pottery, A" }),
  ).toHaveCount(4);
  const file = await page.request.get(
    (await outbox
      .getByRole("link", {
        name: "File of Your deck to kiln@marrow-street.example",
      })
      .getAttribute("href"))!,
  );
  expect(file.headers()["content-type"]).toBe("message/rfc822");
  const mail = (await file.body()).toString("latin1");
  for (const line of ["To: kiln@marrow-street.example", "Subject: Your deck"])
    expect(mail).toContain(`${line}\r\n`);
  // Once it has gone, nobody here has its link any more.
  await outbox
    .getByRole("button", {
      name: "Your deck to kiln@marrow-street.example has gone",
    })
    .press("Enter");
  await expect(outbox.getByText(/^gone .*its link is cut out$/)).toBeVisible();
  await expect(said).toContainText("cut out here since the mail has gone");
  await outbox
    .getByRole("link", { name: /Pottery, A$/ })
    .first()
    .press("Enter");
  await expect(a).toBeVisible();
  // B is to go out later: A stays open until then, and B is called back.
  await page.getByRole("button", { name: "Send revision B" }).press("Enter");
  const later = page.getByRole("dialog", { name: "Send revision B" });
  await later
    .getByRole("textbox", { name: "Why it goes out all the same" })
    .fill("as agreed");
  await later.getByRole("radio", { name: /^Later/ }).check();
  const day = later.getByRole("textbox", { name: "Day" });
  await day.fill("2020-01-02");
  const set = later.getByRole("button", { name: "Set it to go out" });
  await set.click();
  await expect(
    later.getByText("That is past: say a moment to come."),
  ).toBeVisible();
  await day.fill(
    new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10),
  );
  // The words say the days that count from then, as long as nobody has written on them.
  const from = new Date(Date.now() + 33 * 86_400_000);
  await expect(later.getByRole("textbox", { name: "Words" })).toHaveValue(
    new RegExp(
      `prices hold until ${from.getUTCDate()} ${from.toLocaleString("en", { month: "long", timeZone: "UTC" })}`,
    ),
  );
  await later.getByRole("textbox", { name: /^Time/ }).fill("16:30");
  await accessible(page, "a mail for later");
  await set.click();
  await expect(later).toHaveCount(0);
  const waits = page.getByRole("region", { name: "Send" });
  await expect(waits).toContainText(
    /^Revision B goes out by itself on .* 16:30/,
  );
  await expect(
    page.getByRole("article", { name: "Revision B, waits to go out" }),
  ).toBeVisible();
  await expect(a).toBeVisible();
  await waits.getByRole("button", { name: "Cancel it" }).click();
  await expect(
    page.getByRole("button", { name: "Send revision B" }),
  ).toBeVisible();
});

test("what the firm writes with a proposal is changed in the Office, and a figure that there is not is refused", async ({
  page,
}) => {
  await page.goto("/office");
  const messages = page.getByRole("region", { name: "Messages" });
  await messages.getByRole("button", { name: "Copy as a new message" }).click();
  const name = messages.getByRole("textbox", { name: "Name" });
  await expect(name).toHaveValue("Proposal, copy");
  await name.fill("For architects");
  await name.press("Enter");
  const words = messages.getByRole("combobox", {
    name: "Words of the message",
  });
  await words.fill("Our price is {totl}.");
  await page.keyboard.press("Control+Enter");
  await expect(messages.getByText("There is no figure “totl”.")).toBeVisible();
  await words.fill("Our price is {pri");
  await page.keyboard.press("Enter");
  await expect(words).toHaveValue("Our price is {price}");
  await page.keyboard.press("Control+Enter");
  await messages
    .getByRole("button", { name: "Offer this one first" })
    .press("Enter");
  await expect(
    messages.getByRole("combobox", { name: "Message", exact: true }),
  ).toContainText("For architects (offered first)");
  const from = messages.getByRole("textbox", { name: "Mail comes from" });
  await from.fill("larkspur");
  await from.press("Enter");
  await expect(messages.getByText("is not an e-mail address")).toBeVisible();
  await from.press("Escape");
  await page.goto(`${pottery}/proposal?view=revisions`);
  await page.getByRole("button", { name: /^Send revision/ }).press("Enter");
  await expect(page.getByRole("textbox", { name: "Words" })).toHaveValue(
    /^Our price is [\d,]+\.\d\d$/,
  );
});

test("a revision is sent and stays as it was; what differs from it is told, and its state follows what is recorded", async ({
  page,
}) => {
  await rooms(page, "Curlew House", 2);
  await addEverywhere(page, "Walls Paint", "Doors");
  await page.keyboard.press("Alt+4");
  await block(page, /^Letter/).press("w");
  await page.keyboard.type("In two stretches.");
  await page.keyboard.press("Control+Enter");
  await saved(page);
  await page.getByRole("button", { name: "Revisions" }).press("Enter");
  const list = page.getByRole("region", { name: "Revisions" });
  await page.getByRole("button", { name: "Send revision A" }).press("Enter");
  // Nothing goes out with a hole that nobody explains.
  const dialog = page.getByRole("dialog", { name: "Send revision A" });
  await expect(dialog).toContainText("No payment steps.");
  await expect(
    dialog.getByRole("button", { name: "It is sent" }),
  ).toBeDisabled();
  await dialog
    .getByRole("textbox", { name: "Why it goes out all the same" })
    .fill("paid on the last day");
  await expect(
    dialog.getByRole("button", { name: "It is sent" }),
  ).toBeEnabled();
  await page.keyboard.press("Enter");
  await expect(dialog).toHaveCount(0);
  const a = list.getByRole("article", { name: /^Revision A, / });
  await expect(a).toHaveAccessibleName("Revision A, sent");
  await expect(a).toContainText("unfinished: paid on the last day");
  await expect(
    page.getByRole("link", { name: /^Proposal .*Rev A sent/ }),
  ).toBeVisible();
  await accessible(page, "revisions");
  const sent = await page.request.get(
    (await a.getByRole("link", { name: "PDF" }).getAttribute("href"))!,
  );
  // A room more, another price, other words.
  await page.getByRole("button", { name: "Page", exact: true }).click();
  await block(page, /^Letter/).press("w");
  await page
    .getByRole("combobox", { name: "Words of Letter" })
    .fill("In three stretches.");
  await page.keyboard.press("Control+Enter");
  await page.keyboard.press("Alt+3");
  await page.getByRole("textbox", { name: "Overhead", exact: true }).fill("20");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.keyboard.press("Alt+4");
  await page.getByRole("button", { name: "Revisions" }).click();
  // When to be in touch again: a day, refused beside its field, undone like any edit.
  const contact = page.getByRole("region", { name: "Next contact" });
  const when = contact.getByRole("textbox", { name: "Day" });
  await when.fill("next week");
  await when.press("Enter");
  await expect(contact).toContainText("A date is written like 2026-11-23.");
  await when.fill("2027-01-31");
  await when.press("Enter");
  await saved(page);
  await expect(contact).not.toContainText("A date is written");
  await page.keyboard.press("Escape");
  const differs = page.getByRole("region", { name: "What differs" });
  await expect(
    differs.getByRole("row", { name: /^⇄? ?Repriced/ }),
  ).toBeVisible();
  const amounts = (
    await differs
      .locator("tbody tr:not(:first-child) td:last-child")
      .allInnerTexts()
  ).map((t) =>
    Math.round(Number(t.replace(/[,+]/g, "").replace("−", "-")) * 100),
  );
  const sum = await differs
    .locator("tbody tr:first-child td")
    .first()
    .innerText();
  expect(amounts.reduce((x, y) => x + y, 0)).toBe(
    Math.round(Number(sum.replace(/[,+]/g, "")) * 100),
  );
  const words = differs.getByRole("group", { name: "Reworded: Letter" });
  await expect(words.locator("del")).toHaveText("two ");
  await expect(words.locator("ins")).toHaveText("three ");
  // As it was sent, it reads as it did; so do the bytes.
  await a.getByRole("button", { name: "As it was sent" }).press("Enter");
  await expect(
    page.getByRole("region", { name: "Revision A as it was sent" }),
  ).toContainText("In two stretches.");
  await a.getByRole("button", { name: "Back to what differs" }).click();
  const again = await page.request.get(
    (await a.getByRole("link", { name: "PDF" }).getAttribute("href"))!,
  );
  expect(await again.body()).toEqual(await sent.body());
  // On hold and off; undo of the job steps over what happened.
  await a.getByRole("button", { name: "Put on hold" }).click();
  await page.getByRole("textbox", { name: "Why" }).fill("they are away");
  await page.keyboard.press("Enter");
  await expect(a).toHaveAccessibleName("Revision A, on hold");
  await page.keyboard.press("Control+z");
  await expect(a).toHaveAccessibleName("Revision A, on hold");
  // The list of jobs says how it stands.
  const station = page.url();
  await page.goto("/jobs");
  await expect(
    page.getByRole("row", { name: /Curlew House/ }).first(),
  ).toContainText("Rev A on hold");
  await page.goto(station);
  await page.getByRole("button", { name: "Revisions" }).click();
  // B replaces A, and takes a yes on paper; then none can be sent any more.
  await page.getByRole("button", { name: "Send revision B" }).click();
  await page
    .getByRole("textbox", { name: "Why it goes out all the same" })
    .fill("paid on the last day");
  await expect(page.getByRole("button", { name: "It is sent" })).toBeEnabled();
  await page.keyboard.press("Enter");
  await expect(a).toHaveAccessibleName("Revision A, superseded");
  const b = list.getByRole("article", { name: /^Revision B, / });
  await b.getByRole("button", { name: "Record a yes" }).click();
  const yes = page.getByRole("dialog", { name: /^Record a yes/ });
  await yes.getByRole("textbox", { name: "How it came" }).fill("signed letter");
  await page.keyboard.press("Enter");
  await expect(yes.getByRole("alert")).toHaveText(
    "Say which date the yes bears.",
  );
  const bears = yes.getByRole("textbox", { name: "Date that the yes bears" });
  await bears.fill("5 January");
  await page.keyboard.press("Enter");
  await expect(yes.getByRole("alert")).toHaveText(
    "Write a day like 2027-01-31.",
  );
  await bears.fill("2026-01-05");
  await page.keyboard.press("Enter");
  await expect(b).toHaveAccessibleName("Revision B, accepted");
  await expect(page.getByRole("region", { name: "Send" })).toContainText(
    "a change order",
  );
  await expect(
    page.getByRole("button", { name: /^Send revision/ }),
  ).toHaveCount(0);
});
