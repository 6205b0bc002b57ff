#!/usr/bin/env bash
# Writes openapi.json and the client's types anew from the server's own description.
set -euo pipefail
cd "$(dirname "$0")"
folder=$(mktemp -d)
dotnet build ../src/Emendum.Web -c Release -v q >/dev/null
dotnet ../src/Emendum.Web/bin/Release/net10.0/linux-x64/Emendum.Web.dll --port 0 --data "$folder" --demo false >"$folder/log" 2>&1 &
server=$!
trap 'kill $server; rm -rf "$folder"' EXIT
until grep -q http "$folder/log"; do
  kill -0 $server 2>/dev/null || { cat "$folder/log" >&2; exit 1; }
  read -rt 0.2 <> <(:) || true
done
address=$(grep -o 'http://[^ ]*/' "$folder/log")
node -e 'fetch(process.argv[1]).then((r) => r.text()).then((t) => require("fs").writeFileSync("openapi.json", t))' "${address}api/openapi.json"
npx prettier --write openapi.json >/dev/null
npm run -s types
