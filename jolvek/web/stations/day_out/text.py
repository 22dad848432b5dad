"""A day on the water in sentences: how it ends, why, with what doubt."""

from __future__ import annotations

from jolvek.core.day.outing import Outing
from jolvek.core.day.voyage import Voyage
from jolvek.web.kit.display import Units, long_hours
from jolvek.web.kit.doubt_words import IN_FIVE, manages
from jolvek.web.kit.drawings.day_chart import clock
from jolvek.web.kit.figures import marked
from jolvek.web.kit.language import counted_text, listed, tr


def headline(out: Outing, u: Units) -> str:
    """What the day comes to; wind and waves that are too much for her stand before it."""
    result = sentence(out.voyage, out.need.day.start_h, u, planned_letter(out))
    stops = [u.rendered(f).text for f in out.seas.findings if f.level == "block"]
    return (
        tr("*Stop*: %(stops)s By the battery alone: %(text)s", stops=stops[0], text=result)
        if stops
        else result
    )


SAME_SHARE, SAME_S = 0.005, 60.0  # less is no difference


def against_plan(out: Outing) -> str:
    """How the day as asked differs from the day as planned; empty where it does not."""
    v, p, said = out.voyage, out.planned, []
    less = p.left - v.left
    if abs(less) >= SAME_SHARE and v.done and p.done:
        points = f"{100 * abs(less):.0f}"
        said.append(
            tr("%(points)s points less charge at home", points=points)
            if less > 0
            else tr("%(points)s points more charge at home", points=points)
        )
    elif p.done and not v.done:
        said.append(tr("the boat does not get home"))
    later_s = float(v.t_s[-1] - p.t_s[-1])
    if abs(later_s) >= SAME_S and v.done and p.done:
        minutes = f"{abs(later_s) / 60:.0f}"
        said.append(
            tr("%(minutes)s min later", minutes=minutes)
            if later_s > 0
            else tr("%(minutes)s min earlier", minutes=minutes)
        )
    return "; ".join(said)


def cure(out: Outing, u: Units) -> str:
    """What brings her home with the reserve, where she does not come home so; else empty."""
    if out.voyage.home and out.voyage.left >= out.kept - SAME_SHARE:
        return ""
    turn = u.full(out.point.distance_m, "distance")
    if out.homing.fastest_m_s is None:
        return tr("turn back at %(turn)s at the latest.", turn=turn)
    speed = u.full(out.homing.fastest_m_s, "speed")
    return tr(
        "no more than %(speed)s all the way, or turn back at %(turn)s.", speed=speed, turn=turn
    )


def planned_letter(out: Outing) -> str:
    """The letter of an outing as planned, whose figures are the job's; empty for what may come."""
    return out.letter if out.voyage is out.planned else ""


def _keyed(letter: str, key: str, text: str) -> str:
    return marked(letter, key, text) if letter else text


def sentence(v: Voyage, start_h: float, u: Units, letter: str = "") -> str:
    """The day in one sentence; `*words*` are the ones to stress. With the letter of a setup whose
    day as planned it is, its figures carry their keys.
    """
    end = _keyed(letter, "day.end", clock(start_h + v.hours))
    percent = _keyed(letter, "day.left", f"{100 * v.left:.0f}")
    if v.home:
        return tr(
            "Home at *%(end)s* with *%(left)s %%* of the charge, %(far)s in %(time)s.",
            end=end,
            left=percent,
            far=_keyed(letter, "day.far", str(u.full(v.distance_m[-1], "distance"))),
            time=_keyed(letter, "day.hours", long_hours(3600 * v.hours)),
        )
    stop = v.first("no-way") or v.first("empty")
    if stop is None:
        reserve = v.first("reserve")
        if reserve is None:
            return tr(
                "Home at *%(end)s*, but with *%(left)s %%*, below the reserve.",
                end=end,
                left=percent,
            )
        return tr(
            "Home at *%(end)s*, but with *%(left)s %%*, below the reserve; it goes at %(at)s.",
            end=end,
            left=percent,
            at=clock(start_h + reserve.t_s / 3600),
        )
    total = sum(leg.metres for leg in v.legs)
    left = max(total - float(v.distance_m[-1]), 0.0)
    at = clock(start_h + stop.t_s / 3600)
    far = u.full(left, "distance")
    return tr(
        "The boat does *not get home*: at *%(at)s* %(text)s, %(far)s before the end.",
        at=at,
        text=stop.text,
        far=far,
    )


