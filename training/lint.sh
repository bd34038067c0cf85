#!/usr/bin/env bash
# Looks through the Python sources with the machine's own node and npm.
set -eu
cd "$(dirname "$0")"
mkdir -p target
state=$(cat package.json package-lock.json | sha256sum)
if [ ! -d node_modules ] || [ "$(cat target/installed 2>/dev/null)" != "$state" ]; then
  npm ci --no-audit --no-fund --ignore-scripts
  echo "$state" > target/installed
fi
node lint.mjs
