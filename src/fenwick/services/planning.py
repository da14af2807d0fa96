"""What to test, from what one wants to know and what one has got."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from fenwick.core.bench.trials.expect import Expected, expected_band
from fenwick.core.bench.trials.plan import KINDS, Plan
from fenwick.core.bench.trials.planning import GOALS, Owned, Proposal, proposals
from fenwick.core.bench.trials.usual import USUAL_CONDITIONS, usual_plan
from fenwick.services.trials import TrialBench, Workbench
from fenwick.wording.trials import TEST_KINDS


def usual_lines(kind: str, here: int, shop: Sequence[tuple[int, str]]) -> Mapping[int, int]:
    """Which lines of the shop the states of a kind of test usually are: of builds this one and the next.

    Parameters
    ----------
    here : id of the line that it is planned on [-]
    shop : (id, name) of every line of the shop
    """
    if kind != "builds":
        return {}
    others = [number for number, _ in shop if number != here]
    return dict(enumerate([here, *others[:1]]))


def planned_for(goal: str, bench: Workbench, lines: Mapping[int, int], names: Mapping[int, str]) -> Plan:
    """A plan as a goal usually begins: its states, what they are called, and how they stand.

    Parameters
    ----------
    bench : the line that it is planned on
    lines : ids of the lines that the states are, by their places
    names : of the lines of the shop
    """
    kind = KINDS[GOALS[goal][0]]
    usual = TEST_KINDS[kind.key].states
    variants = tuple(names.get(lines[k], name) if k in lines else name for k, name in enumerate(usual))
    plan = usual_plan(bench.line, kind.key, kind.ways[0], variants, 0)
    station = bench.places[-1] if bench.places else ""
    return replace(plan, conditions=USUAL_CONDITIONS.get(kind.key, ()), station=station)


def proposed(goal: str, owned: Owned, trial: TrialBench) -> list[Proposal]:
    """The tests that tell it, the one that tells most for its minutes first.

    Parameters
    ----------
    goal : of GOALS
    owned : to measure with, and the time there is
    trial : a plan with its states' lines
    """
    known: dict[Plan, Sequence[Expected | None]] = {}

    def expects(plan: Plan) -> Sequence[Expected | None]:
        said = replace(plan, repeats=1, setup=trial.plan.setup, hoped=1.0)
        if said not in known:
            drawn = trial.with_plan(plan).drawn
            known[said] = [None if one is None else expected_band(one) for one in drawn]
        return known[said]

    return proposals(goal, owned, trial.plan, expects, [state.lies for state in trial.states])


@dataclass(frozen=True)
class Missing:
    """Something that one has not got, with which a goal would be answered, or anything told of it at all."""

    key: str  #: scale, fine, gauge, monitor or time
    minutes: float  #: that the test would then take [min]


def would_answer(goal: str, owned: Owned, trial: TrialBench) -> list[Missing]:
    """What would answer a goal that nothing one has got answers; the shortest test first.

    Parameters
    ----------
    goal, owned, trial : as above
    """
    found, nothing = [], not proposed(goal, owned, trial)
    for key, more in _with_more(owned):
        best = next(iter(proposed(goal, more, trial)), None)
        if best is not None and (best.answers or nothing):
            found.append(Missing(key, best.plan.minutes))
    return sorted(found, key=lambda one: one.minutes)


def _with_more(owned: Owned) -> Iterator[tuple[str, Owned]]:
    if owned.scale_step is None:
        yield "scale", replace(owned, scale_step=1e-3)
    if owned.fine_step is None:
        yield "fine", replace(owned, fine_step=1e-4, scale_step=owned.scale_step or 1e-3)
    if owned.gauge_step is None:
        yield "gauge", replace(owned, gauge_step=50.0)
    if not owned.monitor:
        yield "monitor", replace(owned, monitor=True)
    if owned.force_step is None:
        yield "force", replace(owned, force_step=0.5)
    yield "time", replace(owned, minutes=4.0 * owned.minutes)
