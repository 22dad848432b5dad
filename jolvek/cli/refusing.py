"""How a command says no."""

from __future__ import annotations

import sys

import click


def refuse(error: Exception) -> None:
    """One line on standard error, exit code 2."""
    click.echo("jolvek: " + " ".join(str(error).split()), err=True)
    sys.exit(2)
