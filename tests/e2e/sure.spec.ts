import { accessible, saved, tally } from "./pages";
import { addEverywhere, rooms } from "./workPages";
import { type Page, expect, test } from "./test";

const region = (page: Page, name: string) =>
  page.getByRole("region", { name, exact: true });
const field = (page: Page, name: string) =>
  page.getByRole("textbox", { name, exact: true });

/** Three painted rooms, and how sure they are. */
async function sure(page: Page, name: string) {
  await rooms(page, name, 3);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+3");
  await page.getByRole("button", { name: "How sure", exact: true }).click();
  await expect(region(page, "Outcomes")).toBeVisible();
  await expect(region(page, "Where the profit may come out")).toContainText(
    "10,000 outcomes",
  );
}

async function drawn(page: Page) {
  await saved(page);
  await expect(region(page, "Outcomes")).toHaveAttribute("aria-busy", "false");
}

async function keep(page: Page, name: string, text: string) {
  await field(page, name).fill(text);
  await field(page, name).press("Enter");
  await drawn(page);
}

test("what may come out otherwise is said of the job, a section and work; it is drawn, explained and taken back", async ({
  page,
}) => {
  await sure(page, "Curlew Yard");
  const price = await tally(page, "Price before tax").innerText();
  const cost = region(page, "Outcomes").getByRole("button", {
    name: /^Cost, 9 of 10 below/,
  });
  // Nothing may come out otherwise: every outcome is what is reckoned.
  for (const end of ["least", "most"] as const) {
    await keep(page, `Hours at the ${end}, the whole job, %`, "0");
    await keep(page, `Prices at the ${end}, the whole job, %`, "0");
  }
  await expect(cost).toHaveText(await tally(page, "Cost").innerText());
  await expect(region(page, "Outcomes")).toContainText(
    "Nothing may come out otherwise",
  );
  // A section, and work of its own beside it.
  await keep(page, "Hours at the most, Walls, %", "50");
  const walls = field(page, "Hours at the most, Walls: Paint, %");
  await expect(walls).toHaveValue("50");
  await keep(page, "Hours at the most, Walls: Paint, %", "+80");
  await expect(region(page, "Outcomes")).toContainText("Walls: Paint");
  await expect(region(page, "Outcomes")).toContainText("Walls: Paint100.0%");
  await expect(tally(page, "Price before tax")).toHaveText(price);
  const with80 = await cost.innerText();
  expect(with80).not.toBe(await tally(page, "Cost").innerText());
  // Why? goes down to what was said of the work.
  await cost.press("e");
  const workings = region(page, "Workings");
  await expect(workings).toContainText("9,000th smallest of 10,000 outcomes");
  await page.keyboard.press("Escape");
  // It falls back to its section, and by one key comes again.
  await page
    .getByRole("button", { name: "Walls: Paint: as its section" })
    .press("Enter");
  await expect(walls).toHaveValue("50");
  await region(page, "Outcomes").click();
  await page.keyboard.press("Control+z");
  await expect(walls).toHaveValue("80");
  await expect(cost).toHaveText(with80);
});

test("what cannot be is said beside its field and stays there; what all work shares says its correlation", async ({
  page,
}) => {
  await sure(page, "Avocet Yard");
  const low = field(page, "Hours at the least, the whole job, %");
  await low.fill("30");
  await low.press("Enter");
  await expect(
    page.getByText("Hours go from low to high: −10 and then 20"),
  ).toBeVisible();
  await expect(low).toHaveValue("30");
  await low.press("Escape");
  await expect(low).toHaveValue("-10");
  await low.fill("a few");
  await low.press("Enter");
  await expect(low).toHaveAttribute("aria-invalid", "true");
  await low.press("Escape");
  await keep(page, "All work goes alike, of 100 outcomes", "30");
  await expect(region(page, "What is assumed")).toContainText(
    "correlation of 0.09",
  );
  await field(page, "Seed").fill("x");
  await field(page, "Seed").press("Enter");
  await expect(
    page.getByText("A seed is a whole number from 0 to 999,999."),
  ).toBeVisible();
  await field(page, "Seed").press("Escape");
  const chance = region(page, "Outcomes").getByRole("button", {
    name: /^Cost, 9 of 10 below/,
  });
  const before = await chance.innerText();
  await keep(page, "Seed", "7");
  await expect(chance).not.toHaveText(before);
});

test("a second estimator has another pace, difficulty or Book: what differs stands by size, and says why", async ({
  page,
}) => {
  await sure(page, "Dunlin Yard");
  const second = region(page, "Would two estimators agree");
  await expect(second).toContainText("Say in what the other goes about it");
  await field(page, "They give labour").fill("25");
  const whole = page.getByRole("row", { name: /^The whole job/ }).last();
  const more = whole.getByRole("button", {
    name: /^The whole job, price, theirs less ours/,
  });
  await expect(more).toBeVisible();
  await expect(second).toContainText(
    "2 of 2 pieces of work differ, the largest difference in price first",
  );
  await more.press("e");
  await expect(region(page, "Workings")).toContainText("theirs less ours");
  await page.keyboard.press("Escape");
  await field(page, "They give labour").fill("a lot");
  await expect(second).toContainText("Write a percentage, like 15 or -10.");
  await field(page, "They give labour").fill("");

  const book = page.getByRole("combobox", { name: "Their Book" });
  await book.selectOption("the Book as it was on a day");
  await field(page, "As it was on").fill("1 May");
  await expect(second).toContainText("that of a day like 2026-03-31");
  await field(page, "As it was on").fill("2099-01-01");
  await expect(second).toContainText("Choose a day from 2000 to today.");

  // Another firm's Book, as a file: its painters earn more.
  await book.selectOption("another firm's Book, a file");
  await page.getByLabel("Book file").setInputFiles({
    name: "not-a-book.json",
    mimeType: "application/json",
    buffer: Buffer.from("{}"),
  });
  await expect(second).toContainText("This is not a Book file");
  const answer = await page.request.get("/api/book/book.json");
  const file = JSON.parse((await answer.body()).toString()) as {
    entries: { kind: string; wage?: string }[];
  };
  for (const entry of file.entries)
    if (entry.wage) entry.wage = String(Number(entry.wage) + 10);
  await page.getByLabel("Book file").setInputFiles({
    name: "theirs.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(file)),
  });
  await expect(second).toContainText("held against theirs.json");
  await expect(more).toHaveText(/^\+/);
  await more.press("e");
  await expect(region(page, "Workings")).toContainText("theirs less ours");
  await page.keyboard.press("Escape");

  await book.selectOption("the Book as it is today");
  await expect(second).toContainText("Nothing differs.");
});

test("no accessibility violations on How sure", async ({ page }) => {
  await page.goto("/jobs/01930000-0000-7000-8000-000000000999/price");
  await page.getByRole("button", { name: "How sure", exact: true }).click();
  await expect(region(page, "Outcomes")).toBeVisible();
  await field(page, "They give labour").fill("10");
  await expect(page.getByRole("table", { name: "What differs" })).toBeVisible();
  await accessible(page, "how sure");
});
