"""Speed and memory figures: measured and printed, never judged."""

from __future__ import annotations

import json
import os
import resource
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from contextlib import closing
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import Any

import numpy as np

from jolvek import demo
from jolvek.cli.bench_job import one_job
from jolvek.cli.bench_trials import trials
from jolvek.core.base.units import KNOT_M_S
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import forget_tables, table, total_n
from jolvek.core.hydro.water import Water
from jolvek.core.match.banks import supplies
from jolvek.core.match.drives import drives
from jolvek.core.match.matching import Match, match
from jolvek.core.match.motors import motors
from jolvek.core.match.picks import picks
from jolvek.core.match.ranking import pareto, ranked
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.measured import residuals, rms_z
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import Item, Shelf


def best(work: Callable[[], object], runs: int = 5) -> float:
    """Median seconds of `runs` after one warm-up."""
    work()
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return float(np.median(times))


def _made_motor(i: int, rng: np.random.Generator) -> Item[Motor]:
    volts = float(rng.choice([24.0, 48.0]))
    power = float(np.round(rng.uniform(300, 2200) if volts == 24 else rng.uniform(1500, 9000), -1))
    motor = Motor(power, voltage_v=volts, mass_kg=4 + power / 170, name=f"m{i}")
    price = round(power * rng.uniform(0.7, 1.1))
    return Item(f"m{i}", "Made", f"m{i}", price, motor, "outboard", shafts_m=(0.381, 0.508))


def _made_battery(i: int, rng: np.random.Generator) -> Item[Battery]:
    kinds = (("lfp", 12.8), ("lfp", 25.6), ("lfp", 51.2), ("nmc", 51.8), ("agm", 12.0))
    chem, volts = kinds[int(rng.integers(5))]
    ah = float(np.round(rng.uniform(40, 200)))
    pack = Battery(chem, volts, ah, max_continuous_a=ah * rng.uniform(0.7, 2.0), name=f"b{i}")
    price = round(pack.energy_wh * (0.5 if chem != "agm" else 0.2))
    return Item(f"b{i}", "Made", f"b{i}", price, pack)


def made_shelf(n_motors: int, n_batteries: int, seed: int = 7) -> Shelf:
    """A made catalogue for measuring: 24 and 48 V motors, lithium and lead batteries, a few mounts
    and chargers.
    """
    rng = np.random.default_rng(seed)
    real = demo.shelf()
    made_motors = tuple(_made_motor(i, rng) for i in range(n_motors))
    made_batteries = tuple(_made_battery(i, rng) for i in range(n_batteries))
    chargers = (*real.chargers, Item("c12", "Made", "c12", 120.0, Charger(12, 15, ("lfp", "agm"))))
    mounts = tuple(m for m in real.mounts if m.spec.kind in ("transom_clamp", "quick_release"))
    return Shelf(made_motors, made_batteries, mounts, chargers)


STRENGTH = (
    "input_power_w peak_power_w static_thrust_n capacity_ah max_continuous_a max_motor_kg"
    " max_thrust_n current_a"
).split()


def wholesale_shelf(each: int, kinds: str = "motors batteries mounts", seed: int = 5) -> Shelf:
    """A wholesaler's catalogue: the demo's products over and over, every figure and price varied by
    up to 15 %; `each` of every kind, the demo's own of the other kinds.
    """
    rng, real = np.random.default_rng(seed), demo.shelf()

    def varied(item: Item[Any], i: int) -> Item[Any]:
        stronger, heavier, dearer = rng.uniform(0.85, 1.15, 3)
        known = {k: getattr(item.spec, k, None) for k in (*STRENGTH, "mass_kg")}
        by = {k: v * (heavier if k == "mass_kg" else stronger) for k, v in known.items() if v}
        price = round(item.price * dearer, 2)
        return replace(item, id=f"{item.id}-{i}", price=price, spec=replace(item.spec, **by))

    def many(kind: str) -> tuple[Item[Any], ...]:
        items = getattr(real, kind)
        return tuple(varied(items[i % len(items)], i) for i in range(each))

    return replace(real, **{kind: many(kind) for kind in kinds.split()})


