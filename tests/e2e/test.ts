import { expect, test as plain } from "@playwright/test";

export { expect, type Page } from "@playwright/test";

/** Every test also fails on an error that a page throws and nothing on it catches. */
export const test = plain.extend<{ quiet: void }>({
  quiet: [
    async ({ context }, use) => {
      const thrown: string[] = [];
      context.on("weberror", (e) => thrown.push(String(e.error().stack)));
      await use();
      expect(thrown).toEqual([]);
    },
    { auto: true },
  ],
});
