import { accessible, newJob, place, saved, tally } from "./pages";
import { addEverywhere, command, rooms } from "./workPages";
import { type Page, expect, test } from "./test";

const round = "/jobs/01930000-0000-7000-8000-000000000995";
const region = (page: Page, name: string) =>
  page.getByRole("region", { name, exact: true });
const figure = (page: Page, within: string, name: RegExp) =>
  region(page, within).getByRole("button", { name }).first();

/** Gives the job a rhythm by keys; how often, and when it is done, as the dialog has them. */
async function rhythm(page: Page, often: string, when?: string) {
  await page
    .getByRole("button", { name: "New rhythm", exact: true })
    .press("Enter");
  const dialog = page.getByRole("dialog", { name: "New rhythm" });
  await dialog
    .getByRole("combobox", { name: "How often" })
    .selectOption({ label: often });
  if (when)
    await dialog
      .getByRole("combobox", { name: "When it is done" })
      .selectOption({ label: when });
  await dialog
    .getByRole("button", { name: "Give it to the job" })
    .press("Enter");
  await expect(dialog).toHaveCount(0);
}

test("a cleaning round of eleven rooms goes from the usual places to its price a month in at most forty actions", async ({
  page,
}) => {
  await newJob(page, "Dunlin Offices", "Dunlin Offices");
  // A key, a click, a choice or a line typed is one action.
  let actions = 0;
  await page
    .getByRole("button", { name: "Pick from the usual places" })
    .click();
  await page.getByLabel("Kind of building").selectOption("Cleaning round");
  actions += 2;
  for (const [what, many] of [
    ["Office", "6"],
    ["Meeting room", "2"],
    ["Washroom", "2"],
    ["Corridor", "1"],
  ] as const) {
    await page.getByLabel(`How many: ${what}`, { exact: true }).fill(many);
    actions++;
  }
  await page.getByRole("button", { name: "Add 11 places" }).click();
  await place(page, /^Office 1/).press("Enter");
  actions += 2;
  for (const [name, size] of [
    ...Array.from({ length: 6 }, (_, i) => [
      `Office ${i + 1}`,
      "14 x 11 x 9; window 5 x 4",
    ]),
    ["Meeting room 1", "18 x 12 x 9; window 5 x 4 x2"],
    ["Meeting room 2", "16 x 12 x 9; window 5 x 4"],
    ["Washroom 1", "12 x 8 x 9"],
    ["Washroom 2", "12 x 8 x 9"],
    ["Corridor", "44 x 6 x 9"],
  ] as const) {
    const line = page.getByRole("combobox", { name: `Tape line of ${name}` });
    await expect(line).toBeFocused();
    await line.press("End");
    await page.keyboard.type(size!);
    await line.press("Enter");
    actions++;
  }
  await page.keyboard.press("Alt+3");
  await page.getByRole("button", { name: "Year", exact: true }).click();
  actions += 2;
  // The first is what work goes by that says nothing else; the others take its place.
  await rhythm(page, "Daily");
  await rhythm(page, "Weekly", "instead of Daily");
  await rhythm(page, "Quarterly", "instead of Weekly");
  actions += 3 + 4 + 4;
  for (const [work, name] of [
    ["Glass: Wash glass, both faces", "Weekly"],
    ["Floors, cleaning: Scrub and dry", "Quarterly"],
  ] as const) {
    await page
      .getByRole("combobox", { name: `Rhythm of ${work}` })
      .selectOption({ label: name });
    actions++;
  }
  await saved(page);
  const year = region(page, "The year");
  for (const [name, times] of [
    ["Daily", "208"],
    ["Weekly", "48"],
    ["Quarterly", "4"],
  ] as const)
    await expect(
      year.getByRole("button", { name: new RegExp(`^${name}, times a year`) }),
    ).toHaveText(times);
  await expect(figure(page, "The year", /^A month /)).not.toHaveText("0.00");
  expect(actions).toBeLessThanOrEqual(40);
  // The tally says that it is a year's, and one step back gives the work its old rhythm.
  await expect(tally(page, "Price, first year")).toBeVisible();
  const month = await figure(page, "The year", /^A month /).innerText();
  await year.getByRole("heading", { name: "Twelve months" }).click();
  await page.keyboard.press("Control+z");
  await expect(
    page.getByRole("combobox", {
      name: "Rhythm of Floors, cleaning: Scrub and dry",
    }),
  ).toHaveValue("");
  await expect(figure(page, "The year", /^A month /)).not.toHaveText(month);
  await page.keyboard.press("Control+Shift+z");
  await expect(figure(page, "The year", /^A month /)).toHaveText(month);
});

