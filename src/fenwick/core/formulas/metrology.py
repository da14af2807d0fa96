"""Uncertainty of readings, after the Guide to the Expression of Uncertainty in Measurement (JCGM 100:2008)."""

from __future__ import annotations

import numpy as np
from scipy import stats

from fenwick.core.arrays import Array, Values


def resolution_sd(resolution: Values) -> Array:
    """Standard uncertainty of one reading of an instrument that shows steps of `resolution` [its unit]: a/√12.

    Parameters
    ----------
    resolution : a, the step that is shown [the instrument's unit]
    """
    return np.asarray(np.asarray(resolution) / np.sqrt(12.0))


def difference_sd(resolution: Values, repeat_sd: Values = 0.0) -> Array:
    """Standard uncertainty of a mass weighed before and after [kg].

    Parameters
    ----------
    resolution : step of the scale [kg]
    repeat_sd : by which the same weighing scatters [kg]
    """
    return np.asarray(np.sqrt(2.0 * resolution_sd(resolution) ** 2 + 2.0 * np.square(repeat_sd)))


def separation_share(kept: Values, past: Values) -> Array:
    """Share kept [-]: kept/(kept + past), masses in [kg].

    Parameters
    ----------
    kept : found in the bin [kg]
    past : found behind it [kg]
    """
    return np.asarray(np.asarray(kept) / (np.asarray(kept) + past))


def separation_sd(kept: Values, past: Values, kept_sd: Values, past_sd: Values) -> Array:
    """Standard uncertainty of the share kept [-], by the law of propagation; masses and their uncertainties in [kg].

    Parameters
    ----------
    kept : found in the bin [kg]
    past : found behind it [kg]
    kept_sd : standard uncertainty of `kept` [kg]
    past_sd : standard uncertainty of `past` [kg]
    """
    total = np.square(np.asarray(kept) + past)
    return np.asarray(np.hypot(past * np.asarray(kept_sd) / total, kept * np.asarray(past_sd) / total))


def closure(kept: Values, past: Values, held: Values, fed: Values) -> Array:
    """What was found again of what was fed [-]: (kept + past + held in the hose)/fed, masses in [kg].

    Parameters
    ----------
    kept : found in the bin [kg]
    past : found behind it [kg]
    held : left in the hose [kg]
    fed : put in [kg]
    """
    return np.asarray((np.asarray(kept) + past + held) / fed)


def student(probability: float, freedom: Values) -> Array:
    """Half-width of a central interval of Student's t, in standard uncertainties [-].

    Parameters
    ----------
    probability : that the interval holds the truth [-]
    freedom : degrees of freedom [-]
    """
    return np.asarray(stats.t.ppf(0.5 + 0.5 * probability, freedom))


def welch_freedom(var_a: Values, n_a: Values, var_b: Values, n_b: Values) -> Array:
    """Degrees of freedom of the difference of two means [-] (Welch–Satterthwaite); variances in the reading's unit².

    Parameters
    ----------
    var_a : variance of one value of the first [reading's unit²]
    n_a : values of the first [-]
    var_b : variance of one value of the second [reading's unit²]
    n_b : values of the second [-]
    """
    a, b = np.asarray(var_a) / n_a, np.asarray(var_b) / n_b
    spread = np.square(a) / (np.asarray(n_a) - 1.0) + np.square(b) / (np.asarray(n_b) - 1.0)
    return np.asarray(np.square(a + b) / np.maximum(spread, 1e-300))


def smallest_difference(sd: Values, n: Values, sure: float = 0.95, power: float = 0.8) -> Array:
    """Least difference of two means that n repeats each would show [unit of sd].

    Parameters
    ----------
    sd : by which one run scatters, in the reading's unit
    n : repeats of each, at least 2 [-]
    sure : that nothing is called real that is not [-]
    power : that what is real is called so [-]
    """
    freedom = 2.0 * (np.asarray(n, dtype=float) - 1.0)
    reach = student(sure, freedom) + stats.t.ppf(power, freedom)
    return np.asarray(reach * np.asarray(sd) * np.sqrt(2.0 / np.asarray(n, dtype=float)))


def repeats_needed(sd: float, difference: float, sure: float = 0.95, most: int = 50) -> int | None:
    """Repeats of each that would show a difference [-]; None where even `most` would not. Both in the same [unit].

    Parameters
    ----------
    sd : of a single run [unit]
    difference : to be shown [unit]
    sure : wanted probability of being right [-]
    most : repeats that anyone would make [-]
    """
    counts = np.arange(2.0, most + 1.0)
    enough = counts[smallest_difference(sd, counts, sure) <= abs(difference)]
    return int(enough[0]) if enough.size else None


def decay_fit(time: Array, value: Array) -> tuple[float, float]:
    """(rate, its standard uncertainty) of an exponential decay [1/s], by a straight line through ln(value).

    Parameters
    ----------
    time : at least three [s]
    value : above the background and above 0, any unit
    """
    fitted = stats.linregress(time, np.log(value))
    return -float(fitted.slope), float(fitted.stderr)
