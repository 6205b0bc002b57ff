import { execFileSync } from "node:child_process";
import { expect, test } from "./test";
import {
  addWork,
  measure,
  newJob,
  place,
  saved,
  tally,
  tapeLine,
} from "./pages";

/*
 * The whole main job on a made-up house of six rooms, its price reckoned by hand:
 *
 *             floor ft²          walls gross ft²      openings ft²                net ft²   doors
 * Hall        12 × 8 = 96        40 × 9 = 360         3 × 6'8 ×3 = 60             300       3
 * Parlour     18 × 12 = 216      60 × 9 = 540         20 + 4 × 5 ×2 = 60          480       1
 * Kitchen     14 × 10 = 140      48 × 9 = 432         20 + 3 × 4 = 32             400       1
 * Study       14'6 × 11 = 159.5  51 × 8 = 408         20 + 4 × 3'6 ×2 = 48        360       1
 * Bedrooms ×2 12 × 10 = 120 each 44 × 8 = 352 each    20 + 3 × 4 = 32 each        320 each  1 each
 * Bath        9 × 6 = 54         30 × 8 = 240         20 + 2 × 2 = 24             216       1
 * Sum         905.5                                                               2,396     9
 *
 * Walls painted with 2 coats everywhere: 2,396 ÷ 95 = 25.221053 h.
 * Doors with 2 coats everywhere but the Bath (left out): 8 × 1.5 = 12 h.
 * Sheet flooring in Kitchen and Bath: 194 ÷ 48 = 4.041667 h; roller, a crew of 2: 2.020833 h.
 *
 * Painter: 22.00 × 1.12 + 1.10 = 25.74; floor layer: 24.00 × 1.1245 + 1.25 = 28.238.
 *   37.221053 h × 25.74 = 958.069895; 4.041667 × 28.238 = 114.128583; labour 1,072.20.
 * Eggshell: (2,396 ÷ 360 + 2,396 ÷ 400) × 1.01 = 12.772011 gal: 2 pails + 3 cans = 574, or 3 pails = 645: 574.00.
 * Satin for doors: (8 ÷ 16 + 8 ÷ 18) × 1.02 = 0.963333 gal: one can 62.00 (four tins 87.20).
 * Sheet: 194 × 1.07 = 207.58 ft², 208 bought at 3.95 = 821.60.
 * Adhesive: 207.58 ÷ 140 × 1.03 = 1.527196 gal: two tubs 78.00 (a pail 138).
 *   materials 574 + 62 + 821.60 + 78 = 1,535.60.
 * Roller 2.020833 × 3.20 = 6.47.                                     Direct 2,614.27.
 *
 * Markups: labour 30 % 321.66, materials 25 % 383.90, equipment 15 % 0.97 (0.9705). Marked 3,320.80:
 *   labour 1,393.86 + materials 1,919.50 + equipment 7.44.
 * Overhead 14 % 464.91 (464.912); contingency 3 % of 3,785.71 = 113.57 (113.5713);
 * profit 18 % of 3,899.28 = 701.87 (701.8704). Before tax 4,601.15.
 * Materials' part 4,601.15 × 1,919.50 ÷ 3,320.80 = 2,659.57 (2,659.5726…); tax 7 % = 186.17 (186.1699).
 * Customer pays 4,787.32.
 */
const rooms = [
  "Hall 12 x 8 x 9; door 3 x 6'8 x3",
  "Parlour 18 x 12 x 9; door 3 x 6'8; window 4 x 5 x2",
  "Kitchen 14 x 10 x 9; door 3 x 6'8; window 3 x 4",
  "Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2",
  "Bedrooms 12 x 10 x 8 x2; door 3 x 6'8; window 3 x 4",
  "Bath 9 x 6 x 8; door 3 x 6'8; window 2 x 2",
];

