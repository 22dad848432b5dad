"""The bank's diagram, drawn from its netlist: packs in their strings, every cable by its role,
numbered as in the table.
"""

from __future__ import annotations

from markupsafe import Markup

from jolvek.core.electric.netlist import Netlist, Wire
from jolvek.web.kit.display import counted
from jolvek.web.kit.drawings.svg import Point, circle, path, picture, rect, tag, text
from jolvek.web.kit.language import decimal, shown, tr

PACK_W, PACK_H, GAP_X, ROW = 118.0, 46.0, 26.0, 78.0
LEFT, TOP = 150.0, 60.0  # the first pack
PLUG_ROOM = 84.0  # of the motor's cable, for each plug in it
GATHERS = ("shunt", "minus-bar")  # where all minus cables come home


def _packs_and_fuses(n: Netlist) -> dict[str, Point]:
    """The strings from the top down, each with its fuse on the right."""
    at: dict[str, Point] = {}
    for i in range(1, n.bank.parallel + 1):
        y = TOP + (i - 1) * _row(n)
        for k in range(1, n.bank.series + 1):
            at[f"pack-{i}-{k}"] = (LEFT + (k - 1) * (PACK_W + GAP_X), y)
        at[f"fuse-{i}"] = (LEFT + (n.bank.series - 1) * (PACK_W + GAP_X) + PACK_W / 2 + 64, y)
    packs = [place for part, place in at.items() if part.startswith("pack")]
    leads = {f"fuse-charge-{k}": (x + 22, y + 34) for k, (x, y) in enumerate(packs, 1)}
    lifted = {f"fuse-charge-{k}n": (x - 100, y + 74) for k, (x, y) in enumerate(packs, 1)}
    return at | leads | lifted


def _row(n: Netlist) -> float:
    """Height of a string, with room for the fuses of charge leads above the lowest pack."""
    return ROW + 50 if any(p.id.endswith("n") and p.kind == "fuse" for p in n.parts) else ROW


def _motor_and_plugs(n: Netlist, right: float, middle: float) -> dict[str, Point]:
    """The motor, and on its left the plugs in its cable."""
    plugs = [p.id for p in n.parts if p.kind == "plug"]
    x = right + 215 + PLUG_ROOM * len(plugs)
    stand = {plug: (x - 74 - 44 * k, middle) for k, plug in enumerate(reversed(plugs))}
    return {"motor": (x, middle), **stand}


def places(n: Netlist) -> tuple[dict[str, Point], float, float]:
    """Where each part's middle stands, and the size of the sheet."""
    at = _packs_and_fuses(n)
    right = max(x for part, (x, _) in at.items() if not part.startswith("fuse-charge")) + 60
    aside = 60 if n.bank.parallel > 1 else 0  # room for the main fuse behind the join
    at["fuse-main"] = (right + 46, TOP)
    right += aside
    rows = (n.bank.parallel - 1) * _row(n)
    middle, bottom = TOP + rows / 2, TOP + rows + _row(n) + 4
    low, base = bottom + 78, max(right, 480.0 + aside)
    at |= _motor_and_plugs(n, right, (TOP + bottom) / 2)
    at |= {
        "bar-plus": (right + 10 - aside, middle),
        "bar-minus": (56.0, middle),
        "switch": (right + 100, TOP),
        **dict.fromkeys(GATHERS, (right + 100, bottom)),
        "charger": (196.0, low),
        "inlet": (64.0, low),
        "converter": (base - 40, low),
        "own": (base - 60, low),
        "fuse-charge": (right - 60 - aside, bottom - 34),
        "fuse-converter": (base - 136, low - 9),
        "fuse-load": (base + 96, low - 9),
        "load": (base + 236, low),
    }
    known = {p.id for p in n.parts}
    tall = low + 46 if known & {"charger", "load"} else bottom + 36
    sun = tall + 40
    at |= {
        "panel": (64.0, sun),
        "fuse-panel": (152.0, sun - 9),
        "sun": (240.0, sun),
        "fuse-sun": (330.0, sun - 9),
    }
    tall = sun + 56 if "sun" in known else tall
    wide = max(at["motor"][0] + 60, base + 296 if "load" in known else 0)
    return {part: place for part, place in at.items() if part in known}, wide, tall


