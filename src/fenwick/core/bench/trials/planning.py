"""Which test tells most for its minutes, of what one wants to know and with what one has got."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.bench.trials.amount import amount_to_feed, seconds_to_feed
from fenwick.core.bench.trials.expect import Expected
from fenwick.core.bench.trials.foresight import foresee, one_run
from fenwick.core.bench.trials.judge import Lies
from fenwick.core.bench.trials.plan import (
    CARRY,
    CATCHES,
    DROP,
    FORCE,
    KINDS,
    LEAK,
    LOOK,
    MASSES,
    MONITOR,
    PITCH,
    RULER,
    SHEET,
    SUCTION,
    WAYS,
    Plan,
)
from fenwick.core.bench.trials.usual import usual_outcome, usual_repeats, worth_knowing
from fenwick.core.rules import rule

#: what people want to know, and the kinds of test that tell it
GOALS: dict[str, tuple[str, ...]] = {
    "kept": ("separation",),
    "builds": ("builds",),
    "lean": ("tilt",),
    "full": ("fill",),
    "dusts": ("dust",),
    "changed": ("slot",),
    "hoses": ("hose",),
    "blocked": ("blockage",),
    "leaks": ("leak",),
    "tune": ("stations",),
    "hood": ("hood",),
    "air": ("air",),
    "dry": ("wet",),
    "holds": ("pull-off",),
}
MOST_RUNS = 10  #: of each state, that anybody makes
BY_EYE = 0.5  #: what grades of two states tell: which is darker, most of the time [bit]
LEAST_TIME, MOST_TIME = 1.0, 1440.0  #: that anybody gives a test [min]
EVENING = 120.0  #: that there is, unless one says otherwise [min]


@dataclass(frozen=True)
class Owned:
    """What one has got to measure with."""

    scale_step: float | None = None  #: of the kitchen scale [kg]; None: there is none
    scale_most: float = 5.0  #: that it carries [kg]
    fine_step: float | None = None  #: of a finer, smaller one [kg]
    fine_most: float = 0.5  #: that it carries [kg]
    gauge_step: float | None = None  #: of the gauge or the tube of water [Pa]; None: there is none
    force_step: float | None = None  #: of the hanging scale [N]
    ruler: bool = True
    monitor: bool = False
    phone: bool = True
    minutes: float = EVENING  #: that there are

    def scale_for(self, mass: float) -> float | None:
        """Step of the finest scale that carries so much [kg]; None: none does.

        Parameters
        ----------
        mass : that lies on it [kg]
        """
        scales = ((self.scale_step, self.scale_most), (self.fine_step, self.fine_most))
        return min((step for step, most in scales if step is not None and mass <= most), default=None)

    def carries(self, thing: float) -> float:
        """What can still be fed beside a thing that lies on a scale [kg].

        Parameters
        ----------
        thing : what it weighs alone [kg]
        """
        scales = ((self.scale_step, self.scale_most), (self.fine_step, self.fine_most))
        return max((most - thing for step, most in scales if step is not None), default=0.0)


@dataclass(frozen=True)
class Proposal:
    """A test that could be made."""

    plan: Plan
    answers: bool  #: whether it shows what is worth knowing, within the time there is
    tells: float  #: what is learned [bit]
    reach: float | None  #: the least difference it shows, or how near it comes; in the outcome's unit
    needed: int | None  #: runs of each that it would take where there is no time for them; None: more than can be


#: what the model expects of every state of a plan
Expecting = Callable[[Plan], Sequence[Expected | None]]


def proposals(goal: str, owned: Owned, first: Plan, expects: Expecting, lies: Sequence[Lies]) -> list[Proposal]:
    """The tests that tell it, the one that tells most for its minutes first.

    A test that answers is better than one that does not; of those that do the shortest is the best, of the others the
    one that tells most in every minute.

    Parameters
    ----------
    goal : of GOALS
    owned : to measure with, and the time there is
    first : a plan that has the states, the port and the place; its kind, way and instruments are changed
    expects : what the model expects of the states of a plan
    lies : where the dust of every state lies
    """
    found = []
    for kind in GOALS[goal]:
        for way in KINDS[kind].ways:
            if has_for(way, owned):
                found += [
                    fitted(plan, owned, expects, lies) for plan in equipped(replace(first, kind=kind), way, owned)
                ]
    return sorted(found, key=_worth)


def _worth(one: Proposal) -> tuple[bool, float, float, int]:
    minutes, tells = one.plan.minutes, round(one.tells, 1)
    simplest = CATCHES.index(one.plan.setup.catch)
    return (not one.answers, minutes if one.answers else -tells / minutes, -tells, simplest)


def best_of_each(found: Sequence[Proposal]) -> list[tuple[Proposal, tuple[str, ...]]]:
    """(the best of every way of reading, what else may be weighed just as well), by what they are worth."""
    best: dict[tuple[str, str], Proposal] = {}
    like: dict[tuple[str, str], list[str]] = {}
    for one in found:
        way = (one.plan.kind, one.plan.way)
        if way not in best:
            best[way], like[way] = one, []
        elif _worth(one)[:3] == _worth(best[way])[:3]:
            like[way].append(one.plan.setup.catch)
    return [(one, tuple(like[way])) for way, one in best.items()]


def has_for(way: str, owned: Owned) -> bool:
    """Whether one has got what a way of reading takes."""
    needs = {
        MASSES: owned.scale_step is not None,
        CARRY: owned.scale_step is not None or owned.fine_step is not None,
        RULER: owned.ruler,
        **dict.fromkeys((SUCTION, DROP, LEAK), owned.gauge_step is not None),
        MONITOR: owned.monitor,
        PITCH: owned.phone,
        FORCE: owned.force_step is not None,
    }
    return needs.get(way, way in (SHEET, LOOK))


def equipped(first: Plan, way: str, owned: Owned) -> Iterator[Plan]:
    """The plan with what one has got, once for each thing that can be weighed for what gets past."""
    plain = replace(first, way=way, hoped=worth_knowing(way), repeats=usual_repeats(way))
    setup = replace(
        plain.setup,
        gauge_step=owned.gauge_step or plain.setup.gauge_step,
        force_step=owned.force_step or plain.setup.force_step,
    )
    if way != MASSES:
        step = owned.scale_for(rule("test.weighs-cloth").value) or setup.past_step
        yield replace(plain, setup=replace(setup, past_step=step, bin_step=owned.scale_step or setup.bin_step))
        return
    bin_step = owned.scale_for(rule("test.weighs-bin").value + rule("test.feed-least").value)
    for catch in CATCHES:
        past_step = owned.scale_for(rule(f"test.weighs-{catch}").value + rule("test.feed-least").value)
        if bin_step is not None and past_step is not None:
            yield replace(plain, setup=replace(setup, bin_step=bin_step, past_step=past_step, catch=catch))


def fitted(plan: Plan, owned: Owned, expects: Expecting, lies: Sequence[Lies]) -> Proposal:
    """The plan with what is fed, and with as many runs as show what is worth knowing.

    Parameters
    ----------
    plan : with its instruments
    owned : for the time there is, and for what the scales carry
    expects, lies : as for `proposals`
    """
    expected = expects(plan)
    first = next((one for one in expected if one is not None), None)
    value = usual_outcome(plan.way) if first is None else first.value
    plan = replace(plan, hoped=worth_knowing(plan.way, value))
    there = lies[0] if lies else Lies()
    if WAYS[plan.way].feeds:
        things = [rule("test.weighs-bin").value, rule(f"test.weighs-{plan.setup.catch}").value]
        most = min(owned.carries(thing) for thing in things) if plan.way == MASSES else None
        fed = amount_to_feed(plan, value, there, most)
        plan = replace(plan, fed=fed, feed_seconds=seconds_to_feed(fed))
    if WAYS[plan.way].ordinal:
        needed = foresee(plan, value).repeats
        tells = BY_EYE if plan.compares else 0.0  # of one state a grade says nothing of how much is kept
        return Proposal(replace(plan, repeats=min(needed or plan.repeats, MOST_RUNS)), False, tells, None, needed)
    few, each = (2 if plan.compares else 1), plan.minutes / plan.repeats
    most_runs = int(np.clip(owned.minutes // each, few, MOST_RUNS))
    tried = [replace(plan, repeats=n) for n in range(few, most_runs + 1)]
    reached = [_reach(one, value, there) for one in tried]
    usual = min(max(usual_repeats(plan.way) - few, 0), len(tried) - 1)  # what cannot answer is not done ten times
    best = next((i for i, r in enumerate(reached) if r is not None and r <= plan.hoped), usual)
    reach = reached[best]
    answers = reach is not None and reach <= plan.hoped and tried[best].minutes <= owned.minutes
    needed = foresee(plan, value, there.bin, there.density).repeats if plan.compares else None
    return Proposal(tried[best], answers, _bits(tried[best], value, there, expected), reach, needed)


def _reach(plan: Plan, value: float | None, lies: Lies) -> float | None:
    """The least difference that a plan shows, or how near it comes to its figure; None: not known."""
    if value is None:
        return None
    found = foresee(plan, value, lies.bin, lies.density)
    return found.smallest if plan.compares else found.half


def _bits(plan: Plan, value: float | None, lies: Lies, expected: Sequence[Expected | None]) -> float:
    """What is learned of the figure, beside what the model believes of it before."""
    one = None if value is None else one_run(plan, value, lies.bin, lies.density)
    if one is None or one <= 0.0:
        return 0.0
    spreads = [each.sd for each in expected if each is not None]
    prior = max(max(spreads, default=0.0), plan.hoped)
    mean = one * float(np.sqrt((2.0 if plan.compares else 1.0) / plan.repeats))
    return 0.5 * float(np.log2(1.0 + (prior / mean) ** 2))
