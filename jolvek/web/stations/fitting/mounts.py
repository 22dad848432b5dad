"""Every mount on the shelf: whether it goes on this boat, and with which motors, or why not."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.fit.fitted import Fitted
from jolvek.core.match.matching import Match
from jolvek.web.kit.display import Units, money
from jolvek.web.kit.language import decimal, shown, tr

NAMED = 3  # motors told by name


@dataclass(frozen=True)
class MountRow:
    """One mount: name and kind, its columns, and either the motors or the reason against it."""

    name: str
    kind: str
    columns: tuple[str, ...]
    figures: tuple[str, ...]
    motors: str
    why: str
    here: bool


@dataclass(frozen=True)
class MountsPage:
    """The tab of all mounts."""

    answer: str
    mounts: tuple[MountRow, ...]


def mounts_page(f: Fitted, match: Match, u: Units) -> MountsPage:
    """All mounts, those that go on the boat first, the one in hand before the others."""
    rows = []
    for j, item in enumerate(match.shelf.mounts):
        kind, why = item.spec.general, match.mount_reasons.get(j)
        drives = match.drives.motor[match.drives.mount == j]
        motors = sorted({match.shelf.motors[i].title for i in drives})
        more = " …" if len(motors) > NAMED else ""
        hands = tr(", hands free") if item.spec.hands_free else ""
        row = MountRow(
            item.name,
            f"{shown(kind.name)}{hands}",
            (kind.steering, kind.shallows, kind.weed, kind.loses),
            (
                money(item.price),
                u.number(item.spec.mass_kg, "mass"),
                decimal(f"{item.spec.hours:g}"),
            ),
            f"{len(motors)}: {', '.join(motors[:NAMED])}{more}",
            u.rendered(why).text if why else "",
            here=item.id == f.mount.id,
        )
        rows.append((why is not None, not row.here, item.price, kind.place, row))
    rows.sort(key=lambda r: r[:3])
    fit = sum(not r[0] for r in rows)
    here = tr("; here: %(name)s", name=f.mount.name) if fit else ""
    return MountsPage(
        tr(
            "*%(fit)s* of %(rows)s mounts go on this boat%(here)s.",
            fit=fit,
            rows=len(rows),
            here=here,
        ),
        tuple(r[4] for r in rows),
    )
