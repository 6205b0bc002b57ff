import { library } from "./pages";
import { type Page, expect, test } from "./test";

/** Every screen, how it is reached by its links, and what is there when it stands. */
const screens: Record<string, (page: Page) => Promise<void>> = {
  Customers: async (page) => {
    await page.getByRole("link", { name: "Customers", exact: true }).click();
    await expect(
      page.getByRole("heading", { name: "Customers" }),
    ).toBeVisible();
    await expect(page.getByRole("table")).toContainText("Saltmarsh");
  },
  Book: async (page) => {
    await page.getByRole("link", { name: "Book", exact: true }).click();
    await expect(page.getByLabel("Find an entry")).toBeVisible();
    await expect(
      page.getByRole("list", { name: "Found" }).getByRole("button").first(),
    ).toBeVisible();
  },
  Office: async (page) => {
    await page.getByRole("link", { name: "Office", exact: true }).click();
    await expect(
      page.getByRole("region", { name: "Usual places" }),
    ).toBeVisible();
    await expect(
      page.getByRole("region", { name: "Usual sizes of doors and windows" }),
    ).toBeVisible();
  },
  Measure: async (page) => {
    await toJob(page);
    await page.getByRole("link", { name: /^Measure/ }).click();
    await expect(
      page.getByRole("img", { name: /drawn to scale/ }),
    ).toBeVisible();
    await page.getByRole("button", { name: "Bring in" }).click();
    await page.getByRole("menuitem", { name: "Usual places" }).click();
    await expect(
      page
        .getByRole("dialog")
        .getByLabel(/^How many: /)
        .first(),
    ).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toHaveCount(0);
  },
  Work: async (page) => {
    await toJob(page);
    await page.getByRole("link", { name: /^Work/ }).click();
    await expect(page.getByRole("gridcell").first()).toBeVisible();
    await page.keyboard.press("a");
    await expect(
      page.getByRole("list", { name: "Entries" }).getByRole("button").first(),
    ).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toHaveCount(0);
  },
  Price: async (page) => {
    await toJob(page);
    await page.getByRole("link", { name: /^Price/ }).click();
    await expect(
      page.getByRole("region", { name: "How the price is built" }),
    ).toBeVisible();
  },
  Proposal: async (page) => {
    await toJob(page);
    await page.getByRole("link", { name: /^Proposal/ }).click();
    await expect(page.getByRole("article")).toContainText("What we will do");
  },
};

async function toJob(page: Page) {
  if (page.url().includes(library)) return;
  await page.getByRole("link", { name: "Jobs", exact: true }).click();
  await page.getByRole("link", { name: /Saltmarsh Lending Library/ }).click();
}

test("every screen opens after every other, without loading the page anew", async ({
  page,
}) => {
  await page.goto("/jobs");
  const names = Object.keys(screens);
  let steps = 0;
  // Each pair once: what one screen has asked for is still held when the next is drawn.
  for (const [i, from] of names.entries())
    for (const to of names.slice(i + 1)) {
      await screens[from]!(page);
      await screens[to]!(page);
      steps += 2;
    }
  expect(steps).toBe(names.length * (names.length - 1));
});

test("a screen that breaks says so, and the others still open", async ({
  page,
}) => {
  await page.route("**/api/jobs/*/proposal", (route) =>
    route.fulfill({ json: { blocks: 7 } }),
  );
  await page.goto(library + "/proposal");
  await expect(page.getByRole("alert")).toContainText("This screen broke");
  await expect(
    page.getByRole("button", { name: "Load it again" }),
  ).toBeVisible();
  await page.getByRole("link", { name: /^Price/ }).click();
  await expect(page.getByRole("alert")).toHaveCount(0);
  await expect(page.getByText("Price before tax").first()).toBeVisible();
});
