import AxeBuilder from "@axe-core/playwright";
import { type Page, expect } from "./test";

/** Demo jobs. */
export const library = "/jobs/01930000-0000-7000-8000-000000000999";
export const clinic = "/jobs/01930000-0000-7000-8000-000000000997";
export const pottery = "/jobs/01930000-0000-7000-8000-000000000996";

/** Waits until the last edit is on disk. */
export async function saved(page: Page) {
  await expect(page.getByText("Saved", { exact: true })).toBeVisible();
}

/** The text of a figure at the foot, without its unit. */
export function tally(page: Page, label: string) {
  return page
    .getByLabel("Totals of the job")
    .getByRole("button", { name: new RegExp(`^${label} `) });
}

/** Makes a customer and a job, and opens the job on Measure. */
export async function newJob(page: Page, customer: string, job: string) {
  await page.goto("/customers");
  await page.getByRole("button", { name: "New customer" }).click();
  await page.getByRole("textbox", { name: "Name" }).fill(customer);
  await page.getByRole("button", { name: "Keep" }).click();
  await page.getByRole("link", { name: "Jobs", exact: true }).click();
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByRole("textbox", { name: "Job", exact: true }).fill(job);
  // Another test may have made one of the same name; either will do.
  await page
    .getByRole("combobox", { name: "Customer" })
    .selectOption({ label: customer });
  await page.getByRole("button", { name: "Add the job" }).click();
  await expect(page.getByRole("heading", { name: job })).toBeVisible();
  // The station comes after the frame: then the keys of both are heard.
  await expect(tapeLine(page)).toBeVisible();
}

/** The tape line for a new place. */
export function tapeLine(page: Page) {
  return page.getByRole("combobox", { name: "Tape line", exact: true });
}

/** A place in the list. */
export function place(page: Page, name: RegExp) {
  return page.getByLabel("Places of the job").getByRole("treeitem", { name });
}

/** Types a tape line and keeps it. */
export async function measure(page: Page, line: string) {
  const tape = tapeLine(page);
  await tape.fill(line);
  await tape.press("Enter");
  await expect(tape).toHaveValue("");
}

/** Adds work from the Book by typing. */
export async function addWork(page: Page, find: string) {
  const columns = page.getByRole("button", { name: /in every place$/ });
  await expect(page.getByRole("region", { name: "Scope" })).toBeVisible();
  const before = await columns.count();
  await page.keyboard.press("a");
  await page.getByRole("textbox", { name: "Find in the Book" }).fill(find);
  // The best match stands first.
  await expect(
    page.getByRole("list", { name: "Entries" }).getByRole("button").first(),
  ).toHaveAccessibleName(new RegExp(find.split(" ").join(".*"), "i"));
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  if (before > 0) await expect(columns).toHaveCount(before + 1);
}

/** Checks the page as it stands for violations of WCAG 2.2 AA. In dark only the colours differ, so only what depends on them is checked again. */
export async function accessible(page: Page, what: string) {
  // What an edit moved fades away a moment later: half faded it is no state of the page. Colours are all that differs in the dark.
  for (const colorScheme of ["dark", "light"] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: "reduce" });
    // No frames here, and nothing is asked of what is in order: in one go, without a page of its own to put results together.
    const axe = new AxeBuilder({ page })
      .setLegacyMode(true)
      .options({ resultTypes: ["violations"] });
    const { violations } = await (
      colorScheme === "dark"
        ? axe.withRules(["color-contrast", "link-in-text-block"])
        : axe.withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"])
    ).analyze();
    expect(
      violations.map(
        (v) => `${what}, ${colorScheme}: ${v.id}: ${v.nodes[0]?.html}`,
      ),
    ).toEqual([]);
  }
}
