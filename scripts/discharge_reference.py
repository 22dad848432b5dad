"""Times and volts at constant power from pybamm, for tests/reference/test_discharge_reference.py.

Not part of the app or of its tests: run it in a venv of its own (`uv pip install pybamm`), and
write what it prints into the test. Single-particle model with electrolyte, 25 °C.
"""

from __future__ import annotations

import numpy as np
import pybamm

MODELS = {"lfp": ("Prada2013", 2.0), "nmc": ("Chen2020", 2.5)}
RATES = (0.1, 0.25, 0.5, 1.0)


def run(name: str, low_v: float, rate: float) -> tuple[float, float]:
    """Hours to the cut-off and mean volts, at a power in rated energies an hour."""
    values = pybamm.ParameterValues(name)
    model = pybamm.lithium_ion.SPMe({"operating mode": "power"})
    rated_wh = NOMINAL_V[name] * values["Nominal cell capacity [A.h]"]
    values.update(
        {"Power function [W]": rate * rated_wh, "Lower voltage cut-off [V]": low_v},
        check_already_exists=False,
    )
    found = pybamm.Simulation(model, parameter_values=values).solve([0, 3.0 * 3600 / rate])
    times, volts = found["Time [h]"].entries, found["Voltage [V]"].entries
    return float(times[-1]), float(np.trapezoid(volts, times) / times[-1])


NOMINAL_V = {"Prada2013": 3.2, "Chen2020": 3.63}

if __name__ == "__main__":
    for chem, (name, low_v) in MODELS.items():
        for rate in RATES:
            hours, volts = run(name, low_v, rate)
            print(f'("{chem}", {rate}, {hours:.4f}, {volts:.3f}),')
