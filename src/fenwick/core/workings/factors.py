"""A factor tuned to readings: where least squares leave it."""

from __future__ import annotations

import numpy as np

from fenwick.core.tuning.factors import FACTORS, spreads
from fenwick.core.tuning.fit import KEYS, Fit
from fenwick.core.workings.sheet import MEASURED, Sheet, WorkedStep


def factor_step(sheet: Sheet, fitted: Fit, key: str) -> WorkedStep:
    """A factor at the fit.

    Parameters
    ----------
    key : of the factor
    """
    j = KEYS.index(key)
    used = [fitted.readings[i] for i in fitted.used]
    values, sds = np.array([r.value for r in used]), np.array([r.sd for r in used])
    with sheet.section("Readings"):
        read = sheet.given(
            "readings.value", "y_i", "What was read", values, "SI", MEASURED, "the readings of this line"
        )
        sure = sheet.given("readings.sd", "u_i", "Standard uncertainty of each reading", sds, "SI", MEASURED)
        said = sheet.published(
            "readings.said", "x_i", "What the line says at the fitted factors", fitted.after, "SI",
            "solved like the air at the tool"
        )  # fmt: skip
        over = fitted.slopes[:, j] * sds
        slope = sheet.published(
            f"readings.slope-{key}", "∂x/∂ln c", "How each of them goes with the factor's logarithm", over, "SI",
            "central differences over the solved line"
        )  # fmt: skip
        spread = sheet.published(
            f"prior.{key}", "σ", "Spread of its logarithm before anything is read", float(spreads(KEYS)[j]), "-",
            "our estimate"
        )  # fmt: skip
    with sheet.section(FACTORS[key].title):
        residual = (
            "(sum(g * (y - x) / u ** 2) - value / p ** 2) / (sqrt(sum(((y - x) / u) ** 2) * sum((g / u) ** 2)) + 1 / p)"
        )
        log = sheet.solved(
            f"{key}.log", "ln c", f"Logarithm of the factor: {FACTORS[key].title.lower()}", fitted.logs[j],
            residual, "-", "least squares with a log-normal prior", g=slope, y=read, x=said, u=sure, p=spread
        )  # fmt: skip
        return sheet.step(
            key, "c", f"{FACTORS[key].title}, against the line as described", "exp(l)", "-", "", MEASURED, l=log
        )
