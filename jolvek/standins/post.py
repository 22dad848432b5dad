"""Mail as a simulated stand-in behind the Protocol that a real post would serve: each mail becomes
an .eml file in a folder, marked as simulated.
"""

from __future__ import annotations

from pathlib import Path
from typing import Protocol


class Refused(OSError):
    """This one mail is not taken; the next may be."""


class Post(Protocol):
    """Takes a mail (RFC 5322 bytes) for a recipient; raises Refused where it does not take this
    one, any other OSError where it takes none.
    """

    def hand_on(self, number: int, recipient: str, mail: bytes) -> None:
        """Hand one mail on; the same number twice is the same mail."""


class FolderPost:
    """Writes .eml files, whole or not at all."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder

    def hand_on(self, number: int, recipient: str, mail: bytes) -> None:
        """One file a number, so that a mail handed on twice stands there once."""
        self.folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        path = self.folder / f"{number:06d}.eml"
        part = path.with_suffix(".part")
        part.touch(mode=0o600)
        part.write_bytes(b"X-Simulated: not sent, written by a stand-in\r\n" + mail)
        part.replace(path)
