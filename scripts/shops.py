"""A demo shop in a process of its own, for what kills and loads it."""

from __future__ import annotations

import re
import subprocess
import sys
from pathlib import Path


def start(folder: Path, port: int) -> tuple[subprocess.Popen[str], str]:
    """The process, and its address once it answers."""
    command = [sys.executable, "-m", "jolvek", "demo", "--data", str(folder), "--port", str(port)]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    for line in process.stdout:
        if found := re.search(r"http://[\d.:]+", line):
            return process, found[0]
    raise SystemExit("the server did not start")


def token(page: str) -> str:
    """The token of a page's forms."""
    found = re.search(r'name="csrf_token"\s+value="([^"]+)"', page)
    return found[1] if found else ""
