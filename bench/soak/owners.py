"""Simulated owners: whether the test that Fenwick proposes is the one that answers soonest when it is really made."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.bench.trials.expect import Expected
from fenwick.core.bench.trials.foresight import by_scatter
from fenwick.core.bench.trials.judge import Judged, Lies, Run, judge
from fenwick.core.bench.trials.plan import KINDS, MASSES, PITCH, RULER, SHEET, WAYS, Plan
from fenwick.core.bench.trials.planning import (
    GOALS,
    MOST_RUNS,
    Owned,
    Proposal,
    equipped,
    fitted,
    has_for,
    proposals,
)
from fenwick.core.bench.trials.usual import usual_outcome
from fenwick.core.components.bins import Bin

OFTEN = 0.8  #: of the tests made, that must show it
SURE = 0.95  #: of single runs, that must come as near as is worth knowing
ABOUT = 0.06  #: of that share, within which two tests are as good as each other
COUNT = 60  #: how often each test is made
BUCKET = Lies(Bin((0.0, 0.4), (0.30, 0.33), fill_height=0.0), 260.0)


@dataclass(frozen=True)
class Owner:
    """Somebody with a question."""

    goal: str
    owned: Owned
    value: float  #: that is true of the first state, in the unit of masses [-]
    suction: float  #: likewise of a gauge [Pa]

    def expects(self, plan: Plan) -> list[Expected | None]:
        """What the model expects of every state; an owner's model is right."""
        mean = self.truth(plan)
        return [Expected(mean, 0.8 * mean, min(1.2 * mean, 0.999) if mean < 1.0 else 1.2 * mean) for _ in plan.variants]

    def truth(self, plan: Plan) -> float:
        """What the first state comes to, in the unit of a plan's outcome."""
        if plan.way in (MASSES, RULER):
            return self.value
        return usual_outcome(plan.way) or self.suction


def owners(count: int, seed: int) -> Iterator[Owner]:
    """So many of them, each with a question, tools and time of their own."""
    rng = np.random.default_rng(seed)
    goals = ("kept", "builds", "lean", "changed", "hoses", "blocked", "leaks", "hood", "air", "dry", "holds")
    for _ in range(count):
        owned = Owned(
            scale_step=_pick(rng, (None, 1e-3, 1e-3, 2e-3, 5e-3)),
            scale_most=_pick(rng, (3.0, 5.0, 15.0)) or 5.0,
            fine_step=_pick(rng, (None, None, 1e-4, 1e-5)),
            gauge_step=_pick(rng, (None, 10.0, 50.0, 100.0, 500.0)),
            force_step=_pick(rng, (None, 0.5, 2.0)),
            ruler=bool(rng.random() < 0.8),
            monitor=bool(rng.random() < 0.3),
            phone=bool(rng.random() < 0.8),
            minutes=float(rng.choice([30.0, 60.0, 120.0, 240.0])),
        )
        kept = float(1.0 - np.exp(rng.uniform(np.log(0.01), np.log(0.45))))
        yield Owner(str(rng.choice(goals)), owned, kept, float(rng.uniform(500.0, 9000.0)))


def _pick(rng: np.random.Generator, choices: tuple[float | None, ...]) -> float | None:
    return choices[int(rng.integers(len(choices)))]


def is_named(owner: Owner, seed: int) -> bool:
    """Whether the test that is proposed first is the one that answers soonest, or as good as it."""
    first = Plan("separation", MASSES, ("a", "b") if _compares(owner.goal) else ("as it is",), station="link")
    found = proposals(owner.goal, owner.owned, first, owner.expects, [BUCKET, BUCKET])
    tried = list(_every(owner, first))
    rng = np.random.default_rng(seed)
    made = [(one, _minutes(one.plan, owner, rng)) for one in tried]
    soonest = min((minutes for _, minutes in made if minutes is not None), default=None)
    if not found:
        return not made
    best = found[0]
    if soonest is None:
        return not best.answers or _rate(best.plan, owner, rng) >= OFTEN - ABOUT
    named = next(m for one, m in made if _same(one.plan, best.plan))
    return best.answers and named is not None and named <= soonest * (1.0 + 1e-9) + _a_run(best.plan)


def _compares(goal: str) -> bool:
    return KINDS[GOALS[goal][0]].compares


def _every(owner: Owner, first: Plan) -> Iterator[Proposal]:
    for kind in GOALS[owner.goal]:
        for way in KINDS[kind].ways:
            if has_for(way, owner.owned):
                for plan in equipped(replace(first, kind=kind), way, owner.owned):
                    yield fitted(plan, owner.owned, owner.expects, [BUCKET, BUCKET])


def _same(one: Plan, other: Plan) -> bool:
    return (one.kind, one.way, one.setup.catch) == (other.kind, other.way, other.setup.catch)


def _a_run(plan: Plan) -> float:
    """One run more or less is within what so few simulated tests can tell."""
    return plan.minutes / plan.repeats


def _minutes(plan: Plan, owner: Owner, rng: np.random.Generator) -> float | None:
    """The least time in which a test really answers; None: not in the time there is."""
    if plan.way == "look":
        return None
    for repeats in range(2 if plan.compares else 1, MOST_RUNS + 1):
        tried = replace(plan, repeats=repeats)
        if tried.minutes > owner.owned.minutes:
            return None
        if _rate(tried, owner, rng) >= (OFTEN if repeats > 1 else SURE):
            return tried.minutes
    return None


