"""What the model expects a test to find, in the unit of its outcome."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.bench.trials.plan import DROP, KINDS, LEAK, MASSES, RULER, SUCTION, Plan
from fenwick.core.bench.trials.summary import Summary
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import tuned
from fenwick.core.tuning.readings import BLOCKED, KEPT, SEALED, Reading, expected
from fenwick.core.tuning.readings import SUCTION as ON_WALL

FILLS, STEPS = 33, 40  #: heights of the dust looked at, and steps in which a run is followed
SLOT_RANGE, HALVINGS = (0.05, 20.0), 24  #: of a factor on what slots give back [-]
LEAST_SD = 1e-9  #: that a reading can have; SI


def expected_outcome(line: Line, plan: Plan, stations: Sequence[str] = ()) -> float | None:
    """Outcome of a single variant as it stands; None where the model cannot say.

    Parameters
    ----------
    line : as described or as tuned
    plan : of the test
    stations : ids of the places where suction can be read, in the order of the air
    """
    needed = _readings(plan, stations)
    if not needed:
        return None
    if plan.way in (MASSES, RULER):
        return _kept_of_run(line, plan, needed[0])
    said = expected(line, needed)[:, 0]
    if not np.all(np.isfinite(said)):
        return None
    return float(said[0] - said[1]) if len(needed) == 2 else float(said[0])


def _kept_of_run(line: Line, plan: Plan, reading: Reading) -> float | None:
    """Kept of what is fed in one run, while its bin fills [-]; None where the model cannot say.

    What is kept at every fill is worked out at once; then the run is followed over what it has been fed. The heap leans
    with the bin, so that a run may end with the dust at the outlet.
    """
    heights, volumes = _fills(line, plan)
    if heights is None:
        alone = expected(line, [reading])[0, 0]
        return float(alone) if np.isfinite(alone) else None
    stage = line.separators[0]
    filling = stage.changed(bin=replace(stage.bin, fill_height=heights))
    trunk = tuple(filling if part is stage else part for part in line.trunk)
    kept = expected(replace(line, trunk=trunk), [reading])[0]
    if not np.all(np.isfinite(kept)):
        return None
    dust = DUSTS[plan.dust] if plan.dust else line.dust
    assert dust is not None
    a_step = plan.fed / dust.bulk_density / STEPS if dust.bulk_density else 0.0  # of volume, if all of it were kept
    there, whole = float(volumes[0]), 0.0
    for _ in range(STEPS):
        middle = float(np.interp(there, volumes, kept))
        middle = float(np.interp(there + 0.5 * a_step * middle, volumes, kept))
        there, whole = there + a_step * middle, whole + middle
    return whole / STEPS


def _fills(line: Line, plan: Plan) -> tuple[Array | None, Array]:
    """Heights of the dust in the first bin from where a run begins up to its rim [m], and the volumes below them [m^3].

    None where there is no bin to fill, or how the dust lies is not known.
    """
    dust = DUSTS[plan.dust] if plan.dust else line.dust
    if not line.separators or line.stages[0] is not line.separators[0] or dust is None or not dust.bulk_density:
        return None, np.zeros(1)
    bin_ = line.separators[0].bin
    begins = 0.0 if "bin" in KINDS[plan.kind].resets else one_value(bin_.fill_height)
    heights = np.linspace(begins, bin_.height, FILLS)
    return heights, np.asarray(bin_.volume_to(heights))


def _readings(plan: Plan, stations: Sequence[str]) -> list[Reading]:
    """One reading, or two of which the second is taken off the first."""
    match plan.way:
        case "masses" | "ruler":
            return [Reading(KEPT, 0.0, 1.0, plan.port, dust=plan.dust)]
        case "suction" if plan.station:
            return [Reading(ON_WALL, 0.0, 1.0, plan.port, plan.station)]
        case "drop" if plan.station in stations and stations.index(plan.station) > 0:
            before = stations[stations.index(plan.station) - 1]
            return [Reading(ON_WALL, 0.0, 1.0, plan.port, place) for place in (plan.station, before)]
        case "leak" if stations:
            return [Reading(SEALED, 0.0, 1.0), Reading(BLOCKED, 0.0, 1.0, plan.port, stations[-1])]
    return []


def readings_of_test(
    plan: Plan, stations: Sequence[str], state: Summary, values: Sequence[Mapping[str, float]]
) -> list[Reading]:
    """A test's outcome as readings that the line can be tuned to; none where the model has no word for it.

    Parameters
    ----------
    plan, stations : of the test, and the places where suction can be read
    state : the one that is the line as it is
    values : of its runs that count, by the keys of the way's asks; SI
    """

    def mean(key: str) -> float:
        return float(np.mean([one[key] for one in values]))

    sd = max(state.sd, LEAST_SD)
    if plan.way in (MASSES, RULER):
        return [Reading(KEPT, state.mean, sd, plan.port, dust=plan.dust)]
    if plan.way == SUCTION and plan.station:
        return [Reading(ON_WALL, state.mean, sd, plan.port, plan.station)]
    if plan.way == DROP and plan.station in stations and stations.index(plan.station) > 0:
        before = stations[stations.index(plan.station) - 1]
        pair = ((before, mean("before_hose")), (plan.station, mean("behind_hose")))
        return [Reading(ON_WALL, value, sd, plan.port, place) for place, value in pair]
    if plan.way == LEAK and stations:
        return [
            Reading(SEALED, mean("sealed"), sd),
            Reading(BLOCKED, mean("shut"), sd, plan.port, stations[-1]),
        ]
    return []


def slot_factor(line: Line, plan: Plan, kept: float) -> float | None:
    """Factor on what the slots of the first stage give back at which a run keeps what it did [-].

    What a slot's number and start do is not modelled: a test of them tells it for this line.

    Parameters
    ----------
    line : with such a factor of 1
    plan : of a test that weighs or measures what is kept
    kept : share of what was fed, as measured [-]

    Returns
    -------
    None without a slotted disc, where the model cannot say, or where no factor within `SLOT_RANGE` brings it there.
    """
    if not line.stages or not isinstance(line.stages[0], SlottedDisc) or plan.way not in (MASSES, RULER):
        return None

    def too_much(factor: float) -> float | None:
        said = expected_outcome(tuned(line, {"slot": factor}), plan)
        return None if said is None else said - kept

    low, high = SLOT_RANGE
    ends = too_much(low), too_much(high)
    if ends[0] is None or ends[1] is None or ends[0] < 0.0 or ends[1] > 0.0:
        return None
    for _ in range(HALVINGS):
        middle = float(np.sqrt(low * high))
        over = too_much(middle)
        assert over is not None
        low, high = (middle, high) if over > 0.0 else (low, middle)
    return float(np.sqrt(low * high))
