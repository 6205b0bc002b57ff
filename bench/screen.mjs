// What the screens' benchmarks share: the real server on a folder of its own, Debian's Chromium, and rows for docs/performance.md.
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { randomUUID } from "node:crypto";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "../client/node_modules/@playwright/test/index.mjs";

const folder = mkdtempSync(join(tmpdir(), "emendum-bench-"));
const server = spawn("dotnet", [
  process.argv[2],
  "--port",
  "0",
  "--data",
  folder,
  "--client",
  "client/dist",
  "--demo",
  "false",
]);
export const address = await new Promise((found) => {
  let said = "";
  server.stdout.on("data", (text) => {
    said += text;
    const match = /http:\/\/[^ ]*?(?=\/ )/.exec(said);
    if (match) found(match[0]);
  });
});
const flags = [
  "no-sandbox",
  "disable-gpu",
  "disable-quic",
  "no-first-run",
  "disable-background-networking",
  "disable-component-update",
  "disable-sync",
];
export const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: flags.map((f) => `--${f}`),
});

export const row = (what, measured, aim) =>
  console.log(`| ${what} | ${measured} | ${aim} |`);
export const sorted = (times) => times.toSorted((a, b) => a - b);
export const median = (times) => sorted(times)[Math.floor(times.length / 2)];
export const p95 = (times) => sorted(times)[Math.floor(times.length * 0.95)];
export const post = async (path, body) => {
  const response = await fetch(address + path, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!response.ok)
    throw new Error(`${path}: ${response.status} ${await response.text()}`);
  return response.json();
};
export const newJob = async () => {
  const id = randomUUID();
  await post("/api/jobs", {
    id,
    name: "Big job",
    subtitle: "",
    customer: null,
    units: "feet",
  });
  return id;
};
/** A room like another, and not the same. */
export const line = (i) =>
  `Room ${i} ${10 + (i % 20)}'${i % 12} x ${8 + (i % 13)} x ${8 + (i % 3)}; door 3 x 6'8; window 4 x 3'6 x${1 + (i % 3)}`;

/** A job with so many rooms. */
export const rooms = async (count) => {
  const job = await newJob();
  const places = Array.from({ length: count }, (_, i) => ({
    place: randomUUID(),
    line: line(i),
    group: `Floor ${Math.floor(i / 40)}`,
    finish: "",
    notes: "",
    typed: [],
    work: [],
  }));
  await command(job, { type: "addPlaces", places, work: [] });
  return { job, places };
};

export const command = (job, body) =>
  post(`/api/jobs/${job}/commands`, { id: randomUUID(), base: 0, client: randomUUID(), command: body });

/** A job whose grid is full. */
export async function filled(places, items) {
  const made = await rooms(places);
  const book = await (await fetch(`${address}/api/book/work`)).json();
  const rates = book.filter((e) => e.kind === "rate");
  for (let i = 0; i < items; i++)
    await command(made.job, {
      type: "addWork",
      work: randomUUID(),
      entry: rates[i % rates.length].id,
      after: null,
      places: made.places.map((p) => p.place),
      answers: [],
      with: [],
    });
  return made.job;
}

/** From a key to the frame after an element has changed. */
export async function toPainted(page, key, selector) {
  await page.evaluate((of) => {
    window.painted = new Promise((done) => {
      let began = 0;
      addEventListener("keydown", () => (began = performance.now()), {
        once: true,
        capture: true,
      });
      const watch = new MutationObserver(() => {
        watch.disconnect();
        requestAnimationFrame(() =>
          setTimeout(() => done(performance.now() - began)),
        );
      });
      watch.observe(document.querySelector(of), {
        characterData: true,
        childList: true,
        subtree: true,
        attributes: true,
      });
    });
  }, selector);
  await page.keyboard.press(key);
  return page.evaluate(() => window.painted);
}

export const screen = {
  viewport: { width: 1280, height: 800 },
  reducedMotion: "reduce",
};

/** Ends what was started. */
export const end = async () => {
  await browser.close();
  server.kill();
  rmSync(folder, { recursive: true, force: true });
};
