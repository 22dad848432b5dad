"""The demo shop on disk and on a port, for the command, the tests, the pictures and the bench
alike.
"""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from sqlite3 import Connection

from jolvek import demo
from jolvek.store import db
from jolvek.web import create_app
from jolvek.web.settings import Settings


def shop(
    folder: Path,
    secret: str = "demo",
    more: Callable[[Connection], None] | None = None,
    last: Callable[[Settings], None] | None = None,
) -> Settings:
    """Settings over a folder whose database holds the demo data, and what `more` and `last` put in
    where it was empty.
    """
    folder.mkdir(parents=True, exist_ok=True)
    settings = Settings(folder, secret, demo.DEALER, demo=True)
    conn = db.connect(settings.database)
    db.migrate(conn)
    empty = demo.fill(conn)
    if empty and more:
        more(conn)
    conn.close()
    if empty and last:
        last(settings)
    return settings


@contextmanager
def served(settings: Settings) -> Iterator[str]:
    """The app on a free port of this machine, in a thread; gives its address."""
    from waitress import create_server

    server = create_server(create_app(settings), host="127.0.0.1", port=0, threads=4)

    def run() -> None:
        with suppress(OSError):  # its sockets are closed under it
            server.run()

    threading.Thread(target=run, daemon=True).start()
    yield f"http://127.0.0.1:{server.effective_port}"
    server.close()
