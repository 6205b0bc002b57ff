import { expect, test } from "./test";
import {
  accessible,
  addWork,
  measure,
  newJob,
  place,
  saved,
  tally,
  tapeLine,
} from "./pages";

test("windows are measured without their room, a count that could be a height is doubted, and film goes by the glass", async ({
  page,
}) => {
  await newJob(page, "Petrel Opticians", "Petrel Opticians");
  await tapeLine(page).fill("Front office 3 x 4 x6");
  await expect(page.getByText("The 6 is taken for the height.")).toBeVisible();
  await page.getByRole("button", { name: "6 windows of that size" }).click();
  await expect(tapeLine(page)).toHaveValue("Front office: window 3 x 4 x6");
  await expect(page.getByText("is taken for")).toHaveCount(0);
  await tapeLine(page).press("Enter");
  await expect(place(page, /^Front office/)).toBeVisible();
  await measure(page, "Shop 20 x 20 x 9; door 3 x 7; window 3 x 4 x2");
  // A name that stands under the heading already is asked about while it is typed.
  await tapeLine(page).fill("shop 9 x 9 x 8");
  await expect(page.getByText("There is a Shop here already.")).toBeVisible();
  await page.getByRole("button", { name: "Shop 2", exact: true }).click();
  await expect(tapeLine(page)).toHaveValue("Shop 2 9 x 9 x 8");
  await expect(page.getByText("here already")).toHaveCount(0);
  await tapeLine(page).press("Escape");
  await page.getByRole("link", { name: /^Work/ }).click();
  await addWork(page, "frosted film");
  await page.getByRole("gridcell", { name: /Frosted film, Front/ }).click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("i");
  await saved(page);
  await page.getByRole("button", { name: "Quantities" }).click();
  // Six windows of 12 ft² and two; the door is not glass.
  await expect(
    page.getByRole("gridcell", { name: /Frosted film, Front/ }),
  ).toHaveAccessibleName(/72\.0 ft², included/);
  await expect(
    page.getByRole("gridcell", { name: /Frosted film, Shop/ }),
  ).toHaveAccessibleName(/24\.0 ft², included/);
});

test("work of nothing looks so, says why, and takes what is there with one key; equal doors of neighbours are joined from the checks", async ({
  page,
}) => {
  await newJob(page, "Dipper House", "Dipper House");
  await measure(page, "Hall 12 x 10 x 8; door 3 x 6'8");
  await measure(page, "Study 12 x 11 x 8; door 3 x 6'8");
  await measure(page, 'Back: stair 12 rise 7" going 10" wide 3\'');
  await page.getByRole("link", { name: /^Work/ }).click();
  await addWork(page, "carpet tile");
  await addWork(page, "caulk joints");
  const cell = (work: string, at: string) =>
    page.getByRole("gridcell", { name: new RegExp(`${work}, ${at}:`) });
  await cell("Carpet tile", "Hall").click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("i");
  await expect(cell("Caulk joints", "Hall")).toHaveAccessibleName(/included/);
  // Carpet leads itself on the stair; joints at trim have no length of their own there.
  await expect(cell("Carpet tile", "Back")).not.toHaveAccessibleName(/nothing/);
  const joints = cell("Caulk joints", "Back");
  await expect(joints).toHaveAccessibleName(
    /included, but of nothing: It goes by base, which Back does not have\./,
  );
  await expect(joints).toHaveText("0 ?");
  await joints.click();
  await page.keyboard.press("m");
  await expect(joints).not.toHaveAccessibleName(/nothing/);
  await page.keyboard.press("Control+z");
  await expect(joints).toHaveAccessibleName(/nothing/);
  // The checks have it, too, and the door that two rooms may share.
  const checks = page.getByRole("region", { name: "Checks" });
  await page.keyboard.press("n");
  await checks.getByRole("button", { name: /^Work of nothing/ }).click();
  await checks.getByRole("button", { name: "Take stringers there" }).click();
  await expect(joints).not.toHaveAccessibleName(/nothing/);
  await checks
    .getByRole("button", { name: /^One opening counted twice/ })
    .click();
  await checks.getByRole("button", { name: "Join Hall and Study" }).click();
  await expect(checks.getByText(/counted twice/)).toHaveCount(0);
  await accessible(page, "work with checks");
  await page.getByRole("link", { name: /^Measure/ }).click();
  await place(page, /^Hall/).click();
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("combobox", { name: "Tape line of Hall" }),
  ).toHaveValue("Hall 12 x 10 x 8; door 3 x 6'8 into Study");
});

