import { type Browser, type Page, expect, test } from "./test";
import { measure, newJob, place, saved, tapeLine } from "./pages";

/** Another window of another browser, on the same page. */
async function other(browser: Browser, page: Page) {
  const window = await (await browser.newContext()).newPage();
  await window.goto(page.url());
  await expect(window.getByLabel("Totals of the job")).toBeVisible();
  return window;
}

const undo = (page: Page) =>
  page.getByRole("button", { name: "Undo", exact: false });
test("what one window measures arrives in the other, and each takes back its own", async ({
  page,
  browser,
}) => {
  await newJob(page, "Tern House", "Tern House");
  const second = await other(browser, page);
  await measure(page, "Hall 10 x 12 x 8");
  await expect(place(second, /^Hall/)).toBeVisible();
  await expect(second.getByText("changed in another window too")).toBeVisible();
  await measure(second, "Study 9 x 9 x 8");
  await expect(place(page, /^Study/)).toBeVisible();
  // The first window has made the hall: that is what it takes back, though the study came later.
  await undo(page).click();
  await expect(place(page, /^Hall/)).toHaveCount(0);
  await expect(place(second, /^Hall/)).toHaveCount(0);
  await expect(place(second, /^Study/)).toBeVisible();
  await expect(undo(page)).toBeDisabled();
  await second.context().close();
});

test("what is typed stays when somebody else changes the same, with both said; Enter puts one's own in its place", async ({
  page,
  browser,
}) => {
  await newJob(page, "Dunlin Row", "Dunlin Row");
  await page.goto(page.url().replace("/measure", "/price"));
  const second = await other(browser, page);
  const overhead = (at: Page) =>
    at.getByRole("textbox", { name: "Overhead", exact: true });
  const before = await overhead(page).inputValue();
  await overhead(page).fill("17");
  await overhead(second).fill("21");
  await overhead(second).press("Enter");
  const said = page.getByText(
    "It has been changed to “21” meanwhile. Enter puts yours in its place, Esc takes theirs.",
  );
  await expect(said).toBeVisible();
  await expect(overhead(page)).toHaveValue("17");
  // Leaving the field decides nothing.
  await overhead(page).blur();
  await expect(said).toBeVisible();
  await expect(overhead(second)).toHaveValue("21");
  await overhead(page).press("Enter");
  await expect(overhead(second)).toHaveValue("17");
  await expect(said).toHaveCount(0);
  // And the other way round: Esc takes what stands there.
  await overhead(second).fill("30");
  await overhead(page).fill(before);
  await overhead(page).press("Enter");
  await expect(
    second.getByText(`It has been changed to “${before}” meanwhile`),
  ).toBeVisible();
  await overhead(second).press("Escape");
  await expect(overhead(second)).toHaveValue(before);
  // What nobody is typing in follows.
  await overhead(page).fill("18");
  await overhead(page).press("Enter");
  await expect(overhead(second)).toHaveValue("18");
  await second.context().close();
});

test("a tape line that somebody else has measured anew meanwhile is not written over unseen", async ({
  page,
  browser,
}) => {
  await newJob(page, "Plover Lodge", "Plover Lodge");
  await measure(page, "Hall 10 x 12 x 8");
  const second = await other(browser, page);
  const line = async (at: Page) => {
    await place(at, /^Hall/).click();
    await at.keyboard.press("Enter");
    return at.getByRole("combobox", { name: "Tape line of Hall" });
  };
  const [mine, theirs] = [await line(page), await line(second)];
  await mine.fill("Hall 11 x 12 x 8");
  await theirs.fill("Hall 10 x 14 x 8");
  await theirs.press("Enter");
  await expect(
    page.getByText(
      "It has been measured anew meanwhile: “Hall 10 x 14 x 8”. Enter puts yours in its place, Esc takes theirs.",
    ),
  ).toBeVisible();
  await expect(mine).toHaveValue("Hall 11 x 12 x 8");
  await mine.press("Enter");
  await expect(second.getByRole("region", { name: "Measures" })).toContainText(
    "132.0",
  );
  await second.context().close();
});

