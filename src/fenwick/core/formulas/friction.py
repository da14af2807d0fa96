"""Friction along a hose wall."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values

ROUGHEST = 0.5  #: of the bore [-]
LAMINAR, TURBULENT = 2000.0, 4000.0  #: Reynolds numbers between which the two laws are blended [-]


def friction_factor_colebrook(reynolds: Values, relative_roughness: Values) -> Array:
    """Darcy friction factor of a round duct [-].

    Parameters
    ----------
    reynolds : > 0 [-]
    relative_roughness : wall roughness over bore, 0 … 0.1 [-]; beyond `ROUGHEST`, where hardly any bore is left, it
        counts as that

    Returns
    -------
    Broadcast shape of both. 64/Re below 2000, Colebrook above 4000, blended linearly in log Re between, so that a
    solver never meets a step.

    Notes
    -----
    1/√f = −2 log10(ε/(3.7 D) + 2.51/(Re √f)), started from Haaland (1983) and closed with two Newton steps: within
    1e-6 of the implicit equation for Re 4e3 … 1e7.
    """
    re = np.maximum(reynolds, 1e-9)
    turbulent = np.maximum(re, LAMINAR)
    rough = np.minimum(relative_roughness, ROUGHEST) / 3.7
    y = -1.8 * np.log10(rough**1.11 + 6.9 / turbulent)  # y = 1/sqrt(f)
    b = 2.51 / turbulent
    for _ in range(2):
        inner = rough + b * y
        y = y - (y + 2.0 * np.log10(inner)) / (1.0 + 2.0 * b / (inner * np.log(10.0)))
    colebrook = 1.0 / (y * y)
    if np.all(re >= TURBULENT):
        return np.asarray(colebrook)
    share = np.clip(np.log(re / LAMINAR) / np.log(TURBULENT / LAMINAR), 0.0, 1.0)
    return np.asarray(share * colebrook + (1.0 - share) * 64.0 / re)
