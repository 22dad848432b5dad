"""The command line: `jolvek predict`, `match`, `fit`, `day`, `schema`, `rules`, `demo`, `serve`,
`bench`.
"""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

import click

from jolvek import __version__
from jolvek.core.base.errors import JolvekError


def _refuse(error: Exception) -> None:
    """One line on standard error, exit code 2."""
    click.echo("jolvek: " + " ".join(str(error).split()), err=True)
    sys.exit(2)


def _print(data: Any) -> None:
    click.echo(json.dumps(data, ensure_ascii=False, indent=1, allow_nan=False))


def _read(path: str) -> bytes:
    try:
        if path == "-":
            return sys.stdin.buffer.read()
        with open(path, "rb") as stream:
            return stream.read()
    except OSError as error:
        _refuse(JolvekError(f"file: cannot read {path}: {error.strerror}"))
        raise


@click.group()
@click.version_option(__version__, prog_name="jolvek")
def main() -> None:
    """Matches electric outboards, batteries and mounts to a boat."""


@main.command()
@click.argument("file")
def predict(file: str) -> None:
    """Speed, power, time and range of the setup in FILE (jolvek-setup; - reads standard input)."""
    from jolvek.formats import setup_file

    try:
        _print(setup_file.answer(setup_file.read(_read(file))))
    except JolvekError as error:
        _refuse(error)


@main.command()
@click.argument("name")
def schema(name: str) -> None:
    """Print the JSON Schema called NAME (setup, shelf, enquiry)."""
    from jolvek.formats import schema as schemas

    try:
        _print(schemas.schema(name))
    except JolvekError as error:
        _refuse(error)


def _free_port(port: int) -> int:
    """`port`, or the next free one, said aloud."""
    import socket

    for candidate in range(port, port + 50):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind(("127.0.0.1", candidate))
                return candidate
            except OSError:
                click.echo(f"Port {candidate} is busy, trying {candidate + 1}.")
    raise JolvekError(f"port: no free port from {port} to {port + 49}")


def _serve(settings: Any, port: int) -> None:
    from waitress import create_server

    from jolvek.web import create_app

    app = create_app(settings)
    server = create_server(app, host="127.0.0.1", port=port, threads=8, ident="jolvek")
    click.echo(
        f"Jolvek runs on http://127.0.0.1:{port} with its data in {settings.data_dir} (stop with"
        " Ctrl-C)"
    )
    sys.stdout.flush()
    server.run()


@main.command()
@click.option(
    "--data",
    type=click.Path(file_okay=False, path_type=Path),
    help="Data folder; a throw-away one if not given.",
)
@click.option("--port", type=click.IntRange(1, 65535), default=8642, show_default=True)
def demo(data: Path | None, port: int) -> None:
    """Start the app with an invented dealer's shelf and enquiries."""
    import secrets
    import tempfile

    from jolvek.demo import at_work
    from jolvek.web.demo_shop import shop

    try:
        with tempfile.TemporaryDirectory(
            prefix="jolvek-demo-", ignore_cleanup_errors=True
        ) as spare:
            made = shop(data or Path(spare), secrets.token_hex(32), at_work.add)
            _serve(made, _free_port(port))
    except OSError as error:
        _refuse(JolvekError(f"data: cannot use {data}: {error.strerror}"))
    except JolvekError as error:
        _refuse(error)


@main.command()
@click.option(
    "--data",
    type=click.Path(file_okay=False, path_type=Path),
    help="Data folder; the user's own if not given.",
)
@click.option("--port", type=click.IntRange(1, 65535), default=8642, show_default=True)
def serve(data: Path | None, port: int) -> None:
    """Start the app on your own data; JOLVEK_SECRET_KEY must be set."""
    import platformdirs

    from jolvek.web.settings import from_environment

    try:
        _serve(
            from_environment(data or Path(platformdirs.user_data_dir("jolvek"))), _free_port(port)
        )
    except JolvekError as error:
        _refuse(error)


@main.command()
def bench() -> None:
    """Print speed and memory figures; nothing is judged."""
    from jolvek.cli.bench import run

    run(click.echo)


@main.command()
def rules() -> None:
    """Print the rule book by topic: a worked example each, its cure, source, and whether it can
    speak on the demo's shelf.
    """
    from jolvek import demo as demo_data
    from jolvek.core.fit.rule_reach import can_speak
    from jolvek.core.rules.findings import example
    from jolvek.core.rules.rulebook import RULES

    shelf, out = demo_data.shelf(), []
    for rule in sorted(RULES.values(), key=lambda r: r.topic):
        told = example(rule.id)
        keys = ("id", "level", "topic", "sentence", "school", "scope", "source")
        row = {key: getattr(rule, key) for key in keys}
        out.append(
            {**row, "example": told.text, "cure": told.cure, "can_speak": can_speak(rule.id, shelf)}
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
def match(enquiry: str, shelf_path: str | None, most: int) -> None:
    """Setups that fit the jolvek-enquiry file ENQUIRY, ranked, with picks and reasons, as JSON."""
    from jolvek import demo as demo_data
    from jolvek.core.match.matching import match as run_match
    from jolvek.formats import enquiry_file, match_file, shelf_file

    try:
        shelf = shelf_file.read(_read(shelf_path)) if shelf_path else demo_data.shelf()
        _print(match_file.answer(run_match(enquiry_file.read(_read(enquiry)).need, shelf), most))
    except JolvekError as error:
        _refuse(error)


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
def fit(enquiry: str, shelf_path: str | None, **chosen: Any) -> None:
    """One setup on the boat of the jolvek-enquiry file ENQUIRY, judged as the pages judge it."""
    from jolvek.formats import fitted_file

    try:
        _print(fitted_file.answer(_fitted(enquiry, shelf_path, chosen)))
    except JolvekError as error:
        _refuse(error)


@main.command()
@_choice
def day(enquiry: str, shelf_path: str | None, **chosen: Any) -> None:
    """The day of ENQUIRY with one setup as rows, events and sums of energy."""
    from jolvek.core.day.sun import sun_of
    from jolvek.formats import fitted_file

    try:
        f = _fitted(enquiry, shelf_path, chosen)
        sun = sun_of(f.need.day)
        _print(fitted_file.day_answer(f, sun.at_w if sun else None))
    except JolvekError as error:
        _refuse(error)


if __name__ == "__main__":
    main()
