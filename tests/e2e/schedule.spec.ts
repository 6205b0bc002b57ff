import ICAL from "ical.js";
import { type Page, expect, test } from "./test";
import { accessible, saved } from "./pages";
import { accepted } from "./sendPages";
import { addEverywhere, rooms } from "./workPages";

/** What a calendar says, as another library reads it (ical.js). */
function events(text: string) {
  return new ICAL.Component(ICAL.parse(text) as never)
    .getAllSubcomponents("vevent")
    .map((event) => new ICAL.Event(event))
    .map((event) => ({
      summary: event.summary,
      start: event.startDate.toJSDate(),
      end: event.endDate.toJSDate(),
      id: event.uid,
    }));
}

const piece = (page: Page, name: RegExp) =>
  page.getByRole("region", { name: "Schedule" }).getByRole("button", { name });

const before = (page: Page) =>
  page.getByRole("region", { name: "Before it is moved" });

test("an accepted job is laid out, moved by keys and by drag with what waits for it, told, and read by a calendar program", async ({
  page,
}) => {
  await rooms(page, "Plover Row", 1);
  await addEverywhere(page, "Ceilings Paint");
  await addEverywhere(page, "Walls Paint");
  await accepted(page);
  await page.keyboard.press("Alt+5");
  await page.getByRole("button", { name: "Schedule" }).press("Enter");
  const nothing = page.getByRole("region", { name: "Nothing is planned yet" });
  await nothing.getByRole("button", { name: "Lay it out" }).press("Enter");
  const laying = page.getByRole("dialog", { name: "Lay it out" });
  // A year on which nothing else of this firm lies.
  const from = laying.getByRole("textbox", { name: "From" });
  await from.fill("soon");
  await expect(laying.getByRole("alert")).toContainText("like 2027-01-31");
  await expect(
    laying.getByRole("button", { name: "Lay it out" }),
  ).toBeDisabled();
  await from.fill("2041-03-04");
  await laying
    .getByRole("combobox", { name: /^Ceilings/ })
    .selectOption({ label: "Wyn" });
  await laying
    .getByRole("combobox", { name: /^Walls/ })
    .selectOption({ label: "Idris" });
  await expect(laying.getByRole("status")).toContainText(
    "2 tasks, from Mon 4 Mar",
  );
  await laying.getByRole("button", { name: "Lay it out" }).press("Enter");
  await expect(laying).toHaveCount(0);
  const ceilings = piece(page, /^Ceilings, Ground floor: Wyn, Mon 4 Mar/);
  await expect(ceilings).toBeVisible();
  await accessible(page, "the schedule");

  // Walls wait until ceilings are dry.
  await page
    .getByRole("button", { name: "Walls, Ground floor", exact: true })
    .press("Enter");
  await page
    .getByRole("region", { name: "Walls, Ground floor" })
    .getByRole("button", { name: "Change" })
    .press("Enter");
  const walls = page.getByRole("dialog", { name: "Walls, Ground floor" });
  await walls
    .getByRole("combobox", { name: "Wait for" })
    .selectOption({ label: "Ceilings, Ground floor" });
  await walls
    .getByRole("textbox", { name: "Hours to dry after Ceilings, Ground floor" })
    .fill("many");
  await expect(walls.getByRole("alert")).toContainText("as a number");
  await walls
    .getByRole("textbox", { name: "Hours to dry after Ceilings, Ground floor" })
    .fill("24");
  await expect(walls.getByRole("status")).toContainText("was Mon 4 Mar");
  await accessible(page, "a task");
  await walls.getByRole("button", { name: "Change it" }).press("Enter");
  await expect(walls).toHaveCount(0);
  await expect(
    piece(page, /^Ceilings, Ground floor: .*dries 24 h$/),
  ).toBeVisible();

  // By keys: looked at, put back by Escape, then kept, and undone as one.
  await ceilings.focus();
  await page.keyboard.press("Alt+ArrowRight");
  await expect(before(page)).toContainText("Tue 5 Mar");
  await expect(before(page)).toContainText(/Moves with it\s*1/);
  await expect(
    piece(page, /^Ceilings, Ground floor: Wyn, Tue 5 Mar/),
  ).toBeFocused();
  // Put back before the answer is there: it comes too late then, and brings nothing back.
  let answered = () => {};
  const waits = new Promise<void>((go) => (answered = go));
  const late = page.waitForResponse(/schedule\/move$/);
  await page.route(/schedule\/move$/, async (route) => {
    await waits;
    await route.continue();
  });
  await page.keyboard.press("Alt+ArrowRight");
  await page.keyboard.press("Escape");
  await expect(before(page)).toHaveCount(0);
  answered();
  await (await late).finished();
  await page.unroute(/schedule\/move$/);
  await expect(before(page)).toHaveCount(0);
  await expect(ceilings).toBeVisible();
  await ceilings.focus();
  await page.keyboard.press("Alt+ArrowRight");
  await expect(before(page)).toContainText("Tue 5 Mar");
  await accessible(page, "before a move");
  await before(page).getByRole("button", { name: "Move only" }).press("Enter");
  await expect(before(page)).toHaveCount(0);
  await expect(
    piece(page, /^Ceilings, Ground floor: Wyn, Tue 5 Mar.*pinned/),
  ).toBeVisible();
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(ceilings).toBeVisible();
  await saved(page);

  // By drag: two days on, and those whom it concerns are told.
  const box = (await ceilings.boundingBox())!;
  const board = (await page
    .getByRole("region", { name: /^Ground floor/ })
    .boundingBox())!;
  const at = box.x + box.width / 2;
  const day = board.width / 21;
  await page.mouse.move(at, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(at + day, box.y + 20, { steps: 4 });
  await page.mouse.move(at + 2 * day, box.y + 20, { steps: 4 });
  await page.mouse.up();
  await expect(before(page)).toContainText("Wed 6 Mar");
  await before(page)
    .getByRole("button", { name: "Move and tell 2" })
    .press("Enter");
  await expect(before(page)).toHaveCount(0);
  await page
    .getByRole("region", { name: "Ceilings, Ground floor" })
    .getByRole("button", { name: "Close" })
    .press("Enter");
  const told = page.getByRole("region", { name: "Who gets told" });
  await expect(told).toContainText("everybody knows all of it");
  await expect(told).toContainText("Wyn: mail to wyn@larkspurpell.example");

  // A task by hand, clashing with what Wyn does that day.
  await page.getByRole("button", { name: "Add", exact: true }).press("Enter");
  const adding = page.getByRole("dialog", { name: "Add a task" });
  await adding.getByRole("textbox", { name: "What" }).fill("Scaffold down");
  await adding.getByRole("textbox", { name: "Labour hours" }).fill("8");
  await adding.getByRole("textbox", { name: "Begins on" }).fill("2041-03-06");
  await adding.getByRole("textbox", { name: "At", exact: true }).fill("noon");
  await expect(adding.getByRole("alert")).toContainText("like 8:00");
  await adding.getByRole("textbox", { name: "At", exact: true }).fill("8:00");
  await adding
    .getByRole("combobox", { name: "Crew" })
    .selectOption({ label: "Wyn" });
  await expect(adding).toContainText("Asked for too much");
  await adding.getByRole("button", { name: "Add it" }).press("Enter");
  await expect(adding).toHaveCount(0);
  await page.getByRole("button", { name: "By crew, all jobs" }).press("Enter");
  const wyn = page.getByRole("region", { name: /^Wyn: asked too much/ });
  await expect(
    wyn.getByRole("button", { name: /^Scaffold down/ }),
  ).toBeVisible();

  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Calendar file" }).click(),
  ]);
  const read = events(await text(download));
  expect(read.map((e) => e.summary).sort()).toEqual([
    "Ceilings, Ground floor",
    "Scaffold down",
    "Walls, Ground floor",
  ]);
  expect(new Set(read.map((e) => e.id)).size).toBe(3);
  const by = Object.fromEntries(read.map((e) => [e.summary, e]));
  expect(
    +by["Walls, Ground floor"]!.start - +by["Ceilings, Ground floor"]!.end,
  ).toBeGreaterThanOrEqual(24 * 3_600_000);
  expect(+by["Scaffold down"]!.end - +by["Scaffold down"]!.start).toBe(
    8 * 3_600_000,
  );
});

