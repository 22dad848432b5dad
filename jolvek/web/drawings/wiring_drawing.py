"""The bank's diagram, drawn from its netlist: packs in their strings, every cable by its role,
numbered as in the table.
"""

from __future__ import annotations

from markupsafe import Markup, escape

from jolvek.core.electric.netlist import Netlist, Wire

PACK_W, PACK_H, GAP_X, ROW = 118.0, 46.0, 26.0, 78.0
Point = tuple[float, float]


def places(n: Netlist) -> tuple[dict[str, Point], float, float]:
    """Where each part's middle stands, and the size of the sheet."""
    bank, at = n.bank, {}
    left, top = 150.0, 60.0
    for i in range(1, bank.parallel + 1):
        y = top + (i - 1) * ROW
        for k in range(1, bank.series + 1):
            at[f"pack-{i}-{k}"] = (left + (k - 1) * (PACK_W + GAP_X), y)
        at[f"fuse-{i}"] = (left + (bank.series - 1) * (PACK_W + GAP_X) + PACK_W / 2 + 64, y)
    right = max(x for x, _ in at.values()) + 60
    bottom = top + (bank.parallel - 1) * ROW + 82
    at |= {
        "bar-plus": (right + 10, top + (bank.parallel - 1) * ROW / 2),
        "bar-minus": (56.0, top + (bank.parallel - 1) * ROW / 2),
        "switch": (right + 100, top),
        "motor": (right + 215, (top + bottom) / 2),
        "shunt": (right + 100, bottom),
    }
    low, base = bottom + 78, max(right, 480.0)
    at |= {
        "charger": (196.0, low),
        "inlet": (64.0, low),
        "converter": (base - 40, low),
        "own": (base - 60, low),
        "fuse-charge": (right - 60, bottom - 34),
        "fuse-converter": (base - 136, low - 9),
        "fuse-load": (base + 96, low - 9),
        "load": (base + 236, low),
    }
    at |= {
        f"fuse-charge-{n}": (at[pid][0] + 22, at[pid][1] + 34)
        for n, pid in enumerate(
            [
                f"pack-{i}-{k}"
                for i in range(1, bank.parallel + 1)
                for k in range(1, bank.series + 1)
            ],
            1,
        )
    }
    known = {p.id for p in n.parts}
    tall = low + 46 if known & {"charger", "load"} else bottom + 36
    return (
        {k: v for k, v in at.items() if k in known},
        max(right + 275, base + 296 if "load" in known else 0),
        tall,
    )


def _terminal(part: str, pole: str, at: dict[str, Point]) -> Point:
    x, y = at[part]
    if part.startswith("pack") or part == "own":
        return (x + (PACK_W / 2 if pole == "+" else -PACK_W / 2), y)
    if part == "motor":
        return x - 52, y + (-9 if pole == "+" else 9)
    if part.startswith("fuse"):
        turned = part in ("fuse-converter", "fuse-load")  # these have what they feed on their right
        return x + (-16 if (pole == "1") != turned else 16), y
    if part == "switch":
        return x + (-20 if pole == "1" else 20), y
    if part == "shunt":
        return x + (-52 if pole == "B" else 52), y
    if part in ("converter", "charger", "load"):
        up = -9 if "+" in pole else 9
        return x + (52 if pole.startswith("out") or part == "charger" else -52), y + up
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


