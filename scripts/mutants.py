"""Faults planted one by one in a copy of the project; the tests without the browser must fail."""

from __future__ import annotations

import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from later_faults import LATER_FAULTS

ROOT = Path(__file__).parents[1]
CORE, PAGES = "jolvek/core/", "jolvek/web/pages/"
FAULTS = (
    *LATER_FAULTS,
    (
        "a motor that never lugs",
        CORE + "hydro/propulsor.py",
        "return float(k_t / k_q * torque / diameter_m)",
        "return float(9 * k_t / k_q * torque / diameter_m)",
    ),
    (
        "fresh water grows as quick as salt",
        CORE + "hydro/fouling.py",
        '"fresh": 0.5',
        '"fresh": 1.0',
    ),
    (
        "wind from behind is never too much",
        CORE + "fit/fit_facts.py",
        "max(abs(leg.wind_m_s) for",
        "max(leg.wind_m_s for",
    ),
    (
        "a raked transom as tall as it is long",
        CORE + "fit/hanging.py",
        "return need.hull.transom_m * cos(radians(need.site.rake_deg))",
        "return need.hull.transom_m + 0 * cos(radians(need.site.rake_deg))",
    ),
    (
        "a fin that touches the hull",
        CORE + "fit/leg.py",
        "below = (0.5 + TIP_GAP) * diameter_m",
        "below = 0.5 * diameter_m",
    ),
    (
        "moved weights forgotten",
        CORE + "fit/fitted.py",
        "return self.fitting.weights(self.planned_weights)",
        "return list(self.planned_weights)",
    ),
    (
        "a budget overdrawn by a tenth",
        CORE + "match/budgets.py",
        "within = f.price <= budget",
        "within = f.price <= 1.1 * budget",
    ),
    (
        "a worn battery as good as new",
        CORE + "products/own.py",
        "gear.health * spec.capacity_ah, gear.count",
        "spec.capacity_ah, gear.count",
    ),
    (
        "the kit of a setup left out of her trim",
        CORE + "hydro/places.py",
        "kit = np.maximum(1 - mass",
        "kit = 0 * np.maximum(1 - mass",
    ),
    (
        "packs of unknown size weigh nothing in the bay",
        CORE + "fit/stowage.py",
        "room = [packs if 0.0 in sizes else",
        "if 0.0 in sizes:\n        return [], None\n    room = [packs if 0.0 in sizes else",
    ),
    (
        "mount thrust +20 %",
        CORE + "fit/fit_facts.py",
        "_row(k.max_thrust_n for",
        "_row(1.2 * k.max_thrust_n for",
    ),
    (
        "plate load +20 %",
        CORE + "fit/fit_facts.py",
        "load = _most(need.site.max_load_kg)",
        "load = 1.2 * _most(need.site.max_load_kg)",
    ),
    (
        "a setup without any charger",
        CORE + "rules/predicates.py",
        "Held(f.bank.charged, f.bank.charge_v)",
        "Held(True, f.bank.charge_v)",
    ),
    (
        "trim no Stop in matching",
        CORE + "match/pairs.py",
        "setup_facts(need, mass, *angles)",
        "setup_facts(need, mass)",
    ),
    (
        "rudder tried with its blade down only",
        CORE + "fit/fit_facts.py",
        "rudder_clearance_m(offset_m, BEHIND_M, LEG_M, lifted)",
        "9.0",
    ),
    (
        "panels counted twice",
        "jolvek/web/view/worked.py",
        "max(need.day.solar_w, added)",
        "need.day.solar_w + added",
    ),
    (
        "a spare weighs nothing",
        CORE + "day/aboard.py",
        "load.gear_kg + spare.mass_kg",
        "load.gear_kg",
    ),
    (
        "end taps from a 24 V pack",
        CORE + "electric/netlist.py",
        "bank.battery.charge_v > MOST_12V",
        "bank.battery.charge_v > 9 * MOST_12V",
    ),
    (
        "the quay's limit ignored",
        CORE + "day/charging_plan.py",
        "min(1.0, limit / draws) if limit",
        "1.0 if limit",
    ),
    (
        "picks fill when they like",
        CORE + "match/picks.py",
        "keep &= figure <= limit * (1 + 1e-9)",
        "keep &= figure <= limit * 9",
    ),
    (
        "homeward without the sun",
        CORE + "day/getting_home.py",
        "mean - float(mean_sun_w(",
        "mean - 0 * float(mean_sun_w(",
    ),
    ("a sheet without its precautions", CORE + "fit/checklist.py", "tuple(f.precautions),", "(),"),
    (
        "matching's day energy +8 %",
        CORE + "match/candidate_days.py",
        "day_share * energy - spent",
        "1.08 * day_share * energy - spent",
    ),
    (
        "day energy +8 %",
        CORE + "day/summed.py",
        "power * time / 3600, other",
        "1.08 * power * time / 3600, other",
    ),
    ("silence ranked backwards", CORE + "match/ranking.py", "(80.0 - noise)", "(noise - 40.0)"),
    (
        "band ends swapped on the offer",
        CORE + "predict/doubt.py",
        "for sign in (1, -1)",
        "for sign in (-1, 1)",
    ),
    ("idle draw free", CORE + "hydro/drive.py", "(a * x + i + SPEED_LOSS", "(a * x + SPEED_LOSS"),
    (
        "a doubt twice too narrow",
        CORE + "predict/doubt.py",
        "np.minimum(np.sqrt(np.sum(squares, axis=0))",
        "np.minimum(0.5 * np.sqrt(np.sum(squares, axis=0))",
    ),
    (
        "every day likely",
        CORE + "predict/likelihood.py",
        "np.minimum(by_energy, by_speed)",
        "np.maximum(by_energy, 1.0)",
    ),
    (
        "waves from astern as hard as from ahead",
        CORE + "predict/setup.py",
        "0.0 if wind_m_s >= 0 else 180.0",
        "0.0",
    ),
    (
        "too much wind is no Stop",
        CORE + "day/seas.py",
        "if wind > most:",
        "if wind > 9 * most:",
    ),
    (
        "the sun's controller passes everything",
        CORE + "electric/sun_chain.py",
        "return min(self.rated_w, most)",
        "return self.rated_w",
    ),
    (
        "an inflatable floats on its floor",
        CORE + "hydro/floating.py",
        "across = [b.across + b.waterplane",
        "across = [0.3 * b.across + b.waterplane",
    ),
    (
        "a stream that helps",
        CORE + "predict/streams.py",
        "v - stream, s",
        "v + stream, s",
    ),
    (
        "a pole drags like a fin",
        CORE + "products/motor.py",
        'LEGS[self.style or "outboard"]',
        'LEGS["fin"]',
    ),
    (
        "bank price without its strings",
        CORE + "match/banks.py",
        "packs * price + charger",
        "price + charger",
    ),
    (
        "full voltage +5 % in matching",
        CORE + "rules/predicates.py",
        "at_most(f.charge_v, f.most_v)",
        "at_most(1.05 * f.charge_v, f.most_v)",
    ),
    ("dearest marked best", PAGES + "side_by_side_table.py", "-w.pinned.price", "w.pinned.price"),
    (
        "regeneration doubled",
        CORE + "day/getting_home.py",
        "Regeneration(REGEN",
        "Regeneration(2 * REGEN",
    ),
    ("shown to one digit", CORE + "base/units.py", ',.{places}f}"', ',.{min(places, 1)}f}"'),
    (
        "undo without its guard",
        "jolvek/store/shelf.py",
        "        if now != product",
        "        if False and now != product",
    ),
)


