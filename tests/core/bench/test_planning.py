"""What to test: with what one has got, for the minutes there are; what is weighed out, and what would answer it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from bench.soak.owners import BUCKET, is_named, owners, read_of
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.bench.trials.amount import MASSES_OUT, PACES, amount_to_feed, seconds_to_feed
from fenwick.core.bench.trials.expect import Expected
from fenwick.core.bench.trials.foresight import by_instrument, by_scatter, foresee, one_run
from fenwick.core.bench.trials.judge import Lies
from fenwick.core.bench.trials.plan import CATCHES, KINDS, LOOK, MASSES, WAYS, Plan, Setup
from fenwick.core.bench.trials.planning import GOALS, MOST_RUNS, Owned, best_of_each, has_for, proposals
from fenwick.core.bench.trials.steps import fed_by_clock, steps
from fenwick.core.bench.trials.usual import LEAST_WORTH, MOST_WORTH, worth_knowing
from fenwick.core.components.bins import Bin
from fenwick.core.rules import rule

KEPT = Plan("separation", MASSES)
ALL = Owned(scale_step=1e-3, fine_step=1e-4, gauge_step=50.0, force_step=0.5, monitor=True)
OWNED = st.builds(
    Owned,
    scale_step=st.none() | st.sampled_from([1e-3, 5e-3]),
    scale_most=st.sampled_from([0.2, 3.0, 15.0]),
    fine_step=st.none() | st.just(1e-4),
    gauge_step=st.none() | st.sampled_from([10.0, 500.0]),
    force_step=st.none() | st.just(0.5),
    ruler=st.booleans(),
    monitor=st.booleans(),
    phone=st.booleans(),
    minutes=st.floats(1.0, 600.0),
)


def expects(share: float = 0.9, suction: float = 3e3):  # type: ignore[no-untyped-def]
    """What a model expects of every plan."""

    def said(plan: Plan) -> list[Expected | None]:
        value = share if WAYS[plan.way].quantity == "share" else suction
        known = plan.way in (MASSES, "ruler", "suction", "drop", "leak")
        return [Expected(value, 0.8 * value, value) if known else None for _ in plan.variants]

    return said


def asked(goal: str, owned: Owned, share: float = 0.9) -> list:  # type: ignore[type-arg]
    """The tests that are proposed."""
    compares = KINDS[GOALS[goal][0]].compares
    first = Plan("separation", MASSES, ("a", "b") if compares else ("as it is",), station="link")
    return proposals(goal, owned, first, expects(share), [BUCKET, BUCKET])


@pytest.mark.parametrize("seed", range(3))
def test_the_best_test_is_named_for_nine_owners_in_ten(seed: int) -> None:
    """As the tests really come out, run by run with what the instruments show; a hundred of them are soaked."""
    named = [is_named(owner, seed) for owner in owners(10, 500 + seed)]
    assert sum(named) >= 8


@given(goal=st.sampled_from(sorted(GOALS)), owned=OWNED, share=st.floats(0.0, 0.9999))
def test_nothing_is_proposed_that_one_has_not_got_or_has_no_time_for(goal: str, owned: Owned, share: float) -> None:
    found = asked(goal, owned, share)
    for one in found:
        plan = one.plan
        assert has_for(plan.way, owned)
        assert plan.kind in GOALS[goal]
        assert 1 <= plan.repeats <= MOST_RUNS
        assert not one.answers or plan.minutes <= owned.minutes
        assert not one.answers or (one.reach is not None and one.reach <= plan.hoped)
        if plan.way == MASSES:
            heaviest = rule("test.weighs-bin").value + plan.fed
            assert heaviest <= max(owned.scale_most, owned.fine_most if owned.fine_step else 0.0) + 1e-9
    answers = [one.answers for one in found]
    assert answers == sorted(answers, reverse=True)
    times = [one.plan.minutes for one in found if one.answers]
    assert times == sorted(times)


def test_with_more_time_and_finer_steps_more_is_answered() -> None:
    for goal in GOALS:
        short, long = asked(goal, replace(ALL, minutes=30.0)), asked(goal, replace(ALL, minutes=400.0))
        assert sum(one.answers for one in short) <= sum(one.answers for one in long)
    coarse = asked("builds", replace(ALL, fine_step=None, scale_step=0.02, minutes=300.0), 0.97)
    fine = asked("builds", replace(ALL, minutes=300.0), 0.97)
    assert fine[0].answers
    assert not coarse[0].answers or coarse[0].plan.fed > fine[0].plan.fed


def test_a_vacuum_is_not_put_on_a_scale_that_does_not_carry_it() -> None:
    small, large = (asked("kept", replace(ALL, scale_most=most)) for most in (4.0, 15.0))
    assert "vacuum" not in {one.plan.setup.catch for one in small if one.plan.way == MASSES}
    assert {one.plan.setup.catch for one in large if one.plan.way == MASSES} == set(CATCHES)
    way, like = best_of_each(large)[0]
    assert way.plan.way == MASSES
    assert set(like) < set(CATCHES)
    assert len({(one.plan.kind, one.plan.way) for one, _ in best_of_each(large)}) == len(best_of_each(large))


def test_by_eye_one_state_is_told_nothing_of_how_much() -> None:
    found = asked("kept", Owned(ruler=False))
    assert [one.plan.way for one in found] == [LOOK]
    assert not found[0].answers
    assert found[0].tells == 0.0
    assert asked("builds", Owned(ruler=False))[0].tells > 0.0


@pytest.mark.parametrize("share", [0.5, 0.9, 0.99, 0.999])
@pytest.mark.parametrize("step", [1e-4, 1e-3, 5e-3])
def test_so_much_is_weighed_out_that_the_scale_no_longer_rules(share: float, step: float) -> None:
    plan = replace(KEPT, setup=Setup(bin_step=step, past_step=step))
    fed = amount_to_feed(plan, share, BUCKET)
    own, scatter = by_instrument(plan, share, fed), by_scatter(plan, share)
    assert own is not None
    assert fed in MASSES_OUT
    assert own <= 0.34 * scatter or fed == max(one for one in MASSES_OUT if one <= 2.0)
    finer = amount_to_feed(replace(plan, setup=Setup(bin_step=0.1 * step, past_step=0.1 * step)), share, BUCKET)
    assert finer <= fed


def test_no_more_is_fed_than_the_bin_or_the_scale_can_take() -> None:
    coarse = replace(KEPT, setup=Setup(bin_step=0.02, past_step=0.02))
    small = Lies(Bin((0.0, 0.1), (0.1, 0.1), fill_height=0.0), 260.0)
    assert amount_to_feed(coarse, 0.99, BUCKET, 0.25) <= 0.25
    assert amount_to_feed(coarse, 0.99, small) <= amount_to_feed(coarse, 0.99, BUCKET)
    assert amount_to_feed(coarse, 0.99, Lies()) <= rule("test.feed-most").value
    assert amount_to_feed(coarse, 0.99, BUCKET, 0.0) > 0.0  # nothing can be weighed: then the least, never nothing
    assert amount_to_feed(KEPT, None, BUCKET) == 0.5


@given(fed=st.floats(0.0, 10.0))
def test_the_clock_to_feed_by_grows_with_what_is_fed(fed: float) -> None:
    assert seconds_to_feed(fed) in PACES
    assert seconds_to_feed(fed) <= seconds_to_feed(fed + 0.5)


def test_the_clock_must_have_run_where_dust_is_fed_and_nowhere_else() -> None:
    keys = [step.key for step in steps(KEPT)]
    feed = keys.index("feed")
    assert not fed_by_clock(KEPT, feed, 0.0)
    assert not fed_by_clock(KEPT, feed, 0.79 * KEPT.feed_seconds)
    assert fed_by_clock(KEPT, feed, KEPT.feed_seconds)
    assert all(fed_by_clock(KEPT, i, 0.0) for i in range(len(keys)) if i != feed)


@given(share=st.floats(0.0, 1.0))
def test_what_is_worth_knowing_is_a_part_of_what_gets_past(share: float) -> None:
    worth = worth_knowing(MASSES, share)
    assert LEAST_WORTH <= worth <= MOST_WORTH
    assert worth_knowing(MASSES, min(share + 0.05, 1.0)) <= worth
    assert worth_knowing(MASSES) == rule("test.worth-share").value


def test_of_two_states_the_scatter_is_that_of_both() -> None:
    plan = Plan("builds", MASSES, ("a", "b"), hoped=0.05)
    alike, better = (foresee(plan, 0.8, other=other).one for other in (0.8, 0.99))
    assert alike == one_run(plan, 0.8)
    assert better is not None
    assert alike is not None
    assert better < alike
    assert foresee(plan, 0.8).one == pytest.approx(foresee(plan, 0.8, other=0.85).one)


@pytest.mark.parametrize("way", sorted(set(WAYS) - {LOOK}))
def test_every_way_can_be_read_by_a_simulated_owner(way: str) -> None:
    kind = next(kind for kind in KINDS.values() if way in kind.ways)
    read = read_of(Plan(kind.key, way), 0.5, np.random.default_rng(1))
    needed = {ask.key for ask in WAYS[way].asks if ask.needed}
    assert needed <= set(read) | {"fed_feed", "fed_volume"}
