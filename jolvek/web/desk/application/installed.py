"""What a phone needs to install the app and to read a page again without connection."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, current_app, jsonify, send_from_directory, url_for

from jolvek.web import data
from jolvek.web.kit import pages
from jolvek.web.kit.pages import OPEN

bp = Blueprint("installed", __name__)
pages.add(
    bp,
    {
        "manifest": OPEN,
        "worker": OPEN,
    },
)
GROUND = "#F6F3EC"


@bp.get("/manifest.webmanifest")
def manifest() -> Any:
    """Name, icons and where it opens (W3C Web Application Manifest)."""
    icons = [
        {
            "src": url_for("static", filename=f"icons/icon-{size}.png"),
            "sizes": f"{size}x{size}",
            "type": "image/png",
            "purpose": "any maskable",
        }
        for size in (192, 512)
    ]
    result = jsonify(
        id="/",
        name=f"Jolvek, {data.shop().name}",
        short_name="Jolvek",
        start_url="/",
        scope="/",
        display="standalone",
        background_color=GROUND,
        theme_color=GROUND,
        icons=icons,
    )
    result.mimetype = "application/manifest+json"
    return result


@bp.get("/worker.js")
def worker() -> Response:
    """The service worker, at the root so that it serves every page."""
    found = send_from_directory(str(current_app.static_folder), "worker.js", max_age=0)
    found.headers["Cache-Control"] = "no-cache"
    return found
