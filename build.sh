# Shared by start-demo, run-tests and run-bench: builds client and server, and only what has changed since the last time.
SERVER=src/Emendum.Web/bin/Release/net10.0/linux-x64/Emendum.Web.dll
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1

# need PROGRAM SENTENCE: stops with the sentence when the program is not there.
need() { command -v "$1" >/dev/null 2>&1 || { echo "$2" >&2; exit 1; }; }

# stale STAMP COMMAND FILES…: runs the command unless the files are as they were when it last succeeded.
stale() {
  local stamp=.stamps/$1 run=$2 now said
  shift 2
  now=$(find "$@" \( -name bin -o -name obj -o -name node_modules -o -name dist -o -name test-results \) -prune -o -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum)
  if [ "$(cat "$stamp" 2>/dev/null || true)" = "$now" ]; then return 0; fi
  said=$(mktemp)
  if ! $run >"$said" 2>&1; then
    cat "$said" >&2
    rm -f "$said"
    return 1
  fi
  rm -f "$said"
  mkdir -p .stamps
  echo "$now" >"$stamp"
}

install_client() { (cd client && npm ci); }
build_client() { (cd client && npm run build); }
build_server() { dotnet build src/Emendum.Web -c Release -v q && dotnet build src/Emendum.Cli -c Release -v q; }

build_all() {
  need dotnet "The .NET SDK 10 is not installed: 'dotnet' was not found."
  need node "Node.js 20 or later is not installed: 'node' was not found."
  need npm "npm is not installed; it comes with Node.js."
  [ -d client/node_modules ] || rm -f .stamps/npm
  [ -d client/dist ] || rm -f .stamps/client
  [ -f "$SERVER" ] || rm -f .stamps/server
  stale npm install_client client/package.json client/package-lock.json
  stale client build_client client
  stale server build_server src Directory.Build.props Directory.Packages.props global.json
}