def _wholesale(say: Callable[[str], None]) -> None:
    """What a large catalogue costs: the command as a process, and the first answers of pages."""
    from jolvek.formats import enquiry_file, shelf_file
    from jolvek.shop import By, catalogue
    from jolvek.store import db
    from jolvek.store.shelf import KINDS
    from jolvek.web import create_app
    from jolvek.web.demo_shop import shop

    made = wholesale_shelf(1700)
    say("A wholesaler's catalogue, 5,100 products and more (wanted: 10 CPU s, 1 GB; page 2 CPU s)")
    with tempfile.TemporaryDirectory() as folder:
        path, enquiry = Path(folder) / "shelf.json", Path(folder) / "enquiry.json"
        path.write_text(json.dumps(shelf_file.write(made)))
        enquiry.write_text(json.dumps(enquiry_file.write(demo.enquiries()[3])))
        command = [sys.executable, "-m", "jolvek", "match", str(enquiry), "--shelf", str(path)]
        process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        _, _, used = os.wait4(process.pid, 0)
        cpu, mb = used.ru_utime + used.ru_stime, used.ru_maxrss / 1024
        say(f"  jolvek match                  {cpu:8.1f} CPU s, {mb:.0f} MB")
        settings = shop(Path(folder) / "shop")
        with closing(db.connect(settings.database)) as conn:
            few = replace(made, panels=(), accessories=(), boats=())
            all_of = [(kind, x) for kind in KINDS for x in getattr(few, kind)]
            catalogue.take_in(conn, By("", "2026-11-01T08:00:00"), lambda _: ((), all_of, "all"))
        client = create_app(settings).test_client()
        client.get("/rules")
        for page in ("/", "/enquiry/4/shortlist", "/enquiry/4/shortlist", "/enquiry/4/by-hand"):
            begun = time.process_time()
            client.get(page)
            say(f"  page {page:24} {time.process_time() - begun:8.2f} CPU s")
            time.sleep(6 if "shortlist" in page else 0)


def launch() -> Need:
    """The boat of the matching figures: a flat-bottom launch without plate or bay limits."""
    need = demo.enquiries()[2].need
    return replace(
        need, hull=replace(need.hull, max_power_w=None), site=replace(need.site, bays=())
    )


def whole_match(need: Need, shelf: Shelf) -> Match:
    """Everything the Shortlist needs: curves, day, ranking, picks, Pareto set, reasons."""
    found = match(need, shelf, keep_curves=True, most=10**7)
    ranked(found)
    picks(found)
    pareto(found)
    return found


def bare_pass(found: Match) -> float:
    """Seconds of the explicit power formula alone over the same (N, 24), float64, in one piece."""
    n, points = found.field.price.size, found.field.curve_speed_m_s.size
    rng = np.random.default_rng(1)
    thrust, v, loss = (
        rng.uniform(10, 500, (n, points)),
        found.field.curve_speed_m_s[None, :],
        np.full((n, 1), 0.62),
    )
    jet = np.full((n, 1), 8 / (np.pi * 1026 * 0.28**2))
    return best(lambda: thrust * (v + np.sqrt(v * v + jet * thrust)) / (2 * loss), 3)


def fresh(setup: Setup) -> Performance:
    """The prediction with nothing remembered from before."""
    forget_tables()
    return evaluate(setup)


def one_at_a_time_s(found: Match, sample: int = 60) -> float:
    """Seconds per setup when each is worked out alone, from a sample."""
    f, d, s, need, shelf = found.field, found.drives, found.supplies, found.need, found.shelf
    start = time.perf_counter()
    for i in np.linspace(0, f.price.size - 1, sample).astype(int):
        motor = shelf.motors[d.motor[f.drive[i]]].spec
        k = int(f.supply[i])
        bank = Bank(shelf.batteries[s.battery[k]].spec, int(s.series[k]), int(s.parallel[k]))
        fresh(
            Setup(
                need.hull,
                need.load,
                motor,
                bank,
                need.water,
                need.day.wind_m_s,
                current_m_s=need.day.current_m_s,
            )
        ).curve(24)
    return (time.perf_counter() - start) / sample


