"""Drives and supplies in arrays: the same as for one bank at a time."""

import numpy as np
import pytest

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.charging import matches, together_h
from jolvek.core.electric.chemistry import end_soc
from jolvek.core.match.banks import supplies
from jolvek.core.match.motors import motors


@pytest.mark.parametrize("which", range(6))
def test_chargers_in_arrays_are_those_of_single_banks(enquiries, shelf, which):
    need = enquiries[which].need
    s = supplies(need, shelf, motors(shelf, 1026.0))
    for k in range(s.battery.size):
        bank = Bank(shelf.batteries[s.battery[k]].spec, int(s.series[k]), int(s.parallel[k]))
        good = [
            (item.price, j) for j, item in enumerate(shelf.chargers) if matches(bank, item.spec)
        ]
        if s.charger[k] < 0:
            assert not good and np.isnan(s.charge_h[k])
            continue
        charger, start = shelf.chargers[s.charger[k]], end_soc(bank.chem, need.day.reserve)
        assert s.charge_h[k] == pytest.approx(together_h(bank, [charger.spec], start))
        quick = [
            (p, j)
            for p, j in good
            if together_h(bank, [shelf.chargers[j].spec], start) <= need.day.charge_h
        ]
        assert charger.price in (min(good)[0], min(quick, default=min(good))[0])
        packs = int(s.series[k] * s.parallel[k])
        assert s.price[k] == pytest.approx(
            packs * shelf.batteries[s.battery[k]].price + charger.price
        )
        assert (s.energy_wh[k], s.mass_kg[k]) == (
            pytest.approx(bank.energy_wh),
            pytest.approx(bank.mass_kg),
        )
