"""The boat's drawings as the templates call them, in the user's units."""

from __future__ import annotations

from markupsafe import Markup

from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import Sizing
from jolvek.core.fit.fitted import motor_ahead_m
from jolvek.core.hydro.floating import Floating, float_at, hull_speed_m_s
from jolvek.web.drawings.boat_drawing import side_view
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


def _view(need: Need, displacement_kg: float, width: float, worked: Worked | None = None) -> Markup:
    u = display.current()
    draught = float(floating(need, displacement_kg).draught_m)
    motor, pack = None, None
    if worked:
        mount = worked.pinned.part("mount")
        drop = mount.item.spec.drop_m if mount else 0.0
        seat = need.hull.transom_m - drop
        shaft = worked.pinned.shaft_m or max(seat + 0.03, 0.2)
        motor = (
            shaft,
            worked.performance.propulsor.diameter_m,
            drop,
            motor_ahead_m(need, mount.item.spec) if mount else -0.06,
        )
        b = worked.pinned.part("battery")
        if b and b.item.spec.length_m and b.item.spec.height_m:
            ahead = next(
                (bay.ahead_m for bay in need.site.bays if bay.ahead_m), 0.3 * need.hull.length_m
            )
            pack = (ahead, b.item.spec.length_m, b.item.spec.height_m)
    title = (
        f"{need.hull.fam.name}, {u.full(need.hull.length_m, 'length')}, drawing"
        f" {u.full(draught, 'length')} of water"
    )
    return side_view(
        need.hull,
        need.load.people,
        displacement_kg,
        need.water,
        str(u.full(need.hull.length_m, "length")),
        str(u.full(draught, "length")),
        title,
        width,
        motor,
        pack,
        need.site.bays if width > 400 else (),
    )


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
