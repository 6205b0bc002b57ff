import { existsSync } from "node:fs";
import { defineConfig } from "@playwright/test";

const flags = ["no-sandbox", "disable-gpu", "disable-quic", "no-first-run", "disable-background-networking"];

const shell = "/usr/bin/chromium-headless-shell";

/** Drives the real interface in Debian's Chromium, each worker on a server of its own. */
export default defineConfig({
  testDir: "../tests/e2e",
  outputDir: "../test-results",
  timeout: 180_000,
  // A busy machine may take its time; what never comes still fails.
  expect: { timeout: 15_000 },
  // Two are no quicker on two cores (docs/performance.md).
  workers: 1,
  reporter: [["list"], ["json", { outputFile: process.env.E2E_REPORT ?? "../test-results/report.json" }]],
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? (existsSync(shell) ? shell : "/usr/bin/chromium"),
      args: [...flags, "disable-component-update", "disable-sync"].map((flag) => `--${flag}`),
    },
  },
});
