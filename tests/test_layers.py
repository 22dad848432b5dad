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
    "shop": {"core", "store", "standins", "shop"},
    "demo": {"core", "formats", "store", "shop", "demo"},
    "web": {"core", "formats", "store", "shop", "standins", "demo", "web"},
    "cli": {"core", "formats", "store", "shop", "standins", "demo", "web", "cli"},
}
CORE = (
    "base rules hydro electric products predict enquiry fit match day deal job trial care assort"
).split()
WEB = "kit stations desk public".split()  # folders of pages stand on the kit and on earlier ones
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
    for path in sorted((ROOT / top).glob("*/**/*.py")):
        mine = path.relative_to(ROOT / top).parts[0]
        for n in imports(path) if mine in order else ():
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


WRITES = re.compile(r"\s*(INSERT|UPDATE|DELETE|REPLACE|VACUUM)\b")
OPENS = {"db.ready", "db.migrate"}  # to open a database is no act of the shop


def called(tree: ast.AST, names: dict[str, str]) -> set[str]:
    """What a tree reads or calls of imported modules, as module.function."""
    out = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Load) and node.id in names:
            out.add(names[node.id])
        elif isinstance(node, ast.Attribute) and isinstance(node.value, ast.Name):
            if node.value.id in names:
                out.add(f"{names[node.value.id]}.{node.attr}")
    return out


def from_store(tree: ast.AST) -> dict[str, str]:
    """The names that a module has from the store, with what they are there."""
    return {
        alias.asname or alias.name: f"{node.module}.{alias.name}".removeprefix("jolvek.store.")
        for node in ast.walk(tree)
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("jolvek.store")
        for alias in node.names
    }


def writing() -> set[str]:
    """The functions of the store that write, themselves or by another."""
    calls: dict[str, set[str]] = {}
    found = {"db.transaction"}
    for path in (ROOT / "store").glob("*.py"):
        tree = ast.parse(path.read_text(encoding="utf-8"))
        own = {n.name: f"{path.stem}.{n.name}" for n in tree.body if isinstance(n, ast.FunctionDef)}
        texts = {
            n.targets[0].id: n
            for n in tree.body
            if isinstance(n, ast.Assign) and isinstance(n.targets[0], ast.Name)
        }
        sql = {name for name, n in texts.items() if has_sql(n)}
        for node in tree.body:
            if isinstance(node, ast.FunctionDef):
                mine = own[node.name]
                calls[mine] = called(node, {**from_store(tree), **own})
                reads = {x.id for x in ast.walk(node) if isinstance(x, ast.Name)}
                if has_sql(node) or reads & sql:
                    found.add(mine)
    while more := {f for f, uses in calls.items() if uses & found} - found:
        found |= more
    return found


def has_sql(tree: ast.AST) -> bool:
    texts = (n.value for n in ast.walk(tree) if isinstance(n, ast.Constant))
    return any(isinstance(x, str) and WRITES.match(x) for x in texts)


def test_only_the_shop_writes_through_the_store():
    """Web, commands and demo act by jolvek/shop, which checks inside the transaction."""
    writes, broken = writing() - OPENS, {}
    for path in FILES:
        if path.relative_to(ROOT).parts[0] in ("web", "cli", "demo"):
            tree = ast.parse(path.read_text(encoding="utf-8"))
            bad = called(tree, from_store(tree)) & writes
            broken |= {name(path): bad} if bad else {}
    assert broken == {} and len(writes) > 100


def test_the_shop_knows_no_web():
    for path in (ROOT / "shop").glob("*.py"):
        assert not {n.split(".")[0] for n in imports(path)} & {"flask", "jinja2", "werkzeug"}
