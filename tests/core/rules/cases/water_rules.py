"""Cases of core/rules/water_rules.py."""

from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.products.motor import Motor
from tests.core.rules.cases.made import run

CASES = {
    "hull-does-not-plane": (
        lambda w: run(Motor(w, mass_kg=20), Hull("keelboat", 6, 2.2, 600)),
        (2000,),
        (60000,),
    ),
    "does-not-plane": (lambda w: run(Motor(w, mass_kg=20)), (9000,), (600, 2000)),
    "beyond-tried": (
        lambda w: run(Motor(w, mass_kg=20), Hull("canoe", 4.8, 0.9, 32), Load(1)),
        (1000,),
        (12000,),
    ),
    "beyond-planing": (
        lambda w: run(Motor(w, mass_kg=40), Hull("inflatable_air", 2.9, 1.55, 38), Load(1)),
        (1000, 4000, 9000),
        (20000, 40000),
    ),
    "pitch-bound": (
        lambda rpm: run(
            Motor(
                1200,
                mass_kg=14,
                propeller_diameter_m=0.26,
                propeller_pitch_m=0.15,
                propeller_rpm=rpm,
            )
        ),
        (2500,),
        (700,),
    ),
    "propeller-lugs": (
        lambda pitch: run(
            Motor(
                3000,
                mass_kg=20,
                propeller_diameter_m=0.29,
                propeller_pitch_m=pitch,
                propeller_rpm=2500,
            )
        ),
        (0.18, 0.24),
        (0.40,),
    ),
    "thrust-claim": (
        lambda n: run(Motor(2400, propeller_diameter_m=0.27, static_thrust_n=n)),
        (600, 629),
        (633, 711),
    ),
    "thrust-impossible": (
        lambda n: run(Motor(2400, propeller_diameter_m=0.27, static_thrust_n=n)),
        (711, 870),
        (900,),
    ),
    "life-jacket": (lambda w: run(Motor(w)), (), (500,)),
}