def _thin(w: Wire, at: dict[str, Point], tap: Point, low: float, lane: float) -> str:
    """The way of a charge or load cable. From its thing (left) to the bank (right): rails are
    tapped beside the last
    string's fuse, minus leads run below all boxes, leads to single packs through the gap on their
    left.
    """
    a, b = _terminal(*w.a, at), _terminal(*w.b, at)
    if w.b == ("fuse-1", "2") or w.b[0].startswith("bar"):  # own fuse to the plus rail
        b = tap if w.b[0] == "fuse-1" else b
        if w.a[0] in ("fuse-converter", "fuse-load"):
            aside = a[0] - 12
            return f"M{a[0]:.1f} {a[1]:.1f}H{aside:.1f}V{low - 38:.1f}H{b[0]:.1f}V{b[1]:.1f}"
        return f"M{a[0]:.1f} {a[1]:.1f}H{b[0]:.1f}V{b[1]:.1f}"
    if "shunt" in (w.a[0], w.b[0]) or (w.a == ("own", "-")):
        lane += 6.0 if w.role == "load" else 0.0
        (x, y), (p, q) = (b, a) if w.a[0] == "charger" else (a, b)
        out = x + 12 + lane if w.a[0] != "own" else x - 12
        to = p + 8 if w.a[0] == "charger" else p - 14
        return f"M{x:.1f} {y:.1f}H{out:.1f}V{low + 30 + lane:.1f}H{to:.1f}V{q:.1f}H{p:.1f}"
    if w.b[0].startswith("pack"):
        gap = (
            at[w.b[0]][0] - PACK_W / 2 - 12
            if w.a[0] == "charger"
            else at[w.b[0]][0] + PACK_W / 2 + 8
        )
        if w.a[0].startswith("fuse-charge"):
            return f"M{a[0]:.1f} {a[1]:.1f}H{gap:.1f}V{b[1]:.1f}H{b[0]:.1f}"
        aside = a[0] + (8 + lane if w.a[0] == "charger" else -12)
        return (
            f"M{a[0]:.1f}"
            f" {a[1]:.1f}H{aside:.1f}V{low - 34 - lane:.1f}H{gap:.1f}V{b[1]:.1f}H{b[0]:.1f}"
        )
    if w.b[0].startswith("fuse-charge-"):
        gap = b[0] - 22 - PACK_W / 2 + 16 - 7
        return (
            f"M{a[0]:.1f}"
            f" {a[1]:.1f}H{a[0] + 8 + lane:.1f}V{low - 34 - lane:.1f}H{gap:.1f}"
            f"V{b[1]:.1f}H{b[0]:.1f}"
        )
    if w.b[0] == "fuse-charge":
        return f"M{a[0]:.1f} {a[1]:.1f}h8V{b[1]:.1f}H{b[0]:.1f}"
    return f"M{a[0]:.1f} {a[1]:.1f}H{(a[0] + b[0]) / 2:.1f}V{b[1]:.1f}H{b[0]:.1f}"


def wiring_diagram(n: Netlist) -> Markup:
    """The diagram; plus solid, minus dashed, series thick, charge dotted, loads thin, so that it
    reads in grey.
    """
    at, width, height = places(n)
    parts, lanes = [], dict.fromkeys(("charge", "load"), 0.0)
    last = at[f"fuse-{n.bank.parallel}"]
    tap, low = (last[0] + 30, last[1]), at.get("charger", at.get("load", (0.0, height)))[1]
    for w in n.wires:
        a, b = _terminal(*w.a, at), _terminal(*w.b, at)
        lane = lanes.get(w.role, 0.0)
        if w.role in lanes:
            lanes[w.role] = (lane + 5.0) % 25
        way = _thin(w, at, tap, low, lane / 2) if w.role in lanes else _route(w, a, b)
        parts.append(
            f'<path d="{way}" class="wire is-{w.role}" '
            f'data-wire="{w.id}"><title>{w.id}: '
            f"{w.size.size_mm2:g} mm², {w.length_m:g} m, {w.current_a:.0f} A</title></path>"
        )
    if "inlet" in at:
        parts.append(
            f'<path d="M{at["inlet"][0]:.1f} {low:.1f}H{at["charger"][0]:.1f}" class="wire'
            ' is-mains"><title>mains: a qualified electrician</title></path>'
        )
    for p in n.parts:
        parts.append(_symbol(p.id, p.kind, p.text, at[p.id]))
    main = next(w for w in n.wires if w.b == ("motor", "+"))
    x, y = at["switch"]
    runs = f"{main.size.runs} × " if main.size.runs > 1 else ""
    parts.append(
        f'<text x="{x + 28:.1f}" y="{y - 8:.1f}">{runs}{main.size.size_mm2:g} mm² · AWG'
        f" {main.size.awg}</text>"
    )
    label = escape(
        f"Wiring of {n.bank.packs} packs, {n.bank.series} in series and {n.bank.parallel} in"
        f" parallel, to a motor of {n.motor_a:.0f} A; the table lists every cable"
    )
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" width="{width:.0f}" class="drawing wiring"'
        f' role="img" aria-label="{label}"><title>{label}</title>{"".join(parts)}</svg>'
    )


