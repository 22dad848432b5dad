"""Mutants of the lines that changed since a commit, one by one in a copy of the project: which of
them no test notices. `python scripts/mutants.py HEAD~20 40` takes 40 of those lines' mutants.

An operator, a comparison, a constant, a word `not` or a whole statement is another; first the tests
that name the module run, then those of its folder, then all without a browser.
"""

from __future__ import annotations

import ast
import random
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from copy import deepcopy
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parents[1]
PARTS = ("jolvek/core", "jolvek/shop", "jolvek/store", "jolvek/formats")
SWAPS: dict[type, type] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
    ast.And: ast.Or,
    ast.Or: ast.And,
}


@dataclass(frozen=True)
class Mutant:
    """One line of a module written otherwise: the whole module's text with it."""

    where: str
    line: int
    what: str
    text: str


def changed_lines(since: str) -> dict[str, set[int]]:
    """The lines of the parts that are another since a commit, by file."""
    asked = ["git", "diff", "-U0", since, "--", *PARTS]
    diff = subprocess.run(asked, cwd=ROOT, capture_output=True, text=True, check=True).stdout
    found: dict[str, set[int]] = {}
    where = ""
    for row in diff.splitlines():
        if row.startswith("+++ b/"):
            where = row[6:]
        elif m := re.match(r"@@ \S+ \+(\d+)(?:,(\d+))? @@", row):
            first, many = int(m[1]), int(m[2] or 1)
            found.setdefault(where, set()).update(range(first, first + many))
    return {k: v for k, v in found.items() if k.endswith(".py")}


def _others(node: ast.AST) -> Iterator[tuple[str, ast.AST]]:
    """What a node may be instead, with what was done to it."""
    new = deepcopy(node)
    if isinstance(new, ast.BinOp | ast.BoolOp | ast.AugAssign) and type(new.op) in SWAPS:
        new.op = SWAPS[type(new.op)]()  # type: ignore[assignment]
        yield "operator", new
    elif isinstance(new, ast.Compare) and type(new.ops[0]) in SWAPS:
        new.ops[0] = SWAPS[type(new.ops[0])]()  # type: ignore[call-overload]
        yield "comparison", new
    elif isinstance(new, ast.Constant) and isinstance(new.value, bool):
        new.value = not new.value
        yield "constant", new
    elif isinstance(new, ast.Constant) and isinstance(new.value, int | float):
        new.value = new.value + 1
        yield "constant", new
    elif isinstance(new, ast.UnaryOp) and isinstance(new.op, ast.Not):
        yield "not", new.operand
    elif isinstance(new, ast.Expr) and isinstance(new.value, ast.Call):
        yield "dropped", ast.Pass()


class _Put(ast.NodeTransformer):
    """Puts one node in place of another."""

    def __init__(self, old: ast.AST, new: ast.AST) -> None:
        self.old, self.new = old, new

    def visit(self, node: ast.AST) -> ast.AST:
        """The new node where the old one stands."""
        return self.new if node is self.old else self.generic_visit(node)


def mutants(where: str, lines: set[int]) -> Iterator[Mutant]:
    """All mutants of some lines of a module."""
    tree = ast.parse((ROOT / where).read_text(encoding="utf-8"))
    fields = (n.annotation for n in ast.walk(tree) if isinstance(n, ast.AnnAssign))
    notes = {id(x) for annotation in fields for x in ast.walk(annotation)}
    for node in ast.walk(tree):
        line = getattr(node, "lineno", 0)
        if line not in lines or id(node) in notes:
            continue
        for what, other in _others(node):
            ast.copy_location(other, node)
            whole = ast.unparse(ast.fix_missing_locations(_Put(node, other).visit(tree)))
            _Put(other, node).visit(tree)
            yield Mutant(where, line, what, whole)


def failing(folder: Path, tests: list[str]) -> bool:
    """Whether some of these tests fail; stopped at the first, several workers end with code 2."""
    left = ("browser", "test_house.py", "test_layers.py", "test_docs.py", "test_wheel.py")
    command = [sys.executable, "-m", "pytest", "-q", "-x", *(f"--ignore=tests/{x}" for x in left)]
    done = subprocess.run([*command, *tests], cwd=folder, capture_output=True, check=False)
    return done.returncode in (1, 2)


def tests_of(folder: Path, where: str) -> list[list[str]]:
    """The tests of a module, the nearest first: its example and those that name it; its folder's;
    all.
    """
    name = where.removesuffix(".py").replace("/", ".")
    package, _, module = name.rpartition(".")
    imported = rf"from {re.escape(package)} import [^\n]*\b{module}\b"
    pattern = re.compile(rf"{re.escape(name)}\b|{imported}")
    files = (p for p in sorted((folder / "tests").rglob("test_*.py")) if "browser" not in p.parts)
    naming = [str(p) for p in files if pattern.search(p.read_text(encoding="utf-8"))]
    near = folder / "tests" / Path(where).parent.relative_to("jolvek")
    return [[where, *naming], [str(near)] if near.is_dir() else [], ["tests", "jolvek"]]


def killed(folder: Path, m: Mutant) -> bool:
    """Whether a test fails with the mutant in place; the module is put back."""
    path = folder / m.where
    right = path.read_text(encoding="utf-8")
    path.write_text(m.text, encoding="utf-8")
    try:
        return any(failing(folder, tests) for tests in tests_of(folder, m.where) if tests)
    finally:
        path.write_text(right, encoding="utf-8")


def main() -> None:
    """Print the survivors and the share that was killed; code 1 below 85 %."""
    since = sys.argv[1] if len(sys.argv) > 1 else "HEAD~1"
    most = int(sys.argv[2]) if len(sys.argv) > 2 else 100
    every = [m for where, lines in changed_lines(since).items() for m in mutants(where, lines)]
    taken = random.Random(1).sample(every, min(most, len(every)))
    dead = 0
    with tempfile.TemporaryDirectory() as place:
        folder = Path(place) / "copy"
        shutil.copytree(ROOT, folder, ignore=shutil.ignore_patterns(".venv", ".git", "*_cache"))
        for m in taken:
            kill = killed(folder, m)
            dead += kill
            if not kill:
                old = (ROOT / m.where).read_text(encoding="utf-8").splitlines()[m.line - 1]
                print(f"SURVIVED  {m.where}:{m.line}  {m.what}  {old.strip()}", flush=True)
    share = dead / len(taken) if taken else 1.0
    print(f"{dead} of {len(taken)} killed ({100 * share:.0f} %), out of {len(every)} mutants")
    sys.exit(share < 0.85)


if __name__ == "__main__":
    main()
