"""What one run of a test came to, by whatever way it was read, with what is wrong with it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from fenwick.core.bench.trials.by_hand import BULK_SD, flow_share_by_pitch, volume_by_ruler
from fenwick.core.bench.trials.plan import (
    AFTER,
    BEFORE,
    CARRY,
    DEPTHS,
    DROP,
    FORCE,
    LEAK,
    LOOK,
    MASSES,
    PITCH,
    RULER,
    SHEET,
    SUCTION,
    WAYS,
    Plan,
)
from fenwick.core.bench.trials.separation import DOUBT, SLIP, MassRun, Recovered, Scale, run_found
from fenwick.core.components.bins import Bin
from fenwick.core.formulas.metrology import difference_sd, resolution_sd

GRADES = (0, 5)  #: of a look: clean to black
#: faults that keep a run apart, whatever its figures
IMPOSSIBLE = frozenset(
    {"missing", "negative", "nothing", "more-out", "deeper", "no-bin", "no-density", "above-sealed", "pitch-order"}
)


@dataclass(frozen=True)
class RunOutcome:
    """One run's figure in the unit of its way."""

    value: float | None  #: None: there is none, and `faults` says why
    sd: float  #: by the instrument alone
    faults: tuple[str, ...] = ()
    found: Recovered | None = None  #: of a test by mass

    @property
    def counts(self) -> bool:
        """Whether it may be averaged with others."""
        return self.value is not None and not IMPOSSIBLE & set(self.faults)


Values = Mapping[str, float]


def scales(plan: Plan) -> tuple[Scale, Scale]:
    """(for the bin, for what gets past) as they are used."""
    setup = plan.setup
    return Scale(setup.bin_step, setup.repeat_sd), Scale(setup.past_step, setup.repeat_sd)


def run_outcome(plan: Plan, values: Values, bin_: Bin | None = None, density: float | None = None) -> RunOutcome:
    """The outcome of a run.

    Parameters
    ----------
    plan : of the test
    values : what was read, by the keys of its way's asks; SI
    bin_, density : its profile, and the dust's bulk density [kg/m^3], for a ruler; None: there is none, not known
    """
    missing = [ask.key for ask in WAYS[plan.way].asks if ask.needed and ask.key not in values]
    if missing:
        return RunOutcome(None, 0.0, ("missing",))
    if plan.way == RULER:
        return _ruler(plan, values, bin_, density)
    return _BY_WAY[plan.way](plan, values)


def _masses(plan: Plan, values: Values) -> RunOutcome:
    def gained(thing: str) -> float | None:
        pair = values.get(f"{thing}_{AFTER}"), values.get(f"{thing}_{BEFORE}")
        return None if pair[0] is None or pair[1] is None else pair[0] - pair[1]

    kept, past = gained("bin") or 0.0, gained("past") or 0.0
    fed = values.get("fed_feed")
    found = run_found(MassRun(fed, kept, past, gained("hose")), *scales(plan))
    value = found.share if np.isfinite(found.share) else None
    faults = (*found.faults, *_fed_faults(plan, fed))
    return RunOutcome(value, found.sd if value is not None else 0.0, faults, found)


def _fed_faults(plan: Plan, fed: float | None) -> tuple[str, ...]:
    """Whether what was fed is not what was to be fed; it counts all the same, as the share is of what was fed."""
    near = plan.fed_within + plan.setup.bin_step
    return ("fed-otherwise",) if fed is not None and abs(fed - plan.fed) > near else ()


