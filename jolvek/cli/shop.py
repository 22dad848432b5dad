"""Commands that run and keep a shop: demo, serve, owner, backup, restore, check, instrument."""

from __future__ import annotations

import importlib
import ipaddress
import logging
import socket
import sys
import threading
from contextlib import closing, suppress
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import click

from jolvek.cli.refusing import refuse, refusing
from jolvek.core.base.errors import JolvekError

LATE_S, LATE = 3.0, ("scipy.stats", "weasyprint")  # seconds after the start; a second to read
FOLDER = click.Path(file_okay=False, path_type=Path)
data_option = click.option("--data", type=FOLDER, help="Data folder; the user's own if not given.")
port_option = click.option("--port", type=click.IntRange(1, 65535), default=8642, show_default=True)


def _own(data: Path | None) -> Path:
    import platformdirs

    return data or Path(platformdirs.user_data_dir("jolvek"))


def _free_port(host: str, port: int) -> int:
    """`port`, or the next free one, said aloud."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    for candidate in range(port, port + 50):
        with socket.socket(family) as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((host, candidate))
                return candidate
            except socket.gaierror:
                raise JolvekError(
                    f"host: read {host!r}, allowed is an address of this machine"
                ) from None
            except OSError as error:
                if error.errno not in (13, 48, 98):
                    raise JolvekError(f"host: cannot listen on {host}: {error.strerror}") from None
                click.echo(f"Port {candidate} is busy, trying {candidate + 1}.")
    raise JolvekError(f"port: no free port from {port} to {port + 49}")


def _is_loopback(host: str) -> bool:
    try:
        return host == "localhost" or ipaddress.ip_address(host).is_loopback
    except ValueError:
        return False


def _serve(settings: Any, host: str, port: int) -> None:
    from waitress import create_server

    from jolvek.web import create_app, edge

    logging.basicConfig(level=logging.WARNING, format="%(message)s")
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)  # each wait of a few requests
    logging.getLogger("jolvek").setLevel(logging.WARNING if settings.demo else logging.INFO)
    app = create_app(settings)
    _first_owner(settings, host, port)
    server = create_server(app, host=host, port=port, ident="jolvek", **edge.SERVER)
    shown = f"[{host}]" if ":" in host else host
    click.echo(
        f"Jolvek runs on http://{shown}:{port} with its data in {settings.data_dir} (stop with"
        " Ctrl-C)"
    )
    sys.stdout.flush()
    late = threading.Timer(LATE_S, read_late)
    late.daemon = True
    late.start()
    with edge.daily(settings):
        server.run()


def read_late(modules: tuple[str, ...] = LATE) -> None:
    """Read what only some pages need, so that the first of them does not wait for it; what this
    machine lacks is told by the page that needs it.
    """
    for name in modules:
        with suppress(ImportError, OSError):
            importlib.import_module(name)


def _first_owner(settings: Any, host: str, port: int) -> None:
    """Say the one-time address of a shop without an owner; refuse to be open to others so."""
    from jolvek import shop
    from jolvek.store import db, people

    if settings.demo:
        if not _is_loopback(host):
            raise JolvekError("host: the demo lets everybody in, and listens on this machine only")
        return
    with closing(db.connect(settings.database)) as conn:
        if people.owners(conn):
            return
        if not _is_loopback(host):
            raise JolvekError(
                f"host: nobody owns this shop yet, so it does not listen on {host};"
                " make an owner first: jolvek owner NAME"
            )
        token = shop.people.invite(conn, None, datetime.now(UTC))
    click.echo(
        f"Nobody owns this shop yet. Within two days, once, on this machine:"
        f" http://{host}:{port}/welcome/{token}"
    )


@click.command()
@click.option("--data", type=FOLDER, help="Data folder; a throw-away one if not given.")
@port_option
@refusing
def demo(data: Path | None, port: int) -> None:
    """Start the app with an invented dealer's shelf and enquiries.

    Example: jolvek demo --port 9000
    """
    import secrets
    import tempfile

    from jolvek.demo import at_work
    from jolvek.web import demo_offers
    from jolvek.web.demo_shop import shop

    with tempfile.TemporaryDirectory(prefix="jolvek-demo-", ignore_cleanup_errors=True) as spare:
        made = shop(data or Path(spare), secrets.token_hex(32), at_work.add, demo_offers.send)
        _serve(made, "127.0.0.1", _free_port("127.0.0.1", port))


@click.command()
@data_option
@click.option(
    "--host",
    default="127.0.0.1",
    show_default=True,
    help="Address to listen on; 0.0.0.0 for all of this machine's.",
)
@port_option
@refusing
def serve(data: Path | None, host: str, port: int) -> None:
    """Start the app on your own data; JOLVEK_SECRET_KEY must be set.

    Example: jolvek serve --data /srv/jolvek --host 0.0.0.0
    """
    from jolvek.web.settings import from_environment

    _serve(from_environment(_own(data)), host, _free_port(host, port))


@click.command()
@click.argument("name")
@click.option("--shown", help="Name as others see it; NAME if not given.")
@data_option
@refusing
def owner(name: str, shown: str | None, data: Path | None) -> None:
    """Make NAME an owner, or give an owner a new password; it is asked for.

    Example: jolvek owner marit --shown "Marit Ferrow"
    """
    from jolvek import shop
    from jolvek.store import db
    from jolvek.web.kit.accounts import passwords

    folder = _own(data)
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    word = click.prompt("Password", hide_input=True, confirmation_prompt=True)
    hashed = passwords.kept(word, name, "")
    with closing(db.connect(folder / "jolvek.db")) as conn:
        db.migrate(conn)
        at = datetime.now(UTC).isoformat(timespec="microseconds")
        shop.people.make_owner(conn, at, name, shown or name, hashed)
    click.echo(f"{shown or name} may sign in as owner.")


@click.command()
@data_option
@click.option("--into", type=FOLDER, help="Another folder, as a share; else backups in the data.")
@refusing
def backup(data: Path | None, into: Path | None) -> None:
    """Back up database and photos, while the app runs or not.

    Example: jolvek backup --into /mnt/share/jolvek
    """
    from jolvek.store import backups

    path = backups.make(_own(data), datetime.now(), into, click.echo)
    click.echo(f"{path}, {path.stat().st_size / 1e6:.1f} MB")


@click.command()
@click.argument("file", type=click.Path(dir_okay=False, exists=True, path_type=Path))
@click.option("--data", type=FOLDER, required=True, help="A new folder.")
@click.option("--dry-run", is_flag=True, help="Only check the backup, and say what is in it.")
@refusing
def restore(file: Path, data: Path, dry_run: bool) -> None:
    """Read the backup FILE into a new folder, every file against its hash.

    Example: jolvek restore jolvek-20261126-080000.zip --data /srv/jolvek-new --dry-run
    """
    from jolvek.store import backups

    _tell(backups.restore(file, data, dry_run, click.echo))
    click.echo("Nothing was written." if dry_run else f"Restored to {data}.")


@click.command()
@data_option
@refusing
def check(data: Path | None) -> None:
    """Check the database, its references, photos, versions and the trail.

    Example: jolvek check --data /srv/jolvek
    """
    from jolvek.store import backups

    _tell(backups.check(_own(data)))


def _tell(report: Any) -> None:
    """What is there, and what is wrong: exit 2 where something is."""
    click.echo(", ".join(f"{n} {name}" for name, n in report.counts.items() if n))
    if report.problems:
        refuse(JolvekError(" ".join(report.problems)))
    click.echo("All is well.")


@click.command()
@click.option("--port", type=click.IntRange(0, 65535), default=10110, show_default=True)
@click.option("--setup", "setup_path", help="A jolvek-setup file; else an invented tender.")
@click.option("--fault", type=click.Choice(["", "slow", "power_low", "crooked"]), default="")
@click.option("--faster", type=click.FloatRange(0.1, 1000), default=1.0, show_default=True)
@refusing
def instrument(port: int, setup_path: str | None, fault: str, faster: float) -> None:
    """A simulated boat that is tried: NMEA 0183 over TCP, for a live trial without a boat.

    Example: jolvek instrument --port 10110 --faster 5
    """
    from jolvek.core.hydro.hull import Hull, Load
    from jolvek.core.predict.setup import Setup
    from jolvek.core.products.motor import Motor
    from jolvek.formats import setup_file
    from jolvek.standins.instrument import Hidden, Server

    setup = Setup(Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), Motor(1200))
    if setup_path:
        setup = setup_file.read(Path(setup_path).read_bytes()).setup
    watts = setup.motor.input_power_w
    steps = tuple(share * watts for share in (0.25, 0.5, 0.75, 1.0))
    server = Server(setup, Hidden(fault=fault), steps, port, faster)
    click.echo(f"A simulated boat serves NMEA 0183 on 127.0.0.1:{server.port} (stop with Ctrl-C)")
    with suppress(KeyboardInterrupt):
        threading.Event().wait()
    server.close()


COMMANDS = (demo, serve, owner, backup, restore, check, instrument)