def _terminal(part: str, pole: str, at: dict[str, Point]) -> Point:
    x, y = at[part]
    if part.startswith("pack") or part == "own":
        return (x + (PACK_W / 2 if pole == "+" else -PACK_W / 2), y)
    if part == "motor":
        return x - 52, y + (-9 if pole == "+" else 9)
    if part.startswith("fuse"):
        turned = part in ("fuse-converter", "fuse-load", "fuse-panel")  # fed from their right
        return x + (-16 if (pole == "1") != turned else 16), y
    if part == "switch":
        return x + (-20 if pole == "1" else 20), y
    if part in GATHERS:
        return x + (-52 if pole == "B" else 52), y
    if part in ("converter", "charger", "load", "sun", "panel"):
        up, right = -9 if "+" in pole else 9, part in ("charger", "panel")
        return x + (52 if pole.startswith("out") or right else -52), y + up
    return x, y


def _route(w: Wire, a: Point, b: Point) -> str:
    """A right-angled way between two terminals of the motor's own circuit."""
    if abs(a[1] - b[1]) < 1 and w.role in ("series", "plus"):
        return f"M{a[0]:.1f} {a[1]:.1f}H{b[0]:.1f}"
    if w.role == "minus":
        x = min(a[0], b[0]) - 14 if max(a[0], b[0]) < 200 or abs(a[0] - b[0]) < 1 else None
        if x is not None and abs(a[0] - b[0]) < 90:
            return f"M{a[0]:.1f} {a[1]:.1f}H{x:.1f}V{b[1]:.1f}H{b[0]:.1f}"
        first, last = (a, b) if a[0] < b[0] else (b, a)
        drop = max(a[1], b[1])
        if first[1] != drop or last[1] == drop:
            return f"M{first[0]:.1f} {first[1]:.1f}h-10V{drop:.1f}H{last[0]:.1f}"
        return (
            f"M{first[0]:.1f}"
            f" {first[1]:.1f}H{(first[0] + last[0]) / 2:.1f}V{last[1]:.1f}H{last[0]:.1f}"
        )
    x = max(a[0], b[0]) if abs(a[0] - b[0]) < 1 else (a[0] + b[0]) / 2
    return (
        f"M{a[0]:.1f}"
        f" {a[1]:.1f}H{x + (14 if abs(a[0] - b[0]) < 1 else 0):.1f}V{b[1]:.1f}H{b[0]:.1f}"
    )


def _straight_home(a: Point, b: Point, floor: float, switch: float) -> str:
    """A minus cable that nothing gathers: out on the left, below all packs, up before the motor."""
    up = (switch + b[0]) / 2
    return f"M{a[0]:.1f} {a[1]:.1f}h-14V{floor:.1f}H{up:.1f}V{b[1]:.1f}H{b[0]:.1f}"


def _thin(w: Wire, at: dict[str, Point], tap: Point, low: float, lane: float) -> str:
    """The way of a charge or load cable. From its thing (left) to the bank (right): rails are
    tapped beside the last
    string's fuse, minus leads run below all boxes, leads to single packs through the gap on their
    left.
    """
    a, b = _terminal(*w.a, at), _terminal(*w.b, at)
    if w.role == "sun":
        return _to_the_sun(w, a, tap if w.b == ("fuse-1", "2") else b)
    if w.b == ("fuse-1", "2") or w.b[0].startswith("bar"):  # own fuse to the plus rail
        b = tap if w.b[0] == "fuse-1" else b
        if w.a[0] in ("fuse-converter", "fuse-load"):
            aside = a[0] - 12
            return f"M{a[0]:.1f} {a[1]:.1f}H{aside:.1f}V{low - 38:.1f}H{b[0]:.1f}V{b[1]:.1f}"
        return f"M{a[0]:.1f} {a[1]:.1f}H{b[0]:.1f}V{b[1]:.1f}"
    if {w.a[0], w.b[0]} & {*GATHERS} or (w.a == ("own", "-")):
        lane += 6.0 if w.role == "load" else 0.0
        (x, y), (p, q) = (b, a) if w.a[0] == "charger" else (a, b)
        out = x + 12 + lane if w.a[0] != "own" else x - 12
        to = p + 8 if w.a[0] == "charger" else p - 14
        return f"M{x:.1f} {y:.1f}H{out:.1f}V{low + 30 + lane:.1f}H{to:.1f}V{q:.1f}H{p:.1f}"
    if w.b[0].startswith(("pack", "fuse-charge-")):
        return _to_one_pack(w, at, low, lane)
    if w.b[0] == "fuse-charge":
        return f"M{a[0]:.1f} {a[1]:.1f}h8V{b[1]:.1f}H{b[0]:.1f}"
    return f"M{a[0]:.1f} {a[1]:.1f}H{(a[0] + b[0]) / 2:.1f}V{b[1]:.1f}H{b[0]:.1f}"


