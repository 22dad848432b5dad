"""Every public core function says what it does, with an example that runs; every module opens by
saying what it is for.
"""

import ast
from pathlib import Path

CORE = Path(__file__).parents[2] / "jolvek" / "core"
MODULES = sorted(p for p in CORE.rglob("*.py") if p.name != "__init__.py")


def public(tree):
    return [
        node
        for node in tree.body
        if isinstance(node, ast.FunctionDef) and not node.name.startswith("_")
    ]


TREES = {path: ast.parse(path.read_text(encoding="utf-8")) for path in MODULES}


def test_public_functions_have_a_docstring_with_a_running_example():
    lacking = [path.stem for path, tree in TREES.items() if not ast.get_docstring(tree)]
    for path, tree in TREES.items():
        shown = "" if path.stem == "predicates" else ">>>"  # theirs are the cases of the rules
        lacking += [
            f"{path.stem}.{f.name}"
            for f in public(tree)
            if shown not in (ast.get_docstring(f) or "")
        ]
    assert lacking == []


def test_public_classes_and_methods_have_a_docstring():
    bare = [
        f"{path.stem}.{c.name}.{getattr(f, 'name', '')}"
        for path, tree in TREES.items()
        for c in tree.body
        if isinstance(c, ast.ClassDef) and not c.name.startswith("_")
        for f in [c, *c.body]
        if isinstance(f, ast.ClassDef | ast.FunctionDef)
        and not f.name.startswith("_")
        and not ast.get_docstring(f)
        and ast.unparse(f.body[0]) != "..."  # what another class gives, with its docstring
    ]
    assert bare == []
