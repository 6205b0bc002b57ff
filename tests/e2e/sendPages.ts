import { type Browser, type Page, expect } from "@playwright/test";

/** A phone in somebody else's hand. */
export async function phone(browser: Browser, address: string) {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
  });
  const page = await context.newPage();
  await page.goto(address);
  return page;
}

/** Sends the job as it stands, as its next revision, with a reason where something is unfinished. */
export async function send(page: Page, letters: string, reason = true) {
  await page.getByRole("button", { name: /^Revisions/ }).press("Enter");
  await page
    .getByRole("button", { name: `Send revision ${letters}` })
    .press("Enter");
  const dialog = page.getByRole("dialog", {
    name: `Send revision ${letters}`,
  });
  await dialog.getByRole("radio", { name: /^By hand/ }).check();
  if (reason)
    await dialog
      .getByRole("textbox", { name: "Why it goes out all the same" })
      .fill("paid on the last day");
  await dialog.getByRole("button", { name: "It is sent" }).click();
  await expect(dialog).toHaveCount(0);
}

/** Sends the job as it stands and records a yes that came by word. */
export async function accepted(page: Page, reason = true) {
  await page.keyboard.press("Alt+4");
  await send(page, "A", reason);
  const a = page
    .getByRole("region", { name: "Revisions" })
    .getByRole("article", { name: /^Revision A, / });
  await a.getByRole("button", { name: "Record a yes" }).click();
  const yes = page.getByRole("dialog", { name: /^Record a yes/ });
  await yes
    .getByRole("textbox", { name: "Date that the yes bears" })
    .fill("2026-11-02");
  await yes.getByRole("textbox", { name: "How it came" }).fill("by telephone");
  await page.keyboard.press("Enter");
  await expect(a).toHaveAccessibleName("Revision A, accepted");
}
