"""Formats our own CSS and JavaScript in place with js-beautify; `--check` only lists them."""

from __future__ import annotations

import sys
from pathlib import Path

import cssbeautifier
import jsbeautifier

ROOT = Path(__file__).parents[1]
STATIC = ROOT / "jolvek" / "web" / "static"
OWN = sorted(p for p in STATIC.rglob("*.*s") if "vendor" not in p.parts)


def formatted(path: Path) -> str:
    """The file's text as the formatter would have it."""
    tool = cssbeautifier if path.suffix == ".css" else jsbeautifier
    options = tool.default_options()
    options.indent_size, options.end_with_newline = 2, True
    if path.suffix == ".js":
        options.wrap_line_length = 100
    return str(tool.beautify(path.read_text(encoding="utf-8"), options))


def main() -> int:
    """Format or check all."""
    differ = [p for p in OWN if formatted(p) != p.read_text(encoding="utf-8")]
    for path in differ:
        print(path.relative_to(ROOT))
        if "--check" not in sys.argv:
            path.write_text(formatted(path), encoding="utf-8")
    return len(differ) if "--check" in sys.argv else 0


if __name__ == "__main__":
    sys.exit(main())
