"""Photos of boats: checked, turned upright, made smaller, stripped of what the camera wrote, kept
outside the web root.
"""

from __future__ import annotations

import base64
import secrets
from pathlib import Path
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.web.kit.language import tr

LONGEST_PX = 1600
MOST_PIXELS = 25_000_000


class PhotoRefused(JolvekError):
    """The file is no photo that can be kept."""


def keep(upload: Any, folder: Path) -> str:
    """Keep an uploaded PNG or JPEG as a JPEG of at most 1600 px; returns its file name. Raises
    PhotoRefused.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError

    if upload is None or not upload.filename:
        raise PhotoRefused(tr("choose a PNG or JPEG file first"))
    try:
        with Image.open(upload.stream, formats=("PNG", "JPEG")) as image:
            if image.width * image.height > MOST_PIXELS:
                raise PhotoRefused(
                    tr(
                        "%(filename)s: %(width)s × %(height)s pixels are more than "
                        "%(most_pixels)s million",
                        filename=upload.filename,
                        width=image.width,
                        height=image.height,
                        most_pixels=MOST_PIXELS // 1000000,
                    )
                )
            image.draft("RGB", (2 * LONGEST_PX, 2 * LONGEST_PX))  # a large JPEG is decoded smaller
            upright = ImageOps.exif_transpose(image).convert("RGB")
            upright.thumbnail((LONGEST_PX, LONGEST_PX))
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise PhotoRefused(
            tr("%(filename)s: not a PNG or JPEG picture that can be read", filename=upload.filename)
        ) from None
    folder.mkdir(parents=True, exist_ok=True)
    name = f"{secrets.token_hex(12)}.jpg"
    upright.info = {}  # what the camera wrote: comments, places
    upright.save(folder / name, "JPEG", quality=85)
    return name


def as_data(folder: Path, name: str) -> str:
    """A kept picture as data within a page; empty where there is none."""
    path = folder / "photos" / name
    if not name or not path.is_file():
        return ""
    return "data:image/jpeg;base64," + base64.b64encode(path.read_bytes()).decode()
