#!/usr/bin/env bash
# Builds the interface with the machine's own node and npm, doing only what changed since the last time.
set -eu
cd "$(dirname "$0")"
mkdir -p target

state=$(cat package.json package-lock.json | sha256sum)
if [ ! -d node_modules ] || [ "$(cat target/installed 2>/dev/null)" != "$state" ]; then
  npm ci --no-audit --no-fund --ignore-scripts
  echo "$state" > target/installed
fi

if [ "${1:-}" = test ]; then
  npm run --silent check
  npm sbom --sbom-format cyclonedx --omit dev > target/bom.json
  npm run --silent test -- --reporter=default --reporter=json --outputFile=target/vitest.json
  node -e 'console.log(JSON.parse(require("fs").readFileSync("target/vitest.json")).numPassedTests)' > target/tests
  exit
fi

sources=$(cat package-lock.json openapi.json settings.mjs index.html vite.config.ts tsconfig.json $(find src public -type f 2>/dev/null | sort) | sha256sum)
if [ ! -f dist/index.html ] || [ "$(cat target/built 2>/dev/null)" != "$sources" ]; then
  npm run --silent build
  echo "$sources" > target/built
fi