test("the clinic's year is told by month with its workings, and another frequency is seen before it is taken", async ({
  page,
}) => {
  await page.goto(`${round}/price?view=year`);
  const months = page.getByRole("table", { name: "The year by month" });
  // The demo's round is in its third month on any day: here it begins with a year that does not move.
  const first = region(page, "Terms of the round").getByRole("textbox", {
    name: "First day",
  });
  await first.fill("2027-01-04");
  await page.keyboard.press("Enter");
  await expect(
    months.getByRole("row", { name: /^Fortnightly 2 2 3 2 2 2 2 3 2 2 2 2/ }),
  ).toBeVisible();
  const july = months.getByRole("button", { name: /^Profit, Jul / });
  await expect(july).toContainText("−");
  await july.press("e");
  const workings = region(page, "Workings");
  await expect(workings).toContainText("Profit, July 2027");
  await page.keyboard.press("Escape");
  await expect(workings).toHaveCount(0);
  await expect(region(page, "The year")).toContainText(
    "The first visit is on Monday 4 January 2027.",
  );
  await accessible(page, "the year");
  // Another frequency, typed; what is shown is what is taken.
  const other = region(page, "Another frequency");
  await other.getByRole("textbox", { name: "Beside them" }).fill("0");
  await page.keyboard.press("Enter");
  await expect(other.getByRole("alert")).toHaveText(
    "Write how often a year, 1 to 1,000.",
  );
  await other.getByRole("textbox", { name: "Beside them" }).fill("40");
  await page.keyboard.press("Enter");
  const shown = await other
    .getByRole("button", { name: /^40 times a year, A year / })
    .innerText();
  await other
    .getByRole("button", { name: "Take 40 times a year" })
    .press("Enter");
  await expect(figure(page, "The year", /^A year /)).toHaveText(shown);
  await expect(
    page.getByRole("textbox", { name: "Name of 40 times a year" }),
  ).toBeVisible();
  await months.click({ position: { x: 5, y: 5 } });
  await page.keyboard.press("Control+z");
  await expect(
    page.getByRole("textbox", { name: "Name of Fortnightly" }),
  ).toBeVisible();
  // One occurrence has a build-up of its own.
  await page.getByRole("button", { name: "Build-up", exact: true }).click();
  await page
    .getByRole("combobox", { name: "Build-up of" })
    .selectOption({ label: "one occurrence: Quarterly" });
  await expect(
    region(page, "How the price is built").getByRole("button", {
      name: "Price before tax 135.00 , why?",
    }),
  ).toBeVisible();
});

