"""The bank's diagram, drawn from its netlist: packs in their strings, every cable by its role, numbered as in the table."""

from __future__ import annotations

from markupsafe import Markup, escape

from jolvek.core.wiring import Netlist, Wire

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
    at |= {"bar-plus": (right + 10, top + (bank.parallel - 1) * ROW / 2), "bar-minus": (56.0, top + (bank.parallel - 1) * ROW / 2),
           "switch": (right + 100, top), "motor": (right + 215, (top + bottom) / 2), "shunt": (right + 100, bottom)}
    low = bottom + 78
    at |= {"charger": (196.0, low), "inlet": (64.0, low), "converter": (right - 60, low), "own": (right - 60, low),
           "fuse-load": (right + 50, low - 14),
           "load": (right + 180, low)}
    known = {p.id for p in n.parts}
    tall = low + 40 if known & {"charger", "load"} else bottom + 36
    return {k: v for k, v in at.items() if k in known}, right + 275, tall


def _terminal(part: str, pole: str, at: dict[str, Point]) -> Point:
    x, y = at[part]
    if part.startswith("pack") or part == "own":
        return (x + (PACK_W / 2 if pole == "+" else -PACK_W / 2), y)
    if part == "motor":
        return x - 52, y + (-9 if pole == "+" else 9)
    if part.startswith("fuse"):
        return x + (-16 if pole == "1" else 16), y
    if part == "switch":
        return x + (-20 if pole == "1" else 20), y
    if part == "shunt":
        return x + (-52 if pole == "B" else 52), y
    if part in ("converter", "charger", "load"):
        up = -9 if "+" in pole else 9
        return x + (52 if pole.startswith("out") or part == "charger" else -52), y + up
    return x, y


def _route(w: Wire, a: Point, b: Point, lane: float) -> str:
    """A right-angled way between two terminals: charge and load cables run in lanes of their own."""
    if abs(a[1] - b[1]) < 1 and w.role in ("series", "plus"):
        return f"M{a[0]:.1f} {a[1]:.1f}H{b[0]:.1f}"
    if w.role == "minus":
        x = min(a[0], b[0]) - 14 if max(a[0], b[0]) < 200 or abs(a[0] - b[0]) < 1 else None
        if x is not None and abs(a[0] - b[0]) < 90:
            return f"M{a[0]:.1f} {a[1]:.1f}H{x - lane:.1f}V{b[1]:.1f}H{b[0]:.1f}"
        first, last = (a, b) if a[0] < b[0] else (b, a)
        drop = max(a[1], b[1])
        if first[1] != drop or last[1] == drop:
            return f"M{first[0]:.1f} {first[1]:.1f}h{-10 - lane:.1f}V{drop:.1f}H{last[0]:.1f}"
        return f"M{first[0]:.1f} {first[1]:.1f}H{(first[0] + last[0]) / 2:.1f}V{last[1]:.1f}H{last[0]:.1f}"
    if w.role in ("charge", "load"):
        y = max(a[1], b[1]) - 28 - lane
        return (
            f"M{a[0]:.1f} {a[1]:.1f}h{8 + lane:.1f}V{y:.1f}H{b[0] + (10 + lane if b[0] < a[0] else -10 - lane):.1f}V{b[1]:.1f}H{b[0]:.1f}"
        )
    x = max(a[0], b[0]) if abs(a[0] - b[0]) < 1 else (a[0] + b[0]) / 2
    return f"M{a[0]:.1f} {a[1]:.1f}H{x + (14 if abs(a[0] - b[0]) < 1 else 0):.1f}V{b[1]:.1f}H{b[0]:.1f}"


