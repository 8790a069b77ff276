#!/usr/bin/env bash
# Refreshes the files of others that the application ships, with their licences.
set -euo pipefail
cd "$(dirname "$0")/.."
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
npm install --prefix "$work" --no-save --no-package-lock bulma@1.0.2 @alpinejs/csp@3.17.4 axe-core@4.14.1
vendor=crates/web/assets/vendor
# Only the parts of Bulma that assets/sass/bulma.scss names; 1.0.3 and later need a newer Sass than grass.
for part in utilities themes base/minireset base/generic base/animations elements/button elements/table \
  form/shared form/tools form/input-textarea form/select helpers/visibility; do
  from=$work/node_modules/bulma/sass/$part
  if [ -d "$from" ]; then cp "$from"/*.scss "$vendor/bulma/sass/$part/"; else cp "$from.scss" "$vendor/bulma/sass/$part.scss"; fi
done
cp "$work/node_modules/bulma/LICENSE" "$vendor/bulma/LICENSE.txt"
cp "$work/node_modules/@alpinejs/csp/dist/cdn.min.js" "$vendor/alpine-csp.min.js"
cp "$work/node_modules/axe-core/axe.min.js" crates/journeys/assets/axe.min.js