def failing(folder: Path, tests: list[Path]) -> bool:
    """Whether some of these tests fail; those of the browser and the house are left out."""
    command = [sys.executable, "-m", "pytest", "-q", "-x", "--ignore=tests/browser"]
    command += ["--ignore=tests/test_house.py", "--ignore=tests/test_layers.py"]
    command += map(str, tests)
    return subprocess.run(command, cwd=folder, capture_output=True, check=False).returncode != 0


def caught(folder: Path, where: str, right: str, wrong: str) -> bool:
    """Whether the tests fail with the fault in place, those beside it first; it is put back."""
    path = folder / where
    text = path.read_text(encoding="utf-8")
    if right not in text:
        raise SystemExit(f"{where} no longer holds {right!r}: plant another fault")
    path.write_text(text.replace(right, wrong, 1), encoding="utf-8")
    near = folder / "tests" / path.parent.relative_to(folder / "jolvek")
    asked = [near, folder / "tests" / "core" / "rules"] if near.exists() else []
    kill = bool(asked) and failing(folder, asked) or failing(folder, [folder / "tests"])
    path.write_text(text, encoding="utf-8")
    return kill


def main() -> None:
    """Plant each fault, or the first so many, and print whether it was caught; code 1 where one was
    not.
    """
    faults = FAULTS[: int(sys.argv[1])] if len(sys.argv) > 1 else FAULTS
    with tempfile.TemporaryDirectory() as place:
        folder = Path(place) / "copy"
        shutil.copytree(ROOT, folder, ignore=shutil.ignore_patterns(".venv", ".git", "*_cache"))
        found = 0
        for name, where, right, wrong in faults:
            kill = caught(folder, where, right, wrong)
            found += kill
            print(f"{'caught' if kill else 'MISSED'}  {name}", flush=True)
    print(f"{found} of {len(faults)} caught")
    sys.exit(found < len(faults))


if __name__ == "__main__":
    main()
