"""What the documents say of the project is so: places, arrows, commands, settings, names, links."""

import re
from dataclasses import MISSING, fields
from pathlib import Path

import pytest

from jolvek.cli import main
from jolvek.web.settings import PREFIX, Settings
from tests.test_layers import ALLOWED, CORE, WEB

TOP = Path(__file__).parents[1]
DOCS = ["README.md", "CONTRIBUTING.md", *(f"docs/{p.name}" for p in (TOP / "docs").glob("*.md"))]
ROOTS = (TOP, TOP / "jolvek", TOP / "jolvek/core", TOP / "jolvek/web")
ENDS = "(?:py|html|md|sql|sh|json|service)"
PATH = re.compile(rf"`((?:[\w*.-]+/)+[\w*-]*(?:\.{ENDS})?|[\w*-]+\.{ENDS})")
SOURCE = "\n".join(p.read_text(encoding="utf-8") for p in (TOP / "jolvek").rglob("*.py"))


def text_of(name: str) -> str:
    return (TOP / name).read_text(encoding="utf-8")


@pytest.mark.parametrize("name", DOCS)
def test_places_named_in_a_document_exist(name):
    named = set(PATH.findall(text_of(name)))
    missing = [
        place
        for place in named
        if not any(any(root.glob(place.rstrip("/"))) for root in ROOTS)
        and not any((TOP / "jolvek").rglob(place.rstrip("/").split("/")[-1]))
    ]
    assert missing == []


@pytest.mark.parametrize("name", ["README.md", "CONTRIBUTING.md"])
def test_links_lead_somewhere_and_every_screenshot_is_linked(name):
    text, folder = text_of(name), (TOP / name).parent
    links = [link for link in re.findall(r"\]\(([^)#]+)\)", text) if "://" not in link]
    assert links and [link for link in links if not (folder / link).exists()] == []
    if name == "README.md":
        shots = {f"docs/screenshots/{p.name}" for p in (TOP / "docs/screenshots").glob("*.png")}
        assert shots <= set(links) and len(shots) < 20


def test_the_arrows_of_contributing_are_those_the_layers_test_holds():
    values = dict(re.findall(r"^  - `(\w+) → ([\w, ]+)`", text_of("CONTRIBUTING.md"), re.M))
    held = {layer: sorted(below - {layer}) for layer, below in ALLOWED.items()}
    assert {layer: sorted(below.split(", ")) for layer, below in values.items()} == {
        layer: below or ["nothing"] for layer, below in held.items()
    }
    assert " ".join(CORE) in text_of("CONTRIBUTING.md")
    assert " ".join(WEB) in text_of("CONTRIBUTING.md")


def test_the_commands_of_the_readme_are_those_there_are():
    readme = text_of("README.md")
    heads = re.findall(r"^([\w -]+):(?!=)", text_of("Makefile"), re.M)
    targets = {word for head in heads for word in head.split()}
    result = {
        word for doc in DOCS for word in re.findall(r"(?m)(?:`|^)make ([a-z-]+)", text_of(doc))
    }
    assert result <= targets
    lines = [x.split("#")[0] for x in re.findall(r"^jolvek (.*)$", readme, re.M)]
    result = {word for x in lines for word in re.findall(r"(?:^|\| )(\w+)", x)}
    assert result == set(main.commands)
    helped = set(re.findall(r'@echo "make ([\w-]+)', text_of("Makefile")))
    assert helped == targets - {"help", "chromium", "pango"}


def test_the_settings_that_are_told_are_those_there_are():
    rows = re.findall(
        rf"^\| `{PREFIX}(\w+)` \| (.*?) \| (.*?) \|$", text_of("docs/settings.md"), re.M
    )
    known = [f for f in fields(Settings) if f.metadata.get("env", True)]
    assert rows == [
        (
            f.name.upper(),
            "none" if f.default is MISSING else f"`{f.default}`" if f.default != "" else "",
            f.metadata["help"],
        )
        for f in known
    ]


def test_the_agreed_names_are_used():
    rows = re.findall(r"^\| (`.*?) \| (.*) \|$", text_of("docs/names.md"), re.M)
    names = {n for row in rows for cell in row for n in re.findall(r"`([a-z]\w*)`", cell)}
    assert len(names) > 40
    assert sorted(n for n in names if not re.search(rf"\b{n}\b", SOURCE)) == []


@pytest.mark.parametrize("name", main.commands)
def test_each_command_has_help_and_an_example_that_can_be_typed(name):
    command = main.commands[name]
    example = re.search(r"Example: jolvek (\w+) ?(.*)", command.help or "")
    assert example and example[1] == name
    words = [w for w in re.split(r"[|>]", example[2])[0].split() if w.startswith("--")]
    assert set(words) <= {o for p in command.params for o in p.opts}
