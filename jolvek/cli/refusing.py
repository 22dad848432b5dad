"""How a command says no."""

from __future__ import annotations

import sys
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec

import click

from jolvek.core.base.errors import JolvekError

P = ParamSpec("P")


def refuse(error: Exception) -> None:
    """One line on standard error, exit code 2."""
    click.echo("jolvek: " + " ".join(str(error).split()), err=True)
    sys.exit(2)


def refusing(work: Callable[P, None]) -> Callable[P, None]:
    """A command whose refusals, and files that cannot be used, are told in one line."""

    @wraps(work)
    def told(*args: P.args, **more: P.kwargs) -> None:
        try:
            work(*args, **more)
        except OSError as error:
            refuse(JolvekError(f"data: cannot use {error.filename or 'it'}: {error.strerror}"))
        except JolvekError as error:
            refuse(error)

    return told