def _to_the_sun(w: Wire, a: Point, b: Point) -> str:
    """A cable of the panels' own chain: along its row, up to the plus rail beside the strings, and
    home to where all minus cables come together.
    """
    if w.a == ("fuse-sun", "2"):
        return f"M{a[0]:.1f} {a[1]:.1f}h10v-22H{b[0]:.1f}V{b[1]:.1f}"
    if w.a == ("sun", "out-"):
        way = f"M{a[0]:.1f} {a[1]:.1f}h10v26"
        return f"{way}H{b[0] + 8:.1f}V{b[1]:.1f}H{b[0]:.1f}"
    return f"M{a[0]:.1f} {a[1]:.1f}H{(a[0] + b[0]) / 2:.1f}V{b[1]:.1f}H{b[0]:.1f}"


def _to_one_pack(w: Wire, at: dict[str, Point], low: float, lane: float) -> str:
    """A charge lead to a single pack, through the gap beside it."""
    a, b = _terminal(*w.a, at), _terminal(*w.b, at)
    from_charger = w.a[0] == "charger"
    if w.a[0].startswith("fuse-charge-") and w.a[0].endswith("n"):
        return f"M{a[0]:.1f} {a[1]:.1f}h8v-16H{b[0] - 11:.1f}V{b[1]:.1f}H{b[0]:.1f}"
    into = ""
    if w.b[0].startswith("fuse-charge-"):
        lifted = w.b[0].endswith("n")
        gap = b[0] + (34 if lifted else -13 - PACK_W / 2)
        into = f"V{b[1] + 22:.1f}H{b[0] - 8:.1f}" if lifted else into
    else:
        gap = at[w.b[0]][0] + (-PACK_W / 2 - 12 if from_charger else PACK_W / 2 + 8)
    if w.a[0].startswith("fuse-charge"):
        return f"M{a[0]:.1f} {a[1]:.1f}H{gap:.1f}V{b[1]:.1f}H{b[0]:.1f}"
    aside, lift = a[0] + (8 + lane if from_charger else -12), low - 34 - lane
    way = f"M{a[0]:.1f} {a[1]:.1f}H{aside:.1f}V{lift:.1f}H{gap:.1f}{into}"
    return f"{way}V{b[1]:.1f}H{b[0]:.1f}"


def _wire(w: Wire, way: str) -> str:
    size, long = decimal(f"{w.size.size_mm2:g}"), decimal(f"{w.length_m:g}")
    title = f"{w.id}: {size} mm², {long} m, {w.current_a:.0f} A"
    return path(way, f"wire is-{w.role}", title, data_wire=w.id)


def _wires(n: Netlist, at: dict[str, Point], low: float) -> list[str]:
    """Every cable, those of charge, loads and sun in lanes beside one another."""
    parts, lanes = [], dict.fromkeys(("charge", "load", "sun"), 0.0)
    last = at[f"fuse-{n.bank.parallel}"]
    tap = (last[0] + 30, last[1])
    for w in n.wires:
        a, b = _terminal(*w.a, at), _terminal(*w.b, at)
        lane = lanes.get(w.role, 0.0)
        if w.role in lanes:
            lanes[w.role] = (lane + 5.0) % 25
            way = _thin(w, at, tap, low, lane / 2)
        elif w.b == ("motor", "-") and w.a[0] not in GATHERS:
            way = _straight_home(a, b, last[1] + PACK_H / 2 + 20, at["switch"][0] + 20)
        else:
            way = _route(w, a, b)
        parts.append(_wire(w, way))
    return parts