def _symbol(part: str, kind: str, words: str, place: Point) -> str:
    x, y = place
    text = escape(words)
    if kind == "pack":
        name = f"pack {part[5:].replace('-', '.')}" if part != "own" else "own battery"
        return (
            f'<g class="part"><rect x="{x - PACK_W / 2:.1f}" y="{y - PACK_H / 2:.1f}"'
            f' width="{PACK_W}" height="{PACK_H}"/><text x="{x:.1f}" y="{y - 4:.1f}"'
            f' text-anchor="middle">{name}</text><text x="{x:.1f}" y="{y + 12:.1f}"'
            f' text-anchor="middle" class="soft">{text}</text><text x="{x - PACK_W / 2 + 4:.1f}"'
            f' y="{y + 4:.1f}">−</text><text x="{x + PACK_W / 2 - 11:.1f}"'
            f' y="{y + 4:.1f}">+</text></g>'
        )
    if kind == "fuse":
        words_y = y + 19 if part.startswith("fuse-charge-") else y - 12
        return (
            f'<g class="part"><rect x="{x - 16:.1f}" y="{y - 7:.1f}" width="32" height="14"'
            f' rx="7"/><path d="M{x - 16:.1f} {y:.1f}h32"/><text x="{x:.1f}" y="{words_y:.1f}"'
            f' text-anchor="middle">{text}</text></g>'
        )
    if kind == "switch":
        return (
            f'<g class="part"><circle cx="{x - 20:.1f}" cy="{y:.1f}" r="3"/><circle'
            f' cx="{x + 20:.1f}" cy="{y:.1f}" r="3"/><path d="M{x - 20:.1f} {y:.1f}l34 -16"/><text'
            f' x="{x:.1f}" y="{y - 24:.1f}" text-anchor="middle">switch {text}</text></g>'
        )
    if kind == "bar":
        return (
            f'<g class="part"><rect x="{x - 5:.1f}" y="{y - 46:.1f}" width="10" height="92"/><text'
            f' x="{x:.1f}" y="{y - 52:.1f}" text-anchor="middle">{text}</text></g>'
        )
    wide = 104
    name = {
        "motor": "motor",
        "shunt": "",
        "charger": "charger",
        "inlet": "",
        "converter": "",
        "load": "",
    }.get(kind, "")
    lines = _wrapped([line for line in (name, words) if line])
    body = "".join(
        f'<text x="{x:.1f}" y="{y + 4 + 15 * (i - (len(lines) - 1) / 2):.1f}" '
        f'text-anchor="middle"{" class=" + chr(34) + "soft" + chr(34) if i else ""}>'
        f"{escape(line)}</text>"
        for i, line in enumerate(lines)
    )
    return (
        f'<g class="part"><rect x="{x - wide / 2:.1f}" y="{y - 21:.1f}" width="{wide}"'
        f' height="42"/>{body}</g>'
    )


def _wrapped(lines: list[str]) -> list[str]:
    """At most two lines that fit a box."""
    if len(lines) == 1 and len(lines[0]) > 12:
        words = lines[0].split()
        half = len(words) // 2
        return [" ".join(words[:half]), " ".join(words[half:])]
    return lines[:2]
