"""The boat's drawings as the templates call them, in the user's units."""

from __future__ import annotations

from markupsafe import Markup

from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import Sizing
from jolvek.core.fit.hanging import motor_ahead_m
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.hydro.floating import Floating, draws_m, float_at, hull_speed_m_s
from jolvek.web.drawings.boat_drawing import Aboard, HungMotor, side_view
from jolvek.web.drawings.plan_drawing import plan_view
from jolvek.web.view import display
from jolvek.web.view.card import Card
from jolvek.web.view.worked import Worked


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
        return Aboard(need.load.people, bays=shown)
    mount, b = worked.fitted.mount.spec, worked.pinned.part("battery")
    motor = HungMotor(
        hung_leg(worked.fitted)[1],
        worked.performance.propulsor.diameter_m,
        mount.drop_m,
        motor_ahead_m(need, mount),
        mount.fixed,
    )
    pack = None
    if b and b.item.spec.length_m and b.item.spec.height_m:
        placed = (bay.ahead_m for bay in need.site.bays if bay.ahead_m)
        ahead = next(placed, 0.3 * need.hull.length_m)
        pack = (ahead, b.item.spec.length_m, b.item.spec.height_m)
    return Aboard(need.load.people, motor, pack, shown)


def _view(need: Need, displacement_kg: float, width: float, worked: Worked | None = None) -> Markup:
    u = display.current()
    length = u.full(need.hull.length_m, "length")
    draws = u.full(float(draws_m(need.hull, floating(need, displacement_kg))), "length")
    title = f"{need.hull.fam.name}, {length}, drawing {draws} of water"
    aboard = _aboard(need, worked, bays=width > 400)
    labels = (str(length), str(draws))
    return side_view(need.hull, displacement_kg, need.water, labels, title, aboard, width)


def card_view(need: Need, card: Card) -> Markup:
    """The side view on the boat card, with the setup in hand."""
    return _view(need, card.displacement_kg, 264.0, card.in_hand)


def wide_view(need: Need, sizing: Sizing) -> Markup:
    """The larger side view of the Boat station."""
    return _view(need, sizing.displacement_kg, 520.0)


def plan(need: Need) -> Markup:
    """The boat from above with its bays."""
    names = ", ".join(bay.name for bay in need.site.bays)
    return plan_view(
        need.hull, need.load.people, need.site.bays, f"From above, with the bays: {names}"
    )
