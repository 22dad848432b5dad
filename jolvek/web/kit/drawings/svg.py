"""The few SVG elements the drawings are made of; every attribute and word is escaped."""

from __future__ import annotations

from collections.abc import Iterable

from markupsafe import Markup, escape

from jolvek.web.kit.language import shown

Point = tuple[float, float]


def tag(name: str, body: str = "", **attributes: object) -> str:
    """An element. Numbers get one decimal; `cls` is the class, `data_x` is data-x; None is left
    out. `body` is SVG already.

    >>> tag("circle", cx=2.04, cy=3, r=4.5, cls="stop")
    '<circle cx="2.0" cy="3" r="4.5" class="stop"/>'
    """
    words = ""
    for key, value in attributes.items():
        if value is not None:
            shown = f"{value:.1f}" if isinstance(value, float) else str(escape(value))
            words += f' {"class" if key == "cls" else key.replace("_", "-")}="{shown}"'
    return f"<{name}{words}>{body}</{name}>" if body else f"<{name}{words}/>"


def line(x1: float, y1: float, x2: float, y2: float, cls: str) -> str:
    """A straight line."""
    return tag("line", x1=float(x1), x2=float(x2), y1=float(y1), y2=float(y2), cls=cls)


def rect(
    x: float,
    y: float,
    width: float,
    height: float,
    cls: str | None = None,
    rx: float | None = None,
    title: str = "",
) -> str:
    """A rectangle, with rounded corners and a title where given."""
    size = {"width": float(width), "height": float(height)}
    return tag("rect", titled(title), x=float(x), y=float(y), **size, rx=rx, cls=cls)


def circle(x: float, y: float, r: float, cls: str | None = None) -> str:
    """A circle."""
    return tag("circle", cx=float(x), cy=float(y), r=float(r), cls=cls)


def path(d: str, cls: str | None = None, title: str = "", **more: object) -> str:
    """A path of commands."""
    return tag("path", titled(title), d=d, cls=cls, **more)


def text(
    x: float, y: float, words: object, cls: str | None = None, anchor: str | None = None
) -> str:
    """Words at a place, in the language of the page."""
    return tag(
        "text", str(escape(shown(words))), x=float(x), y=float(y), cls=cls, text_anchor=anchor
    )


def titled(title: str) -> str:
    """The words shown when the pointer rests on a thing; nothing for none."""
    return f"<title>{escape(shown(title))}</title>" if title else ""


def poly(points: Iterable[Point], close: bool = False) -> str:
    """Straight lines through points.

    >>> poly([(0, 0), (3, 4.25)], close=True)
    'M0.0 0.0L3.0 4.2Z'
    """
    return "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points) + ("Z" if close else "")


def picture(
    width: float, height: float, cls: str, label: str, parts: Iterable[str], /, **more: object
) -> Markup:
    """The whole drawing with its label, as the template shows it."""
    head = {"viewBox": f"0 0 {width:.0f} {height:.0f}", "cls": cls, "role": "img", **more}
    return Markup(tag("svg", titled(label) + "".join(parts), **head, aria_label=label))
