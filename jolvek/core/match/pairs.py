"""Which motors and banks may be joined, rule by rule."""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Mask
from jolvek.core.match.banks import Supplies
from jolvek.core.match.motors import Motors
from jolvek.core.products.shelf import Shelf


def compatible(shelf: Shelf, m: Motors, s: Supplies) -> dict[str, Mask]:
    """Rule id → (M, B) array that is True where motor and supply pass it.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.match.banks import supplies
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> m = motors(sample(), 1026.0)
    >>> compatible(sample(), m, supplies(need, sample(), m))["voltage-high"].all().item()
    True
    """
    volts = s.nominal_v[None, :]
    watts = np.minimum(m.power_w[:, None], m.controller_a[:, None] * volts)
    ids = [item.id for item in shelf.batteries]
    locked = {pack for item in shelf.motors for pack in item.pack_ids}
    own = np.array(
        [
            [
                ids[b] in item.pack_ids if item.pack_ids else ids[b] not in locked
                for b in range(len(ids))
            ]
            for item in shelf.motors
        ],
        dtype=bool,
    ).reshape(len(shelf.motors), len(ids))
    single = (
        np.array([not item.pack_ids for item in shelf.motors], dtype=bool)[:, None]
        | (s.series * s.parallel == 1)[None, :]
    )
    return {
        "pack-own": (
            own[:, s.battery] & single if len(ids) else np.zeros((len(shelf.motors), 0), dtype=bool)
        ),
        "voltage-high": s.full_v[None, :] <= m.v_max[:, None] * (1 + 1e-9),
        "voltage-low": volts >= m.v_min[:, None] * (1 - 1e-9),
        "current-continuous": watts / volts <= s.continuous_a[None, :] * (1 + 1e-9),
    }