test("a new user measures a house, works it, prices it and downloads the proposal", async ({
  page,
}) => {
  await newJob(page, "Gull Cottage", "Gull Cottage repaint");

  await page.getByLabel("under").fill("House");
  const tape = tapeLine(page);
  await tape.fill(rooms[0]!);
  await expect(
    page.getByText(
      "Reads as a room 12' by 8', 9' high, with 3 doors 3' × 6'8\"",
    ),
  ).toBeVisible();
  for (const room of rooms) await measure(page, room);
  await expect(
    page.getByLabel("Places of the job").getByRole("treeitem", { level: 2 }),
  ).toHaveCount(6);
  await place(page, /Study/).click();
  await expect(
    page.getByRole("button", { name: "Walls, net 360.0 ft², why?" }).first(),
  ).toBeVisible();
  await expect(tally(page, "Labour")).toHaveText("0.0h");

  await page.keyboard.press("Alt+2");
  await addWork(page, "walls paint");
  await addWork(page, "woodwork doors");
  await addWork(page, "sheet flooring");

  // Walls and doors everywhere by two header clicks, flooring in two rooms with the arrow keys.
  await page.getByRole("button", { name: "Paint", exact: true }).click();
  await page.getByRole("button", { name: "Include I" }).click();
  await page.getByRole("button", { name: "Doors", exact: true }).click();
  await page.getByRole("button", { name: "Include I" }).click();
  await page.getByRole("gridcell", { name: /Sheet flooring, Kitchen/ }).click();
  await page.keyboard.press("i");
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowDown");
  await page.keyboard.press("i");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("o");
  await page
    .getByRole("textbox", { name: "Say why, or what to leave" })
    .fill("The new bath door comes finished");
  await page.keyboard.press("Enter");
  await saved(page);
  // 25.221053 + 12 + 4.041667
  await expect(tally(page, "Labour")).toHaveText("41.3h");

  await page.keyboard.press("Escape");
  await page.keyboard.press("Alt+3");
  const built = page.getByRole("region", { name: "How the price is built" });
  for (const [label, amount] of [
    ["Labour", "1,072.20"],
    ["Materials", "1,535.60"],
    ["Equipment", "6.47"],
    ["Overhead", "464.91"],
    ["Contingency", "113.57"],
    ["Profit", "701.87"],
    ["Price before tax", "4,601.15"],
    ["Sales tax", "186.17"],
    ["Customer pays", "4,787.32"],
  ])
    await expect(
      built.getByRole("button", { name: `${label} ${amount}` }),
    ).toBeVisible();
  await expect(
    page.getByRole("row", {
      name: /^Harbour eggshell .*needed 12\.77 gal.*3 × 1 gal can \+ 2 × 5 gal pail/,
    }),
  ).toBeVisible();

  await page.keyboard.press("Alt+4");
  await page
    .getByRole("group", { name: "Price by" })
    .getByRole("button", { name: "place", exact: true })
    .click();
  const paper = page.getByRole("region", {
    name: "Proposal as the customer sees it",
  });
  await expect(paper.getByRole("row", { name: /^Bedrooms ×2/ })).toBeVisible();
  await expect(
    paper.getByText("in Bath: The new bath door comes finished."),
  ).toBeVisible();
  await expect(paper.getByRole("row", { name: /^Total/ })).toContainText(
    "4,787.32",
  );

  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download the PDF" }).click();
  const text = execFileSync(
    "pdftotext",
    ["-layout", await (await download).path(), "-"],
    { encoding: "utf8" },
  );
  const amounts = (
    await paper.getByRole("table").locator("td").allInnerTexts()
  ).map((t) => t.trim());
  expect(amounts.length).toBe(9);
  for (const amount of amounts) expect(text).toContain(amount);
  expect(text).toContain("page 1 of");
  const cents = (shown: string) =>
    Number(shown.replaceAll(",", "").replace(".", ""));
  expect(amounts.slice(0, 6).reduce((sum, a) => sum + cents(a), 0)).toBe(
    cents("4,601.15"),
  );
});