test("a question is asked once for the job, or at each place with its answers in one list", async ({
  page,
}) => {
  await newJob(page, "Knot Surgery", "Knot Surgery");
  for (const name of ["Ward", "Office", "Store"])
    await measure(page, `${name} 10 x 10 x 8`);
  await page.getByRole("link", { name: /^Work/ }).click();
  await addWork(page, "hygiene wash");
  const round = page.getByRole("gridcell", { name: /Hygiene wash.*, Ward/ });
  await round.click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("i");
  // 3 · 0.25 h, and 8 rooms at 12 an hour once: 1.417 h.
  await expect(tally(page, "Labour")).toHaveText("1.4h");
  const sheet = page.getByRole("complementary", { name: "Work item" });
  await page.getByRole("tab", { name: "Everywhere" }).click();
  const rooms = sheet.getByLabel("Rooms in the round, room, once for the job");
  await rooms.fill("3");
  await rooms.press("Enter");
  await expect(tally(page, "Labour")).toHaveText("1.0h");
  // People and hours instead of any pace.
  await sheet.getByLabel("Labour in all").fill("3 x 9 h");
  await sheet.getByLabel("Labour in all").press("Enter");
  await expect(tally(page, "Labour")).toHaveText("27.0h");
  await sheet.getByLabel("Labour in all").fill("soon");
  await sheet.getByLabel("Labour in all").press("Enter");
  await expect(sheet.getByText("Write hours like 27 h")).toBeVisible();
  await expect(sheet.getByLabel("Labour in all")).toHaveValue("soon");
  await sheet.getByLabel("Labour in all").press("Escape");
  await expect(sheet.getByLabel("Labour in all")).toHaveValue("3 x 9 h");
  await round.click();
  // At each place: the list of answers stands where the question is.
  await addWork(page, "corner beads");
  await page.getByRole("gridcell", { name: /Corner beads, Ward/ }).click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("i");
  await page.getByRole("tab", { name: "Everywhere" }).click();
  await sheet.getByText(/Answers to “Length of outside corners”/).click();
  await sheet.getByLabel("Ward, ft", { exact: true }).fill("12");
  await sheet.getByLabel("Ward, ft", { exact: true }).press("Enter");
  await saved(page);
  await page.reload();
  await page.getByRole("gridcell", { name: /Corner beads, Ward/ }).click();
  await page.getByRole("tab", { name: "Everywhere" }).click();
  await sheet.getByText(/Answers to “Length of outside corners”/).click();
  await expect(sheet.getByLabel("Ward, ft", { exact: true })).toHaveValue("12");
  await expect(sheet.getByLabel("Office, ft", { exact: true })).toHaveValue("");
});

test("a customer is made with the job, and the gauge names the floor and the target", async ({
  page,
}) => {
  await page.goto("/jobs");
  await page.getByRole("button", { name: "New job" }).click();
  await page
    .getByRole("textbox", { name: "Job", exact: true })
    .fill("Smew Chapel");
  await page.getByRole("combobox", { name: "Customer" }).selectOption("new");
  await page.getByRole("button", { name: "Add the job" }).click();
  // Without a name it is asked for beside the field, and nothing typed is lost.
  await expect(
    page.getByRole("textbox", { name: "Customer's name" }),
  ).toHaveAttribute("aria-invalid", "true");
  await page
    .getByRole("textbox", { name: "Customer's name" })
    .fill("Chapel Trust");
  await page.getByRole("button", { name: "Add the job" }).click();
  await expect(
    page.getByRole("heading", { name: "Smew Chapel" }),
  ).toBeVisible();
  await expect(page.getByText(/no\. \d+ · Chapel Trust/)).toBeVisible();
  const foot = page.getByLabel("Totals of the job");
  await expect(foot.getByText(/^floor \d/)).toBeVisible();
  await expect(foot.getByText(/^target \d/)).toBeVisible();
  await expect(page.getByText(/^0 places$/)).toBeVisible();
});

test("a cleaning round's usual places bring its own work, and what is left out stays out", async ({
  page,
}) => {
  await newJob(page, "Scoter Offices", "Scoter Offices");
  await page
    .getByRole("button", { name: "Pick from the usual places" })
    .click();
  await page.getByLabel("Kind of building").selectOption("Cleaning round");
  await page.getByRole("checkbox", { name: "Glass: Wash glass" }).uncheck();
  await page.getByLabel("How many: Office", { exact: true }).fill("2");
  await page.getByRole("button", { name: "Add 2 places" }).click();
  await expect(place(page, /^Office 2/)).toContainText("to be measured");
  await page.getByRole("link", { name: /^Work/ }).click();
  await expect(
    page.getByRole("gridcell", { name: /Hygiene wash.*, Office 1/ }),
  ).toHaveAccessibleName(/of nothing: Office 1 is not measured yet\./);
  await expect(page.getByRole("gridcell", { name: /Wash glass/ })).toHaveCount(
    0,
  );
});

test("the whole job's measures stand by heading, each with its workings", async ({
  page,
}) => {
  await newJob(page, "Brant House", "Brant House");
  await page.getByLabel("under", { exact: true }).fill("House / Ground floor");
  await measure(page, "Hall 10 x 12 x 8");
  await measure(page, "Study 10 x 10 x 8 x2");
  await page.getByLabel("under", { exact: true }).fill("House / First floor");
  await measure(page, "Loft 9 x 10 x 8");
  const measures = page.getByRole("region", { name: "Measures" });
  await measures.getByRole("button", { name: "Whole job" }).click();
  // 120 + 2 · 100 + 90 ft².
  const floor = (heading: string) =>
    measures
      .getByRole("region", { name: heading, exact: true })
      .getByRole("button", { name: /^Floor,/ });
  await expect(floor("Whole job")).toHaveText("410.0ft²");
  await expect(floor("House")).toHaveText("410.0ft²");
  await expect(floor("House / Ground floor")).toHaveText("320.0ft²");
  await expect(floor("House / First floor")).toHaveText("90.0ft²");
  await floor("House / Ground floor").click();
  await expect(page.getByRole("region", { name: "Workings" })).toContainText(
    "Floor, House / Ground floor",
  );
});
