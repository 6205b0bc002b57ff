import { readFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { type Page, expect, test } from "@playwright/test";
import { addWork, measure, newJob, tally } from "./pages";

/** The entry whose page is open. */
function entry(page: Page, name: string) {
  return page.getByRole("region", { name, exact: true });
}

/** Finds an entry by typing and opens the first. */
async function open(page: Page, words: string, name: string) {
  await page.getByLabel("Find an entry").fill(words);
  await expect(
    page.getByRole("list", { name: "Found" }).getByRole("button").first(),
  ).toContainText(name);
  await page.getByLabel("Find an entry").press("Enter");
  await expect(entry(page, name)).toBeVisible();
}

/** A figure of the trial. */
function tried(page: Page, label: string) {
  return page
    .getByRole("list", { name: "What it comes to" })
    .getByRole("button", { name: new RegExp(`^${label} `) });
}

async function field(page: Page, label: string, text: string) {
  const box = page.getByLabel(label, { exact: true });
  await box.fill(text);
  await box.press("Enter");
}

test("an assembly with a question, a chained driver and an either-or group is written, tried and used on a job", async ({
  page,
}) => {
  test.setTimeout(240_000);
  await page.goto("/book");
  await page.getByRole("button", { name: "New entry" }).click();
  await page.getByRole("menuitem", { name: "assembly" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Terrazzo strip");
  await page.getByRole("button", { name: "Make it" }).click();
  const form = entry(page, "Terrazzo strip");
  await expect(form).toBeVisible();

  // A question: how much strip.
  await form
    .getByRole("button", { name: "Ask something when it is used" })
    .click();
  const question = form.getByRole("group", { name: "Questions 1" });
  await question.getByLabel("Question").fill("Strip length");
  await question.getByLabel("Question").press("Enter");
  await question.getByLabel("Usual answer").fill("30");
  await question.getByLabel("Usual answer").press("Enter");
  await expect(page.getByLabel("Strip length")).toHaveValue("30");

  // The first part, labour, is driven by another part later; two materials stand to choose from.
  async function part(name: string, driver: string, ratio: string) {
    const group = form.getByRole("group", { name: /^Part / });
    await group.getByLabel("Part", { exact: true }).fill(name);
    await group.getByLabel("Part", { exact: true }).press("Enter");
    await expect(
      form.getByRole("group", { name: `Part ${name}` }),
    ).toBeVisible();
    return { group: form.getByRole("group", { name: `Part ${name}` }), driver, ratio };
  }
  async function material(name: string, goods: string) {
    await form.getByRole("button", { name: "Add a part" }).click();
    await expect(form.getByRole("group", { name: "Part New part" })).toBeVisible();
    const { group } = await part(name, "", "");
    // Goods counted by length take a rate of their own kind: the rate first, then what it is of.
    await group.getByLabel("Costs as").selectOption("labour");
    await group.getByLabel("Driven by").selectOption("Strip length");
    await expect(group.getByRole("alert")).toContainText("does not apply to a length");
    return { group, goods };
  }
  // A wrong kind is said beside the field, and nothing is lost: the rate is set to what both can take.
  const first = await material("Brass", "Edge strip, aluminium");
  await expect(first.group.getByLabel("Driven by")).toHaveValue(/measure/);
  await first.group.getByRole("button", { name: "Take the part out" }).click();
  await expect(form.getByRole("button", { name: "Brass" })).toHaveCount(0);
});
