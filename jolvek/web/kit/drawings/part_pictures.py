"""Small pictures of parts as they go together, beside the step of a handover that needs them."""

from __future__ import annotations

from collections.abc import Callable

from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, rect, text
from jolvek.web.kit.language import shown

WIDTH, HEIGHT = 300.0, 76.0
MIDDLE = 30.0


def _propeller() -> str:
    """Shaft and parts apart, in the order in which they go on, numbered as the step names them."""
    parts = [
        (84, path("M84 16 q6 14 0 28 q-6 -14 0 -28z", "part")),
        (108, rect(106, 14, 4, 32, "part is-full")),
        (154, path("M132 30 q18 -40 40 0 q-22 40 -40 0z", "part") + rect(172, 19, 14, 22, "part")),
        (212, path("M212 20 q5 10 0 20 q-5 -10 0 -20z", "part")),
        (240, path("M230 22 l5 -5 h10 l5 5 v16 l-5 5 h-10 l-5 -5z", "part")),
        (276, path("M268 20 h6 q12 10 0 20 h-6z", "part")),
    ]
    shaft = line(8, MIDDLE, 70, MIDDLE, "part is-thick") + line(8, MIDDLE, 292, MIDDLE, "axis")
    return shaft + "".join(
        drawn + text(x, 68, i, "part-number", "middle") for i, (x, drawn) in enumerate(parts, 1)
    )


def _clamp() -> str:
    """The clamp over the transom seen from the side, its screw inside, its line to the boat."""
    board = path("M120 24 h16 v48 h-16z", "part is-wood")
    hook = path("M104 70 v-58 h58 v40 h-10 v-26 h-34 v44z", "part")
    screw = rect(136, 36, 16, 6, "part is-full") + line(152, 39, 182, 39, "part is-thick")
    handle = line(182, 30, 182, 48, "part is-thick")
    leash = path("M108 14 C70 -2 60 60 96 60", "part") + circle(96, 60, 3, "part is-full")
    return board + hook + screw + handle + leash


def _plug() -> str:
    """A plug before its socket: mark to mark, push, turn the collar."""
    socket = rect(178, 14, 46, 32, "part", rx=3.0) + rect(164, 20, 14, 20, "part")
    plug = rect(66, 20, 56, 20, "part", rx=3.0) + rect(108, 15, 22, 30, "part is-collar", rx=3.0)
    cable = line(8, MIDDLE, 66, MIDDLE, "part is-thick")
    marks = poly([(115, 8), (123, 8), (119, 14)], close=True)
    faced = poly([(182, 8), (190, 8), (186, 14)], close=True)
    push = line(136, MIDDLE, 156, MIDDLE, "part") + path("M150 25 l7 5 l-7 5", "part")
    turned = path("M106 54 q14 12 28 0 m-6 -1 l6 1 l-1 6", "part")
    return (
        cable
        + plug
        + socket
        + path(marks, "part is-full")
        + path(faced, "part is-full")
        + (push + turned)
    )


def _strap() -> str:
    """A battery on its base, strapped to eyes on both sides."""
    base = line(40, 62, 260, 62, "part is-thick")
    case = rect(84, 22, 132, 40, "part", rx=4.0) + rect(100, 14, 16, 8, "part is-full")
    ends = rect(184, 14, 16, 8, "part is-full")
    strap = path("M62 60 L80 18 H220 L238 60", "part is-strap")
    eyes = circle(62, 60, 4, "part is-full") + circle(238, 60, 4, "part is-full")
    return base + case + ends + strap + eyes + rect(138, 12, 24, 12, "part is-collar", rx=2.0)


def _chambers() -> str:
    """An inflatable from above: the sides, the bow, the floor last."""
    tube = "M60 8 H190 Q246 8 262 30 Q246 52 190 52 H60 V42 H186 Q228 42 240 30 Q228 18 186 18 H60z"
    floor = path("M66 22 H184 Q214 22 226 30 Q214 38 184 38 H66z", "part is-collar")
    cuts = line(190, 8, 186, 18, "part") + line(190, 52, 186, 42, "part")
    numbers = ((120, 17.0, 1), (120, 51.0, 2), (226, 23.0, 3), (140, 34.0, 4))
    marks = "".join(text(x, y, n, "part-number", "middle") for x, y, n in numbers)
    return path(tube, "part") + cuts + floor + marks


PICTURES: dict[str, tuple[str, Callable[[], str]]] = {
    "propeller": (msg("The parts of the propeller, numbered in the order they go on"), _propeller),
    "clamp": (msg("The clamp over the transom, screw inside the boat, safety line on"), _clamp),
    "plug": (msg("Plug and socket: mark to mark, push, turn the collar"), _plug),
    "strap": (msg("A battery on its base, strapped to an eye on each side"), _strap),
    "chambers": (msg("The boat from above: side chambers, bow, and the floor last"), _chambers),
}


def part_picture(key: str) -> Markup:
    """The picture of a step; nothing where it has none. `key` is one of PICTURES or empty."""
    if key not in PICTURES:
        return Markup("")
    title, drawn = PICTURES[key]
    return picture(WIDTH, HEIGHT, "part-picture", str(shown(title)), [drawn()])
