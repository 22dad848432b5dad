"""The Waters station's form: the day as legs, rules of the place, energy, wishes and must-haves."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask_wtf import FlaskForm
from wtforms import BooleanField, HiddenField, RadioField, SelectField, StringField, validators
from wtforms.fields.choices import SelectChoice

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.need import RESERVE_SCHOOLS, SKIES, WISHES, Day, Leg, Need
from jolvek.web.forms.fields import QuantityField

MOST_LEGS = 12
WISH_WORDS = {
    "price": "costs little",
    "light": "light to carry",
    "range": "goes far",
    "speed": "goes fast",
    "silence": "quiet",
    "hands_free": "hands free",
    "tidy": "tidy, few parts",
}
_DAY = {
    "speed": "speed_m_s",
    "distance": "distance_m",
    "wind": "wind_m_s",
    "current": "current_m_s",
    "limit": "speed_limit_m_s",
    "hotel": "hotel_w",
    "solar": "solar_w",
    "lift": "max_lift_kg",
    "budget": "budget",
    "noise": "max_noise_db",
    "temperature": "temperature_c",
    "latitude": "latitude_deg",
    "longitude": "longitude_deg",
    "start": "start_h",
}
_ZERO = {
    "wind_m_s": 0.0,
    "current_m_s": 0.0,
    "hotel_w": 0.0,
    "solar_w": 0.0,
    "temperature_c": 20.0,
    "latitude_deg": 55.0,
    "longitude_deg": 10.0,
    "start_h": 9.0,
}
_LEG = {
    "speed": "speed_m_s",
    "distance": "distance_m",
    "duration": "duration_s",
    "current": "current_m_s",
    "wind": "wind_m_s",
    "hold": "hold_s",
}


class DayForm(FlaskForm):
    """The day of one enquiry; legs follow as leg1_name, leg1_speed and so on."""

    speed = QuantityField("Wanted speed", "speed", 0.3, 20, True)
    distance = QuantityField("Distance, there and back", "distance", 50, 500e3, True)
    wind = QuantityField("Wind against", "speed", -30, 30)
    current = QuantityField("Current against", "speed", -6, 6)
    reserve_school = RadioField(
        "Kept in reserve",
        choices=[
            SelectChoice("fifth", "a share"),
            SelectChoice("thirds", "a third"),
            SelectChoice("hour", "an hour's running"),
        ],
        default="fifth",
    )
    reserve = QuantityField("Share kept", "share", 0, 0.9)
    limit = QuantityField("Speed limit", "speed", 0.5, 30)
    electric_only = BooleanField("electric-only water")
    temperature = QuantityField("Battery temperature", "celsius", -20, 40)
    hotel = QuantityField("Other loads", "power", 0, 20000, hint="lights, fridge, instruments")
    charge = QuantityField("Hours to charge", "duration", 1800, 240 * 3600)
    shore_power = BooleanField("shore power")
    solar = QuantityField("Solar panels", "power", 0, 20000, hint="rated, lying flat")
    sky = SelectField("Sky", choices=[SelectChoice(s, s) for s in SKIES], default="fair")
    latitude = QuantityField("Latitude", "angle", -90, 90)
    longitude = QuantityField("Longitude", "angle", -180, 180)
    date = StringField(
        "Date", [validators.Regexp(r"^\d{4}-\d{2}-\d{2}$", message="type a date as 2026-07-01")]
    )
    start = QuantityField("Sets out at", "clock", 0, 24, hint="o'clock")
    lift = QuantityField("Heaviest lift", "mass", 1, 500)
    budget = QuantityField("Budget", "money", 1, 1e7)
    noise = QuantityField("Loudest, dB(A)", "number", 20, 100)
    hands_free = BooleanField("must steer hands-free")
    changed = HiddenField()


for _wish in WISHES:
    setattr(DayForm, f"wish_{_wish}", QuantityField(WISH_WORDS[_wish], "number", 0, 10))
for _i in range(1, MOST_LEGS + 1):
    setattr(DayForm, f"leg{_i}_name", StringField("Leg", [validators.Length(max=80)]))
    for _name, _label, _q, _low, _high in (
        ("speed", "Speed", "speed", 0.2, 20),
        ("distance", "Distance", "distance", 0, 1e6),
        ("duration", "or time", "duration", 0, 30 * 86400),
        ("current", "Current against", "speed", -6, 6),
        ("wind", "Wind against", "speed", -30, 30),
        ("hold", "Then wait", "duration", 0, 5 * 86400),
    ):
        setattr(DayForm, f"leg{_i}_{_name}", QuantityField(_label, _q, _low, _high))


def legs_from(form: DayForm, before: tuple[Leg, ...]) -> tuple[Leg, ...]:
    """The legs typed; a row without speed takes the day's, one of unchanged distance keeps its
    place.

    Raises ValueRefused for a row without distance and time.
    """
    out = []
    for i in range(1, MOST_LEGS + 1):
        values = {attr: form[f"leg{i}_{name}"].data for name, attr in _LEG.items()}
        if values["distance_m"] is None and values["duration_s"] is None:
            if values["speed_m_s"] is not None:
                raise ValueRefused(f"leg{i}_distance", None, "a distance or a time")
            continue
        values["speed_m_s"] = values["speed_m_s"] or form.speed.data
        given = {k: v for k, v in values.items() if v is not None}
        old = (
            before[i - 1]
            if i <= len(before) and before[i - 1].distance_m == values["distance_m"]
            else None
        )
        place = (
            {"latitude_deg": old.latitude_deg, "longitude_deg": old.longitude_deg} if old else {}
        )
        out.append(Leg(form[f"leg{i}_name"].data or f"leg {len(out) + 1}", **given, **place))
    return tuple(out)


def need_from(form: DayForm, before: Need) -> Need:
    """The need in a valid form. Raises ValueRefused."""
    values = {attr: form[name].data for name, attr in _DAY.items()}
    values |= {k: v for k, v in _ZERO.items() if values[k] is None}
    school = form.reserve_school.data or "fifth"
    share = (
        RESERVE_SCHOOLS[school]
        if school != "fifth"
        else 0.2
        if form.reserve.data is None
        else form.reserve.data
    )
    day = Day(
        **values,
        reserve=share,
        reserve_school=school,
        charge_h=(form.charge.data or 36000) / 3600,
        electric_only=bool(form.electric_only.data),
        shore_power=bool(form.shore_power.data),
        sky=form.sky.data or "fair",
        hands_free=bool(form.hands_free.data),
        date=form.date.data or before.day.date,
    )
    weights = tuple(
        (w, before.weight(w) if form[f"wish_{w}"].data is None else form[f"wish_{w}"].data)
        for w in WISHES
    )
    return replace(before, day=day.with_legs(legs_from(form, before.day.legs)), weights=weights)


def values_of(need: Need) -> dict[str, Any]:
    """The form's values for a need."""
    day = need.day
    out: dict[str, Any] = {name: getattr(day, attr) for name, attr in _DAY.items()}
    out |= {
        k: getattr(day, k)
        for k in (
            "reserve_school",
            "reserve",
            "electric_only",
            "shore_power",
            "sky",
            "date",
            "hands_free",
        )
    }
    out |= {"charge": day.charge_h * 3600} | {f"wish_{w}": need.weight(w) for w in WISHES}
    for i, leg in enumerate(day.legs[:MOST_LEGS], 1):
        out |= {f"leg{i}_{name}": getattr(leg, attr) for name, attr in _LEG.items()}
        out[f"leg{i}_name"] = leg.name
        for name in ("current", "wind", "hold"):
            out[f"leg{i}_{name}"] = out[f"leg{i}_{name}"] or None
    return out
