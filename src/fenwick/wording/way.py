"""The ways to a line that works, in words."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.judging.check import Check
from fenwick.core.search.way.count import WayCount
from fenwick.core.search.way.options import EVENING, WEEKEND, WayLimits
from fenwick.units.sentence import inside
from fenwick.wording.checks import check_sentence
from fenwick.wording.making.facts import duration
from fenwick.wording.making.names import TOOLS
from fenwick.wording.say import Voice

HOUR = 3600.0
WHOLE = 10.0  #: sums from here on are told without cents: they are rules of thumb
#: stretches of time that have a name [h]
TIMES = {EVENING: "an evening", WEEKEND: "a weekend"}
NOT_CONTAINED = (
    "No shop vacuum moves that much air, whatever is changed: a mask while it works and after, a room filter, or the "
    "job outdoors."
)
NOT_MENDED = "Nothing that was tried within these limits clears it."
WHY = {
    "headroom": "No change of hoses or separator makes room above it: another place does.",
    "full-weight": "It is emptied earlier, or carried by two.",
    "last-held": "It clears when the vacuum is emptied and that is said on Checks.",
    "switch": "No change of the line mends it: the circuit is for a licensed electrician.",
    "circuit": "No change of the line mends it: the circuit is for a licensed electrician.",
    "start-up": "No change of the line mends it: the circuit is for a licensed electrician.",
    "rewired": "It clears when an electrician has tested it and that is said on Checks.",
    "air-at-tool": "The line is blocked, shut or far too narrow there: look at that run first.",
}


def way_title(limits: WayLimits, sign: str) -> str:
    """What a way costs at most, as a heading."""
    if limits.cost is None and limits.hours is None:
        return "the best that can be had"
    if limits.cost == 0.0 and limits.hours in TIMES:
        return "free, this evening" if limits.hours == EVENING else f"free, {TIMES[limits.hours]}"
    spent = (
        "whatever it costs"
        if limits.cost is None
        else "free"
        if not limits.cost
        else f"for {sum_words(limits.cost, sign)}"
    )
    took = "however long" if limits.hours is None else TIMES.get(limits.hours) or duration(limits.hours * HOUR)
    return f"{spent}, {took}"


def sum_words(cost: float, sign: str) -> str:
    """A sum of money.

    Parameters
    ----------
    cost : in the shop's money [money]
    """
    return f"{cost:.0f} {sign}" if cost >= WHOLE or abs(cost - round(cost)) < 0.005 else f"{cost:.2f} {sign}"


def takes_words(cost: float, hours: float, sign: str) -> str:
    """What a step or a way takes: 8 €, 30 min.

    Parameters
    ----------
    cost : in the shop's money [money]
    hours : hands-on [h]
    """
    return f"{'free' if cost <= 0.0 else sum_words(cost, sign)}, {duration(hours * HOUR)}"


def moved_words(before: WayCount, after: WayCount) -> list[str]:
    """What a step or a way moves, over the week's work, the most important first; empty where nothing does."""
    told = [f"to act on {before.acts} → {after.acts}"] if before.acts != after.acts else []
    if not before.known:
        return told
    for words, was, now in (("lost", before.lost, after.lost), ("past the bin", before.past, after.past)):
        old, new = _of_100(was, before.made), _of_100(now, after.made)
        if old != new:
            told.append(f"{words} {old} → {new} g of 100")
    return told


def _of_100(mass: float, made: float) -> str:
    grams = 100.0 * mass / made if made > 0.0 else 0.0
    return f"{grams:.1f}" if grams < WHOLE else f"{grams:.0f}"


def left_sentences(
    acting: Sequence[Check], watching: Sequence[Check], lacking: Sequence[str], voice: Voice
) -> list[str]:
    """What stays wrong at the end of the furthest way, and why no change of a shop vacuum mends it."""
    said = [f"{check_sentence(check, voice)} {WHY.get(check.id, NOT_MENDED)}" for check in acting]
    fine = [check_sentence(check, voice).partition(". ")[0] for check in watching if check.id == "containment"]
    if fine:
        said.append(f"{'; '.join([fine[0], *(inside(one) for one in fine[1:])])}. {NOT_CONTAINED}")
    if lacking:
        tools = ", ".join(TOOLS.get(tool, tool) for tool in lacking)
        said.append(f"Left out for want of tools that the shop does not have: {tools}.")
    return said
