"""Arrows point down only: between the packages, and between the packages of core and of web; the
picture in docs/architecture.md shows the same arrows.
"""

import ast
import re
from functools import cache
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1] / "jolvek"
ALLOWED = {
    "core": {"core"},
    "formats": {"core", "formats"},
    "store": {"core", "store"},
    "standins": {"core", "formats", "standins"},
    "demo": {"core", "formats", "store", "demo"},
    "web": {"core", "formats", "store", "standins", "demo", "web"},
    "cli": {"core", "formats", "store", "standins", "demo", "web", "cli"},
}
CORE = (
    "base rules hydro electric products predict enquiry fit match day deal job trial care assort"
).split()
WEB = "settings data view forms drawings pages shared errors saving accounts desk stations".split()
OUTSIDE_CORE = {
    *("flask", "sqlite3", "os", "pathlib", "io", "time", "requests", "socket"),
    *("jinja2", "werkzeug", "wtforms", "babel", "random"),
}
FILES = sorted(ROOT.glob("*/**/*.py"))


@cache
def imports(path: Path) -> set[str]:
    tree = ast.parse(path.read_text(encoding="utf-8"))
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            found |= {node.module, *(f"{node.module}.{alias.name}" for alias in node.names)}
    return found


def name(path: Path) -> str:
    return str(path.relative_to(ROOT))


def test_arrows_point_down():
    climbs = {}
    for path in FILES:
        ours = {n.split(".")[1] for n in imports(path) if n.startswith("jolvek.")}
        up = ours - ALLOWED[path.relative_to(ROOT).parts[0]] - {"__version__"}
        climbs |= {name(path): up} if up else {}
    assert climbs == {} and len(FILES) > 200


@pytest.mark.parametrize("top", ["core", "web"])
def test_packages_import_only_from_those_before_them(top):
    order, climbs = {"core": CORE, "web": WEB}[top], []
    for path in sorted((ROOT / top).glob("*/*.py")):
        mine = path.parent.name
        if mine not in order:
            continue
        for n in imports(path):
            parts = n.split(".")
            if parts[:2] == ["jolvek", top] and len(parts) > 2 and parts[2] in order:
                if order.index(parts[2]) > order.index(mine):
                    climbs.append(f"{name(path)} → {n}")
    assert climbs == []


def test_every_package_of_core_and_web_has_its_place_in_the_order():
    for top, order in (("core", CORE), ("web", WEB)):
        folders = {p.parent.name for p in (ROOT / top).glob("*/__init__.py")}
        assert folders <= set(order)


def test_core_knows_no_files_clock_or_web():
    values = {
        name(path): {n.split(".")[0] for n in imports(path)} & OUTSIDE_CORE
        for path in sorted((ROOT / "core").rglob("*.py"))
    }
    assert {path for path, outside in values.items() if outside} == set()
    for path in (ROOT / "core").rglob("*.py"):  # days of the calendar are handed in
        text = path.read_text(encoding="utf-8")
        assert ".today(" not in text and ".now(" not in text, path.name


def test_no_source_names_a_path_of_this_machine():
    for path in ROOT.rglob("*.py"):
        assert "/home/" not in path.read_text(encoding="utf-8")


def arrows() -> set[tuple[str, str]]:
    """(from, to) between the packages of core, as the code imports."""
    out = set()
    for path in (ROOT / "core").glob("*/*.py"):
        for n in imports(path):
            parts = n.split(".")
            if parts[:2] == ["jolvek", "core"] and len(parts) > 2 and parts[2] in CORE:
                if parts[2] != path.parent.name:
                    out.add((path.parent.name, parts[2]))
    return out


def test_the_picture_of_the_core_shows_its_arrows():
    text = (ROOT.parent / "docs" / "architecture.md").read_text(encoding="utf-8")
    drawn = set(re.findall(r"^  (\w+) --> (\w+)$", text, re.M))
    assert {a for a in drawn if a[0] in CORE} == arrows()
