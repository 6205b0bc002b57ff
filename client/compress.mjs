// Compresses what the build has made, once and as well as can be; the server sends it so (src/Emendum.Web/ClientFiles.cs).
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { brotliCompressSync } from "node:zlib";

const folder = new URL("dist/assets/", import.meta.url);
for (const name of readdirSync(folder).filter((n) => /\.(js|css)$/.test(n)))
  writeFileSync(new URL(name + ".br", folder), brotliCompressSync(readFileSync(new URL(name, folder))));
