"""What a plan begins as: instruments that each way needs, a difference worth knowing, and how often it is done."""

from __future__ import annotations

from math import radians

from fenwick.core.bench.trials.plan import (
    CARRY,
    FORCE,
    KINDS,
    MASSES,
    MONITOR,
    PITCH,
    RULER,
    SHEET,
    WAYS,
    Condition,
    Plan,
)
from fenwick.core.line.line import Line
from fenwick.core.rules import rule

#: figures of a plan and its instruments that each way needs besides how often it is done
NEEDS: dict[str, tuple[str, ...]] = {
    "masses": ("fed", "feed_seconds", "bin_step", "past_step", "repeat_sd"),
    "ruler": ("fed", "feed_seconds", "ruler_step"),
    "suction": ("gauge_step",),
    "drop": ("gauge_step",),
    "leak": ("gauge_step",),
    "sheet": ("squares",),
    "force": ("force_step",),
    "carry": ("fed", "feed_seconds", "past_step"),
}


LEAST_WORTH, MOST_WORTH = 0.001, 0.1  #: of a share that is kept, a difference worth knowing [-]
#: how the states of some kinds usually stand
USUAL_CONDITIONS: dict[str, tuple[Condition, ...]] = {
    "tilt": (Condition(), Condition(lean=radians(20.0))),
    "fill": (Condition(level=0.25), Condition(level=0.75)),
    "dust": (Condition(dust="saw"), Condition(dust="sanding-p120")),
}


def usual_outcome(way: str) -> float | None:
    """What a way's outcome comes to as a rule where the model has none, in its unit; None: nobody can say."""
    keys = {SHEET: "sheet", MONITOR: "air", FORCE: "force", CARRY: "carry", PITCH: "pitch"}
    return rule(f"test.usual-{keys[way]}").value if way in keys else None


def worth_knowing(way: str, expected: float | None = None) -> float:
    """The least difference of a way's outcome that is usually worth knowing, in that outcome's unit.

    Of a share that is kept it is a part of what gets past: from 98 to 99 % is half of what cakes a filter.

    Parameters
    ----------
    way : of reading
    expected : outcome that the model expects, in its unit; None where it cannot say
    """
    if way in (MASSES, RULER) and expected is not None:
        worth = rule("test.worth-past").value * (1.0 - expected)
        return float(f"{min(max(worth, LEAST_WORTH), MOST_WORTH):.1g}")
    if way in (SHEET, PITCH):
        return rule("test.worth-counted").value
    quantity = "share" if way in (MASSES, RULER) else WAYS[way].quantity
    return rule(f"test.worth-{quantity}").value


def usual_repeats(way: str) -> int:
    """Runs of each state that a test usually takes [-]: grades need more than figures."""
    return int(rule("test.repeats-graded" if WAYS[way].ordinal else "test.repeats").value)


def usual_plan(line: Line, kind: str, way: str, variants: tuple[str, ...], seed: int) -> Plan:
    """What a plan begins as.

    Parameters
    ----------
    line : it is made on; its first open port is fed
    kind, way : of KINDS, and one of its ways
    variants : what is set against what
    seed : of the order of its runs [-]

    Raises
    ------
    ValueError
        When the kind is not read in that way.
    """
    if way not in KINDS[kind].ways:
        raise ValueError(f"{kind} is not read by {way}")
    port = next((leaf.id for leaf in line.leaves if leaf.open), line.leaves[0].id if line.leaves else "")
    return Plan(kind, way, variants, usual_repeats(way), worth_knowing(way), port=port, seed=seed)
