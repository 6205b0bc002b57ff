// The Work screen in Debian's Chromium against the real server; prints rows of the table that docs/performance.md holds.
// Usage: node bench/work-screen.mjs SERVER.dll
import { address, browser, end, filled, median, p95, row, screen, toPainted } from "./screen.mjs";

const grid = (job) => `${address}/jobs/${job}/work`;
const cells = '[role="gridcell"][data-cell]';
const hours = '[data-figure="totals/hours"]';

/** Excludes and includes one cell after another; each moves the hours at the foot. */
async function oneCell(page, count) {
  const times = [];
  for (let i = 0; i < count; i++) {
    times.push(await toPainted(page, i % 2 === 0 ? "o" : "i", hours));
    await page.getByText("Saved", { exact: true }).waitFor();
    if (i % 2 === 1) await page.keyboard.press("ArrowDown");
  }
  return times.slice(count / 4);
}

try {
  const five = await filled(100, 50);
  const thirty = await filled(500, 60);

  const page = await browser.newPage(screen);
  const opened = [];
  for (let i = 0; i < 7; i++) {
    const began = performance.now();
    await page.goto(grid(thirty), { waitUntil: "commit" });
    await page.locator(cells).first().waitFor();
    opened.push(performance.now() - began);
    await page.goto("about:blank");
  }
  row(
    "a full scope grid of 500 × 60 (30,000 cells) loaded to its cells, in an open tab",
    `median ${median(opened.slice(2)).toFixed(0)} ms of 5`,
    "no aim set",
  );

  await page.goto(grid(thirty));
  await page.locator(cells).first().click();
  const frames = await page.evaluate(
    () =>
      new Promise((done) => {
        const box = document.querySelector('[role="grid"]');
        const times = [];
        const began = performance.now();
        let last = began;
        const step = (now) => {
          times.push(now - last);
          last = now;
          const t = now - began;
          // As fast as a wheel is spun: 2,400 px a second down, then across and back at half of that.
          box.scrollTop = 2.4 * Math.min(t, 2500);
          box.scrollLeft = 1.2 * Math.max(0, 1250 - Math.abs(t - 3750));
          if (t < 5000) requestAnimationFrame(step);
          else done(times.slice(2));
        };
        requestAnimationFrame(step);
      }),
  );
  row(
    "scrolling it for five seconds: 6,000 px down at 2,400 px a second, then across and back at 1,200",
    `median frame ${median(frames).toFixed(1)} ms, p95 ${p95(frames).toFixed(0)} ms of ${frames.length}`,
    "median under 33 ms",
  );

  await page.reload();
  await page.locator(cells).first().click();
  const all = { out: [], undo: [] };
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press("Control+a");
    all.out.push(await toPainted(page, "o", hours));
    await page.getByText("Saved", { exact: true }).waitFor();
    all.undo.push(await toPainted(page, "Control+z", hours));
    await page.getByText("Saved", { exact: true }).waitFor();
  }
  row(
    "all 30,000 cells filled by one key, to its hours painted; taken back by undo",
    `median ${median(all.out).toFixed(0)} ms; ${median(all.undo).toFixed(0)} ms of 5`,
    "under 1,000 ms each",
  );

  await page.keyboard.press("Control+Home");
  const big = await oneCell(page, 80);
  await page.goto(grid(five));
  await page.locator(cells).first().click();
  const small = await oneCell(page, 80);
  row(
    "one cell of 5,000 filled, from the key to the hours painted",
    `median ${median(small).toFixed(0)} ms, p95 ${p95(small).toFixed(0)} ms of 60`,
    "p95 under 100 ms",
  );
  row(
    "one cell of 30,000",
    `median ${median(big).toFixed(0)} ms, p95 ${p95(big).toFixed(0)} ms of 60`,
    "p95 under 200 ms",
  );
} finally {
  await end();
}