def wiring_diagram(n: Netlist) -> Markup:
    """The diagram; plus solid, minus dashed, series thick, charge dotted, loads thin, so that it
    reads in grey.
    """
    at, width, height = places(n)
    low = at.get("charger", at.get("load", (0.0, height)))[1]
    parts = _wires(n, at, low)
    if "inlet" in at:
        mains = f"M{at['inlet'][0]:.1f} {low:.1f}H{at['charger'][0]:.1f}"
        parts.append(path(mains, "wire is-mains", "mains: a qualified electrician"))
    parts += [_symbol(p.id, p.kind, str(shown(p.text)), at[p.id]) for p in n.parts]
    main = next(w for w in n.wires if w.b == ("motor", "+"))
    runs = f"{main.size.runs} × " if main.size.runs > 1 else ""
    size = f"{runs}{decimal(f'{main.size.size_mm2:g}')} mm² · AWG {main.size.awg}"
    parts.append(text(at["switch"][0] + 28, at["switch"][1] - 8, size))
    bank = n.bank
    label = tr(
        "Wiring of %(packs)s, %(series)s in series and %(parallel)s in parallel, to a motor of "
        "%(motor)s A; the table lists every cable",
        packs=counted(bank.packs, "pack"),
        series=bank.series,
        parallel=bank.parallel,
        motor=f"{n.motor_a:.0f}",
    )
    return picture(width, height, "drawing wiring", label, parts, width=f"{width:.0f}")


def _symbol(part: str, kind: str, words: str, place: Point) -> str:
    """A part as a box, fuse, switch or bar with its words."""
    x, y = place
    if kind == "pack":
        body = _pack(part, x, y, words)
    elif kind == "fuse":
        words_y = y + 19 if part.startswith("fuse-charge-") else y - 12
        body = rect(x - 16, y - 7, 32, 14, rx=7) + path(f"M{x - 16:.1f} {y:.1f}h32")
        body += text(x, words_y, words, anchor="middle")
    elif kind == "switch":
        body = circle(x - 20, y, 3) + circle(x + 20, y, 3) + path(f"M{x - 20:.1f} {y:.1f}l34 -16")
        body += text(x, y - 24, tr("switch %(words)s", words=words), anchor="middle")
    elif kind == "plug":
        body = _plug(part, x, y, words)
    elif kind == "bar" and part not in GATHERS:
        body = rect(x - 5, y - 46, 10, 92) + text(x, y - 52, words, anchor="middle")
    else:
        name = {"motor": tr("motor"), "charger": tr("charger")}.get(kind, "")
        lines = _wrapped([line for line in (name, words) if line])
        body = rect(x - 52, y - 21, 104, 42)
        for i, line in enumerate(lines):
            height = y + 4 + 15 * (i - (len(lines) - 1) / 2)
            body += text(x, height, line, "soft" if i else None, "middle")
    return tag("g", body, cls="part")


def _plug(part: str, x: float, y: float, words: str) -> str:
    """A plug in its socket, both cores through it; its words above and below by turns."""
    rows = words.split(", ")
    lift = y - 30 - 14 * (len(rows) - 1) if part[-1] in "13" else y + 36
    body = rect(x - 9, y - 18, 18, 36, rx=3) + path(f"M{x:.1f} {y - 18:.1f}v36")
    return body + "".join(
        text(x, lift + 14 * i, row, "soft", "middle") for i, row in enumerate(rows)
    )


def _pack(part: str, x: float, y: float, words: str) -> str:
    name = tr("own battery") if part == "own" else tr("pack %(i)s", i=part[5:])
    return (
        rect(x - PACK_W / 2, y - PACK_H / 2, PACK_W, PACK_H)
        + text(x, y - 8, name, anchor="middle")
        + text(x, y + 17, words, "soft", "middle")
        + text(x - PACK_W / 2 + 4, y + 3, "−")
        + text(x + PACK_W / 2 - 11, y + 3, "+")
    )


def _wrapped(lines: list[str]) -> list[str]:
    """At most two lines that fit a box."""
    if len(lines) == 1 and len(lines[0]) > 12:
        words = lines[0].split()
        half = len(words) // 2
        return [" ".join(words[:half]), " ".join(words[half:])]
    return lines[:2]
