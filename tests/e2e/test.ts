import { type Locator, expect, test as plain } from "@playwright/test";
import { OwnServer } from "./ownServer";

export { expect, type Browser, type Page } from "@playwright/test";

/** Nobody presses a button that cannot be pressed yet: a key that comes before is lost, as it is for a person. */
function pressedWhenReady(some: Locator) {
  const of = Object.getPrototypeOf(some) as Locator & { waits?: boolean };
  if (of.waits) return;
  const press = of.press;
  of.press = async function (this: Locator, key, options) {
    if (key === "Enter" || key === "Space") await expect(this).toBeEnabled();
    return press.call(this, key, options);
  };
  of.waits = true;
}

/** Every test also fails on an error that a page throws and nothing on it catches, and on anything that a page wants to load and may not. */
export const test = plain.extend<{ quiet: void }, { server: string }>({
  // One for each worker, with a folder of its own.
  server: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const server = new OwnServer();
      await server.start();
      await use(server.url);
      await server.stop();
      server.remove();
    },
    { scope: "worker" },
  ],
  baseURL: ({ server }, use) => use(server),
  quiet: [
    async ({ context, page }, use) => {
      pressedWhenReady(page.locator("body"));
      const thrown: string[] = [];
      context.on("weberror", (e) => thrown.push(String(e.error().stack)));
      context.on("console", (said) => {
        if (said.text().includes("Content Security Policy"))
          thrown.push(said.text());
      });
      await use();
      expect(thrown).toEqual([]);
    },
    { auto: true },
  ],
});
