"""What the model expects a test to find, in the unit of its outcome."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from fenwick.core.bench.trials.plan import DROP, LEAK, MASSES, RULER, SUCTION, Plan
from fenwick.core.bench.trials.summary import Summary
from fenwick.core.line.line import Line
from fenwick.core.tuning.readings import BLOCKED, KEPT, SEALED, Reading, expected
from fenwick.core.tuning.readings import SUCTION as ON_WALL

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
    said = expected(line, needed)[:, 0]
    if not np.all(np.isfinite(said)):
        return None
    return float(said[0] - said[1]) if len(needed) == 2 else float(said[0])


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
