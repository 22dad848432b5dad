"""The browser that tests, pictures and latency figures are taken with: the system's Chromium,
without any network of its own.
"""

from __future__ import annotations

import os
import shutil

ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-site-isolation-trials",
    "--disable-features=IsolateOrigins,site-per-process,Translate,PaintHolding,BackForwardCache",
    "--num-raster-threads=1",
    "--disable-extensions",
    "--disable-component-extensions-with-background-pages",
]


# the one without windows first: the same engine, a fifth quicker
NAMES = ("chromium-headless-shell", "chromium", "chromium-browser")


def path() -> str | None:
    """Where Chromium lies; CHROMIUM names another."""
    return os.environ.get("CHROMIUM") or next(filter(None, map(shutil.which, NAMES)), None)