def _pages(say: Callable[[str], None]) -> None:
    from jolvek.web import create_app
    from jolvek.web.demo_shop import shop

    with tempfile.TemporaryDirectory() as folder:
        client = create_app(shop(Path(folder))).test_client()
        paths = ("/", "/enquiry/2/boat", "/enquiry/2/shortlist", "/enquiry/6/shortlist", "/rules")
        for path in paths:
            say(f"  page {path:24} {1e3 * best(partial(client.get, path)):8.0f} ms")


def _with_bands(setup: Setup) -> object:
    p = fresh(setup)
    power = p.curve(60)["power_w"]
    d = doubt(p)
    return d.speed_band_m_s(power), d.way_band_m(power)


def _one_boat(say: Callable[[str], None]) -> None:
    tender = Setup(
        Hull("inflatable_air", 2.9, 1.55, 38),
        Load(2, 150, 15),
        Motor(1000, voltage_v=24),
        Bank(Battery("nmc", 25.9, 52)),
    )
    rib = Hull("rib", 4.2, 1.9, 190)
    loads, speeds = np.linspace(300, 800, 5), np.linspace(0.5, 9, 60)
    say("One boat (median of 5)")
    say(f"  speed curve, 60 powers        {1e3 * best(lambda: fresh(tender).curve(60)):8.1f} ms")
    bands = best(lambda: _with_bands(tender))
    say(f"  the same with its bands       {1e3 * bands:8.1f} ms")
    five = best(lambda: total_n(table(rib, Water(), loads), speeds[None], loads[:, None]))
    say(f"  five loads, waves and planing {1e3 * five:8.1f} ms")


def _on_the_water(say: Callable[[str], None]) -> None:
    rows = residuals()
    say("Measured on the water (common practice, no source), kn, and over the doubt's 1σ")
    for r in rows:
        measured, predicted = (v / KNOT_M_S for v in (r.measured_m_s, r.predicted_m_s))
        say(
            f"  {r.what:44}{r.power_w:5.0f} W  {measured:5.2f}  predicted {predicted:5.2f}"
            f"  {r.error:+6.1%}  z {r.z:+.2f}"
        )
    say(f"  RMS z {rms_z(rows):.2f}")


def run(say: Callable[[str], None]) -> None:
    """Print all figures."""
    _on_the_water(say)
    _one_boat(say)
    one_job(say, best)
    say("Pages of the demo (median of 5, in process)")
    _pages(say)
    say("Matching with curves of 24 points, ranking, picks, Pareto set and reasons")
    for motors_n, batteries_n in ((40, 6), (40, 60), (130, 190)):
        shelf = made_shelf(motors_n, batteries_n)
        found = whole_match(launch(), shelf)
        n = found.field.price.size
        seconds = best(partial(whole_match, launch(), shelf), 3)
        say(
            f"  {motors_n} × {batteries_n} products, {n} setups: {seconds:.3f} s,"
            f" {1e6 * seconds / max(n, 1):.2f} µs each"
        )
    bare = bare_pass(found)
    say(
        f"  bare power formula over {n} × {found.field.curve_speed_m_s.size}: {bare:.3f} s;"
        f" matching takes {seconds / bare:.1f} times that"
    )
    alone = one_at_a_time_s(found)
    say(
        f"  one setup at a time: {1e3 * alone:.1f} ms each; together is {alone * n / seconds:.0f}"
        " times faster"
    )
    m = motors(shelf, 1026.0)
    enumerate_s = best(lambda: (drives(launch(), shelf, m), supplies(launch(), shelf, m)), 3)
    say(f"  of it listing drives and banks with their reasons: {enumerate_s:.3f} s")
    _wholesale(say)
    trials(say)
    say(f"Peak memory {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB")
