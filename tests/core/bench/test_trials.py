"""Tests planned and judged: order, steps, outcomes of every way, what is kept apart, and verdicts that hold."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise, product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.bench.trials.budget import budget
from fenwick.core.bench.trials.compare import CANNOT_SHOW, NOT_SHOWN, REAL, Comparison, compare
from fenwick.core.bench.trials.expect import expected_outcome, readings_of_test
from fenwick.core.bench.trials.foresight import SharePair, foresee, one_run
from fenwick.core.bench.trials.judge import Run, better, judge
from fenwick.core.bench.trials.order import run_order
from fenwick.core.bench.trials.outcome import run_outcome
from fenwick.core.bench.trials.plan import KINDS, WAYS, Plan, Setup
from fenwick.core.bench.trials.ranks import Ranked, compare_ranks, fewest
from fenwick.core.bench.trials.steps import steps
from fenwick.core.bench.trials.summary import dry, nearly_all, summary
from fenwick.core.components.bins import Bin
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

BOX = Bin((0.0, 0.4), (0.36, 0.36))
MASSES = Plan("separation", "masses")
GOOD = {"bin_before": 2.0, "past_before": 7.0, "fed_feed": 0.1, "bin_after": 2.09, "past_after": 7.01}


def weighed(kept: float, past: float, fed: float = 0.1) -> dict[str, float]:
    """A run's masses [kg]."""
    return {**GOOD, "bin_after": 2.0 + kept, "past_after": 7.0 + past, "fed_feed": fed}


@given(st.integers(1, 4), st.integers(1, 12), st.integers(0, 10_000))
def test_every_state_comes_once_in_every_block_and_the_same_lot_gives_the_same_order(
    variants: int, repeats: int, seed: int
) -> None:
    order = run_order(variants, repeats, seed)
    assert order == run_order(variants, repeats, seed)
    for block in range(repeats):
        assert sorted(order[block * variants : (block + 1) * variants]) == list(range(variants))


def test_the_order_is_drawn_and_not_always_the_same() -> None:
    assert len({run_order(2, 6, seed) for seed in range(30)}) > 10


@pytest.mark.parametrize(("kind", "way"), [(k.key, way) for k in KINDS.values() for way in k.ways])
def test_every_test_asks_for_all_that_its_way_needs_and_begins_by_setting_back(kind: str, way: str) -> None:
    walked = steps(Plan(kind, way))
    assert walked[0].key == "reset"
    assert walked[-1].key == "look"
    assert [ask for step in walked for ask in step.asks] == list(WAYS[way].asks)
    assert KINDS[kind].resets
    if way in ("leak",):
        shut = [step for step in walked if step.key in ("sealed", "shut")]
        cooled = [walked[walked.index(step) + 1].key for step in shut]
        assert all(step.seconds is not None and step.seconds <= 5.0 for step in shut)
        assert cooled == ["cool", "cool"]


def test_a_run_by_mass_is_what_stayed_of_what_was_found() -> None:
    found = run_outcome(MASSES, GOOD)
    assert found.value == pytest.approx(0.9)  # hand: 90/(90 + 10)
    # hand: √(10² + 90²)·√2·(1/√12)/100² of 1 g steps
    assert found.sd == pytest.approx(np.hypot(10, 90) * np.sqrt(2 / 12) / 100**2, rel=1e-6)
    assert found.found is not None
    assert found.found.closes == pytest.approx(1.0)


@pytest.mark.parametrize(
    ("plan", "values", "fault"),
    [
        (MASSES, weighed(0.09, 0.06), "more-out"),
        (MASSES, weighed(-0.03, 0.01), "negative"),
        (MASSES, weighed(0.0, 0.0), "nothing"),
        (MASSES, {"bin_before": 2.0}, "missing"),
        (Plan("leak", "leak"), {"sealed": 12e3, "shut": 14e3}, "above-sealed"),
        (Plan("hose", "pitch"), {"pitch_open": 300.0, "pitch_shut": 200.0, "pitch_now": 250.0}, "pitch-order"),
        (Plan("hood", "sheet"), {"squares_hit": 140.0}, "more-out"),
        (Plan("wet", "carry"), {"cloth_before": 0.1, "cloth_after": 0.05, "fed_feed": 1.0}, "negative"),
        (Plan("wet", "carry"), {"cloth_before": 0.1, "cloth_after": 2.0, "fed_feed": 1.0}, "more-out"),
        (Plan("separation", "look"), {"grade": 7.0}, "grade"),
    ],
)
def test_what_cannot_be_is_kept_apart(plan: Plan, values: dict[str, float], fault: str) -> None:
    found = run_outcome(plan, values)
    assert fault in found.faults
    assert not found.counts
    sound = [Run(0, GOOD)] * 2 if plan is MASSES else []
    judged = judge(plan, [*sound, Run(0, values)])
    assert judged.counted[-1] is False
    if sound:
        assert judged.states[0] is not None
        assert judged.states[0].mean == pytest.approx(0.9)
    else:
        assert judged.states == (None,)


