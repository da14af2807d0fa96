"""What the model expects a test to find, in the unit of its outcome."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.bench.trials.plan import DROP, LEAK, MASSES, RULER, SUCTION, Plan
from fenwick.core.bench.trials.summary import Summary
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.doubt.uncertainty import WITHIN, Draws, vary
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import batches, tuned
from fenwick.core.tuning.fit import REACH
from fenwick.core.tuning.readings import BLOCKED, KEPT, SEALED, Reading, expected
from fenwick.core.tuning.readings import SUCTION as ON_WALL
from fenwick.core.tuning.told import drawn_factor

SLOT_RANGE, HALVINGS = (0.05, 20.0), 24  #: of a factor on what slots give back [-]
LEAST_SD = 1e-9  #: that a reading can have; SI
DRAWS, SEED = 200, 20  #: of a run, each followed over its filling


@dataclass(frozen=True)
class Expected:
    """What the model expects of a state."""

    value: float  #: of the line as it stands
    low: float  #: 5 % of the draws lie below
    high: float  #: 5 % of the draws lie above

    @property
    def sd(self) -> float:
        """Its standard deviation, as if the draws were normal."""
        return (self.high - self.low) / (2.0 * REACH)


def state_line(line: Line, plan: Plan, variant: int) -> Line:
    """A state's line as it stands for its runs: leaning, and fed what the plan says.

    Parameters
    ----------
    line : of the state, as described or as tuned
    variant : the state's place in the plan [-]
    """
    lean = plan.condition(variant).lean
    if lean is None or not line.separators:
        return line
    first = line.separators[0]
    return replace(line, trunk=tuple(first.changed(tilt=lean) if part is first else part for part in line.trunk))


def expected_outcome(line: Line, plan: Plan, stations: Sequence[str] = (), variant: int = 0) -> float | None:
    """Outcome of a state as its line stands; None where the model cannot say.

    Parameters
    ----------
    line : of the state, as described or as tuned; a single variant
    plan : of the test
    stations : ids of the places where suction can be read, in the order of the air
    variant : the state's place in the plan [-]
    """
    found = _outcomes(state_line(line, plan, variant), plan, stations, variant)
    return None if found is None else float(found[0])


def drawn_outcomes(
    line: Line, plan: Plan, stations: Sequence[str] = (), variant: int = 0, draws: int = DRAWS
) -> Array | None:
    """The same as it stands, then drawn, shape (1 + draws,); None where the model cannot say.

    The same chances are drawn of every state, so that two can be told apart draw by draw.

    Parameters
    ----------
    line, plan, stations : as above
    variant : the state's place in the plan [-]
    draws : how many [-]
    """
    varied = vary(state_line(line, plan, variant), draws, SEED)
    drawn = varied.line
    if plan.way not in (MASSES, RULER) and batches(drawn):  # suction follows the fan, which no band of dust draws
        drawn = tuned(drawn, {"fan": drawn_factor(drawn, "fan", draws, SEED)})
    return _outcomes(drawn, plan, stations, variant, varied.models)


def expected_band(drawn: Array) -> Expected:
    """What the model expects, of what it comes to as it stands and drawn.

    Parameters
    ----------
    drawn : the outcome, shape (1 + draws,) [its unit]
    """
    tail = (1.0 - WITHIN) / 2.0
    low, high = np.quantile(drawn[1:] if drawn.size > 1 else drawn, [tail, 1.0 - tail])
    return Expected(float(drawn[0]), float(low), float(high))


def _outcomes(
    line: Line, plan: Plan, stations: Sequence[str], variant: int, models: Draws | None = None
) -> Array | None:
    needed = _readings(plan, stations, variant)
    if not needed:
        return None
    said = expected(line, needed, models)
    found = said[0] - said[1] if len(needed) == 2 else said[0]
    return found if np.all(np.isfinite(found)) else None


def _readings(plan: Plan, stations: Sequence[str], variant: int) -> list[Reading]:
    """One reading, or two of which the second is taken off the first."""
    match plan.way:
        case "masses" | "ruler":
            return [replace(kept_reading(plan, variant), value=0.0, sd=1.0)]
        case "suction" if plan.station:
            return [Reading(ON_WALL, 0.0, 1.0, plan.port, plan.station)]
        case "drop" if plan.station in stations and stations.index(plan.station) > 0:
            before = stations[stations.index(plan.station) - 1]
            return [Reading(ON_WALL, 0.0, 1.0, plan.port, place) for place in (plan.station, before)]
        case "leak" if stations:
            return [Reading(SEALED, 0.0, 1.0), Reading(BLOCKED, 0.0, 1.0, plan.port, stations[-1])]
    return []


def kept_reading(plan: Plan, variant: int, value: float = 0.0, sd: float = 1.0) -> Reading:
    """What a state keeps, as a reading of its line: of what was fed, while its bin filled.

    Parameters
    ----------
    variant : the state's place in the plan [-]
    value, sd : as measured, with its standard uncertainty [-]
    """
    dust = plan.condition(variant).dust or plan.dust
    return Reading(KEPT, value, sd, plan.port, dust=dust, fed=plan.fed, level=plan.begins(variant))


def readings_of_test(
    plan: Plan, stations: Sequence[str], state: Summary, values: Sequence[Mapping[str, float]], variant: int = 0
) -> list[Reading]:
    """A test's outcome as readings that the line can be tuned to; none where the model has no word for it.

    Parameters
    ----------
    plan, stations : of the test, and the places where suction can be read
    state : the one that is the line as it is
    values : of its runs that count, by the keys of the way's asks; SI
    variant : its place in the plan [-]
    """

    def mean(key: str) -> float:
        return float(np.mean([one[key] for one in values]))

    sd = max(state.sd, LEAST_SD)
    if plan.way in (MASSES, RULER):
        return [kept_reading(plan, variant, state.mean, sd)]
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


def slot_factor(line: Line, plan: Plan, kept: float, variant: int = 0) -> float | None:
    """Factor on what the slots of the first stage give back at which a run keeps what it did [-].

    What a slot's number and start do is not modelled: a test of them tells it for this line.

    Parameters
    ----------
    line : with such a factor of 1
    plan : of a test that weighs or measures what is kept
    kept : share of what was fed, as measured [-]
    variant : the state's place in the plan [-]

    Returns
    -------
    None without a slotted disc, where the model cannot say, or where no factor within `SLOT_RANGE` brings it there.
    """
    if not line.stages or not isinstance(line.stages[0], SlottedDisc) or plan.way not in (MASSES, RULER):
        return None

    def too_much(factor: float) -> float | None:
        said = expected_outcome(tuned(line, {"slot": factor}), plan, (), variant)
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
