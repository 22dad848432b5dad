"""The Waters station's form: the day, rules of the place, energy, wishes. Legs are in leg_rows."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from flask_wtf import FlaskForm
from wtforms import (
    BooleanField,
    HiddenField,
    RadioField,
    SelectField,
    StringField,
    ValidationError,
    validators,
)
from wtforms.fields.choices import SelectChoice

from jolvek.core.base import checked, typed_figures
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.need import (
    AGAINST,
    MOST_WEIGHT,
    RESERVE_SCHOOLS,
    SKIES,
    WISHES,
    Day,
)
from jolvek.web.kit.fields.fields import QuantityField, allowed
from jolvek.web.kit.language import tr
from jolvek.web.stations.waters.legs import add_leg_fields, leg_values, legs_from

WISH_WORDS = {
    "price": msg("costs little"),
    "light": msg("light to carry"),
    "range": msg("goes far"),
    "speed": msg("goes fast"),
    "silence": msg("quiet"),
    "hands_free": msg("hands free"),
    "tidy": msg("tidy, few parts"),
}
AGAINST_WORDS = {
    "home": msg("on the way home"),
    "all day": msg("all day"),
}
SCHOOL_WORDS = {
    "fifth": msg("a share"),
    "thirds": msg("a third"),
    "hour": msg("an hour's running"),
}
DAY_FIELDS = (  # the record's key, the field's name, label, quantity, hint
    ("wind_m_s", "wind", msg("Wind against"), "speed", ""),
    ("current_m_s", "current", msg("Current against"), "speed", ""),
    ("reserve", "reserve", msg("Share kept"), "share", ""),
    ("speed_limit_m_s", "limit", msg("Speed limit"), "speed", ""),
    ("temperature_c", "temperature", msg("Battery temperature"), "celsius", ""),
    ("shore_limit_w", "shore_limit", msg("Shore gives at most"), "power", "16 A at 230 V: 3680 W"),
    ("charges_per_day", "charges", msg("Charges a day"), "count", msg("of a boat on hire")),
    (
        "runs_per_day",
        "runs",
        msg("Runs a day"),
        "count",
        msg("of a boat on hire; the day above is one"),
    ),
    ("days_a_season", "days", msg("Days a season"), "count", msg("of a boat on hire")),
    ("dock_solar_w", "dock_solar", msg("Panels on the dock"), "power", msg("rated")),
    ("dock_battery_wh", "dock_battery", msg("Battery on the dock, Wh"), "number", ""),
    ("start_charge", "start_charge", msg("Sets out with"), "share", msg("of the charge")),
    (
        "own_charger_v",
        "own_charger",
        msg("Own charger, V"),
        "number",
        msg("at the end of the charge, where the customer has one"),
    ),
    ("hotel_w", "hotel", msg("Other loads"), "power", msg("lights, fridge, instruments")),
    ("solar_w", "solar", msg("Solar panels"), "power", msg("rated, lying flat")),
    ("latitude_deg", "latitude", msg("Latitude"), "angle", ""),
    ("longitude_deg", "longitude", msg("Longitude"), "angle", ""),
    ("start_h", "start", msg("Sets out at"), "clock", msg("o'clock")),
    ("max_lift_kg", "lift", msg("Heaviest lift"), "mass", ""),
    ("budget", "budget", msg("Budget"), "money", ""),
    ("max_noise_db", "noise", msg("Loudest, dB(A)"), "number", ""),
)
# what stands between two sums: no comma of a thousand or of cents
_BETWEEN = re.compile(r";|,(?!\d)|,(?=\d{4}|\d{1,3}\s\d{3}(?!\d))")
_CHARGE_S = tuple(3600 * hours for hours in allowed(Day, "charge_h"))
_NAMES = {name: key for key, name, *_ in DAY_FIELDS}


class DayForm(FlaskForm):
    """The day of one enquiry; legs follow as leg1_name, leg1_speed and so on."""

    speed = QuantityField(msg("Wanted speed"), "speed", *allowed(Day, "speed_m_s"), True)
    distance = QuantityField(msg("Distance, there and back"), "distance", 50, 1e6, True)
    reserve_school = RadioField(
        msg("Kept in reserve"),
        choices=[SelectChoice(school, SCHOOL_WORDS[school]) for school in RESERVE_SCHOOLS],
        default="fifth",
    )
    against = SelectField(
        msg("Wind and current against you"),
        choices=[SelectChoice(x, AGAINST_WORDS[x]) for x in AGAINST],
        default=AGAINST[0],
    )
    electric_only = BooleanField(msg("electric-only water"))
    standby = QuantityField(msg("Waits out there"), "duration", *allowed(Day, "standby_s"))
    charge = QuantityField(msg("Hours to charge"), "duration", _CHARGE_S[0], _CHARGE_S[1])
    shore_power = BooleanField(msg("shore power"))
    sky = SelectField(msg("Sky"), choices=[SelectChoice(s, s) for s in SKIES], default="fair")
    date = StringField(msg("Date"))
    hands_free = BooleanField(msg("must steer hands-free"))
    budgets = StringField(msg("Budgets to compare"), [validators.Length(max=200)])
    changed = HiddenField()
    page = HiddenField()

    def validate_budgets(self, field: StringField) -> None:
        """Refuse what is no list of sums."""
        try:
            read_budgets(field.data)
        except JolvekError as error:
            raise ValidationError(str(error)) from None

    def validate_date(self, field: StringField) -> None:
        """Refuse what is no day of the calendar."""
        try:
            checked.date("date", (field.data or "").strip())
        except ValueRefused as error:
            message = tr(
                "read “%(field)s”; allowed is %(allowed)s", field=field.data, allowed=error.allowed
            )
            raise ValidationError(message) from None


for _key, _name, _label, _quantity, _hint in DAY_FIELDS:
    _low, _high = allowed(Day, _key)
    setattr(DayForm, _name, QuantityField(_label, _quantity, _low, _high, False, _hint))
for _wish in WISHES:
    setattr(DayForm, f"wish_{_wish}", QuantityField(WISH_WORDS[_wish], "number", 0, MOST_WEIGHT))
add_leg_fields(DayForm)


def read_budgets(text: str | None) -> tuple[float, ...]:
    """Sums out of "700; 1 400, 2,500"; raises JolvekError naming what cannot be read."""
    words = [w for word in _BETWEEN.split(text or "") if (w := word.strip())]
    most, (low, high) = Day.COUNTS["budgets"], allowed(Day, "budgets")
    if len(words) > most:
        raise JolvekError(
            tr("read %(words)s sums; at most %(most)s are compared", words=len(words), most=most)
        )
    for word in words:
        if not low <= typed_figures.parse(word, "money", "") <= high:
            raise JolvekError(
                tr(
                    "read “%(word)s”; allowed is %(low)s to %(high)s",
                    word=word,
                    low=f"{low:.0f}",
                    high=f"{high:.0f}",
                )
            )
    return tuple(typed_figures.parse(w, "money", "") for w in words)


def enquiry_from(form: DayForm, before: Enquiry) -> Enquiry:
    """The enquiry in a form; boat and words stay as before. Raises ValueRefused."""
    values = {key: form[name].data for name, key in _NAMES.items()}
    for key in ("charges_per_day", "runs_per_day"):
        if values[key] is not None:
            values[key] = int(values[key])
    school = form.reserve_school.data or "fifth"
    if school != "fifth":
        values["reserve"] = RESERVE_SCHOOLS[school]
    if form.charge.data is not None:
        values["charge_h"] = form.charge.data / 3600
    if form.standby.data is not None:
        values["standby_s"] = form.standby.data
    day = Day(
        speed_m_s=form.speed.si,
        distance_m=form.distance.si,
        reserve_school=school,
        electric_only=bool(form.electric_only.data),
        shore_power=bool(form.shore_power.data),
        sky=form.sky.data or "fair",
        against=form.against.data or AGAINST[0],
        hands_free=bool(form.hands_free.data),
        budgets=read_budgets(form.budgets.data),
        date=(form.date.data or "").strip(),
        **{k: v for k, v in values.items() if v is not None},
    )
    need = before.need
    weights = tuple(
        (w, need.weight(w) if form[f"wish_{w}"].data is None else form[f"wish_{w}"].data)
        for w in WISHES
    )
    legs = legs_from(form, need.day.legs)
    return replace(before, need=replace(need, day=day.with_legs(legs), weights=weights))


def values_of(enquiry: Enquiry) -> dict[str, Any]:
    """The form's values for an enquiry."""
    need = enquiry.need
    day = need.day
    out: dict[str, Any] = {name: getattr(day, key) for name, key in _NAMES.items()}
    same = ("reserve_school", "electric_only", "shore_power", "sky", "against", "date")
    out |= {key: getattr(day, key) for key in (*same, "hands_free")}
    out |= {"speed": day.speed_m_s, "distance": day.distance_m, "charge": day.charge_h * 3600}
    out |= {"standby": day.standby_s or None}
    out |= {"budgets": "; ".join(f"{x:.2f}".removesuffix(".00") for x in day.budgets)}
    out |= {f"wish_{w}": need.weight(w) for w in WISHES}
    return out | leg_values(day.legs)
