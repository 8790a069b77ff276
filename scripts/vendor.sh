#!/usr/bin/env bash
# Refreshes the files of others that the application ships, with their licences.
set -euo pipefail
cd "$(dirname "$0")/.."
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
npm install --prefix "$work" --no-save --no-package-lock bulma@1.0.4 @alpinejs/csp@3.17.4 axe-core@4.14.1
vendor=crates/web/assets/vendor
cp "$work/node_modules/bulma/css/bulma.min.css" "$vendor/bulma.min.css"
cp "$work/node_modules/bulma/LICENSE" "$vendor/bulma-LICENSE.txt"
cp "$work/node_modules/@alpinejs/csp/dist/cdn.min.js" "$vendor/alpine-csp.min.js"
cp "$work/node_modules/axe-core/axe.min.js" crates/journeys/assets/axe.min.js
node scripts/assets.mjs
