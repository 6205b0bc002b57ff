// Says once more, at the end of a long run, what failed and why: node tests/failures.mjs FOLDER, where the results of xUnit (trx/*.trx), Vitest (client.json) and Playwright (e2e.json) are.
import { existsSync, readdirSync, readFileSync } from "node:fs"
import { join } from "node:path"

const folder = process.argv[2]
const mostWords = 1500

function say(what, why) {
  console.log(`FAILED: ${what}\n${why.replace(/\u001b\[[0-9;]*m/g, "").trim().slice(0, mostWords).replace(/^/gm, "   ")}`)
}

function json(name) {
  const file = join(folder, name)
  return existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : undefined
}

const unescaped = (text) =>
  text.replace(/&#x([0-9a-f]+);/gi, (_, hex) => String.fromCodePoint(parseInt(hex, 16)))
    .replace(/&lt;/g, "<").replace(/&gt;/g, ">").replace(/&quot;/g, '"').replace(/&apos;/g, "'").replace(/&amp;/g, "&")

const trx = join(folder, "trx")
for (const file of existsSync(trx) ? readdirSync(trx) : [])
  if (file.endsWith(".trx"))
    for (const [, head, body] of readFileSync(join(trx, file), "utf8").matchAll(/<UnitTestResult ([^>]*outcome="Failed"[^>]*)>(.*?)<\/UnitTestResult>/gs)) {
      const part = (name) => unescaped(new RegExp(`<${name}>(.*?)</${name}>`, "s").exec(body)?.[1] ?? "")
      say(unescaped(/testName="([^"]*)"/.exec(head)[1]), `${part("Message").slice(0, mostWords / 2)}\n${part("StackTrace")}`)
    }

for (const file of json("client.json")?.testResults ?? [])
  for (const test of file.assertionResults)
    if (test.status === "failed") say(test.fullName, test.failureMessages.join("\n"))

function walk(suite) {
  for (const inner of suite.suites ?? []) walk(inner)
  for (const spec of suite.specs ?? [])
    for (const test of spec.tests)
      if (test.status === "unexpected" || test.status === "flaky")
        say(`${spec.file} › ${spec.title}`, test.results.map((r) => r.error?.message ?? r.status).join("\n"))
}
for (const suite of json("e2e.json")?.suites ?? []) walk(suite)
