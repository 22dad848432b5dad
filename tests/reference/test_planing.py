"""Planing against the package openplaning (Savitsky 1964) and the paper's own example."""

import itertools
import warnings

import numpy as np
import pytest

from jolvek.core.hydro.planing import G_M_S2, savitsky, spray_ratio

with warnings.catch_warnings():
    warnings.simplefilter("ignore")  # the package's own syntax warnings at its first import
    from openplaning import PlaningBoat

CASES = list(
    itertools.product((5.0, 7.0, 9.0, 12.0), (200.0, 400.0, 700.0), (5, 10, 20), (1.1, 1.4))
)


@pytest.mark.parametrize(("speed", "mass", "deadrise", "lcg"), CASES, ids=lambda v: f"{v:g}")
def test_resistance_and_trim_agree_with_openplaning(speed, mass, deadrise, lcg):
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        boat = PlaningBoat(
            speed,
            mass * G_M_S2,
            1.2,
            lcg,
            0.3,
            1.0,
            deadrise,
            0,
            0.3,
            0,
            ahr=0,
            rho=1026.0,
            nu=1.19e-6,
            g=G_M_S2,
            wetted_lengths_type=2,
        )
        boat.get_steady_trim()
    ours = savitsky(speed, mass, 1.2, deadrise, lcg, roughness=0)
    assert float(ours.resistance_n) == pytest.approx(
        float(boat.hydrodynamic_force[0] + boat.skin_friction[0]), rel=0.02
    )
    assert float(ours.trim_deg) == pytest.approx(float(boat.tau), abs=0.15)


def test_there_are_at_least_sixty_cases():
    assert len(CASES) >= 60


# Savitsky 1964: 60 000 lb, beam 14 ft, deadrise 10°, LCG 29 ft, 40 kn; trim 2.3° from memory
def test_the_papers_example():
    p = savitsky(40 * 0.514444, 60000 * 0.45359237, 14 * 0.3048, 10, 29 * 0.3048, vcg_m=2 * 0.3048)
    assert float(p.trim_deg) == pytest.approx(2.3, abs=0.2)
    assert 0.13 < float(p.resistance_n) / (60000 * 4.4482216) < 0.18


def test_whisker_spray_drags_at_low_trim_and_deep_v_alone():
    """Savitsky, DeLorme and Datla 2007: it falls with trim, rises with deadrise, none on a flat."""
    ratios = spray_ratio(np.array([2.0, 3.0, 4.0, 6.0]), 20.0)
    assert (np.diff(ratios) < 0).all() and 0.1 < ratios[-1] < ratios[0] < 1.0
    assert float(spray_ratio(4.0, 25.0)) > float(spray_ratio(4.0, 15.0)) > 0
    assert float(spray_ratio(4.0, 0.0)) == float(spray_ratio(12.0, 10.0)) == 0


def test_spray_and_mean_bottom_velocity_grow_with_speed_to_a_fifth():
    v = np.array([8.0, 11.0, 14.0])
    bare, wet = (savitsky(v, 900.0, 1.6, 18.0, 1.8, 0.4, spray=s).resistance_n for s in (0, 1))
    assert (np.abs(wet / bare - 1) < 0.25).all() and (np.diff(wet / bare) > 0).all()


def test_what_lies_outside_the_formulas_is_told():
    light = savitsky([20.0], 120.0, 1.3, 5.0, 1.2, 0.3)
    usual = savitsky([10.0], 900.0, 1.6, 18.0, 1.8, 0.4)
    assert not light.within[0] and usual.within[0]