def _rate(plan: Plan, owner: Owner, rng: np.random.Generator) -> float:
    """Of many such tests, the share that shows what is worth knowing."""
    shown = 0
    for _ in range(COUNT):
        better = WAYS[plan.way].better or 1
        truths = [max(owner.truth(plan) + better * plan.hoped * k, 0.0) for k in range(len(plan.variants))]
        if WAYS[plan.way].quantity == "share":
            truths = [min(one, 1.0) for one in truths]
        runs = [Run(k, read_of(plan, truth, rng)) for k, truth in enumerate(truths) for _ in range(plan.repeats)]
        shown += _answers(plan, judge(plan, runs, [BUCKET, BUCKET]), truths[0])
    return shown / COUNT


def _answers(plan: Plan, judged: Judged, truth: float) -> bool:
    """Of two states, whether the difference shows; of one, whether its figure is as sure as is worth knowing.

    A single run knows nothing of its scatter: whether it is as near as that is only known from outside.
    """
    if plan.compares:
        found = judged.against_first[0]
        return found is not None and found.verdict == "real"
    state = judged.states[0]
    if state is not None and plan.repeats == 1:
        return abs(state.mean - truth) <= plan.hoped
    if state is None or state.low is None or state.high is None:
        return False
    return 0.5 * (state.high - state.low) <= plan.hoped


def read_of(plan: Plan, truth: float, rng: np.random.Generator) -> dict[str, float]:
    """What is read in one run, as the instruments show it.

    Parameters
    ----------
    truth : what it comes to, in the unit of the outcome
    """
    came = truth + by_scatter(plan, truth) * rng.standard_normal() if plan.way not in (MASSES, RULER) else truth
    return _READ[plan.way](plan, came, rng)


def _stepped(value: float, step: float) -> float:
    return round(value / step) * step


def _masses(plan: Plan, share: float, rng: np.random.Generator) -> dict[str, float]:
    fed = plan.fed * (1.0 + 0.005 * rng.standard_normal())
    past = min(max((1.0 - share) * (1.0 + 0.15 * rng.standard_normal()), 0.0), 1.0) * fed
    setup = plan.setup
    before = {"bin_before": 2.1 + rng.random(), "past_before": 0.1 + rng.random()}
    after = {"bin_after": before["bin_before"] + fed - past, "past_after": before["past_before"] + past}
    steps = {"bin": setup.bin_step, "past": setup.past_step}
    said = {key: _stepped(mass, steps[key.split("_")[0]]) for key, mass in {**before, **after}.items()}
    return {**said, "fed_feed": _stepped(fed, setup.bin_step)}


def _ruler(plan: Plan, share: float, rng: np.random.Generator) -> dict[str, float]:
    bin_, density = BUCKET.bin, 260.0
    assert bin_ is not None
    lies = density * (1.0 + 0.2 * rng.standard_normal())
    depth = plan.fed * share / lies / float(bin_.area_at(0.05))
    said = {"fed_volume": plan.fed / density}
    for i in range(1, 5):
        said[f"free_before_{i}"] = _stepped(0.4, plan.setup.ruler_step)
        said[f"free_after_{i}"] = _stepped(0.4 - depth + 0.005 * rng.standard_normal(), plan.setup.ruler_step)
    return said


def _suction(plan: Plan, value: float, _: np.random.Generator) -> dict[str, float]:
    return {"suction_1": _stepped(value, plan.setup.gauge_step)}


def _drop(plan: Plan, value: float, _: np.random.Generator) -> dict[str, float]:
    step = plan.setup.gauge_step
    return {"before_hose": _stepped(2e3, step), "behind_hose": _stepped(2e3 + value, step)}


def _leak(plan: Plan, value: float, _: np.random.Generator) -> dict[str, float]:
    step = plan.setup.gauge_step
    return {"sealed": _stepped(16e3, step), "shut": _stepped(16e3 - value, step)}


def _sheet(plan: Plan, share: float, _: np.random.Generator) -> dict[str, float]:
    return {"squares_hit": float(round(min(max(share, 0.0), 1.0) * plan.setup.squares))}


def _force(plan: Plan, value: float, _: np.random.Generator) -> dict[str, float]:
    return {"force": _stepped(max(value, 0.0), plan.setup.force_step)}


def _carry(plan: Plan, value: float, _: np.random.Generator) -> dict[str, float]:
    step = plan.setup.past_step
    return {"cloth_before": _stepped(0.1, step), "cloth_after": _stepped(0.1 + max(value, 0.0), step), "fed_feed": 0.1}


def _monitor(_: Plan, value: float, _rng: np.random.Generator) -> dict[str, float]:
    return {"log": max(value, 0.0)}


def _pitch(_: Plan, share: float, rng: np.random.Generator) -> dict[str, float]:
    """The pitch rises by a fifth from open to shut; a share of the flow lies so far between."""
    told = min(max(share + 0.15 * rng.standard_normal(), 0.0), 1.0)
    return {"pitch_open": 400.0, "pitch_shut": 480.0, "pitch_now": 480.0 - 80.0 * told}


_READ: dict[str, Callable[[Plan, float, np.random.Generator], dict[str, float]]] = {
    MASSES: _masses,
    RULER: _ruler,
    "suction": _suction,
    "drop": _drop,
    "leak": _leak,
    SHEET: _sheet,
    "force": _force,
    "carry": _carry,
    "monitor": _monitor,
    PITCH: _pitch,
    "look": lambda _plan, _value, _rng: {"grade": 3.0},
}


def best_named(count: int, seed: int = 20261129) -> int:
    """Of so many owners, for how many the best test is proposed first."""
    return sum(is_named(owner, seed + i) for i, owner in enumerate(owners(count, seed)))
