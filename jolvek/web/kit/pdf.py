"""Pages as tagged PDF by WeasyPrint, which may read our own static files and nothing else."""

from __future__ import annotations

import re
from functools import cache
from pathlib import Path
from typing import Any
from urllib.parse import unquote, urlsplit

from flask import current_app
from markupsafe import Markup

from jolvek.core.base.errors import JolvekError
from jolvek.web.kit.figures import spans


class NoPdf(JolvekError):
    """WeasyPrint's libraries are not on this machine."""


def styled(svg: Markup, sheet: str) -> Markup:
    """A picture with a style sheet of its own, for where the page's reaches no picture."""
    style = current_app.jinja_env.get_template(sheet).render()
    return Markup(str(svg).replace("<title>", f"<style>{style}</style><title>", 1))


@cache
def _text_of(path: Path) -> str:
    return path.read_text(encoding="utf-8")


def static_text(name: str) -> Markup:
    """The text of a static file of ours, for a paper that is to hold all of itself."""
    return Markup(_text_of(Path(current_app.static_folder or ".") / name))


@cache
def _ink(static: Path) -> str:
    """The screen's style of drawings in the colours of its light theme: a page's style sheets reach
    no picture in a PDF, and pictures know no variables.
    """
    theme = re.search(r":root,\s*\.light-sheet \{(.*?)\}", (static / "app.css").read_text(), re.S)
    colours = dict(re.findall(r"--([\w-]+): (#\w+);", theme[1] if theme else ""))
    style = (static / "drawing.css").read_text()
    return re.sub(r"var\(--([\w-]+)\)", lambda m: colours[m[1]], style)


def _inked(html: str, static: Path) -> str:
    """A page whose drawings bring their style along; one that has its own keeps it."""
    style = f"<style>{_ink(static)}</style>"
    return re.sub(r'(<svg\b[^>]*\bclass="drawing\b[^>]*>)(?!<style)', lambda m: m[1] + style, html)


def write(html: str) -> bytes:
    """The PDF of a page. What it names outside our static files is left out: a text of a customer's
    can never bring a file of this machine, or of another, onto a paper. Raises NoPdf.
    """
    try:
        from weasyprint import HTML
    except OSError:
        raise NoPdf(
            "The PDF library cannot start here: apt-get install libpango-1.0-0 libpangoft2-1.0-0"
            " libharfbuzz-subset0. The page itself can be printed."
        ) from None
    static = Path(current_app.static_folder or ".").resolve()
    text, base = _inked(spans(html), static), static.as_uri() + "/"
    page = HTML(string=text, base_url=base, url_fetcher=_fetcher(static))
    return bytes(page.write_pdf(pdf_variant="pdf/ua-1"))


def _fetcher(static: Path) -> Any:
    from weasyprint.urls import URLFetcher

    class Ours(URLFetcher):
        """Reads what is under the static folder, and data within the page."""

        def fetch(self, url: str, headers: Any = None) -> Any:
            """The file, or ValueError, which leaves it out."""
            parts = urlsplit(url)
            path = Path(unquote(parts.path)).resolve()
            inside = parts.scheme == "file" and not parts.netloc and path.is_relative_to(static)
            if parts.scheme != "data" and not inside:
                raise ValueError(f"{url[:80]} is no file of ours")
            return super().fetch(url, headers)

    return Ours(allowed_protocols=("file", "data"), allow_redirects=False)
