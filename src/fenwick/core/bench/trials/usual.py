"""What a plan begins as: instruments that each way needs, a difference worth knowing, and how often it is done."""

from __future__ import annotations

from fenwick.core.bench.trials.plan import KINDS, MASSES, PITCH, RULER, SHEET, WAYS, Plan
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


def worth_knowing(way: str) -> float:
    """The least difference of a way's outcome that is usually worth knowing, in that outcome's unit."""
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
