"""What is said of a test: never surer than its runs allow, and in the units of who reads it."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.bench.trials.budget import DoubtSource
from fenwick.core.bench.trials.compare import CANNOT_SHOW, NOT_SHOWN, REAL, Comparison, compare
from fenwick.core.bench.trials.plan import LOOK, MASSES, SUCTION, Plan
from fenwick.core.bench.trials.ranks import Ranked, compare_ranks, fewest
from fenwick.core.bench.trials.summary import Summary, summary
from fenwick.data.demo import demo_rig
from fenwick.rig.voice import voice_for
from fenwick.units import INCH, METRIC
from fenwick.wording.results import (
    budget_words,
    dry_words,
    honest_words,
    state_words,
    verdict_words,
    whistle_words,
)

VOICE, IN_INCHES = voice_for(demo_rig(), METRIC), voice_for(demo_rig(), INCH)
KEPT = Plan("tilt", MASSES, ("upright", "leaning"))
HOSE = Plan("hose", SUCTION, ("old", "new"))
SEEN = Plan("tilt", LOOK, ("upright", "leaning"))
FOUND = Comparison(-0.06, -0.08, -0.04, -3.0, REAL, 0.02, None)


def told(found: Comparison | Ranked | None, plan: Plan = KEPT) -> str:
    """A state against the first."""
    return verdict_words(plan, found, "leaning", "upright", VOICE)


def test_a_real_difference_says_which_way_how_much_and_between_what() -> None:
    said = told(FOUND)
    assert "less than “upright”" in said
    assert "— worse" in said
    assert "between −" in said
    assert "3.0 times what runs scatter by" in said
    assert "— better" in told(replace(FOUND, difference=0.06, low=0.04, high=0.08, effect=3.0))


def test_where_runs_do_not_scatter_no_effect_is_told() -> None:
    assert "times what runs scatter by" not in told(replace(FOUND, effect=None))


@pytest.mark.parametrize("verdict", [NOT_SHOWN, CANNOT_SHOW])
def test_what_is_not_shown_is_never_called_better_or_worse(verdict: str) -> None:
    said = told(replace(FOUND, verdict=verdict, repeats=8))
    assert "it may be chance" in said
    assert "better" not in said
    assert "worse" not in said
    assert ("8 runs of each would show" in said) == (verdict == CANNOT_SHOW)


def test_without_two_runs_of_each_nothing_is_compared() -> None:
    assert "takes two runs of each" in told(None)


def test_grades_are_told_in_pairs_and_too_few_cannot_show_anything() -> None:
    few = compare_ranks([1.0, 1.0], [3.0, 3.0])
    assert few is not None
    assert f"{fewest()} of each are the least" in told(few, SEEN)
    many = compare_ranks([1.0] * 6, [3.0] * 6)
    assert many is not None
    assert "graded higher than “upright” in 100 of 100 pairs" in told(many, SEEN)
    alike = compare_ranks([1.0, 2.0, 3.0, 2.0, 1.0], [2.0, 1.0, 3.0, 2.0, 1.0])
    assert alike is not None
    assert "chance alone does as much in" in told(alike, SEEN)


def test_one_run_is_told_as_one_and_without_a_known_doubt_as_that() -> None:
    one = summary([0.76], [0.01], (0.0, 1.0))
    assert one is not None
    assert "one run: no scatter is known" in state_words(KEPT, one, 1, VOICE)
    bare = Summary(0.76, None, None, None, 0.0, None)
    assert "neither the instrument's doubt nor any scatter is known" in state_words(KEPT, bare, 1, VOICE)
    assert "(3 runs:" in state_words(KEPT, bare, 3, VOICE)


def test_an_interval_holds_its_mean_in_either_unit() -> None:
    state = summary([2400.0, 2450.0, 2500.0], [20.0] * 3, (0.0, 1e5))
    assert state is not None
    for voice in (VOICE, IN_INCHES):
        said = state_words(HOSE, state, 3, voice)
        mean, low, high = (float(found) for found in re.findall(r"\d+\.?\d*", said.replace("inH2O", ""))[:3])
        assert low <= mean <= high
    assert state_words(HOSE, state, 3, VOICE) != state_words(HOSE, state, 3, IN_INCHES)


def test_nearly_all_is_held_to_at_least_and_the_lungs_are_not_forgotten() -> None:
    runs = summary([0.995, 0.99, 0.992], [0.002] * 3, (0.0, 1.0))
    one = summary([0.995], [0.002], (0.0, 1.0))
    usual = summary([0.76, 0.77, 0.75], [0.005] * 3, (0.0, 1.0))
    assert runs is not None
    assert one is not None
    assert usual is not None
    assert "of what harms the lungs, far less may be kept" in honest_words(KEPT, runs, 3)
    assert "One run cannot carry" in honest_words(KEPT, one, 1)
    assert honest_words(KEPT, usual, 3) == ""
    assert honest_words(HOSE, runs, 3) == ""  # of suction nobody says “99 %”


def test_what_is_behind_a_wet_stage_is_dry_wet_or_not_told() -> None:
    state = Summary(0.0005, 0.0, 0.0008, None, 0.0001, None)
    assert dry_words(replace(state, high=0.0)).startswith("Dry")
    assert dry_words(replace(state, mean=0.5, low=0.4, high=0.6)).startswith("Not dry")
    assert dry_words(replace(state, low=0.0, high=0.9)).startswith("It cannot be told")
    assert dry_words(replace(state, low=None, high=None)).startswith("It cannot be told")


def test_a_whistle_is_told_only_where_somebody_listened() -> None:
    assert whistle_words(0, 0) == ""
    assert "No whistle was heard" in whistle_words(0, 3)
    assert "2 of 3 runs" in whistle_words(2, 3)


def test_the_budget_names_every_source_and_ends_with_the_mean() -> None:
    state = Summary(0.76, 0.74, 0.78, 0.01, 0.004, 0.006)
    rows = budget_words(KEPT, [DoubtSource("bin", 0.003), DoubtSource("scatter", 0.006)], state, VOICE)
    assert rows[0][0] == "scale, bin, two weighings"
    assert rows[-1][0] == "in the mean: the larger of both"
    assert budget_words(KEPT, [], state, VOICE) == []


@given(
    st.lists(st.floats(0.5, 0.99), min_size=2, max_size=6),
    st.lists(st.floats(0.5, 0.99), min_size=2, max_size=6),
    st.floats(0.0005, 0.02),
)
def test_whatever_is_compared_is_said_in_a_sentence_that_agrees_with_its_verdict(
    first: list[float], other: list[float], reading: float
) -> None:
    found = compare(first, other, reading, KEPT.hoped)
    said = told(found)
    assert said.endswith(".")
    assert "nan" not in said
    assert "None" not in said
    if found is None:
        assert "takes two runs" in said
    else:
        assert ("it may be chance" in said) == (found.verdict != REAL)
        if found.verdict == REAL:
            assert ("more than" in said) == (found.difference > 0.0)
