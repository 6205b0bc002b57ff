// Bytes that come over the line until the page of jobs can be used, in an empty browser. Usage: first-load.mjs SERVER.dll; prints a row of docs/performance.md.
import { address, browser, end, row } from "./screen.mjs";

try {
  const page = await browser.newPage();
  const line = await page.context().newCDPSession(page);
  await line.send("Network.enable");
  const [names, bytes] = [new Map(), new Map()];
  line.on("Network.responseReceived", (e) =>
    names.set(e.requestId, new URL(e.response.url).pathname),
  );
  line.on("Network.loadingFinished", (e) =>
    bytes.set(names.get(e.requestId), e.encodedDataLength),
  );
  const began = performance.now();
  await page.goto(`${address}/jobs`);
  await page.getByText("No jobs yet").waitFor();
  const usable = performance.now() - began;
  await page.waitForLoadState("networkidle");
  const kinds = {};
  for (const [path, size] of bytes) {
    const kind = /\.(js|css|woff2)$/.exec(path)?.[1] ?? "page and data";
    kinds[kind] = (kinds[kind] ?? 0) + size;
  }
  const all = [...bytes.values()].reduce((sum, size) => sum + size, 0);
  const parts = Object.entries(kinds).map(
    ([kind, size]) => `${kind} ${(size / 1000).toFixed(0)}`,
  );
  row(
    "first load of the page of jobs, compressed, fonts too",
    `${(all / 1000).toFixed(0)} kB (${parts.join(", ")}); usable after ${usable.toFixed(0)} ms`,
    "under 250 kB",
  );
} finally {
  await end();
}
