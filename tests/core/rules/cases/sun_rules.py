"""Cases of core/rules/sun_rules.py , beside the day's sun (wiring_rules)."""

from dataclasses import replace

from jolvek.core.electric.netlist import Plan
from jolvek.core.electric.sun_chain import SunChain, SunController
from tests.core.rules.cases.made import fit

TRACKER = SunController(20, 100, 12, 48, ("lfp", "agm"), name="T")
# 25.6 V of LFP charges at 29.2 V: two of 18.6 V in a row lift it
PANELS = SunChain(2, 22.5, 18.6, TRACKER, 400.0)


def panels(tracker=TRACKER, **more):
    chain = replace(PANELS, controller=tracker, **more)
    return fit(plan=Plan(solar_w=400.0, sun=chain))


CASES = {
    "sun-controller-none": (lambda c: panels(c), (TRACKER,), (None,)),
    "sun-bank": (
        lambda volts: panels(replace(TRACKER, bank_min_v=volts[0], bank_max_v=volts[1])),
        ((12, 24), (24, 24), (24, 48), (28.4, 48)),
        ((12, 12), (12, 23.2), (36, 48), (28.5, 48)),
    ),
    "sun-chemistry": (
        lambda c: panels(replace(TRACKER, chemistries=c)),
        (("lfp",),),
        (("agm", "nmc"),),
    ),
    "sun-window": (
        lambda v: panels(replace(TRACKER, input_max_v=v)),
        (50.41, 150),
        (50.39, 30),
    ),
    "sun-volts-dangerous": (
        lambda v: panels(replace(TRACKER, input_max_v=200), open_v=v),
        (22.5, 26.7),
        (26.9, 60),
    ),
    "sun-low": (lambda n: panels(panels=n), (2, 4), (1,)),
    "sun-volts-unknown": (lambda v: panels(open_v=v), (22.5,), (None,)),
    "sun-amps": (
        lambda w: fit(plan=Plan(solar_w=w, sun=replace(PANELS, rated_w=w))),
        (200, 460),
        (461, 1000),
    ),
}
