"""How the boat was on a trial, and what was seen: what the form asks, shows and says."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from werkzeug.datastructures import MultiDict

from jolvek.core.base.messages import msg
from jolvek.core.trial.diagnosis import FAULTS
from jolvek.web.kit import display
from jolvek.web.kit.fields.reader import Reader

CURED = msg("The boat counts as untried again: the trial was run with the fault. Try her again.")
HOW = {  # how she was: quantity, lowest, highest
    "people": ("count", 0, 60),
    "people_kg": ("mass", 0, 6000),
    "gear_kg": ("mass", 0, 20_000),
    "wind_m_s": ("speed", 0, 40),
    "depth_m": ("length", 0.2, 1000),
    "start_charge": ("share", 0, 1),
    "end_charge": ("share", 0, 1),
    "used_wh": ("energy", 0, 1e6),
    "drop_v": ("voltage", 0, 50),
}
HOW_WORDS = {
    "people": msg("People aboard"),
    "people_kg": msg("Weight of the people"),
    "gear_kg": msg("Gear"),
    "wind_m_s": msg("Wind"),
    "depth_m": msg("Depth"),
    "start_charge": msg("Charge at the start, %"),
    "end_charge": msg("Charge at the end, %"),
    "used_wh": msg("Used, by the display, Wh"),
    "drop_v": msg("Drop from pack to motor, V"),
    "full": msg("the highest run was at full throttle"),
    "seen": msg("Seen on the water"),
}


def how_values(data: Mapping[str, Any]) -> dict[str, Any]:
    """What the form of how the boat was is filled with."""
    u = display.current()
    figures = {k: u.entry(data[k], of[0]) if k in data else "" for k, of in HOW.items()}
    return {**figures, "full": bool(data.get("full")), "seen": list(data.get("seen") or [])}


def how_from(form: MultiDict[str, str], read: Reader) -> dict[str, Any]:
    """What the form says; refused figures are told by `read` and left out."""
    figures: dict[str, Any] = {k: read.figure(k, *of) for k, of in HOW.items()}
    kept = {k: v for k, v in figures.items() if v is not None}
    seen = [key for key in FAULTS if key in form.getlist("seen")]
    return {**kept, "full": bool(form.get("full")), "seen": seen}
