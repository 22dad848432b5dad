"""The boat's drawings as the templates call them, in the user's units."""

from __future__ import annotations

from markupsafe import Markup

from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import Sizing
from jolvek.core.fit.hanging import motor_ahead_m, seat_m
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.fit.trim import places_m
from jolvek.core.hydro.floating import Floating, draws_m, float_at, hull_speed_m_s
from jolvek.core.hydro.places import seats_m
from jolvek.web.kit import display
from jolvek.web.kit.card import Card
from jolvek.web.kit.drawings.boat_drawing import Aboard, HungMotor, Labels, side_view
from jolvek.web.kit.drawings.plan_drawing import plan_view
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked


def floating(need: Need, displacement_kg: float) -> Floating:
    """How the enquiry's boat floats."""
    return float_at(need.hull, displacement_kg, need.water.density_kg_m3)


def hull_speed(need: Need) -> float:
    """Hull speed in m/s."""
    return float(hull_speed_m_s(need.hull.waterline_m))


def _aboard(need: Need, worked: Worked | None, bays: bool) -> Aboard:
    """What the side view shows in the boat: her people, the setup in hand, the bays."""
    shown = need.site.bays if bays else ()
    if worked is None:
        return Aboard(seats_m(need.hull, need.load.people), bays=shown)
    f, spec = worked.fitted, worked.fitted.battery.spec
    motor = HungMotor(
        hung_leg(f)[1],
        f.performance.propulsor.diameter_m,
        seat_m(need, f.mount.spec),
        motor_ahead_m(need, f.mount.spec),
        f.mount.spec.fixed,
        f.motor.spec.style == "pole",
    )
    people = places_m(f.weights, "person")
    packs = [w for w in f.weights if w.name.startswith("battery") and not f.clips_on]
    batteries = tuple((w.ahead_m, w.above_m) for w in packs)
    pack = (spec.length_m or 0.3, spec.height_m or 0.2)
    return Aboard(people, motor, batteries, pack, shown)


def _view(need: Need, displacement_kg: float, width: float, worked: Worked | None = None) -> Markup:
    u = display.current()
    length = u.full(need.hull.length_m, "length")
    draws = u.full(float(draws_m(need.hull, floating(need, displacement_kg))), "length")
    title = tr(
        "%(name)s, %(length)s, drawing %(draws)s of water",
        name=need.hull.fam.name,
        length=length,
        draws=draws,
    )
    aboard = _aboard(need, worked, bays=width > 400)
    hangs = width > 400 and worked is None and "transom" in need.site.places
    transom = str(u.full(need.hull.transom_m, "length")) if hangs else ""
    labels = Labels(str(length), str(draws), transom)
    return side_view(need.hull, displacement_kg, need.water, labels, title, aboard, width)


def card_view(need: Need, card: Card) -> Markup:
    """The side view on the boat card, with the setup in hand."""
    return _view(need, card.displacement_kg, 264.0, card.in_hand)


def setup_view(w: Worked) -> Markup:
    """The side view with one setup, as it stands on an offer."""
    return _view(w.fitted.need, w.performance.displacement_kg, 420.0, w)


def wide_view(need: Need, sizing: Sizing) -> Markup:
    """The larger side view of the Boat station."""
    return _view(need, sizing.displacement_kg, 520.0)


def plan(need: Need) -> Markup:
    """The boat from above with its bays."""
    names = ", ".join(bay.name for bay in need.site.bays)
    seats = seats_m(need.hull, need.load.people)
    return plan_view(
        need.hull, seats, need.site.bays, tr("From above, with the bays: %(names)s", names=names)
    )
