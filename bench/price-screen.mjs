// The Price station in Debian's Chromium against the real server; prints rows of the table that docs/performance.md holds.
// Usage: node bench/price-screen.mjs SERVER.dll
import { address, browser, end, filled, median, p95, row, screen, toPainted } from "./screen.mjs";

const tally = 'footer [data-figure="price/total"]';
const buildUp = 'section[aria-label="How the price is built"] [data-figure="price/total"]';

/** Another overhead again and again, each moving the total. */
async function changed(page, total, count) {
  const overhead = page.getByRole("textbox", { name: "Overhead", exact: true });
  const times = [];
  for (let i = 0; i < count; i++) {
    await overhead.fill(String(12 + (i % 7)));
    times.push(await toPainted(page, "Enter", total));
    await page.getByText("Saved", { exact: true }).waitFor();
  }
  return times.slice(count / 4);
}

try {
  const job = await filled(100, 50);
  const page = await browser.newPage(screen);
  await page.goto(`${address}/jobs/${job}/price`);
  await page.locator(buildUp).waitFor();
  for (const [words, total] of [
    ["total at the foot", tally],
    ["build-up's last line, which the station asks for", buildUp],
  ]) {
    const times = await changed(page, total, 80);
    row(
      `a term changed on Price of a job of 5,000 lines, from Enter to the ${words} painted`,
      `median ${median(times).toFixed(0)} ms, p95 ${p95(times).toFixed(0)} ms of ${times.length}`,
      "p95 under 100 ms",
    );
  }
} finally {
  await end();
}
