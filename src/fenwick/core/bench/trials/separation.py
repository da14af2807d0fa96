"""A separation test by mass: what stayed in the bin of what went in, and what is wrong with the masses."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.formulas.metrology import closure, difference_sd, separation_sd, separation_share
from fenwick.core.rules import rule

#: of what was fed, what should be found again [-]
DOUBT = 2.0  #: standard uncertainties within which more out than in, or less, may still be the instrument's
SLIP = 3.0  #: the same of a single difference, which rounding alone can take past two
CLOSES = (rule("test.closes-least").value, rule("test.closes-most").value)


@dataclass(frozen=True)
class Scale:
    """A scale as it is used."""

    resolution: float  #: [kg]
    repeat_sd: float = 0.0  #: by which the same weighing scatters [kg]


@dataclass(frozen=True)
class MassRun:
    """One run; each mass is after less before [kg]. None where nobody weighed it."""

    fed: float | None
    kept: float  #: gained by the bin
    past: float  #: gained by filter, bag, tank or a weighed cloth
    held: float | None = None  #: gained by the hoses


@dataclass(frozen=True)
class Recovered:
    """One run's separation."""

    share: float  #: [-]
    sd: float  #: by the scale alone [-]
    closes: float | None  #: of what was fed, what was found again [-]
    closes_sd: float | None
    faults: tuple[str, ...]  #: more-out, less-out, negative, nothing, coarse


def run_found(run: MassRun, kept_scale: Scale, past_scale: Scale) -> Recovered:
    """One run's separation, with what is wrong with it."""
    kept_sd = float(difference_sd(kept_scale.resolution, kept_scale.repeat_sd))
    past_sd = float(difference_sd(past_scale.resolution, past_scale.repeat_sd))
    faults = _mass_faults(run, kept_sd, past_sd, past_scale)
    kept, past = max(run.kept, 0.0), max(run.past, 0.0)
    if kept + past <= 0.0:
        return Recovered(float("nan"), float("nan"), None, None, ("nothing", *faults))
    share = float(separation_share(kept, past))
    sd = float(separation_sd(kept, past, kept_sd, past_sd))
    closes = closes_sd = None
    if run.fed is not None and run.fed > 0.0:
        closes = float(closure(run.kept, run.past, run.held or 0.0, run.fed))
        closes_sd = float(np.hypot(kept_sd, past_sd)) / run.fed
        reach = DOUBT * closes_sd
        if closes - reach > CLOSES[1]:
            faults.append("more-out")
        if closes + reach < CLOSES[0]:
            faults.append("less-out")
    return Recovered(share, sd, closes, closes_sd, tuple(faults))


def _mass_faults(run: MassRun, kept_sd: float, past_sd: float, past_scale: Scale) -> list[str]:
    faults = []
    if run.kept < -SLIP * kept_sd or run.past < -SLIP * past_sd:
        faults.append("negative")
    if 0.0 <= run.past < past_scale.resolution:
        faults.append("coarse")
    return faults
