"""The command line: `jolvek predict`, `match`, `schema`, `rules`, `demo`, `serve`, `bench`."""

from __future__ import annotations

import json
import sys
from typing import Any

import click

from jolvek import __version__
from jolvek.core.errors import JolvekError


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


if __name__ == "__main__":
    main()