def wiring_diagram(n: Netlist) -> Markup:
    """The diagram; plus solid, minus dashed, series thick, charge dotted, loads thin, so that it reads in grey."""
    at, width, height = places(n)
    parts, lanes = [], dict.fromkeys(("charge", "load", "minus"), 0.0)
    for w in n.wires:
        a, b = _terminal(*w.a, at), _terminal(*w.b, at)
        lane = lanes.get(w.role, 0.0)
        if w.role in lanes:
            lanes[w.role] = (lane + 5.0) % 25
        parts.append(f'<path d="{_route(w, a, b, lane if w.role != "minus" else 0.0)}" class="wire is-{w.role}" '
                     f'data-wire="{w.id}"><title>{w.id}: '
                     f"{w.size.size_mm2:g} mm², {w.length_m:g} m, {w.current_a:.0f} A</title></path>")
    for p in n.parts:
        parts.append(_symbol(p.id, p.kind, p.text, at[p.id]))
    main = next(w for w in n.wires if w.b == ("motor", "+"))
    x, y = at["switch"]
    runs = f"{main.size.runs} × " if main.size.runs > 1 else ""
    parts.append(f'<text x="{x + 28:.1f}" y="{y - 8:.1f}">{runs}{main.size.size_mm2:g} mm² · AWG {main.size.awg}</text>')
    label = escape(f"Wiring of {n.bank.packs} packs, {n.bank.series} in series and {n.bank.parallel} in parallel, to a motor of "
                   f"{n.motor_a:.0f} A; the table "
                   "lists every cable")
    return Markup(f'<svg viewBox="0 0 {width:.0f} {height:.0f}" width="{width:.0f}" class="drawing wiring" role="img" aria-label="{label}">'
                  f'<title>{label}</title>{"".join(parts)}</svg>')


def _symbol(part: str, kind: str, words: str, place: Point) -> str:
    x, y = place
    text = escape(words)
    if kind == "pack":
        name = f"pack {part[5:].replace('-', '.')}" if part != "own" else "own battery"
        return (f'<g class="part"><rect x="{x - PACK_W / 2:.1f}" y="{y - PACK_H / 2:.1f}" width="{PACK_W}" height="{PACK_H}"/>'
                f'<text x="{x:.1f}" y="{y - 4:.1f}" text-anchor="middle">{name}</text><text x="{x:.1f}" y="{y + 12:.1f}" '
                f'text-anchor="middle" class="soft">{text}'
                f'</text><text x="{x - PACK_W / 2 + 4:.1f}" y="{y + 4:.1f}">−</text><text x="{x + PACK_W / 2 - 11:.1f}" '
                f'y="{y + 4:.1f}">+</text></g>')
    if kind == "fuse":
        return (f'<g class="part"><rect x="{x - 16:.1f}" y="{y - 7:.1f}" width="32" height="14" rx="7"/><path d="M{x - 16:.1f} '
                f'{y:.1f}h32"/>'
                f'<text x="{x:.1f}" y="{y - 12:.1f}" text-anchor="middle">{text}</text></g>')
    if kind == "switch":
        return (f'<g class="part"><circle cx="{x - 20:.1f}" cy="{y:.1f}" r="3"/><circle cx="{x + 20:.1f}" cy="{y:.1f}" '
                f'r="3"/><path d="M{x - 20:.1f} {y:.1f}'
                f'l34 -16"/><text x="{x:.1f}" y="{y - 24:.1f}" text-anchor="middle">switch {text}</text></g>')
    if kind == "bar":
        return (f'<g class="part"><rect x="{x - 5:.1f}" y="{y - 46:.1f}" width="10" height="92"/><text x="{x:.1f}" '
                f'y="{y - 52:.1f}" text-anchor="middle">'
                f"{text}</text></g>")
    wide = 104
    name = {"motor": "motor", "shunt": "", "charger": "charger", "inlet": "", "converter": "", "load": ""}.get(kind, "")
    lines = _wrapped([line for line in (name, words) if line])
    body = "".join(f'<text x="{x:.1f}" y="{y + 4 + 15 * (i - (len(lines) - 1) / 2):.1f}" '
                   f'text-anchor="middle"{" class=" + chr(34) + "soft" + chr(34) if i else ""}>'
                   f"{escape(line)}</text>" for i, line in enumerate(lines))
    return f'<g class="part"><rect x="{x - wide / 2:.1f}" y="{y - 21:.1f}" width="{wide}" height="42"/>{body}</g>'


def _wrapped(lines: list[str]) -> list[str]:
    """At most two lines that fit a box."""
    if len(lines) == 1 and len(lines[0]) > 12:
        words = lines[0].split()
        half = len(words) // 2
        return [" ".join(words[:half]), " ".join(words[half:])]
    return lines[:2]
