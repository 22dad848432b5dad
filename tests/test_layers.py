"""Arrows point down only: core knows nothing of ours, store and formats know core, web knows
all."""

import ast
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1] / "jolvek"
ALLOWED = {
    "core": {"core"},
    "formats": {"core", "formats"},
    "store": {"core", "formats", "store"},
    "demo": {"core", "formats", "store", "demo"},
    "web": {"core", "formats", "store", "standins", "demo", "web"},
    "standins": {"core", "standins"},
}
OUTSIDE_CORE = {
    "flask",
    "sqlite3",
    "os",
    "pathlib",
    "io",
    "time",
    "datetime",
    "requests",
    "socket",
    "jinja2",
    "werkzeug",
}


def imports(path: Path) -> set[str]:
    tree = ast.parse(path.read_text(encoding="utf-8"))
    found = {
        alias.name
        for node in ast.walk(tree)
        if isinstance(node, ast.Import)
        for alias in node.names
    }
    return found | {
        node.module for node in ast.walk(tree) if isinstance(node, ast.ImportFrom) and node.module
    }


@pytest.mark.parametrize(
    "path", sorted(ROOT.glob("*/**/*.py")), ids=lambda p: str(p.relative_to(ROOT))
)
def test_arrows_point_down(path):
    layer = path.relative_to(ROOT).parts[0]
    ours = {name.split(".")[1] for name in imports(path) if name.startswith("jolvek.")}
    assert ours <= ALLOWED[layer] | {"__version__"}


@pytest.mark.parametrize("path", sorted((ROOT / "core").rglob("*.py")), ids=lambda p: p.name)
def test_core_knows_no_files_clock_or_web(path):
    assert not {name.split(".")[0] for name in imports(path)} & OUTSIDE_CORE


def test_no_source_names_a_path_of_this_machine():
    for path in ROOT.rrglob("*.py"):
        assert "/home/" not in path.read_text(encoding="utf-8")
