"""Planted faults that no test saw: the year of a number, pruned versions, energy over gaps, cables
of two runs, a spare fuse.
"""

from dataclasses import replace

import pytest

from jolvek.core.electric.wire_sizes import Cable
from jolvek.core.fit.checklist import sheet
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.materials import LUGS_A_WIRE, materials
from jolvek.core.hydro.water import Water
from jolvek.core.products.rates import Rates
from jolvek.core.trial.segments import Sample
from jolvek.store import enquiries, offers, trials, versions
from jolvek.store.offers import Sent


def test_numbers_begin_with_each_year_and_a_revision_keeps_its_own(conn):
    made = Sent(0, 2, 2026, 7, 1, "2026-12-30T10:00:00+00:00", valid_to="2027-01-30", sent_by="x")
    offers.add(conn, made, {}, {}, b"")
    assert offers.next_number(conn, 3, 2026) == (2026, 8, 1)
    assert offers.next_number(conn, 3, 2027) == (2027, 1, 1)
    assert offers.next_number(conn, 2, 2027) == (2026, 7, 2)  # another revision of the same


def test_the_oldest_versions_go_and_the_newest_stay(conn):
    for i in range(versions.MOST + 5):
        enquiries.change(conn, 2, lambda e, i=i: replace(e, title=f"T{i}"), f"2026-{i:03d}")
    rows = conn.execute(
        "SELECT at FROM enquiry_version WHERE enquiry_id = 2 ORDER BY id"
    ).fetchall()
    assert len(rows) == versions.MOST
    assert rows[-1]["at"] == f"2026-{versions.MOST + 4:03d}" and rows[0]["at"] == "2026-005"


def test_energy_is_counted_over_samples_and_not_over_a_gap(conn):
    trials.begin(conn, 2, "A", "inflatable_air", "x", "2026-12-01T00:00:00+00:00")
    trial = trials.latest(conn, 2)
    steady = [Sample(float(t), 1.5, 0.0, 360.0) for t in (0, 10, 20, 3620, 3630)]
    trials.add_samples(conn, trial.id, steady)
    assert trials.energy_wh(conn, trial.id) == pytest.approx(360 * 30 / 3600)  # not an hour more


def test_a_cable_of_two_runs_is_twice_the_metres_and_lugs():
    netlist = sample_fitted().netlist

    def counted(net):
        found = materials(net, Rates())
        return {
            w: [float(x.quantity) for x in found if x.text.startswith(w)] for w in ("Cable", "Lugs")
        }

    def runs(n):
        size = netlist.wires[0].size
        thick = Cable(**{**vars(size), "runs": n})
        return replace(netlist, wires=tuple(replace(w, size=thick) for w in netlist.wires))

    one, two = counted(runs(1)), counted(runs(2))
    assert two["Cable"] == pytest.approx([2 * x for x in one["Cable"]], abs=0.11)
    assert two["Lugs"] == [2 * x for x in one["Lugs"]]
    assert one["Lugs"] == [LUGS_A_WIRE * len(netlist.wires)]


def test_what_goes_along_has_a_fuse_where_there_is_one_and_an_anode_in_salt_water():
    fitted = sample_fitted()
    fresh = replace(fitted, need=replace(fitted.need, water=Water("fresh")))
    assert {"one fuse of each rating", "keys", "anode"} <= set(sheet(fitted).spares)
    assert "anode" not in sheet(fresh).spares and "one fuse of each rating" in sheet(fresh).spares