def ruled(rise: float, fed: float = 2e-3, tilt: float = 0.0) -> dict[str, float]:
    """Depths at four points of a bin that filled by `rise` [m]."""
    lie = (-tilt, tilt, tilt, -tilt)
    before = {f"free_before_{i + 1}": 0.30 + lie[i] for i in range(4)}
    return {**before, **{f"free_after_{i + 1}": 0.30 - rise + lie[i] for i in range(4)}, "fed_volume": fed}


def test_a_ruler_gives_a_share_with_a_wide_interval() -> None:
    area = np.pi / 4 * 0.36**2
    found = run_outcome(Plan("separation", "ruler"), ruled(0.015), BOX)
    assert found.value == pytest.approx(area * 0.015 / 2e-3, rel=1e-6)
    assert found.sd > 0.2 * found.value  # how it packs is not known to better
    rough = run_outcome(Plan("separation", "ruler"), ruled(0.015, tilt=0.02), BOX)
    assert rough.sd > found.sd
    assert run_outcome(Plan("separation", "ruler"), ruled(0.015), None).faults == ("no-bin",)
    assert "more-out" in run_outcome(Plan("separation", "ruler"), ruled(0.06), BOX).faults
    assert run_outcome(Plan("separation", "ruler"), {**ruled(0.01), "free_before_1": 0.7}, BOX).faults == ("deeper",)


def test_spoilt_and_unfinished_runs_do_not_count() -> None:
    runs = [
        Run(0, weighed(0.09, 0.01)),
        Run(0, weighed(0.05, 0.05), spoilt="lid open"),
        Run(0, weighed(0.05, 0.05), done=False),
    ]
    judged = judge(MASSES, runs)
    assert judged.counted == (True, False, False)
    assert judged.states[0] is not None
    assert judged.states[0].mean == pytest.approx(0.9)
    assert judged.states[0].scatter is None


def test_two_states_far_apart_are_real_and_two_alike_are_not() -> None:
    plan = replace(MASSES, kind="tilt", variants=("upright", "leaning"), hoped=0.02)
    far = [Run(0, weighed(0.090 + d, 0.010 - d)) for d in (0.0, 1e-3, 2e-3)]
    far += [Run(1, weighed(0.070 + d, 0.030 - d)) for d in (0.0, 1e-3, 2e-3)]
    found = judge(plan, far).against_first[0]
    assert isinstance(found, Comparison)
    assert (found.verdict, round(found.difference, 3)) == (REAL, -0.2)
    alike = judge(plan, [Run(k, weighed(0.09, 0.01)) for k in (0, 1, 0, 1)]).against_first[0]
    assert isinstance(alike, Comparison)
    assert alike.verdict in (NOT_SHOWN, CANNOT_SHOW)
    assert judge(plan, far[:4]).against_first[0] is None  # one run of the second


def test_of_several_states_each_must_be_the_surer() -> None:
    plan = replace(MASSES, kind="dust", variants=("a", "b", "c", "d"), hoped=0.02)
    runs = [
        Run(k, weighed(0.090 + d - 0.002 * k, 0.010 - d + 0.002 * k)) for k, d in product(range(4), (0.0, 2e-3, 4e-3))
    ]
    two = judge(replace(plan, variants=("a", "b")), [run for run in runs if run.variant < 2]).against_first[0]
    four = judge(plan, runs).against_first
    assert isinstance(two, Comparison)
    assert isinstance(four[0], Comparison)
    assert four[0].high - four[0].low > two.high - two.low
    assert len(four) == 3


def test_grades_are_compared_by_rank_and_too_few_of_them_show_nothing() -> None:
    assert fewest() == 4  # hand: 2/C(8, 4) = 2.9 %, 2/C(6, 3) = 10 %
    few = compare_ranks([1, 1, 1], [5, 5, 5])
    enough = compare_ranks([1, 1, 2, 1], [4, 5, 4, 3])
    same = compare_ranks([2] * 5, [2] * 5)
    assert few is not None
    assert enough is not None
    assert same is not None
    assert (few.verdict, enough.verdict, same.verdict) == (CANNOT_SHOW, REAL, NOT_SHOWN)
    assert enough.chance == pytest.approx(2 / 70)  # hand: the two most extreme of C(8, 4)
    assert enough.higher == 1.0
    assert compare_ranks([3], [1, 2]) is None


