// Compresses what the build has made, once and as well as can be; the server sends it so (src/Emendum.Web/ClientFiles.cs).
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { brotliCompressSync } from "node:zlib";

for (const folder of ["dist/assets/", "dist/outside/assets/"].map((name) => new URL(name, import.meta.url)))
  for (const name of readdirSync(folder).filter((n) => /\.(js|css|ttf)$/.test(n)))
    writeFileSync(new URL(name + ".br", folder), brotliCompressSync(readFileSync(new URL(name, folder))));
