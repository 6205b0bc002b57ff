import { expect, test } from "./test";
import { OwnServer } from "./ownServer";
import {
  accessible,
  addWork,
  library,
  measure,
  newJob,
  place,
  pottery,
  saved,
  tally,
  tapeLine,
} from "./pages";

test("a bad tape line says what is wrong beside it and stays", async ({
  page,
}) => {
  await newJob(page, "Tern House", "Tern House");
  const tape = tapeLine(page);
  for (const [line, says] of [
    ["Study 14'6 by 11", "cannot be read here"],
    ["Study 14 x -3 x 8", "The width must be more than zero."],
    ["Study 14 x 11 x 8; door 3 x 9", "is larger than the largest wall"],
  ] as const) {
    await tape.fill(line);
    await tape.press("Enter");
    await expect(page.getByText(says)).toBeVisible();
    await expect(tape).toHaveAttribute("aria-invalid", "true");
    await expect(tape).toHaveValue(line);
  }
  await expect(
    page.getByLabel("Places of the job").getByRole("treeitem"),
  ).toHaveCount(0);
});

test("a room is changed by its tape line, removed, and put back by undo", async ({
  page,
}) => {
  await newJob(page, "Kittiwake", "Kittiwake loft");
  await measure(page, "Loft 20 x 10 x 8");
  await place(page, /Loft/).press("Enter");
  const line = page.getByRole("combobox", { name: "Tape line of Loft" });
  await line.fill("Loft 20 x 12 x 8 x2");
  await line.press("Enter");
  await expect(place(page, /Loft ×2/)).toContainText("240.0");
  await place(page, /Loft/).press("Delete");
  await expect(page.getByText("No places yet")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(place(page, /Loft ×2/)).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(place(page, /Loft/)).toContainText("200.0");
  await page.keyboard.press("Control+Shift+z");
  await expect(place(page, /Loft ×2/)).toContainText("240.0");
});

test("the drawing has the proportions of the measures", async ({ page }) => {
  await page.goto(`${library}/measure`);
  await place(page, /Reading room/).click();
  const drawing = page.getByRole("img", {
    name: /^Reading room drawn to scale/,
  });
  await expect(drawing).toBeVisible();
  // Shoelace over the corners on the screen.
  const area = async (selector: string) =>
    drawing.locator(selector).evaluateAll((shapes) =>
      shapes
        .map((s) => [...(s as SVGPolygonElement).points])
        .map((p) =>
          p.reduce((sum, a, i) => {
            const b = p[(i + 1) % p.length]!;
            return sum + a.x * b.y - b.x * a.y;
          }, 0),
        )
        .reduce((sum, twice) => sum + Math.abs(twice) / 2, 0),
    );
  // 24'6 × 18 floor, 85 × 9'2 of wall, 100 ft² of openings.
  const floor = await area('[data-surface="floor"]');
  expect((await area('[data-surface^="wall"]')) / floor).toBeCloseTo(
    (85 * (9 + 2 / 12)) / 441,
    6,
  );
  expect((await area("[data-opening]")) / floor).toBeCloseTo(100 / 441, 6);
  await page
    .getByRole("button", { name: /^Walls, net/ })
    .first()
    .focus();
  await expect(
    drawing.locator('[class*="_surface_"][class*="_on_"]'),
  ).toHaveCount(4);
});

test("twenty edits in the interface are all undone and redone after the server was stopped and started", async ({
  browser,
}) => {
  const server = new OwnServer();
  await server.start();
  const context = await browser.newContext({
    baseURL: server.url,
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  const { request } = context;
  await newJob(page, "Fulmar", "Fulmar rooms");
  const file = async () =>
    (
      await request.get(
        `/api${new URL(page.url()).pathname.replace(/\/measure.*|\/work.*|\/price.*|\/proposal.*/, "")}/file`,
      )
    ).text();
  const start = await file();
  for (let i = 1; i <= 6; i++)
    await measure(
      page,
      `Room ${String.fromCharCode(64 + i)} ${10 + i} x 10 x 8; door 3 x 6'8`,
    );
  await place(page, /Room C/).click();
  await page.getByRole("button", { name: "Remove" }).click();
  await page.getByRole("button", { name: "Change the deduction rule" }).click();
  await page.getByLabel(/openings over 2.5 m²/).check();
  await page.getByRole("button", { name: "Apply" }).click();
  await saved(page);
  await page.keyboard.press("Alt+2");
  await addWork(page, "walls paint");
  await addWork(page, "cover up");
  await page.getByRole("button", { name: "Paint", exact: true }).click();
  await page.getByRole("button", { name: "Include I" }).click();
  await page.getByRole("button", { name: "Room B", exact: true }).click();
  await page.getByRole("button", { name: "Exclude O" }).click();
  await page.getByRole("gridcell", { name: /Walls: Paint, Room A/ }).click();
  await page.getByRole("button", { name: "3", exact: true }).click();
  await page.getByRole("textbox", { name: "Colour" }).fill("Slate");
  await page.keyboard.press("Enter");
  // Three coats have a pace of their own: it takes the place of the other first, or what is filled in would stand after it.
  await saved(page);
  await expect(page.getByRole("textbox", { name: /^Pace/ })).toHaveValue(
    "68 ft² per h",
  );
  await page.getByRole("textbox", { name: /^Pace/ }).fill("70 ft² per h");
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("textbox", { name: "Pace, for this job" }),
  ).toBeVisible();
  await page.keyboard.press("Alt+3");
  await page
    .getByRole("combobox", { name: "Materials cost" })
    .selectOption({ label: "exact need" });
  await saved(page);
  await page.getByRole("button", { name: /compare or change/ }).click();
  await page.getByRole("button", { name: "Choose target margin" }).click();
  await page
    .getByRole("textbox", { name: "Target margin", exact: true })
    .fill("38");
  await page.keyboard.press("Enter");
  await expect(tally(page, "Margin")).toContainText("38.0");
  await page.keyboard.press("Alt+4");
  await page.getByRole("button", { name: "total", exact: true }).click();
  await page
    .getByRole("list", { name: "Blocks in their order" })
    .getByRole("button", { name: /^Letter/ })
    .press("w");
  await page.keyboard.type("Thank you.");
  await page.keyboard.press("Control+Enter");
  await saved(page);
  await expect(
    page.getByRole("region", { name: "Proposal as the customer sees it" }),
  ).toContainText("Thank you.");
  const end = await file();
  await server.stop();
  await server.start();
  await page.reload();
  expect(await file()).toBe(end);
  const undo = page.getByRole("button", { name: /^Undo/ });
  let undone = 0;
  for (; await undo.isEnabled(); undone++) {
    await undo.click();
    await saved(page);
  }
  expect(undone).toBe(20);
  expect(await file()).toBe(start);
  const redo = page.getByRole("button", { name: "Redo" });
  while (await redo.isEnabled()) {
    await redo.click();
    await saved(page);
  }
  expect(await file()).toBe(end);
  await context.close();
  await server.stop();
});

test("bad settings are refused beside the field and kept there", async ({
  page,
}) => {
  await page.goto(`${library}/price`);
  const overhead = page.getByRole("textbox", {
    name: "Overhead",
    exact: true,
  });
  await overhead.fill("-4");
  await overhead.press("Enter");
  await expect(
    page.getByText("Overhead is 0 to under 1000 percent."),
  ).toBeVisible();
  await expect(overhead).toHaveValue("-4");
  await page.goto(`${library}/work`);
  await page
    .getByRole("gridcell", { name: /Walls: Paint, Reading room/ })
    .click();
  const pace = page.getByRole("textbox", { name: /^Pace/ });
  await pace.fill("0 ft² per h");
  await pace.press("Enter");
  await expect(
    page.getByText("A rate must be more than zero on both sides."),
  ).toBeVisible();
});

test("a sheet that is about to give way takes no typing, and Enter leads to the sheet of the cell at hand", async ({
  page,
}) => {
  await page.goto(`${library}/work`);
  const walls = page.getByRole("gridcell", {
    name: /Walls: Paint, Reading room/,
  });
  // Before the next frame: the sheet still shows what was selected before.
  const typed = await walls.evaluate(async (cell) => {
    const pace = document.querySelector<HTMLElement>("[role=tabpanel] input")!;
    cell.dispatchEvent(new PointerEvent("pointerdown", { bubbles: true }));
    cell.dispatchEvent(new PointerEvent("pointerup", { bubbles: true }));
    await Promise.resolve();
    pace.focus();
    return document.activeElement === pace;
  });
  expect(typed).toBe(false);
  const heading = page
    .getByRole("complementary", { name: "Work item" })
    .getByRole("heading", { level: 2 });
  await expect(heading).toHaveText("Walls: Paint");
  await walls.click();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("tab", { name: "Everywhere" })).toBeFocused();
  await expect(heading).not.toHaveText("Walls: Paint");
});

test("a job's customer is made in its heading, or chosen there, and the proposal is for them", async ({
  page,
}) => {
  await newJob(page, "Whimbrel Hall", "Whimbrel windows");
  const heading = page.getByRole("dialog", { name: /^Job no/ });
  await page.getByRole("button", { name: "Whimbrel windows" }).click();
  const customer = heading.getByLabel("Customer", { exact: true });
  await customer.selectOption({ label: "none yet" });
  await heading.getByRole("button", { name: "New customer" }).click();
  const form = page.getByRole("dialog", { name: "New customer" });
  await form.getByRole("button", { name: "Keep" }).click();
  await expect(form.getByRole("alert")).toHaveText("Give the customer a name.");
  await form.getByLabel("Name").fill("Whimbrel Keepers");
  await form.getByLabel("Address").fill("4 Slip Lane");
  await form.getByLabel("Address").press("Enter");
  await expect(form).toBeHidden();
  await expect(heading).toContainText("4 Slip Lane");
  await heading.getByRole("button", { name: "Close" }).click();
  await expect(page.getByText(/no\. \d+ · Whimbrel Keepers/)).toBeVisible();
  await page.getByRole("link", { name: /^Proposal/ }).click();
  await expect(page.getByText("4 Slip Lane")).toBeVisible();
  // Only who it is for is undone; the customer stays in the list.
  await page.keyboard.press("Control+z");
  await expect(page.getByText("4 Slip Lane")).toBeHidden();
  await page.getByRole("link", { name: "Customers", exact: true }).click();
  await expect(page.getByText("Whimbrel Keepers")).toBeVisible();
});

test("a job is renamed in its heading, and an impossible date is refused there", async ({
  page,
}) => {
  await newJob(page, "Dunlin", "Dunlin yard");
  await page.getByRole("button", { name: "Dunlin yard" }).click();
  const date = page.getByRole("textbox", { name: "Date of the proposal" });
  await date.fill("soon");
  await date.press("Enter");
  await expect(
    page.getByText("A date is written like 2026-11-23."),
  ).toBeVisible();
  const name = page.getByRole("textbox", { name: "Job" });
  await name.fill("Dunlin sheds");
  await name.press("Enter");
  await page.getByRole("button", { name: "Close" }).click();
  await expect(
    page.getByRole("heading", { name: "Dunlin sheds" }),
  ).toBeVisible();
});

test("a job that is not there says so", async ({ page }) => {
  await page.goto("/jobs/01930000-0000-7000-8000-0000000fffff/measure");
  await expect(
    page.getByRole("heading", { name: "That job is not here." }),
  ).toBeVisible();
});

test("a job file goes out and a broken one is refused with a sentence", async ({
  page,
}) => {
  await page.goto("/jobs");
  await page.getByLabel("Job file").setInputFiles({
    name: "job.json",
    mimeType: "application/json",
    buffer: Buffer.from("{\n"),
  });
  await expect(page.getByRole("alert")).toContainText(
    "This is not a job file that can be read.",
  );
});

test("any figure of every station opens its workings, down to tape and Book", async ({
  page,
}) => {
  test.setTimeout(240_000);
  await page.emulateMedia({ reducedMotion: "reduce" });
  for (const job of [library, pottery])
    for (const station of ["measure", "work", "price", "proposal"]) {
      if (job === library && station === "work") continue; // 236 cells; the pottery's stand for them
      await page.goto(`${job}/${station}`);
      const figures = page.getByRole("main").locator("[data-figure]");
      await expect(figures.nth(6)).toBeVisible();
      await expect(
        page.getByRole("contentinfo").locator("[data-figure]").first(),
      ).toBeVisible();
      const asked = (attribute: string) =>
        page
          .locator(`[${attribute}]`)
          .evaluateAll(
            (figures, of) => [
              ...new Set(figures.map((f) => f.getAttribute(of)!)),
            ],
            attribute,
          );
      // The first of a kind by its key; the others, and what stands in running text, have the same workings.
      const kinds = new Map<string, string>();
      const others = await asked("data-of");
      for (const path of await asked("data-figure")) {
        const kind = path.replace(/[0-9a-f-]{36}/g, "…");
        if (kinds.has(kind)) others.push(path);
        else kinds.set(kind, path);
      }
      expect(kinds.size).toBeGreaterThan(4);
      for (const path of others)
        expect(
          (
            await page.request.get(
              `/api${job}/workings?levels=0&figure=${encodeURIComponent(path)}`,
            )
          ).ok(),
          path,
        ).toBe(true);
      for (const path of kinds.values()) {
        await page.locator(`[data-figure="${path}"]`).first().press("e");
        const drawer = page.getByRole("region", { name: "Workings" });
        await expect(
          drawer.locator('[class*="_sentence_"]').first(),
        ).toContainText(/[=:] .*\d/);
        await page.keyboard.press("Escape");
        await expect(drawer).toHaveCount(0);
      }
    }
});

test("workings lead from a cell down to the tape line and the Book entry, and there", async ({
  page,
}) => {
  await page.goto(`${library}/work`);
  await page
    .getByRole("gridcell", { name: /Walls: Paint, Reading room/ })
    .click();
  await page.keyboard.press("e");
  const drawer = page.getByRole("region", { name: "Workings" });
  await drawer.getByRole("button", { name: /Paint, Reading room/ }).click();
  await expect(
    drawer.getByText("679.167 ft² ÷ 95 ft²/h = 7.149 h").first(),
  ).toBeVisible();
  await expect(drawer.getByText("in the Book").first()).toBeVisible();
  await drawer.getByRole("button", { name: /quantity/ }).click();
  await drawer
    .getByRole("button", { name: /Walls, net, Reading room/ })
    .click();
  await drawer
    .getByRole("button", { name: /Walls, gross, Reading room/ })
    .click();
  await expect(drawer.getByText("24'6", { exact: true })).toBeVisible();
  await drawer
    .getByRole("link", { name: "tape line of Reading room" })
    .first()
    .click();
  await expect(page).toHaveURL(/measure\?place=/);
  await expect(place(page, /Reading room/)).toHaveAttribute(
    "aria-selected",
    "true",
  );
});

test("no accessibility violations", async ({ page }) => {
  for (const path of [
    "/jobs",
    "/customers",
    "/office",
    `${library}/measure`,
    `${library}/measure/schedule`,
    `${library}/work`,
    `${library}/price`,
    `${library}/proposal`,
  ]) {
    await page.goto(path);
    await page.waitForLoadState("networkidle");
    await accessible(page, path);
  }
});