def test_grades_alike_are_seldom_called_real() -> None:
    rng = np.random.default_rng(5)
    found = [compare_ranks(list(rng.integers(0, 6, 5)), list(rng.integers(0, 6, 5))) for _ in range(400)]
    assert sum(one is not None and one.verdict == REAL for one in found) <= 0.06 * 400


def test_a_look_is_judged_by_rank() -> None:
    plan = Plan("slot", "look", ("before", "after"))
    runs = [Run(k, {"grade": float(g)}) for k, g in ((0, 4), (0, 4), (0, 3), (0, 5), (1, 1), (1, 2), (1, 1), (1, 1))]
    found = judge(plan, runs).against_first[0]
    assert isinstance(found, Ranked)
    assert found.verdict == REAL
    assert found.higher < 0.5


@given(st.lists(st.floats(0.0, 1.0), min_size=1, max_size=8), st.floats(1e-4, 0.1))
def test_an_interval_holds_its_mean_and_stays_within_what_can_be(values: list[float], sd: float) -> None:
    found = summary(values, [sd] * len(values), (0.0, 1.0))
    assert found is not None
    assert found.low is not None
    assert found.high is not None
    assert 0.0 <= found.low <= found.mean + 1e-12
    assert found.mean - 1e-12 <= found.high <= 1.0
    assert found.sd >= found.by_instrument
    assert summary([], [], (0.0, 1.0)) is None


def test_what_a_plan_says_beforehand_is_what_simulated_tests_find() -> None:
    """The half-width foretold is the half-width met, over many tests with the usual scatter."""
    plan = replace(MASSES, repeats=4, setup=Setup(bin_step=1e-3, past_step=1e-3))
    foretold = foresee(plan, 0.9).half
    rng = np.random.default_rng(3)
    halves = []
    for _ in range(300):
        past = 0.01 * (1.0 + 0.15 * rng.standard_normal(4))
        noise = np.sqrt(2 / 12) * 1e-3 * rng.standard_normal((2, 4))
        runs = [Run(0, weighed(0.1 - p + a, p + b)) for p, a, b in zip(past, *noise, strict=True)]
        state = judge(plan, runs).states[0]
        assert state is not None
        halves.append(0.5 * (state.high - state.low))
    assert foretold is not None
    assert np.median(halves) == pytest.approx(foretold, rel=0.25)


def test_foresight_says_which_shares_cannot_be_told_apart() -> None:
    coarse = foresee(replace(MASSES, fed=0.02, repeats=1), 0.97)
    fine = foresee(replace(MASSES, fed=0.5, repeats=5, setup=Setup(1e-3, 1e-4)), 0.97)
    assert SharePair(0.95, 0.99, False) in coarse.pairs
    assert all(pair.can for pair in fine.pairs)
    ruler = foresee(replace(MASSES, way="ruler", fed=0.3), 0.9, BOX, 150.0)
    assert not any(pair.can for pair in ruler.pairs)
    assert foresee(Plan("pull-off", "force"), None).half is None
    assert foresee(Plan("slot", "look"), None).repeats == 4


@pytest.mark.parametrize("way", [way for way in WAYS if way not in ("look", "ruler")])
def test_more_repeats_and_finer_instruments_never_tell_less(way: str) -> None:
    kind = next(key for key, kind in KINDS.items() if way in kind.ways)
    value = 0.8 if WAYS[way].quantity == "share" else 1.0
    halves = [foresee(Plan(kind, way, repeats=n), value).half for n in (2, 3, 5, 9)]
    assert all(a is not None and b is not None and b < a for a, b in pairwise(halves))
    coarse = Plan(kind, way, setup=Setup(5e-3, 5e-3, 1e-3, 5e-3, 500.0, 5.0, 10))
    fine, rough = one_run(Plan(kind, way), value), one_run(coarse, value)
    assert fine is not None
    assert rough is not None
    assert fine <= rough


def test_what_the_model_expects_and_what_it_takes_as_readings() -> None:
    line = build_line(demo_rig("demo_cyclone"))
    places = ["hose-a", "hose-b", "sep", "link"]
    kept = expected_outcome(line, replace(MASSES, port="drum-sander"), places)
    assert kept is not None
    assert 0.3 < kept < 1.0
    leak = expected_outcome(line, Plan("leak", "leak", port="drum-sander"), places)
    drop = expected_outcome(line, Plan("blockage", "drop", port="drum-sander", station="link"), places)
    assert leak is not None
    assert leak > 0.0  # a leaking line shut by hand never reaches what the vacuum alone does
    assert drop is not None
    assert drop > 0.0
    assert expected_outcome(line, Plan("pull-off", "force"), places) is None
    state = summary([900.0, 940.0], [40.0, 40.0], (0.0, 1e5))
    assert state is not None
    runs = [{"sealed": 16e3 + d, "shut": 15.1e3 + d} for d in (-20.0, 20.0)]
    found = readings_of_test(Plan("leak", "leak"), places, state, runs)
    assert [(one.kind, one.station, one.value) for one in found] == [("sealed", "", 16e3), ("blocked", "link", 15.1e3)]
    assert readings_of_test(Plan("pull-off", "force"), places, state, runs) == []