async function text(download: {
  createReadStream: () => Promise<NodeJS.ReadableStream>;
}) {
  const parts: string[] = [];
  for await (const part of await download.createReadStream())
    parts.push(String(part));
  return parts.join("");
}

test("a crew is added with its hours and days off, and its calendar is asked for at a private address", async ({
  page,
  playwright,
}) => {
  await page.goto("/office");
  await page.getByRole("link", { name: "Crews" }).click();
  const crews = page.getByRole("region", { name: "Crews", exact: true });
  await crews.getByRole("button", { name: "Add a crew" }).press("Enter");
  const adding = page.getByRole("dialog", { name: "Add a crew" });
  await adding.getByRole("textbox", { name: "Name" }).fill("Plover pavers");
  await adding.getByRole("textbox", { name: "Monday" }).fill("8 to 4");
  await expect(adding.getByRole("alert")).toContainText("Write hours like");
  await expect(adding.getByRole("button", { name: "Keep" })).toBeDisabled();
  await adding
    .getByRole("textbox", { name: "Monday" })
    .fill("7-12, 12:30-15:30");
  await adding.getByRole("button", { name: "Add days off" }).press("Enter");
  await adding
    .getByRole("textbox", { name: "Days off 1, from" })
    .fill("2041-12-24");
  await adding
    .getByRole("textbox", { name: "Days off 1, why" })
    .fill("boiler inspection");
  await expect(adding.getByRole("status")).toContainText("It moves no task.");
  await adding.getByRole("button", { name: "Keep" }).press("Enter");
  await expect(adding).toHaveCount(0);
  const row = crews.getByRole("row", { name: /^Plover pavers/ });
  await expect(row).toContainText("Mon 7:00–12:00, 12:30–15:30");
  await expect(row).toContainText("2041-12-24, boiler inspection");
  await accessible(page, "crews");

  // The firm's days off move what is planned; it is said before, and nothing is kept.
  await page
    .getByRole("button", { name: "Change the firm’s hours" })
    .press("Enter");
  const firm = page.getByRole("dialog", { name: "When the firm works" });
  await firm.getByRole("button", { name: "Add days off" }).press("Enter");
  await firm
    .getByRole("textbox", { name: "Days off 1, from" })
    .fill("2020-01-01");
  await firm
    .getByRole("textbox", { name: "Days off 1, to" })
    .fill("2019-01-01");
  await expect(firm.getByRole("alert")).toContainText("to a later one");
  await firm.getByRole("button", { name: "Close" }).press("Enter");

  await row
    .getByRole("button", { name: "New calendar address for Plover pavers" })
    .press("Enter");
  const made = page.getByRole("dialog", { name: "The link of Plover pavers" });
  const address = (await made.getByRole("link").getAttribute("href"))!;
  await made.getByRole("button", { name: "Close" }).press("Enter");
  const outside = await playwright.request.newContext();
  const asked = await outside.get(address);
  expect(asked.headers()["content-type"]).toContain("text/calendar");
  expect(events(await asked.text())).toEqual([]);
  await row
    .getByRole("button", { name: "Revoke calendar addresses of Plover pavers" })
    .press("Enter");
  await expect(row).not.toContainText("1 address");
  expect((await outside.get(address)).status()).toBe(404);
  await outside.dispose();
  await row
    .getByRole("button", { name: "Remove Plover pavers" })
    .press("Enter");
  await expect(row).toHaveCount(0);
});