test("with the line cut, an edit brings what was missed, and a conflict is said with both values", async ({
  page,
  browser,
}) => {
  await newJob(page, "Godwit Yard", "Godwit Yard");
  await page.route("**/api/live/**", (route) => route.abort());
  await page.goto(page.url().replace("/measure", "/price"));
  const second = await other(browser, page);
  const field = (at: Page, name: string) =>
    at.getByRole("textbox", { name, exact: true });
  await field(second, "Overhead").fill("22");
  await field(second, "Overhead").press("Enter");
  await saved(second);
  await field(page, "Contingency").fill("4");
  await field(page, "Contingency").press("Enter");
  await expect(field(page, "Overhead")).toHaveValue("22");
  await field(second, "Overhead").fill("23");
  await field(second, "Overhead").press("Enter");
  await saved(second);
  await field(page, "Overhead").fill("24");
  await field(page, "Overhead").press("Enter");
  await expect(
    page.getByText("It has been changed to “23” meanwhile"),
  ).toBeVisible();
  await expect(field(page, "Overhead")).toHaveValue("24");
  await second.context().close();
});

const commands = "**/api/jobs/*/commands";

test("what the server did not hear is kept, said, and sent after the page was loaded anew", async ({
  page,
}) => {
  await newJob(page, "Avocet Lane", "Avocet Lane");
  await page.route(commands, (route) => route.abort());
  const line = tapeLine(page);
  await line.fill("Hall 10 x 12 x 8");
  await line.press("Enter");
  await expect(
    page.getByText("Not saved yet: the server does not answer"),
  ).toBeVisible();
  // With the way open again it goes by itself …
  await page.unroute(commands);
  await expect(place(page, /^Hall/)).toBeVisible();
  await saved(page);
  // … and what had not gone when the page was left goes when it is there again.
  await page.route(commands, (route) => route.abort());
  await line.fill("Study 9 x 9 x 8");
  await line.press("Enter");
  await expect(
    page.getByText("Not saved yet: the server does not answer"),
  ).toBeVisible();
  await page.unroute(commands);
  await page.route(commands, (route) => route.abort(), { times: 1 });
  await page.reload();
  await expect(place(page, /^Study/)).toBeVisible();
  await expect(place(page, /^Hall/)).toBeVisible();
  // It was made here: it is this window's to take back.
  await undo(page).click();
  await expect(place(page, /^Study/)).toHaveCount(0);
});

test("what was not heard in a window that was closed is sent by the next, and what is refused then is shown until it is forgotten", async ({
  page,
  context,
}) => {
  await newJob(page, "Whimbrel Mews", "Whimbrel Mews");
  await page.goto(page.url().replace("/measure", "/price"));
  const overhead = (at: Page) =>
    at.getByRole("textbox", { name: "Overhead", exact: true });
  const first = await context.newPage();
  await first.goto(page.url());
  await first.route(commands, (route) => route.abort());
  for (const [name, typed] of [
    ["Overhead", "17"],
    ["Contingency", "4"],
  ] as const) {
    const field = first.getByRole("textbox", { name, exact: true });
    await field.fill(typed);
    await field.press("Enter");
  }
  await expect(
    first.getByText("Not saved yet: the server does not answer"),
  ).toBeVisible();
  await first.close();
  // Meanwhile the same is set to something else.
  await overhead(page).fill("21");
  await overhead(page).press("Enter");
  await saved(page);
  const second = await context.newPage();
  await second.goto(page.url());
  const left = second.getByRole("region", { name: "Not taken" });
  await expect(left).toContainText("set pricing: overhead, 17");
  await expect(overhead(second)).toHaveValue("21");
  await expect(
    second.getByRole("textbox", { name: "Contingency", exact: true }),
  ).toHaveValue("4");
  await second.reload();
  await left.getByRole("button", { name: "Forget it" }).click();
  await expect(left).toHaveCount(0);
  await second.reload();
  await expect(overhead(second)).toHaveValue("21");
  await expect(left).toHaveCount(0);
});