def test_each_mass_is_held_against_its_own_scale() -> None:
    plan = replace(MASSES, setup=Setup(bin_step=5e-3, past_step=1e-4))
    assert "negative" not in run_outcome(plan, weighed(-0.005, 0.01)).faults  # one step of the bin's scale
    assert "negative" in run_outcome(plan, weighed(0.09, -0.005)).faults  # fifty steps of the other


def test_one_run_of_each_is_foreseen_to_show_nothing_as_it_is_judged() -> None:
    plan = replace(MASSES, kind="tilt", variants=("upright", "leaning"), repeats=1, setup=Setup(1e-4, 1e-4))
    found = foresee(plan, 0.9)
    assert found.smallest is None
    assert not any(pair.can for pair in found.pairs)
    assert judge(plan, [Run(0, GOOD), Run(1, weighed(0.05, 0.05))]).against_first == (None,)


def test_several_states_need_more_repeats_than_two_as_they_are_judged() -> None:
    two = foresee(replace(MASSES, kind="dust", variants=("a", "b")), 0.9)
    four = foresee(replace(MASSES, kind="dust", variants=("a", "b", "c", "d")), 0.9)
    assert two.smallest is not None
    assert four.smallest is not None
    assert four.smallest > two.smallest
    assert two.repeats is not None
    assert four.repeats is not None
    assert four.repeats >= two.repeats


def test_where_nothing_is_known_of_the_doubt_no_interval_is_made_up() -> None:
    alone = summary([31e-9], [0.0], (0.0, np.inf))
    assert alone is not None
    assert (alone.low, alone.high) == (None, None)
    assert not nearly_all(alone)
    assert dry(alone) is None
    sure = compare([31.0, 31.0], [32.0, 32.0], 0.0, 5.0)
    assert sure is not None
    assert sure.verdict != REAL


def test_better_and_worse_follow_what_the_figure_means() -> None:
    shares = replace(MASSES, kind="tilt", variants=("a", "b"))
    up = judge(shares, [Run(k, weighed(0.07 + 0.02 * k + d, 0.03 - 0.02 * k - d)) for k in (0, 1) for d in (0.0, 1e-3)])
    found = up.against_first[0]
    assert found is not None
    assert better(shares, found) == 1
    squares = Plan("hood", "sheet", ("a", "b"))
    more = judge(squares, [Run(k, {"squares_hit": 20.0 + 40.0 * k + d}) for k in (0, 1) for d in (0.0, 1.0, 2.0)])
    assert more.against_first[0] is not None
    assert better(squares, more.against_first[0]) == -1


def test_a_weighed_feed_is_held_against_the_depth_by_its_bulk_density() -> None:
    plan = Plan("separation", "ruler")
    poured = run_outcome(plan, ruled(0.015), BOX)
    values = {key: value for key, value in ruled(0.015).items() if key != "fed_volume"}
    weighed = run_outcome(plan, {**values, "fed_feed": 2e-3 * 150.0}, BOX, 150.0)
    assert weighed.value == pytest.approx(poured.value)
    assert weighed.sd == pytest.approx(poured.sd)
    assert run_outcome(plan, {**values, "fed_feed": 0.3}, BOX).faults == ("no-density",)
    assert run_outcome(plan, values, BOX, 150.0).faults == ("missing",)


def test_the_budget_adds_up_to_the_instruments_part() -> None:
    plan = replace(MASSES, setup=Setup(bin_step=2e-3, past_step=1e-3))
    runs = [Run(0, weighed(0.090, 0.010)), Run(0, weighed(0.088, 0.012))]
    judged = judge(plan, runs)
    state = judged.states[0]
    assert state is not None
    sources = {one.key: one.sd for one in budget(plan, state, judged.outcomes, [dict(run.values) for run in runs])}
    assert np.hypot(sources["bin"], sources["past"]) == pytest.approx(state.by_instrument)
    assert sources["scatter"] == state.by_repeats
    assert sources["past"] > sources["bin"]  # of a good separator what gets past decides
    look = Plan("slot", "look", ("a", "b"))
    graded = judge(look, [Run(0, {"grade": 3.0})])
    assert graded.states[0] is not None
    assert budget(look, graded.states[0], graded.outcomes, [{"grade": 3.0}]) == []
