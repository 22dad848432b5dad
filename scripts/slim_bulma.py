"""Bulma as far as the app uses it: the rules of its classes, of elements, and the variables that
those ask for. Writes `bulma.used.css` beside the whole; a test holds that it is current.
"""

from __future__ import annotations

import re
import sys
from pathlib import Path

import tinycss2

FOLDER = Path(__file__).parents[1] / "jolvek" / "web" / "static" / "vendor" / "bulma"
WHOLE, USED = FOLDER / "bulma.min.css", FOLDER / "bulma.used.css"
CLASSES = {"button", "help", "input", "is-primary", "is-right", "is-small", "is-sr-only", "menu"}
CLASSES |= {"columns", "tabs", "textarea"}  # as tests/test_house.py allows them
NAME = re.compile(r"\.((?:[\w-]|\\.)+)")
ASKED = re.compile(r"var\(\s*(--[\w-]+)")


def kept_selectors(prelude: str) -> str:
    """The selectors of a rule that can match something of ours."""
    parts = re.split(r",(?![^(]*\))", prelude)
    plain = [re.sub(r":not\([^)]*\)", "", p) for p in parts]
    there = [p for p, q in zip(parts, plain, strict=True) if _ours(q)]
    return ",".join(there)


def _ours(selector: str) -> bool:
    return all(name in CLASSES for name in NAME.findall(selector))


def rules_of(nodes: list, out: list[tuple[str, str]]) -> None:
    """(prelude, body) of each rule that is kept; @media around what is kept within."""
    for node in nodes:
        if node.type == "qualified-rule":
            selectors = kept_selectors(tinycss2.serialize(node.prelude).strip())
            if selectors:
                out.append((selectors, tinycss2.serialize(node.content)))
        elif node.type == "at-rule" and node.content is not None:
            head = f"@{node.at_keyword}{tinycss2.serialize(node.prelude)}"
            if node.lower_at_keyword == "media":
                if "print" in head:
                    continue
                inner: list[tuple[str, str]] = []
                rules_of(tinycss2.parse_rule_list(node.content, True, True), inner)
                if inner:
                    out.append((head, "".join(f"{s}{{{b}}}" for s, b in inner)))


def slimmed(css: str) -> str:
    """The sheet with what is used alone."""
    found: list[tuple[str, str]] = []
    rules_of(tinycss2.parse_stylesheet(css, True, True), found)
    roots = [(s, b) for s, b in found if re.fullmatch(r"(:root|html|:host|,|\s)+", s)]
    rest = [(s, b) for s, b in found if (s, b) not in roots]
    values: dict[str, str] = {}
    plain = []
    for selectors, body in roots:
        for line in body.split(";"):
            name, _, value = line.partition(":")
            if name.strip().startswith("--"):
                values[name.strip()] = value.strip()
            elif line.strip():
                plain.append((selectors, line.strip()))
    wanted: set[str] = set()
    left = set(ASKED.findall("".join(b for _, b in rest + plain)))
    left |= set(ASKED.findall((FOLDER.parents[1] / "app.css").read_text(encoding="utf-8")))
    while left:
        name = left.pop()
        if name not in wanted:
            wanted.add(name)
            left |= set(ASKED.findall(values.get(name, "")))
    roots_kept = ";".join(f"{k}:{v}" for k, v in values.items() if k in wanted)

    def narrowed(text: str) -> str:
        """Without variables that nobody asks for; those of the dark stay."""
        return re.sub(r"(--[\w-]+):[^;{}]*;?", lambda m: m[0] if m[1] in wanted else "", text)

    rest = [(s, narrowed(b)) for s, b in rest]
    head = "/* made by scripts/slim_bulma.py from bulma.min.css (MIT) */\n"
    body = "".join(f"{s}{{{b}}}\n" for s, b in [*plain, *rest])
    return f"{head}:root{{{roots_kept}}}\n{body}"


def main() -> int:
    """Write it."""
    USED.write_text(slimmed(WHOLE.read_text(encoding="utf-8")), encoding="utf-8")
    print(f"{USED.name}: {USED.stat().st_size} of {WHOLE.stat().st_size} bytes")
    return 0


if __name__ == "__main__":
    sys.exit(main())