def _ruler(plan: Plan, values: Values, bin_: Bin | None, density: float | None) -> RunOutcome:
    """Share of the feed that lies in the bin: by volume out of a measure, or by mass and its bulk density.

    Neither is surer than how it packs: in the bin it need not lie as it lay in the measure.
    """
    if bin_ is None:
        return RunOutcome(None, 0.0, ("no-bin",))
    fed = values.get("fed_volume")
    if fed is None:
        weighed = values.get("fed_feed")
        if weighed is None:
            return RunOutcome(None, 0.0, ("missing",))
        if density is None:
            return RunOutcome(None, 0.0, ("no-density",))
        fed = weighed / density
    if fed <= 0.0:
        return RunOutcome(None, 0.0, ("nothing",))
    free = {stage: [values[f"free_{stage}_{i}"] for i in range(1, DEPTHS + 1)] for stage in (BEFORE, AFTER)}
    if max(free[BEFORE]) > bin_.height or min(free[BEFORE] + free[AFTER]) < 0.0:
        return RunOutcome(None, 0.0, ("deeper",))
    before, after = (volume_by_ruler(bin_, free[stage], plan.setup.ruler_step) for stage in (BEFORE, AFTER))
    share = (after.value - before.value) / fed
    sd = float(np.hypot(np.hypot(before.sd, after.sd) / fed, BULK_SD * share))
    if share < -DOUBT * sd:
        return RunOutcome(share, sd, ("negative",))
    faults = ("more-out",) if share - DOUBT * sd > 1.0 else ()
    return RunOutcome(float(np.clip(share, 0.0, 1.0)), sd, faults)


def _suction(plan: Plan, values: Values) -> RunOutcome:
    read = [values[f"suction_{i}"] for i in range(1, 4) if f"suction_{i}" in values]
    sd = max(float(resolution_sd(plan.setup.gauge_step)), float(np.std(read, ddof=1)) if len(read) > 1 else 0.0)
    return _above_nothing(float(np.mean(read)), sd / float(np.sqrt(len(read))))


def _drop(plan: Plan, values: Values) -> RunOutcome:
    sd = float(difference_sd(plan.setup.gauge_step))
    drop = values["behind_hose"] - values["before_hose"]
    return RunOutcome(drop, sd, ("negative",) if drop < -SLIP * sd else ())


def _leak(plan: Plan, values: Values) -> RunOutcome:
    """Suction that leaks take from a line shut by hand."""
    sd = float(difference_sd(plan.setup.gauge_step))
    lost = values["sealed"] - values["shut"]
    return RunOutcome(lost, sd, ("above-sealed",) if lost < -SLIP * sd else ())


def _sheet(plan: Plan, values: Values) -> RunOutcome:
    squares = plan.setup.squares
    share = values["squares_hit"] / squares
    if share > 1.0:
        return RunOutcome(None, 0.0, ("more-out",))
    # counted squares of a sheet, half a square of doubt at least
    return _above_nothing(share, max(float(np.sqrt(share * (1.0 - share) / squares)), 0.5 / squares))


def _look(_: Plan, values: Values) -> RunOutcome:
    grade = values["grade"]
    if grade not in range(GRADES[0], GRADES[1] + 1):
        return RunOutcome(None, 0.0, ("grade",))
    return RunOutcome(grade, 0.0)


def _pitch(_: Plan, values: Values) -> RunOutcome:
    found = flow_share_by_pitch(values["pitch_open"], values["pitch_shut"], values["pitch_now"])
    return RunOutcome(None, 0.0, ("pitch-order",)) if found is None else RunOutcome(found.value, found.sd)


def _force(plan: Plan, values: Values) -> RunOutcome:
    return _above_nothing(values["force"], float(resolution_sd(plan.setup.force_step)))


def _carry(plan: Plan, values: Values) -> RunOutcome:
    sd = float(difference_sd(plan.setup.past_step, plan.setup.repeat_sd))
    gained = values[f"cloth_{AFTER}"] - values[f"cloth_{BEFORE}"]
    if gained < -SLIP * sd:
        return RunOutcome(gained, sd, ("negative",))
    if gained - DOUBT * sd > values["fed_feed"]:
        return RunOutcome(gained, sd, ("more-out",))
    return RunOutcome(max(gained, 0.0), sd, ("coarse",) if gained < plan.setup.past_step else ())


def _log(_: Plan, values: Values) -> RunOutcome:
    """Dust over the baseline while cutting; how far the monitor rattles comes with it."""
    return RunOutcome(values["log"], values.get("log_sd", 0.0))


def _above_nothing(value: float, sd: float) -> RunOutcome:
    return RunOutcome(value, sd, ("negative",) if value < 0.0 else ())


_BY_WAY: dict[str, Callable[[Plan, Values], RunOutcome]] = {
    MASSES: _masses,
    SUCTION: _suction,
    DROP: _drop,
    LEAK: _leak,
    SHEET: _sheet,
    LOOK: _look,
    PITCH: _pitch,
    FORCE: _force,
    CARRY: _carry,
    "monitor": _log,
}