test("seasons, supplies, days off, years and events are typed, refused beside their field, and undone", async ({
  page,
}) => {
  await rooms(page, "Knot Court", 2);
  await addEverywhere(page, "Scrub and dry", "Deep clean");
  await page.keyboard.press("Alt+3");
  await page.getByRole("button", { name: "Year", exact: true }).click();
  await expect(region(page, "The year")).toContainText(
    "All work of this job is done once.",
  );
  await rhythm(page, "Weekly");
  const rhythms = region(page, "Rhythms");
  const often = rhythms.getByRole("textbox", {
    name: "How often Weekly comes",
  });
  await often.fill("none");
  await often.press("Enter");
  await expect(often).toHaveAttribute("aria-invalid", "true");
  await often.press("Escape");
  // A season of two months.
  await rhythms.getByText("all year").click();
  await rhythms.getByRole("checkbox", { name: "Jun" }).press(" ");
  await rhythms.getByRole("checkbox", { name: "Jul" }).press(" ");
  await expect(rhythms.getByText("Jun, Jul")).toBeVisible();
  const terms = region(page, "Terms of the round");
  await terms
    .getByRole("combobox", { name: "Billed" })
    .selectOption({ label: "over its months" });
  const months = page.getByRole("table", { name: "The year by month" });
  await expect(
    months.getByRole("button", { name: /^Billed, May / }),
  ).toHaveText("0.00");
  await expect(
    months.getByRole("button", { name: /^Billed, Jun / }),
  ).not.toHaveText("0.00");
  await terms.getByRole("textbox", { name: "First day" }).fill("soon");
  await page.keyboard.press("Enter");
  await expect(terms).toContainText("Write the first day like 2027-01-04.");
  await terms.getByRole("textbox", { name: "First day" }).fill("2027-06-07");
  await page.keyboard.press("Enter");
  await expect(region(page, "The year")).toContainText("June to May 2028");
  await terms.getByRole("textbox", { name: "Each year after" }).fill("3");
  await page.keyboard.press("Enter");
  await terms.getByRole("textbox", { name: "Years looked at" }).fill("2");
  await page.keyboard.press("Enter");
  await expect(terms.getByRole("button", { name: /^Year 2 / })).toBeVisible();
  // Supplies with a markup of their own.
  const supplies = region(page, "Supplies for the year");
  await supplies.getByRole("button", { name: "Add a supply" }).press("Enter");
  for (const [label, text] of [
    ["What", "Towels"],
    ["How many", "10"],
    ["One costs", "20"],
  ] as const)
    await supplies
      .getByRole("textbox", { name: `${label}, new supply` })
      .fill(text);
  await page.keyboard.press("Enter");
  await expect(figure(page, "The year", /^Supplies of the year /)).toHaveText(
    "240.00",
  );
  const off = region(page, "Days off");
  await off.getByRole("button", { name: "Add a day off" }).press("Enter");
  await off.getByRole("textbox", { name: /new day off/ }).fill("2027-13-01");
  await page.keyboard.press("Enter");
  await expect(off.getByRole("alert")).toHaveText(
    "A day off is written like 2027-12-27.",
  );
  await off.getByRole("textbox", { name: /new day off/ }).fill("2027-06-07");
  await page.keyboard.press("Enter");
  await expect(region(page, "The year")).toContainText(
    "The first visit is on Tuesday 8 June 2027.",
  );
  // An event by band: what is expected is in the year, what is billed at the most beside it.
  await rhythm(page, "when something happens: snow, a storm");
  await page
    .getByRole("combobox", { name: "Rhythm of Washrooms: Deep clean" })
    .selectOption({ label: "Event" });
  const band = (label: string) =>
    rhythms.getByRole("textbox", { name: `${label}, band 1` });
  await band("At the most").fill("2");
  await page.keyboard.press("Enter");
  await band("Expected").fill("3");
  await page.keyboard.press("Enter");
  await expect(rhythms).toContainText("the cap is not below what is expected");
  await band("Expected").fill("1");
  await page.keyboard.press("Enter");
  await saved(page);
  await accessible(page, "a year with an event");
  await rhythms.getByRole("button", { name: "Remove Event" }).press("Enter");
  await expect(
    page.getByRole("combobox", { name: "Rhythm of Washrooms: Deep clean" }),
  ).toHaveValue("");
});

test("the proposal of a round says the year and the month, and work takes its rhythm on the Work station too", async ({
  page,
}) => {
  await rooms(page, "Sanderling Row", 1);
  await addEverywhere(page, "Scrub and dry");
  const id = crypto.randomUUID();
  await command(page, {
    type: "addRhythm",
    rhythm: {
      id,
      rank: "",
      name: "Weekly",
      kind: "times",
      times: 52,
      months: [],
      ownVisit: true,
      bands: [],
    },
    usual: false,
  });
  await page
    .getByRole("button", { name: /^Scrub and dry/ })
    .first()
    .click();
  await page
    .getByRole("combobox", { name: "Rhythm", exact: true })
    .selectOption({ label: "Weekly" });
  await expect(tally(page, "Labour, a year")).toBeVisible();
  await page.keyboard.press("Alt+4");
  const paper = page.getByRole("main");
  await expect(paper).toContainText("A year of it");
  await expect(paper).toContainText("Machine-scrub hard floors, weekly:");
  await expect(paper).toContainText(/52 × \d/);
  await expect(paper).toContainText(/Billed at [\d,.]+ a month/);
});
