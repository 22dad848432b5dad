"""The command line: `jolvek predict`, `match`, `fit`, `day`, `trial`, `cost`, `schema`, `rules`,
`sweep`, `typical`, `bench`; what runs a shop stands in `shop`.
"""

from __future__ import annotations

import json
import sys
from typing import Any

import click

from jolvek import __version__
from jolvek.cli import shop
from jolvek.cli.refusing import refusing
from jolvek.core.base.errors import JolvekError


def _print(data: Any) -> None:
    click.echo(json.dumps(data, ensure_ascii=False, indent=1, allow_nan=False))


def _read(path: str) -> bytes:
    try:
        if path == "-":
            return sys.stdin.buffer.read()
        with open(path, "rb") as stream:
            return stream.read()
    except OSError as error:
        raise JolvekError(f"file: cannot read {path}: {error.strerror}") from None


@click.group()
@click.version_option(__version__, prog_name="jolvek")
def main() -> None:
    """Matches electric outboards, batteries and mounts to a boat."""


@main.command()
@click.argument("file")
@refusing
def predict(file: str) -> None:
    """Speed, power, time and range of the setup in FILE (jolvek-setup; - reads standard input).

    Example: jolvek predict kayak.json
    """
    from jolvek.formats import setup_file

    _print(setup_file.answer(setup_file.read(_read(file))))


@main.command()
@click.argument("file")
@refusing
def cost(file: str) -> None:
    """What electric and petrol cost over the years, of the case in FILE (jolvek-cost).

    Example: jolvek cost launch-against-outboard.json
    """
    from jolvek.formats import cost_file

    _print(cost_file.answer(cost_file.read(_read(file))))


@main.command()
@click.argument("file")
@refusing
def trial(file: str) -> None:
    """What the runs in FILE (jolvek-trial) say of the boat: her own factors, the band that is left,
    each run beside the prediction, and what may be wrong.

    Example: jolvek trial tender-on-the-water.json
    """
    from jolvek.formats import trial_file

    _print(trial_file.answer(trial_file.read(_read(file))))


@main.command()
@click.argument("name")
@refusing
def schema(name: str) -> None:
    """Print the JSON Schema called NAME (setup, shelf, enquiry, cost, trial).

    Example: jolvek schema setup > setup.schema.json
    """
    from jolvek.formats import schema as schemas

    _print(schemas.schema(name))


@main.command()
def bench() -> None:
    """Print speed and memory figures; nothing is judged.

    Example: jolvek bench
    """
    from jolvek.cli.bench import run

    run(click.echo)


@main.command()
def rules() -> None:
    """Print the rule book by topic: a worked example each, its cure, source, and whether it can
    speak on the demo's shelf.

    Example: jolvek rules | less
    """
    from jolvek import demo as demo_data
    from jolvek.core.fit.rule_reach import can_speak
    from jolvek.core.rules.findings import example
    from jolvek.core.rules.rulebook import RULES

    shelf, out = demo_data.shelf(), []
    for rule in sorted(RULES.values(), key=lambda r: r.topic):
        result = example(rule.id)
        keys = ("id", "level", "topic", "sentence", "school", "scope", "source")
        row = {key: getattr(rule, key) for key in keys}
        out.append(
            {
                **row,
                "example": result.text,
                "cure": result.cure,
                "can_speak": can_speak(rule.id, shelf),
            }
        )
    _print(out)


@main.command()
@click.argument("enquiry")
@click.option("--shelf", "shelf_path", help="A jolvek-shelf file; the demo's shelf if not given.")
@click.option(
    "--most",
    type=click.IntRange(1, 500),
    default=12,
    show_default=True,
    help="How many setups to list.",
)
@refusing
def match(enquiry: str, shelf_path: str | None, most: int) -> None:
    """Setups that fit the jolvek-enquiry file ENQUIRY, ranked, with picks and reasons, as JSON.

    Example: jolvek match tender.json --shelf shelf.json --most 5
    """
    from jolvek import demo as demo_data
    from jolvek.core.match.matching import match as run_match
    from jolvek.formats import enquiry_file, match_file, shelf_file

    shelf = shelf_file.read(_read(shelf_path)) if shelf_path else demo_data.shelf()
    found = run_match(enquiry_file.read(_read(enquiry)).need, shelf.on_offer)
    _print(match_file.answer(found, most))