def _causes(out: Outing) -> list[str]:
    s = out.switches
    words = (
        (s.wind_m_s is not None, tr("the wind")),
        (s.fetch_m > 0 and out.seas.wave_m > 0, tr("the waves")),
        (s.stream_m_s > 0, tr("the current")),
        (s.heavier > 0, tr("the load")),
        (bool(s.months), tr("what grows on the bottom")),
        (s.aged > 0, tr("the old battery")),
        (s.temperature_c is not None, tr("the cold")),
        (s.start_charge is not None, tr("the charge at the start")),
        (s.depth_m is not None, tr("the shallow water")),
        (s.tow_length_m is not None, tr("the dinghy in tow")),
    )
    return [word for on, word in words if on]


def why(out: Outing) -> str:
    """The reason, against the day as planned: what the switches cost."""
    causes, v, plain = _causes(out), out.voyage, out.planned
    if not causes:
        return ""
    n, values = len(causes), {"causes": listed(causes), "left": f"{100 * plain.left:.0f}"}
    if not plain.done:
        return counted_text(
            "As planned the boat does not get home either; %(causes)s makes it worse.",
            "As planned the boat does not get home either; %(causes)s make it worse.",
            n,
            **values,
        )
    if not v.done:
        return counted_text(
            "As planned the boat comes home with %(left)s %%; %(causes)s keeps it from that.",
            "As planned the boat comes home with %(left)s %%; %(causes)s keep it from that.",
            n,
            **values,
        )
    return _taken(n, values, 100 * (plain.left - v.left))


def _taken(n: int, told: dict[str, str], points: float) -> str:
    if round(points) == 0:
        return counted_text(
            "The boat comes home with %(left)s %% as planned; %(causes)s takes nothing of it.",
            "The boat comes home with %(left)s %% as planned; %(causes)s take nothing of it.",
            n,
            **told,
        )
    return counted_text(
        "As planned the boat comes home with %(left)s %%; %(causes)s takes %(points)s points of"
        " it.",
        "As planned the boat comes home with %(left)s %%; %(causes)s take %(points)s points of it.",
        n,
        points=f"{points:.0f}",
        **told,
    )


def setting_out(out: Outing) -> str:
    """What she sets out with, where it is not a full charge."""
    runs, soc = out.need.day.runs_a_charge, f"{100 * out.voyage.soc[0]:.0f} %"
    if runs > 1:
        return tr(
            "This is run %(runs)s of %(runs)s on one charge: the earlier ones leave *%(soc)s*.",
            runs=runs,
            soc=soc,
        )
    return (
        tr("The boat sets out with *%(soc)s* of the charge.", soc=soc)
        if out.voyage.soc[0] < 1
        else ""
    )


def day_text(out: Outing, letter: str = "") -> str:
    """What may be left, with what is not known of the boat; `letter` as for `sentence`."""
    (hard, easy), likely = out.between, _keyed(letter, "day.likely", manages(out.likely))
    if not easy.done:
        return tr(
            "With the reserve kept the boat %(likely)s, even if it is easier to drive than"
            " expected.",
            likely=likely,
        )
    high = _keyed(letter, "day.left.high", f"{100 * easy.left:.0f}")
    if not hard.done:
        return tr(
            "With the reserve kept the boat %(likely)s; of %(in_five)s the best end with %(high)s"
            " %%, the worst do not get home.",
            likely=likely,
            in_five=IN_FIVE,
            high=high,
        )
    return tr(
        "With the reserve kept the boat %(likely)s; %(in_five)s end between %(low)s %% and %(high)s"
        " %%.",
        likely=likely,
        in_five=IN_FIVE,
        low=_keyed(letter, "day.left.low", f"{100 * hard.left:.0f}"),
        high=high,
    )
