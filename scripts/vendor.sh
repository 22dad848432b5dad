#!/usr/bin/env bash
# Refreshes jolvek/web/static/vendor from the npm packages named here. Needed only to change a version.
set -euo pipefail
out="$(cd "$(dirname "$0")/.." && pwd)/jolvek/web/static/vendor"
tmp="$(mktemp -d)"; trap 'rm -rf "$tmp"' EXIT; cd "$tmp"
fetch() { npm pack --silent "$1" 2>/dev/null | tail -1 | xargs -I{} tar xzf {} && rm -rf "$2" && mv package "$2"; }

dir=htmx;   fetch htmx.org@4.0.1 htmx;        mkdir -p "$out/$dir"; cp htmx/dist/htmx.min.js htmx/dist/ext/hx-alpine-compat.min.js htmx/LICENSE "$out/$dir/"; echo 4.0.1 > "$out/$dir/VERSION"
dir=alpine; fetch @alpinejs/csp@3.17.4 alpine; mkdir -p "$out/$dir"; cp alpine/dist/cdn.min.js "$out/$dir/alpine-csp.min.js"; echo 3.17.4 > "$out/$dir/VERSION"
cat > "$out/$dir/LICENSE" <<'TXT'
MIT License. Copyright © 2019-2025 Caleb Porzio and contributors.
Permission is hereby granted, free of charge, to any person obtaining a copy of this software and associated documentation files, to deal in the Software without restriction, including without limitation the rights to use, copy, modify, merge, publish, distribute, sublicense, and/or sell copies of the Software, subject to the above copyright notice and this permission notice being included in all copies. THE SOFTWARE IS PROVIDED "AS IS", WITHOUT WARRANTY OF ANY KIND.
TXT
dir=bulma;  fetch bulma@1.0.4 bulma;          mkdir -p "$out/$dir"; cp bulma/css/versions/bulma-no-dark-mode.min.css "$out/$dir/bulma.min.css"; cp bulma/LICENSE "$out/$dir/"; echo 1.0.4 > "$out/$dir/VERSION"
dir=fonts;  mkdir -p "$out/$dir"
for f in atkinson-hyperlegible-next atkinson-hyperlegible-mono; do
  fetch "@fontsource/$f@5.3.0" "$f"
  for s in latin latin-ext; do for w in 400 600 700; do cp "$f/files/$f-$s-$w-normal.woff2" "$out/$dir/" 2>/dev/null || true; done; done
  cp "$f/LICENSE" "$out/$dir/LICENSE-$f"
done
echo 5.3.0 > "$out/$dir/VERSION"