@main.command()
@click.argument("enquiries", nargs=-1, required=True)
@click.option("--shelf", "shelf_path", required=True, help="A jolvek-shelf file.")
@click.option("--out", required=True, help="A folder of its own; taken up again where it stopped.")
@click.option("--block", type=click.IntRange(1, 10_000), default=10, show_default=True)
@click.option("--scheduler", default="", help="Address of a Dask cluster, as tcp://host:8786.")
@refusing
def sweep(
    enquiries: tuple[str, ...], shelf_path: str, out: str, block: int, scheduler: str
) -> None:
    """Every setup of the jolvek-enquiry files ENQUIRIES (or lines of one each) on a shelf, as
    Parquet, a block of enquiries at a time. Needs the extra jolvek[sweep].

    Example: jolvek sweep typical.jsonl --shelf shelf.json --out swept
    """
    from pathlib import Path

    from jolvek.cli.sweep import sweep as run

    files = [_read(path) for path in enquiries]
    try:
        import pyarrow  # noqa: F401
    except ImportError:
        raise JolvekError("sweep: needs pyarrow: pip install 'jolvek[sweep]'") from None
    run(files, _read(shelf_path), Path(out), block, scheduler, click.echo)


@main.command()
@click.argument("count", type=click.IntRange(1, 100_000))
@refusing
def typical(count: int) -> None:
    """Print COUNT typical enquiries by family and waters, a line of jolvek-enquiry each.

    Example: jolvek typical 1000 > typical.jsonl
    """
    from jolvek.cli.sweep import made_lines

    for line in made_lines(count):
        click.echo(line)


def _choice(command: Any) -> Any:
    """The options that name one setup on an enquiry's boat."""
    option = click.option
    for one in reversed(
        (
            click.argument("enquiry"),
            option("--motor", required=True, help="Id on the shelf, as all names here."),
            option("--mount", required=True),
            option("--battery", required=True),
            option("--charger"),
            option("--series", type=click.IntRange(1, 16), default=1, show_default=True),
            option("--parallel", type=click.IntRange(1, 16), default=1, show_default=True),
            option("--shaft", type=click.FloatRange(0.1, 2), help="In m; the first if not given."),
            option("--shelf", "shelf_path", help="A jolvek-shelf file; else the demo's shelf."),
        )
    ):
        command = one(command)
    return command


def _fitted(enquiry: str, shelf_path: str | None, chosen: dict[str, Any]) -> Any:
    from jolvek import demo as demo_data
    from jolvek.formats import enquiry_file, fitted_file, shelf_file

    shelf = shelf_file.read(_read(shelf_path)) if shelf_path else demo_data.shelf()
    need = enquiry_file.read(_read(enquiry)).need
    layout = (chosen.pop("series"), chosen.pop("parallel"), chosen.pop("shaft"))
    return fitted_file.fitted(need, shelf, chosen, *layout)


@main.command()
@_choice
@refusing
def fit(enquiry: str, shelf_path: str | None, **chosen: Any) -> None:
    """One setup on the boat of the jolvek-enquiry file ENQUIRY, judged as the pages judge it.

    Example: jolvek fit tender.json --motor tallmarrow-o12 --mount clamp --battery flat-12-100
    """
    from jolvek.formats import fitted_file

    _print(fitted_file.answer(_fitted(enquiry, shelf_path, chosen)))


@main.command()
@_choice
@refusing
def day(enquiry: str, shelf_path: str | None, **chosen: Any) -> None:
    """The day of ENQUIRY with one setup as rows, events and sums of energy.

    Example: jolvek day tender.json --motor tallmarrow-o12 --mount clamp --battery flat-12-100
    """
    from jolvek.formats import fitted_file

    _print(fitted_file.day_answer(_fitted(enquiry, shelf_path, chosen)))


for command in shop.COMMANDS:
    main.add_command(command)
