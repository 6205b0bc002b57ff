import { type Page, expect } from "./test";
import { newJob } from "./pages";

/** A cell of the scope grid. */
export const cell = (page: Page, name: RegExp | string) =>
  page.getByRole("gridcell", { name });

export const sheet = (page: Page) =>
  page.getByRole("complementary", { name: "Work item" });

export const dialog = (page: Page) => page.getByRole("dialog");

/** A command on its way, from a window of its own. */
export const sent = (command: object) => ({
  id: crypto.randomUUID(),
  base: 0,
  client: crypto.randomUUID(),
  command,
});

/** Gives a command to the open job as the browser does, to set a scene. */
export async function command(page: Page, body: object) {
  const job = /\/jobs\/[^/]+/.exec(page.url())![0];
  const answer = await page.request.post(`/api${job}/commands`, {
    data: sent(body),
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}

/** A job with so many rooms on two floors. */
export async function rooms(page: Page, name: string, count: number) {
  await newJob(page, name, name);
  await command(page, {
    type: "addPlaces",
    work: [],
    places: Array.from({ length: count }, (_, i) => ({
      place: crypto.randomUUID(),
      line: `Room ${i + 1}: ${10 + (i % 7)} x ${9 + (i % 5)} x 8; door 3 x 6'8; window 3 x 4`,
      group: i < count / 2 ? "Ground floor" : "First floor",
      finish: i % 3 === 0 ? "plaster" : "",
      notes: "",
      typed: [],
      work: [],
    })),
  });
  await page.goto(page.url().replace(/\/measure.*/, "/work"));
  await expect(page.getByRole("region", { name: "Scope" })).toBeVisible();
}

/** Adds work that the job has in every place. */
export async function addEverywhere(page: Page, ...names: string[]) {
  await page.keyboard.press("a");
  await page.getByRole("radio", { name: /^all \d+ places?$/ }).check();
  for (const name of names) {
    await page.getByRole("textbox", { name: "Find in the Book" }).fill(name);
    await expect(
      page.getByRole("list", { name: "Entries" }).getByRole("button").first(),
    ).toHaveAccessibleName(new RegExp(name.split(" ").join(".*"), "i"));
    for (const offered of await dialog(page)
      .getByRole("group", { name: "Usually goes with it" })
      .getByRole("checkbox")
      .all())
      await offered.uncheck();
    await page.keyboard.press("Enter");
    await expect(dialog(page).getByRole("status").last()).toHaveText(
      new RegExp(`${name.split(" ").join(".*")} added$`, "i"),
    );
  }
  await page.keyboard.press("Escape");
  await expect(dialog(page)).toHaveCount(0);
}

export async function paste(page: Page, text: string) {
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.evaluate((t) => navigator.clipboard.writeText(t), text);
  await page.keyboard.press("Control+v");
}
