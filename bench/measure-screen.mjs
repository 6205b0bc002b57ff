// The Measure screen in Debian's Chromium against the real server; prints rows of the table that docs/performance.md holds.
// Usage: node bench/measure-screen.mjs SERVER.dll
import {
  address,
  browser,
  end,
  median,
  newJob,
  rooms,
  row,
  screen,
  sorted,
} from "./screen.mjs";

try {
  const { job, places } = await rooms(500);

  const open = async (tab) => {
    const began = performance.now();
    await tab.goto(`${address}/jobs/${job}/measure`, { waitUntil: "commit" });
    await tab.locator("svg.sheet").waitFor();
    return performance.now() - began;
  };
  const tab = await browser.newPage(screen);
  const opened = [];
  for (let i = 0; i < 7; i++) {
    opened.push(await open(tab));
    await tab.goto("about:blank");
  }
  await tab.close();
  const cold = [];
  for (let i = 0; i < 5; i++) {
    const fresh = await browser.newPage(screen);
    cold.push(await open(fresh));
    await fresh.close();
  }
  row(
    "a job of 500 places loaded to its list and drawing, in an open tab",
    `median ${median(opened.slice(2)).toFixed(0)} ms of 5`,
    "under 1,000 ms",
  );
  row(
    "the same in a new tab, whose process the browser starts first",
    `median ${median(cold).toFixed(0)} ms of 5`,
    "",
  );

  const page = await browser.newPage(screen);
  await page.goto(`${address}/jobs/${job}/measure?place=${places[3].place}`);
  const shown = page.locator(`[data-place="${places[3].place}"]`);
  await shown.click();
  const painted = [];
  for (let i = 0; i < 40; i++) {
    await shown.press("Enter");
    const tape = page.getByRole("combobox", { name: "Tape line of Room 3" });
    await tape.fill(`Room 3 ${20 + i} x 10 x 9; door 3 x 6'8`);
    await page.evaluate(() => {
      // From the key to the frame after the list shows another size.
      window.painted = new Promise((done) => {
        let began = 0;
        addEventListener("keydown", () => (began = performance.now()), {
          once: true,
          capture: true,
        });
        const list = document.querySelector('[role="tree"]');
        const watch = new MutationObserver(() => {
          watch.disconnect();
          requestAnimationFrame(() =>
            setTimeout(() => done(performance.now() - began)),
          );
        });
        watch.observe(list.querySelector('[aria-selected="true"] .n'), {
          characterData: true,
          childList: true,
          subtree: true,
        });
      });
    });
    await tape.press("Enter");
    painted.push(await page.evaluate(() => window.painted));
  }
  const steady = sorted(painted.slice(10));
  row(
    "a room of it measured anew, from Enter to its new size painted",
    `median ${median(steady).toFixed(0)} ms, p95 ${steady[Math.floor(steady.length * 0.95)].toFixed(0)} ms of 30`,
    "under 100 ms",
  );
  await page.close();

  const csv = [
    "Floor,Room,Length,Width,Height,Doors and windows",
    ...Array.from(
      { length: 2000 },
      (_, i) =>
        `Floor ${Math.floor(i / 50)},Room ${i},${10 + (i % 20)}'${i % 12},${8 + (i % 13)},${8 + (i % 3)},"d3x6'8;w4x3'6"`,
    ),
  ].join("\n");
  const reads = [];
  const takes = [];
  for (let i = 0; i < 3; i++) {
    const target = await newJob();
    const tab = await browser.newPage(screen);
    await tab.goto(`${address}/jobs/${target}/measure`);
    await tab.getByRole("button", { name: "bring in a table" }).click();
    let began = performance.now();
    await tab.locator("input[type=file]").setInputFiles({
      name: "rooms.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(csv),
    });
    await tab.getByText("2000 places can be read").waitFor();
    reads.push(performance.now() - began);
    began = performance.now();
    await tab.getByRole("button", { name: "Add 2000 places" }).click();
    await tab
      .locator('[role="treeitem"]')
      .nth(2000)
      .waitFor({ state: "attached" });
    takes.push(performance.now() - began);
    await tab.close();
  }
  row(
    "2,000 places brought in from CSV: to the preview; from the button to the list",
    `${median(reads).toFixed(0)} ms; ${median(takes).toFixed(0)} ms (medians of 3)`,
    "no aim set",
  );
} finally {
  await end();
}