test("a duplicated window is another one; what a closed window left is named before it is taken back", async ({
  page,
}) => {
  await newJob(page, "Curlew Barn", "Curlew Barn");
  await measure(page, "Hall 10 x 12 x 8");
  const opening = page.waitForEvent("popup");
  await page.evaluate(() => void window.open(location.href));
  const twin = await opening;
  await expect(place(twin, /^Hall/)).toBeVisible();
  // The window that made the hall is open: nothing of it is the twin's to take back.
  await expect(undo(twin)).toBeDisabled();
  await measure(twin, "Study 9 x 9 x 8");
  await expect(place(page, /^Study/)).toBeVisible();
  await twin.close();
  // Its own first …
  await undo(page).click();
  await expect(place(page, /^Hall/)).toHaveCount(0);
  await expect(place(page, /^Study/)).toBeVisible();
  // … then, asked twice, what the closed one left.
  await expect(async () => {
    await page.reload();
    await expect(undo(page)).toBeEnabled({ timeout: 1000 });
  }).toPass();
  await undo(page).click();
  await expect(
    page.getByText(
      "Undo once more takes back “add place”, done in a window that is closed.",
    ),
  ).toBeVisible();
  await expect(place(page, /^Study/)).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(place(page, /^Study/)).toHaveCount(0);
});

test("a page that is loaded anew is the same window, however slowly the page before lets go of it", async ({
  page,
}) => {
  await newJob(page, "Plover Barn", "Plover Barn");
  await measure(page, "Hall 10 x 12 x 8");
  const mine = await page.evaluate(() =>
    sessionStorage.getItem("emendum-window"),
  );
  // A page that is going, as a busy machine has it: it holds the lock, and answers nobody.
  const going = await page.context().newPage();
  await going.goto("/office");
  await going.evaluate((id) => {
    void navigator.locks.request(
      `emendum-window ${id}`,
      () => new Promise(() => undefined),
    );
  }, mine);
  await page.clock.install();
  await page.reload();
  const waiting = () =>
    going.evaluate(async () => (await navigator.locks.query()).pending?.length);
  await expect.poll(waiting).toBe(1);
  // A window that gives up has an id of its own by then.
  await page.clock.fastForward(9_000);
  await going.close();
  await expect(undo(page)).toBeEnabled();
  expect(
    await page.evaluate(() => sessionStorage.getItem("emendum-window")),
  ).toBe(mine);
  await undo(page).click();
  await expect(place(page, /^Hall/)).toHaveCount(0);
});

test("two offices that save the same lose nothing that was typed", async ({
  page,
  browser,
}) => {
  await page.goto("/office");
  const second = await (await browser.newContext()).newPage();
  await second.goto("/office");
  const field = (at: Page, name: string) =>
    at
      .getByRole("region", { name: "The firm" })
      .getByRole("textbox", { name })
      .or(
        at
          .getByRole("region", { name: "The firm" })
          .getByRole("combobox", { name }),
      );
  const [name, address, zone] = await Promise.all(
    ["Name", "Address", "Time zone"].map((f) => field(page, f).inputValue()),
  );
  await expect(field(second, "Name")).toHaveValue(name!);
  await field(page, "Address").fill("9 Ropewalk");
  await field(page, "Address").press("Enter");
  await field(page, "Name").fill("Pell & Larkspur");
  await field(page, "Name").press("Enter");
  await page.reload();
  await expect(field(page, "Name")).toHaveValue("Pell & Larkspur");
  // The second window has seen neither: its zone is saved, its name is not put over the other's.
  await field(second, "Time zone").fill("Europe/Dublin");
  await field(second, "Time zone").press("Enter");
  await expect(field(second, "Address")).toHaveValue("9 Ropewalk");
  await field(page, "Name").fill(name!);
  await field(page, "Name").press("Enter");
  await page.reload();
  await expect(field(page, "Time zone")).toHaveValue("Europe/Dublin");
  await expect(field(page, "Name")).toHaveValue(name!);
  await field(second, "Name").fill("Pell");
  await field(second, "Name").press("Enter");
  await expect(
    second.getByText(`It has been changed to “${name}” meanwhile`),
  ).toBeVisible();
  await expect(field(second, "Name")).toHaveValue("Pell");
  await field(second, "Name").press("Escape");
  await field(second, "Time zone").fill("Port Ennis");
  await field(second, "Time zone").press("Enter");
  await expect(
    second.getByText("That is not a time zone. Choose one from the list"),
  ).toBeVisible();
  await field(second, "Time zone").fill(zone!);
  await field(second, "Time zone").press("Enter");
  await field(second, "Address").fill(address!);
  await field(second, "Address").press("Enter");
  await second.reload();
  await expect(field(second, "Address")).toHaveValue(address!);
  await expect(field(second, "Time zone")).toHaveValue(zone!);
  await second.context().close();
});
