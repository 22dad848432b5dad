"""The house's limits: lines, modules, functions, templates. There are no exceptions."""

import ast
import re
import subprocess
import sys
from pathlib import Path

import pytest

from scripts import slim_bulma

TOP = Path(__file__).parents[1]
ROOT = TOP / "jolvek"
PYTHON = sorted([*ROOT.rglob("*.py"), *(TOP / "scripts").glob("*.py")])
STATIC = ROOT / "web" / "static"
OWN = [
    *sorted(STATIC.glob("*.css")),
    *sorted(STATIC.glob("*.js")),
    *sorted(STATIC.rglob("app/*.js")),
]
TEMPLATES = sorted((ROOT / "web").rglob("*.html"))
PAGES = [f"jolvek/web/{x}" for x in ("stations", "desk", "public", "kit")]
WIDTH, MODULE, FUNCTION, TEMPLATE = 100, 300, 35, 80


def body_lines(node: ast.FunctionDef) -> int:
    body = node.body
    if ast.get_docstring(node) is not None:
        body = body[1:]
    return (body[-1].end_lineno or 0) - body[0].lineno + 1 if body else 0


def test_modules_and_functions_are_short():
    long = []
    for path in PYTHON:
        text = path.read_text(encoding="utf-8")
        if len(text.splitlines()) > MODULE:
            long.append(f"{path.name}: {len(text.splitlines())} lines")
        for node in ast.walk(ast.parse(text)):
            if isinstance(node, ast.FunctionDef) and body_lines(node) > FUNCTION:
                long.append(f"{path.name} {node.name}: {body_lines(node)} lines")
    assert long == []


def test_templates_are_short_and_no_line_is_wide():
    found = []
    for path in [*TEMPLATES, *OWN, *sorted(ROOT.rglob("*.sql"))]:
        lines = path.read_text(encoding="utf-8").splitlines()
        frozen = path.suffix == ".sql" and path.name < "004"  # as they were first applied
        if path.suffix == ".html" and len(lines) > TEMPLATE:
            found.append(f"{path.name}: {len(lines)} lines")
        wide = [i for i, line in enumerate(lines, 1) if len(line) > WIDTH]
        if wide and not frozen:
            found.append(f"{path.name}: wide lines {wide[:5]}")
    assert found == []


def test_templates_hold_no_sums_factors_or_bands():
    found = []
    for path in TEMPLATES:
        text = path.read_text(encoding="utf-8")
        found += [
            f"{path.name}: {bad}"
            for bad in ("± 12", "/ 1000", "* 3600", "0.5144", "3.28")
            if bad in text
        ]
    assert found == []


@pytest.mark.parametrize(
    "command",
    [
        ["ruff", "format", "--check", "-q", "."],
        ["djlint", *PAGES, "--check", "--quiet"],
        ["scripts.format_static", "--check"],
    ],
    ids=["ruff", "djlint", "static"],
)
def test_everything_is_formatted(command):
    run = subprocess.run(
        [sys.executable, "-m", *command], cwd=TOP, capture_output=True, text=True, check=False
    )
    assert run.returncode == 0, run.stdout[-2000:] + run.stderr[-500:]


BULMAS = {"button", "help", "input", "is-primary", "is-right", "is-small", "is-sr-only", "menu"}
BULMAS |= {"columns", "tabs", "textarea"}


def test_no_class_of_ours_means_something_in_the_style_sheet_too():
    """`is-block` put every Stop's mark above its text, and `box` made ticks large as buttons."""
    bulma = (ROOT / "web/static/vendor/bulma/bulma.min.css").read_text(encoding="utf-8")
    taken = set(re.findall(r"\.([a-zA-Z][\w-]*)", re.sub(r"{[^}]*}", "{}", bulma)))
    for path in (ROOT / "web").rglob("*.html"):
        text = re.sub(r"{[{%].*?[%}]}", " ", path.read_text(encoding="utf-8"))
        ours = {name for found in re.findall(r'class="([^"]*)"', text) for name in found.split()}
        assert ours & taken <= BULMAS, path.name


def test_the_style_sheet_that_is_served_is_made_of_the_whole_one():
    whole = slim_bulma.WHOLE.read_text(encoding="utf-8")
    assert slim_bulma.USED.read_text(encoding="utf-8") == slim_bulma.slimmed(whole)
    assert slim_bulma.CLASSES == BULMAS


def test_no_style_sheet_says_a_word():
    for path in OWN:
        result = " ".join(re.findall(r"content:([^;]*);", path.read_text("utf-8")))
        rows = [x for x in re.findall(r'"([^"]*)"', result) if re.search("[a-zA-Z]{2}", x)]
        assert path.suffix != ".css" or rows == [], path.name


def wide_records():
    """Dataclasses of more than six fields, by name."""
    found = set()
    for path in ROOT.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.ClassDef) and "dataclass" in map(
                lambda d: ast.unparse(d).split("(")[0], node.decorator_list
            ):
                rows = [x for x in node.body if isinstance(x, ast.AnnAssign)]
                named = [x for x in rows if "ClassVar" not in ast.unparse(x.annotation)]
                found |= {node.name} if len(named) > 6 else set()
    return found


def test_a_wide_record_is_given_at_most_six_fields_by_place():
    """But for tables that are set by hand, whose columns have a head."""
    wide, found = wide_records(), []
    for path in [*PYTHON, *(TOP / "tests").rglob("*.py")]:
        text = path.read_text(encoding="utf-8")
        tables = re.finditer(r"# fmt: off.*?(?:# fmt: on|\Z)", text, re.S)
        set_by_hand = {
            i
            for m in tables
            for i in range(text[: m.start()].count("\n"), text[: m.end()].count("\n") + 2)
        }
        for node in ast.walk(ast.parse(text)):
            if isinstance(node, ast.Call) and ast.unparse(node.func).split(".")[-1] in wide:
                spread = any(isinstance(x, ast.Starred) for x in node.args)
                if len(node.args) > 6 and not spread and node.lineno not in set_by_hand:
                    found.append(f"{path.name}:{node.lineno}")
    assert found == []
