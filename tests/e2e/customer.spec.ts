import { type Page, expect, test } from "./test";
import { phone, send } from "./sendPages";
import { accessible, newJob, saved, tapeLine } from "./pages";
import { addEverywhere, rooms } from "./workPages";

/** Makes a link by keys and reads its address, which is shown this once. */
async function link(page: Page, letters: string, who: string, copy = false) {
  const panel = page.getByRole("region", {
    name: `Customer page of ${letters}`,
  });
  await panel.getByRole("button", { name: "New link" }).press("Enter");
  const making = page.getByRole("dialog", { name: /^New link to revision/ });
  await page.keyboard.type(who);
  if (copy) await making.getByRole("radio", { name: /^Have a copy/ }).check();
  await making.getByRole("button", { name: "Make the link" }).click();
  const made = page.getByRole("dialog", { name: `The link of ${who}` });
  const address = await made.getByRole("link").innerText();
  await page.keyboard.press("Escape");
  await expect(made).toHaveCount(0);
  return address;
}

const revision = (page: Page, letters: string) =>
  page
    .getByRole("region", { name: "Revisions" })
    .getByRole("article", { name: new RegExp(`^Revision ${letters}, `) });

test("a customer reads, asks and signs on the phone, and the firm sees each step as it happens", async ({
  page,
  browser,
}) => {
  await rooms(page, "Oystercatcher Row", 2);
  await addEverywhere(page, "Walls Paint");
  await page.keyboard.press("Alt+4");
  await saved(page);
  await send(page, "A");
  const a = revision(page, "A");
  await expect(a).toHaveAccessibleName("Revision A, sent");
  const address = await link(page, "A", "Ida Marrow");
  const links = page.getByRole("list", { name: "Links" });
  await expect(links).toContainText("not opened yet");

  const customer = await phone(browser, address);
  await expect(
    customer.getByRole("heading", { name: "Oystercatcher Row", level: 1 }),
  ).toBeVisible();
  await expect(customer).toHaveTitle(/^Oystercatcher Row, /);
  await expect(a).toHaveAccessibleName("Revision A, seen");
  await expect(links).toContainText("last seen ");
  const price = customer.getByRole("region", { name: "Price" });
  const total = (
    await price.getByRole("row", { name: /^Total/ }).innerText()
  ).replace(/^Total\s*/, "");
  await expect(customer.getByRole("contentinfo")).toContainText(total);
  await accessible(customer, "the customer's page");

  // Asked by keys; what is empty is said beside the field.
  const ask = customer.getByRole("textbox", { name: "Your question" });
  await customer.getByRole("link", { name: "Ask a question" }).press("Enter");
  await customer.getByRole("button", { name: "Send the question" }).click();
  await expect(customer.getByRole("alert")).toHaveText(
    "Write something first.",
  );
  await ask.fill("Do you move the piano?");
  await customer.keyboard.press("Tab");
  await customer.keyboard.press("Enter");
  await expect(
    customer.getByText("Your question is on its way."),
  ).toBeVisible();

  await page.getByRole("button", { name: "Questions (1)" }).press("Enter");
  const question = page.getByRole("article", {
    name: "Question of Ida Marrow",
  });
  await expect(question).toContainText("Do you move the piano?");
  await accessible(page, "questions");
  await question.getByRole("textbox", { name: "Your answer" }).fill("We do.");
  await question.getByRole("button", { name: "Answer", exact: true }).click();
  await expect(question.getByRole("blockquote")).toContainText("We do.");
  await expect(
    page.getByRole("button", { name: "Questions", exact: true }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Revisions" }).click();
  await customer.reload();
  await expect(
    customer.getByRole("article", { name: /^Question of / }),
  ).toContainText("We do.");

  // Signed by keys alone, with the name typed.
  await customer.getByRole("link", { name: "Accept and sign" }).press("Enter");
  await expect(
    customer.getByText(
      new RegExp(`accepts revision A .* for ${total.replace(".", "\\.")} `),
    ),
  ).toBeVisible();
  const sign = customer.getByRole("button", { name: `Sign for ${total}` });
  await sign.press("Enter");
  await expect(customer.getByRole("alert")).toHaveText(
    "Draw your name above the line, or type it.",
  );
  await customer
    .getByRole("radio", { name: "Draw your name" })
    .press("ArrowRight");
  await expect(customer.getByRole("radio", { name: "Type it" })).toBeChecked();
  const name = customer.getByRole("textbox", { name: "Name in full" });
  await expect(name).toHaveValue("Ida Marrow");
  await sign.press("Enter");
  await expect(customer.getByRole("alert")).toHaveText(
    "Say that you may sign, and have read it.",
  );
  await customer.getByRole("checkbox", { name: /^I may sign/ }).press("Space");
  await accessible(customer, "accept and sign");
  await sign.press("Enter");
  const agreed = customer.getByRole("region", { name: "What was agreed" });
  await expect(agreed.getByRole("figure")).toContainText("Ida Marrow");
  await expect(customer.getByText(/^Accepted on /)).toBeVisible();
  await accessible(customer, "what was agreed");
  const signed = await customer.request.get(
    new URL(
      (await agreed
        .getByRole("link", { name: "The signed PDF" })
        .getAttribute("href"))!,
      address,
    ).href,
  );
  expect((await signed.body()).subarray(0, 5).toString()).toBe("%PDF-");

  // The firm sees it, and signs too, drawn.
  await expect(a).toHaveAccessibleName("Revision A, accepted");
  await a.getByRole("button", { name: "Add a name" }).click();
  const too = page.getByRole("dialog", { name: "Sign revision A too" });
  await too.getByRole("textbox", { name: "Name in full" }).fill("Nora Pell");
  const pad = (await too
    .getByRole("img", { name: "The name as it is drawn" })
    .boundingBox())!;
  await page.mouse.move(pad.x + 40, pad.y + 60);
  await page.mouse.down();
  await page.mouse.move(pad.x + 160, pad.y + 20, { steps: 5 });
  await page.mouse.up();
  await accessible(page, "a name that is added");
  await too.getByRole("button", { name: "Sign", exact: true }).click();
  await expect(a.getByRole("img", { name: "Nora Pell, drawn" })).toBeVisible();
  await customer.reload();
  await expect(agreed.getByRole("figure")).toHaveCount(2);
  await expect(
    customer.getByRole("link", { name: "Accept and sign" }),
  ).toHaveCount(0);
  await customer.context().close();
});

test("what is replaced, revoked or a copy says so on its page; a no is told with its reason; it is signed at the tablet", async ({
  page,
  browser,
}) => {
  await rooms(page, "Redshank Mews", 1);
  await addEverywhere(page, "Walls Paint");
  await page.keyboard.press("Alt+4");
  await saved(page);
  await send(page, "A");
  const first = await link(page, "A", "Bo");
  const customer = await phone(browser, first);
  await send(page, "B");
  await customer.reload();
  await expect(customer.getByRole("status").first()).toHaveText(
    /^Replaced on .* by revision B, which has a link of its own\.$/,
  );
  await expect(
    customer.getByRole("link", { name: "Accept and sign" }),
  ).toHaveCount(0);
  await expect(
    customer.getByRole("link", { name: "Ask for it again" }),
  ).toBeVisible();

  // A copy decides nothing.
  const copy = await link(page, "B", "Wren", true);
  await customer.goto(copy);
  await expect(
    customer.getByRole("link", { name: "Ask a question" }),
  ).toBeVisible();
  await expect(customer.getByRole("button", { name: "Decline" })).toHaveCount(
    0,
  );
  // Revoked while it stands open: what was typed stays, and the page shows nothing any more when it is opened anew.
  await customer
    .getByRole("textbox", { name: "Your question" })
    .fill("Still there?");
  await page
    .getByRole("button", { name: "Revoke the link of Wren" })
    .press("Enter");
  await page.getByRole("button", { name: "Revoke it" }).press("Enter");
  await expect(page.getByRole("list", { name: "Links" })).toContainText(
    "revoked ",
  );
  await customer.getByRole("button", { name: "Send the question" }).click();
  await expect(customer.getByRole("alert")).toContainText(
    "This link opens nothing.",
  );
  await expect(
    customer.getByRole("textbox", { name: "Your question" }),
  ).toHaveValue("Still there?");
  await customer.reload();
  await expect(
    customer.getByRole("heading", { name: "Nothing here" }),
  ).toBeVisible();

  // Declined by keys.
  await customer.goto(await link(page, "B", "Bo"));
  await customer.getByRole("button", { name: "Decline" }).press("Enter");
  const no = customer.getByRole("dialog", { name: "Decline this proposal" });
  await accessible(customer, "declining");
  await no
    .getByRole("textbox", { name: /^Why/ })
    .fill("The cellar comes first.");
  await no.getByRole("button", { name: "Decline it" }).press("Enter");
  await expect(customer.getByRole("status").first()).toHaveText(
    /^Declined on /,
  );
  const b = revision(page, "B");
  await expect(b).toHaveAccessibleName("Revision B, declined");
  await expect(b).toContainText("Bo, The cellar comes first.");

  // Opened again, and signed at the kitchen table.
  await b.getByRole("button", { name: "Open it again" }).press("Enter");
  const again = page.getByRole("dialog");
  await again.getByRole("textbox", { name: "Why" }).fill("they called");
  await again.getByRole("button", { name: "Open it again" }).click();
  await expect(again).toHaveCount(0);
  const opened = page.waitForEvent("popup");
  await b.getByRole("link", { name: "Sign here" }).press("Enter");
  const tablet = await opened;
  await tablet.getByRole("link", { name: "Accept and sign" }).click();
  await tablet.getByRole("radio", { name: "Type it" }).check();
  await tablet.getByRole("textbox", { name: "Name in full" }).fill("Bo Curlew");
  await tablet.getByRole("checkbox", { name: /^I may sign/ }).check();
  await tablet.getByRole("button", { name: /^Sign for / }).click();
  await expect(
    tablet.getByRole("region", { name: "What was agreed" }),
  ).toContainText("Bo Curlew");
  await expect(b).toHaveAccessibleName("Revision B, accepted");
  await expect(b).toContainText("signed in person, at the firm's tablet");
  await customer.context().close();
});

test("a draft is sent and signed at the firm's screen in one step; a yes on paper is kept with its photo", async ({
  page,
}) => {
  await rooms(page, "Egret House", 1);
  await addEverywhere(page, "Doors");
  await page.keyboard.press("Alt+4");
  await page.getByRole("button", { name: "Revisions" }).press("Enter");
  await page.getByRole("button", { name: "Send revision A" }).press("Enter");
  const dialog = page.getByRole("dialog", { name: "Send revision A" });
  await dialog
    .getByRole("textbox", { name: "Why it goes out all the same" })
    .fill("all at once");
  await dialog
    .getByRole("radio", { name: /^In person, at this screen/ })
    .check();
  await dialog.getByRole("button", { name: "Open it to be signed" }).click();
  // The screen is the customer's now (L15): two facts, sent and accepted.
  await page.getByRole("link", { name: "Accept and sign" }).click();
  await page.getByRole("radio", { name: "Type it" }).check();
  await page.getByRole("textbox", { name: "Name in full" }).fill("Bo Curlew");
  await page.getByRole("checkbox", { name: /^I may sign/ }).check();
  await page.getByRole("button", { name: /^Sign for / }).click();
  await expect(
    page.getByRole("region", { name: "What was agreed" }),
  ).toContainText("Bo Curlew");
  await page.getByRole("link", { name: "Back to the job" }).click();
  await page.getByRole("button", { name: "Revisions" }).click();
  const a = page
    .getByRole("region", { name: "Revisions" })
    .getByRole("article", { name: /^Revision A, / });
  await expect(a).toHaveAccessibleName("Revision A, accepted");
  await expect(a).toContainText("in person; unfinished: all at once");

  // It was another paper: annulled, and the yes recorded that came by post.
  await a.getByRole("button", { name: "Annul the yes" }).click();
  const annul = page.getByRole("dialog", { name: /^Annul the yes/ });
  await annul.getByRole("textbox", { name: "Why" }).fill("signed by mistake");
  await annul.getByRole("button", { name: "Annul the yes" }).click();
  await expect(annul).toHaveCount(0);
  await a.getByRole("button", { name: "Record a yes" }).click();
  const yes = page.getByRole("dialog", { name: /^Record a yes/ });
  await yes
    .getByRole("textbox", { name: "Date that the yes bears" })
    .fill("2026-11-02");
  await yes.getByRole("textbox", { name: "How it came" }).fill("by post");
  await yes.getByLabel("Photo or scan of the paper").setInputFiles({
    name: "letter.png",
    mimeType: "image/png",
    buffer: await page.screenshot(),
  });
  await expect(yes).toContainText("letter.png");
  await accessible(page, "a yes on paper");
  await yes.getByRole("button", { name: "Record a yes" }).click();
  await expect(yes).toHaveCount(0);
  await expect(a).toContainText("a yes of 2 November 2026");
  const paper = await page.request.get(
    (await a.getByRole("link", { name: "the paper" }).getAttribute("href"))!,
  );
  expect(paper.headers()["content-type"]).toBe("image/png");
  await expect(
    a.getByRole("link", { name: "The PDF with what was agreed" }),
  ).toBeVisible();
  // What is to be printed is shown and not kept.
  const print = await page.request.get(
    (await a
      .getByRole("link", { name: "Print revision A" })
      .getAttribute("href"))!,
  );
  expect(print.headers()["content-type"]).toBe("application/pdf");
  expect(print.headers()["content-disposition"] ?? "").toBe("");
});

/** The demo's library as a job of its own: other tests count on it as it is. */
async function libraryOnceMore(page: Page, id: string, name: string) {
  const file = JSON.parse(
    await (
      await page.request.get(
        "/api/jobs/01930000-0000-7000-8000-000000000999/file",
      )
    ).text(),
  ) as { id: string; info: { name: string } };
  file.id = id;
  file.info.name = name;
  const made = await page.request.post("/api/jobs/import", {
    data: JSON.stringify(file),
    headers: { "Content-Type": "application/json" },
  });
  expect(made.ok()).toBe(true);
  await page.goto(`/jobs/${id}/proposal?view=revisions`);
}

test("two people choose on their phones: one follows the other, prices follow, and what somebody has not seen they do not sign", async ({
  page,
  browser,
}) => {
  await libraryOnceMore(
    page,
    "01940000-0000-7000-8000-00000000c0de",
    "Turnstone Reading Room",
  );
  await send(page, "A", false);
  const [ida, bo] = [
    await phone(browser, await link(page, "A", "Ida Marrow")),
    await phone(browser, await link(page, "A", "Bo Marrow")),
  ];
  const foot = (of: Page) => of.getByRole("contentinfo");
  const pays = async (of: Page) =>
    /You pay\s*([\d,.]+)/.exec(await foot(of).innerText())![1]!;
  const sent = await pays(ida);
  const choices = ida.getByRole("region", { name: "Your choices" });
  await accessible(ida, "choices");
  // By keys; the room that follows the others takes the same.
  const tiles = choices.getByRole("group", {
    name: "Carpet tiles of the reading rooms",
  });
  const follows = choices
    .getByRole("group", { name: /^Carpet tiles of / })
    .nth(1);
  await tiles.getByRole("radio", { name: /^Loop, slate/ }).press("ArrowDown");
  await expect(tiles.getByRole("radio", { name: /^Loop, moss/ })).toBeChecked();
  await expect(
    follows.getByRole("radio", { name: /^Loop, moss/ }),
  ).toBeChecked();
  const name = "Loop, moss";
  await expect(foot(ida)).toContainText(name);
  await expect.poll(() => pays(ida)).not.toBe(sent);
  const chosen = await pays(ida);
  // Bo has the page open as it was: what he chooses is refused, and what stands now is shown.
  expect(await pays(bo)).toBe(sent);
  const add = bo.getByRole("button", { name: /^Add / }).first();
  await add.press("Enter");
  await expect(
    bo.getByText("Somebody else has chosen meanwhile."),
  ).toBeVisible();
  await expect.poll(() => pays(bo)).toBe(chosen);
  await add.press("Enter");
  await expect(add).toHaveAttribute("aria-pressed", "true");
  const both = await pays(bo);
  expect(both).not.toBe(chosen);
  // The firm sees what is chosen, and takes it into the job by one key (it is undone like any edit).
  const a = revision(page, "A");
  await expect(a).toContainText(/The customer chose Loop, moss; .+: pays /);
  await a
    .getByRole("button", { name: "Take it over into the job" })
    .press("Enter");
  await expect(a).toContainText("All of it stands in the job.");
  // Ida signs what she saw: refused with both totals, and she sees what it is now.
  await ida.getByRole("link", { name: "Accept and sign" }).press("Enter");
  await ida.getByRole("radio", { name: "Type it" }).check();
  await ida.getByRole("checkbox", { name: /^I may sign/ }).check();
  await ida.getByRole("button", { name: `Sign for ${chosen}` }).press("Enter");
  await expect(ida.getByRole("alert")).toHaveText(
    `You saw ${chosen}; it comes to ${both}. Look at it, and sign again.`,
  );
  await ida.getByRole("button", { name: `Sign for ${both}` }).press("Enter");
  const agreed = ida.getByRole("region", { name: "What was agreed" });
  await expect(agreed).toContainText(name);
  await expect(
    agreed.getByRole("row", { name: /^You pay in all/ }),
  ).toContainText(both);
  await expect(revision(page, "A")).toHaveAccessibleName(
    "Revision A, accepted",
  );
  await expect(revision(page, "A")).toContainText("chose");
  await ida.context().close();
  await bo.context().close();
});

test("two estimates of one customer go out together by keys, are signed once, and the firm sees both accepted", async ({
  page,
  browser,
}) => {
  await newJob(page, "Bittern Quay", "Bittern stores");
  await page.getByRole("link", { name: "Jobs", exact: true }).click();
  await page.getByRole("button", { name: "New job" }).click();
  await page
    .getByRole("textbox", { name: "Job", exact: true })
    .fill("Bittern sheds");
  await page
    .getByRole("combobox", { name: "Customer" })
    .selectOption({ label: "Bittern Quay" });
  await page.getByRole("button", { name: "Add the job" }).click();
  await expect(
    page.getByRole("heading", { name: "Bittern sheds" }),
  ).toBeVisible();
  await page.keyboard.press("Alt+4");
  await page
    .getByRole("combobox", { name: "Add a block" })
    .selectOption({ label: "Further estimates" });
  const settings = page.getByRole("region", {
    name: "Block: Further estimates",
  });
  await settings
    .getByRole("checkbox", { name: /Bittern stores$/ })
    .press("Space");
  const block = page
    .getByRole("region", { name: "Proposal as the customer sees it" })
    .getByRole("region", { name: "Further estimates" });
  await expect(
    block.getByRole("row", { name: /^All estimates, with tax/ }),
  ).toBeVisible();
  await expect(
    page.getByText("Bittern stores: Nothing is promised."),
  ).toBeVisible();
  await accessible(page, "further estimates");
  await saved(page);
  await send(page, "A");
  const a = revision(page, "A");
  await expect(a).toContainText(/With \d+ Bittern stores, 0.00/);
  const customer = await phone(browser, await link(page, "A", "Ida Marrow"));
  await customer.getByRole("link", { name: "Accept and sign" }).press("Enter");
  await expect(
    customer.getByText(
      /of “Bittern sheds”, together with “Bittern stores”, by /,
    ),
  ).toBeVisible();
  await customer.getByRole("radio", { name: "Type it" }).check();
  await customer.getByRole("checkbox", { name: /^I may sign/ }).press("Space");
  await customer.getByRole("button", { name: /^Sign for / }).press("Enter");
  await expect(customer.getByText(/^Accepted on /)).toBeVisible();
  await customer.context().close();
  await expect(a).toHaveAccessibleName("Revision A, accepted");
  await page.getByRole("link", { name: "Jobs", exact: true }).click();
  await page.getByRole("link", { name: "Bittern stores" }).click();
  await expect(tapeLine(page)).toBeVisible();
  await page.keyboard.press("Alt+4");
  await page.getByRole("button", { name: /^Revisions/ }).press("Enter");
  const other = revision(page, "A");
  await expect(other).toHaveAccessibleName("Revision A, accepted");
  await other.getByRole("link", { name: /Bittern sheds, revision A/ }).click();
  await expect(
    page.getByRole("heading", { name: "Bittern sheds" }),
  ).toBeVisible();
});
