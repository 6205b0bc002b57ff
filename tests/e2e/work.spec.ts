import { execFileSync } from "node:child_process";
import { expect, test } from "./test";
import { accessible, clinic, newJob, saved, tally } from "./pages";
import {
  addEverywhere,
  cell,
  command,
  dialog,
  rooms,
  sheet,
} from "./workPages";

test("work is added with what it takes in the selected places, its questions and what goes with it", async ({
  page,
}) => {
  await rooms(page, "Plover Cottage", 4);
  await addEverywhere(page, "Cover up");
  await cell(page, /Cover up, Room 1:/).click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("a");
  await page
    .getByRole("textbox", { name: "Find in the Book" })
    .fill("skirting, fit");
  await expect(
    dialog(page).getByRole("radio", { name: "the 2 selected places" }),
  ).toBeChecked();
  const moves = dialog(page).getByRole("region", {
    name: "What it would move",
  });
  // Perimeters 38 and 42 ft less doors of 3 ft: 74 ft at 28 ft an hour is 2.643 h, and 66 ft an hour to paint 1.121 h.
  await expect(
    moves.getByRole("button", {
      name: "Woodwork: Skirting, fit moves by +2.6 h, why?",
    }),
  ).toBeVisible();
  await moves
    .getByRole("button", {
      name: "Woodwork: Skirting, paint moves by +1.1 h, why?",
    })
    .click();
  await expect(page.getByRole("region", { name: "Workings" })).toContainText(
    "+",
  );
  await page.keyboard.press("Escape");
  await page.getByRole("textbox", { name: "Find in the Book" }).focus();
  await page.keyboard.press("Enter");
  await expect(
    dialog(page).getByText("Woodwork: Skirting, fit added"),
  ).toBeVisible();
  await page
    .getByRole("textbox", { name: "Find in the Book" })
    .fill("wall tile");
  await dialog(page).getByLabel("Open tile edges").fill("22");
  await expect(moves).toContainText("Tile edge, satin aluminium");
  await dialog(page).getByRole("button", { name: "Add Wall tile" }).click();
  await expect(dialog(page).getByText("Walls: Wall tile added")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(
    cell(page, /Skirting, paint, Room 2: 0.6 h, included/),
  ).toBeVisible();
  await expect(cell(page, /Skirting, fit, Room 3: none here/)).toBeVisible();
  await cell(page, /Wall tile, Room 1:/).click();
  await expect(sheet(page).getByLabel("Open tile edges, ft")).toHaveValue("22");
});

test("a product is replaced across the job, after what it would move was shown", async ({
  page,
}) => {
  await rooms(page, "Tern Lodge", 6);
  await addEverywhere(page, "Walls Paint");
  await cell(page, /Paint, Room 2:/).click();
  await page.getByRole("tab", { name: "In Room 2" }).click();
  await page.getByLabel("Colour here").fill("Samphire");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByLabel("More").selectOption("Replace a product everywhere");
  await dialog(page)
    .locator("select")
    .nth(1)
    .selectOption("Stain-block primer");
  const then = dialog(page).getByRole("button", {
    name: /^Price before tax, then/,
  });
  await expect(then).toBeVisible();
  const promised = (await then.innerText()).trim();
  await expect(
    dialog(page).getByRole("button", {
      name: /^Harbour eggshell, Samphire, then 0\.0 gal/,
    }),
  ).toBeVisible();
  await dialog(page)
    .getByRole("button", { name: "Replace", exact: true })
    .click();
  await expect(dialog(page)).toHaveCount(0);
  await expect(tally(page, "Price before tax")).toHaveText(promised);
  await page.getByRole("tab", { name: "Everywhere" }).click();
  await expect(sheet(page).getByLabel("Product")).toHaveValue(
    "01930000-0000-7000-8000-000000002006",
  );
  await page.keyboard.press("Control+z");
  await expect(sheet(page).getByLabel("Product")).toHaveValue(
    "01930000-0000-7000-8000-000000000020",
  );
});

test("a pace for this job stays in the job, falls back, and is kept in the Book on purpose", async ({
  page,
}) => {
  await rooms(page, "Dipper Mill", 3);
  await addEverywhere(page, "Block stains");
  await cell(page, /Block stains, Room 1:/).click();
  const pace = sheet(page).getByRole("textbox", { name: /^Pace/ });
  await pace.fill("180 ft² per h");
  await pace.press("Enter");
  await expect(
    sheet(page).getByRole("textbox", { name: "Pace, for this job" }),
  ).toHaveValue("180 ft² per h");
  await pace.fill("");
  await pace.press("Enter");
  await expect(
    sheet(page).getByRole("textbox", { name: "Pace, as in the Book" }),
  ).toHaveValue("210 ft² per h");
  await pace.fill("190 ft² per h");
  await pace.press("Enter");
  await saved(page);

  await page.getByRole("button", { name: "Keep in the Book…" }).click();
  await expect(
    dialog(page).getByRole("row", { name: /210 ft² per h 190 ft² per h/ }),
  ).toBeVisible();
  await dialog(page).getByRole("button", { name: "Keep in the Book" }).click();
  await expect(dialog(page)).toHaveCount(0);
  await expect(
    sheet(page).getByRole("textbox", { name: "Pace, as in the Book" }),
  ).toHaveValue("190 ft² per h");

  // An entry changed for this job alone, then taken from the Book again.
  await page
    .getByRole("link", { name: "Change its entry for this job" })
    .click();
  const entry = page.getByRole("region", { name: "Block stains, in this job" });
  await entry.getByLabel("Crew reads").fill("Only the north walls");
  await entry.getByLabel("Crew reads").blur();
  const sides = page.getByRole("complementary", {
    name: "This job and the Book",
  });
  await expect(sides).toContainText("Changed in this job.");
  await expect(sides.getByRole("row", { name: /crew note/ })).toContainText(
    "Only the north walls",
  );
  await sides.getByRole("button", { name: "Take from the Book" }).click();
  await expect(sides).toContainText("as the Book has it");
});

test("new prices in the Book move a job only when it takes them", async ({
  page,
}) => {
  await rooms(page, "Smew Barn", 5);
  await addEverywhere(page, "Hang fleece");
  const paste = "/api/book/01930000-0000-7000-8000-000000002008";
  const { entry } = (await (await page.request.get(paste)).json()) as {
    entry: { version: number; packs: { price: string }[] };
  };
  const was = await tally(page, "Cost").innerText();
  entry.packs[0]!.price = "41.5";
  expect(
    (
      await page.request.put(paste, { data: { was: entry.version, entry } })
    ).ok(),
  ).toBe(true);
  // Paste is not bought by a rate; the wallcovering is.
  const paper = "/api/book/01930000-0000-7000-8000-000000002007";
  const goods = (await (await page.request.get(paper)).json()) as {
    entry: { version: number; packs: { price: string }[] };
  };
  goods.entry.packs[0]!.price = "44";
  expect(
    (
      await page.request.put(paper, {
        data: { was: goods.entry.version, entry: goods.entry },
      })
    ).ok(),
  ).toBe(true);
  await page.reload();
  await expect(tally(page, "Cost")).toHaveText(was);
  await page.getByLabel("More").selectOption("Refresh prices");
  await expect(dialog(page).getByLabel("Fleece wallcovering")).toBeChecked();
  await expect(dialog(page).getByText("Wallcovering paste")).toHaveCount(0);
  const then = dialog(page).getByRole("button", { name: /^Cost, then/ });
  const promised = await then.innerText();
  expect(promised).not.toBe(was);
  await dialog(page).getByRole("button", { name: "Take 1" }).click();
  await expect(tally(page, "Cost")).toHaveText(promised);
});

test("what is left out reaches the PDF with its sentence, and an alternate with its own price", async ({
  page,
}) => {
  await rooms(page, "Curlew Rooms", 2);
  await addEverywhere(page, "Walls Paint", "Woodwork Windows");
  await cell(page, /Windows, Room 2:/).click();
  await page.keyboard.press("o");
  await page
    .getByRole("textbox", { name: "Say why, or what to leave" })
    .fill("The leaded window is the glazier's; keep ladders off it");
  await page.keyboard.press("Enter");
  await cell(page, /Windows, Room 1:/).click();
  await page.keyboard.press("l");
  await expect(cell(page, /Windows, Room 1: .*an alternate/)).toBeVisible();
  await saved(page);
  const job = /\/jobs\/[^/]+/.exec(page.url())![0];
  const pdf = await page.request.get(`/api${job}/proposal.pdf`);
  const text = execFileSync("pdftotext", ["-layout", "-", "-"], {
    input: await pdf.body(),
  }).toString();
  expect(text.replace(/\s+/g, " ")).toContain(
    "The leaded window is the glazier's; keep ladders off it",
  );
  expect(text).toContain("Alternates, not in the price");
  await page.keyboard.press("Alt+4");
  const paper = page.getByRole("region", {
    name: "Proposal as the customer sees it",
  });
  const alternate = paper.getByRole("row", { name: /Windows/ });
  const amount = (await alternate.getByRole("button").innerText()).trim();
  expect(text).toContain(amount);
  // Taking it up moves the price: its own packs make it dearer alone, never cheaper.
  await alternate.getByRole("button").press("e");
  await expect(page.getByRole("region", { name: "Workings" })).toContainText(
    "Price before tax",
  );
});

test("the checks are walked by one key, lead to their place, and are set aside with a reason that is kept", async ({
  page,
}) => {
  await rooms(page, "Heron Yard", 3);
  await addEverywhere(page, "Walls Paint", "Old floor, take up");
  await command(page, {
    type: "addPlace",
    place: crypto.randomUUID(),
    line: "Room 1: 20 x 18 x 9; door 12 x 9",
    group: "Ground floor",
    after: null,
  });
  await page.reload();
  const checks = page.getByRole("region", { name: "Checks" });
  const current = checks.getByRole("status");
  // The one that is walked to, and what kind of thing it is.
  const row = checks.locator("button[aria-expanded=true]");
  const kind = row.locator("b");
  const count = page.getByRole("button", { name: /^\d+ to check/ });
  await expect(count).toHaveText(/^6 to check/);
  let last = "nothing";
  const kinds: string[] = [];
  for (let i = 0; i < 6; i++) {
    await page.keyboard.press("n");
    await expect(row).not.toHaveText(last);
    last = (await row.textContent())!;
    kinds.push(await kind.innerText());
  }
  expect(kinds.toSorted()).toEqual(
    [
      "Hazard not answered",
      "Measured twice?",
      // A size of door that neighbours have in common, and the thickness of the old floor, which nobody has said.
      "One opening counted twice?",
      "The usual answer stands",
      "Opening larger than usual",
      "Place without work",
    ].toSorted(),
  );
  // The hazard: its question stands in the sheet, and answering it is the way out.
  const walkTo = async (wanted: string) => {
    for (let i = 0; i < 7 && (await kind.innerText()) !== wanted; i++) {
      const before = (await row.textContent())!;
      await page.keyboard.press("n");
      await expect(row).not.toHaveText(before);
    }
    await expect(kind).toHaveText(wanted);
  };
  await page.keyboard.press("Shift+N");
  await expect(row).not.toHaveText(last);
  await walkTo("Hazard not answered");
  await page.getByRole("tab", { name: "Everywhere" }).click();
  const answer = sheet(page).getByLabel(/tested for asbestos/);
  await answer.fill("No; a survey is booked");
  await answer.press("Enter");
  await expect(count).toHaveText(/^5 to check/);
  await cell(page, /Walls: Paint, Room 1:/)
    .first()
    .click();
  await page.keyboard.press("n");
  await walkTo("Opening larger than usual");
  await expect(page.locator('[role="gridcell"]:focus')).toHaveAccessibleName(
    /Room 1/,
  );
  await current.getByLabel("Set it aside because").fill("A barn door");
  await current.getByLabel("Set it aside because").press("Enter");
  await expect(count).toHaveText(/^4 to check/);
  await page.reload();
  await expect(count).toHaveText(/^4 to check/);
  await page.keyboard.press("n");
  await expect(page.getByRole("list", { name: "All checks" })).toContainText(
    "set aside: A barn door",
  );
});

test("a condition on the job, a place and a band, and the job's pace, are all in a cell's workings", async ({
  page,
}) => {
  await newJob(page, "Ruff House", "Ruff House");
  await command(page, {
    type: "addPlace",
    place: crypto.randomUUID(),
    line: "Hall 10 x 10 x 12; band high to 9",
    group: "",
    after: null,
  });
  await page.goto(page.url().replace(/\/measure.*/, "/work"));
  await expect(page.getByRole("region", { name: "Scope" })).toBeVisible();
  await addEverywhere(page, "Walls Paint");
  await page.getByLabel("More").selectOption("Conditions on the whole job");
  await dialog(page).getByLabel("occupied").click();
  await dialog(page)
    .getByLabel("Why it goes slower or quicker")
    .fill("new crew");
  await dialog(page).getByLabel("All labour hours times").fill("1.1");
  await page.keyboard.press("Enter");
  await saved(page);
  await dialog(page).getByRole("button", { name: "Close" }).click();
  await cell(page, /Paint, Hall/).click();
  await page.getByRole("tab", { name: "In Hall" }).click();
  await page.getByLabel("Quantity from").selectOption("bands/1");
  await sheet(page).getByText("Conditions on all work in Hall").click();
  await sheet(page).getByLabel("slow access").nth(1).click();
  await saved(page);
  await sheet(page)
    .getByText(/^Conditions on Band high/)
    .click();
  await sheet(page).getByLabel("above 10 ft").nth(2).click();
  await saved(page);
  // 40 ft of wall to 9 ft: 360 ft² ÷ 95 ft²/h × 1.1 × 1.15 × 1.1 × 1.3
  await expect(
    page.getByRole("list", { name: "Workings of Paint here" }),
  ).toContainText(
    "360 ft² ÷ 95 ft²/h × 1.1 (new crew) × 1.15 (occupied) × 1.1 (slow access) × 1.3 (above 10 ft) = 6.855 h",
  );
});

test("workings can be copied as text, down to what was typed", async ({
  page,
}) => {
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.goto(`${clinic}/work`);
  await cell(page, /Walls: Paint, Theatre/).click();
  await page.keyboard.press("e");
  await page
    .getByRole("region", { name: "Workings" })
    .getByRole("button", { name: "Copy as text" })
    .click();
  await expect(page.getByRole("button", { name: "Copied" })).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text.split("\n")[0]).toMatch(/^Paint, Theatre: labour: /);
  expect(text).toContain("night work: 1.22, in the Book");
  expect(text).toMatch(/17'3, typed/);
});

test("no accessibility violations on any Work view", async ({ page }) => {
  test.setTimeout(300_000);
  await page.goto(`${clinic}/work`);
  await cell(page, /Walls: Paint, Theatre/).click();
  await accessible(page, "grid in hours");
  await page.getByRole("tab", { name: "In Theatre" }).click();
  await expect(page.getByLabel("Coats here")).toBeVisible();
  for (const part of await sheet(page).locator("summary").all())
    await part.click();
  await page.getByRole("button", { name: "Price", exact: true }).click();
  await expect(
    page.getByRole("button", { name: /^Theatre, in all/ }),
  ).toBeVisible();
  await accessible(page, "grid in money, a cell's sheet");
  await page.keyboard.press("n");
  await expect(page.getByRole("region", { name: "Checks" })).toBeVisible();
  await page.getByRole("button", { name: "By place" }).click();
  await accessible(page, "lines by place, checks");
  for (const [what, name] of [
    ["conditions", "Conditions on the whole job"],
    ["replace", "Replace a product everywhere"],
    ["refresh", "Refresh prices"],
  ] as const) {
    await page.getByLabel("More").selectOption(name);
    await expect(dialog(page)).toBeVisible();
    await accessible(page, what);
    await page.keyboard.press("Escape");
    await expect(dialog(page)).toHaveCount(0);
  }
  await page.getByRole("button", { name: "Grid", exact: true }).click();
  await page.getByRole("button", { name: "Add work", exact: true }).click();
  await expect(page.getByRole("list", { name: "Entries" })).toBeVisible();
  await accessible(page, "adding work");
  await page.keyboard.press("Escape");
  await cell(page, /Walls: Paint, Theatre/).click();
  await page.getByRole("tab", { name: "In Theatre" }).click();
  await page.getByRole("button", { name: "Apply to other places…" }).click();
  await expect(
    dialog(page).getByRole("region", { name: "What it would move" }),
  ).toBeVisible();
  await accessible(page, "applying");
  await page.keyboard.press("Escape");
  await page.getByRole("tab", { name: "Everywhere" }).click();
  await page
    .getByRole("link", { name: "Change its entry for this job" })
    .click();
  await expect(
    page.getByRole("region", { name: /in this job$/ }),
  ).toBeVisible();
  await accessible(page, "an entry in the job");
});

test("work goes under a new section, the section gets another name and another place, and undo takes it all back", async ({
  page,
}) => {
  await rooms(page, "Sections", 2);
  const sent: string[] = [];
  page.on("request", (request) => {
    if (!request.url().endsWith("/commands")) return;
    const body = request.postDataJSON() as { command: { type: string } };
    sent.push(body.command.type);
  });
  await addEverywhere(page, "walls paint", "cover up");
  await page.keyboard.press("Escape");
  const heads = () =>
    page.locator('[class*="_sections_"]').getByRole("button").allTextContents();
  const before = (await heads()).map((t) => t.trim());
  await cell(page, /Walls: Paint, Room 1/).click();
  await expect(sheet(page).getByRole("heading", { level: 2 })).toHaveText(
    "Walls: Paint",
  );
  await sheet(page).getByText("Section", { exact: true }).click();
  const fresh = sheet(page).getByRole("textbox", {
    name: "Or under a new section",
  });
  await fresh.fill("Upstairs first");
  await fresh.press("Enter");
  await expect(sheet(page).getByRole("heading", { level: 2 })).toHaveText(
    "Upstairs first: Paint",
  );
  await expect(fresh).toHaveValue("");
  const name = sheet(page).getByRole("textbox", {
    name: "Name of this section",
  });
  await name.fill("Preparation");
  await name.press("Enter");
  await expect(
    sheet(page).getByText("There is a section “Preparation” already."),
  ).toBeVisible();
  await name.fill("Stairs");
  await name.press("Enter");
  await expect(sheet(page).getByRole("heading", { level: 2 })).toHaveText(
    "Stairs: Paint",
  );
  // What Enter has sent is not sent again when the field gives way to one with the new name.
  expect(sent.filter((type) => /Section|moveWork/.test(type))).toEqual([
    "moveWork",
    "setSection",
    "setSection",
  ]);
  const shown = (await heads()).map((t) => t.trim());
  await sheet(page)
    .getByRole("button", {
      name: shown[0] === "Stairs" ? "Section right" : "Section left",
    })
    .click();
  await expect
    .poll(async () => (await heads()).map((t) => t.trim()))
    .toEqual(shown.toReversed());
  for (let i = 0; i < 3; i++) {
    await page.getByRole("button", { name: /^Undo/ }).click();
    await saved(page);
  }
  await expect
    .poll(async () => (await heads()).map((t) => t.trim()))
    .toEqual(before);
});
