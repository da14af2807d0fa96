"""What a test says of the model, in words: how far off, where to look, and no more than it can."""

from __future__ import annotations

import pytest

from fenwick.core.bench.trials.expect import Expected
from fenwick.core.bench.trials.held import AGREES, HIGHER, LOWER, NOT_SURE, Held, held
from fenwick.core.bench.trials.plan import DROP, LEAK, MASSES, RULER, SUCTION, WAYS, Plan
from fenwick.wording.held import (
    HELD_BADGES,
    HELD_STATES,
    WHERE_TO_LOOK,
    difference_words,
    expected_words,
    held_words,
    says_words,
)
from fenwick.wording.say import Voice

VOICE = Voice("metric", {})
INCH = Voice("inch", {})
PLAN = Plan("builds", MASSES, ("disc", "cyclone"))
BAND = Expected(0.75, 0.52, 0.87)


def one(verdict: str, off: float = -0.2, *, surer: bool = True) -> Held:
    """A state."""
    return Held(BAND, BAND.value + off, off, 3.0 * (1 if off > 0 else -1), verdict, surer)


def plain(words: str) -> str:
    """With ordinary spaces."""
    return words.replace("\u2009", " ").replace("\xa0", " ")


def test_a_figure_comes_with_what_is_believed_of_it() -> None:
    assert plain(expected_words(PLAN, BAND, VOICE)) == "75 % (52 to 87 %)" or "(52" in expected_words(PLAN, BAND, VOICE)
    suction = Plan("hose", SUCTION, ("a", "b"), station="link")
    found = Expected(2000.0, 1500.0, 2600.0)
    assert "kPa" in expected_words(suction, found, VOICE)
    assert "kPa" not in expected_words(suction, found, INCH)


@pytest.mark.parametrize(
    ("verdict", "said"),
    [(AGREES, "within what both are unsure of"), (LOWER, "3.0 times what both are unsure of"), (NOT_SURE, "not known")],
)
def test_how_far_off_it_was_stands_beside_what_both_are_unsure_of(verdict: str, said: str) -> None:
    words = held_words(PLAN, one(verdict), VOICE)
    assert said in words
    assert "found" in words
    assert "expected" in words
    assert "20.0 points less" in words or verdict == NOT_SURE


def test_every_verdict_has_a_badge_and_a_state() -> None:
    assert set(HELD_BADGES) == set(HELD_STATES) == {AGREES, HIGHER, LOWER, NOT_SURE}
    assert len(set(HELD_BADGES.values())) == 4
    assert set(WHERE_TO_LOOK) <= set(WAYS)
    assert {MASSES, RULER, SUCTION, DROP, LEAK} == set(WHERE_TO_LOOK)


def test_where_one_state_is_off_that_line_is_looked_at() -> None:
    words = says_words(PLAN, [one(LOWER), one(AGREES, 0.01)], PLAN.variants)
    assert words.startswith("“disc” is not as it is described")
    assert "a leak below the separator" in words
    assert "The others are as expected" in words
    more = says_words(PLAN, [one(AGREES, 0.01), one(HIGHER, 0.2)], PLAN.variants)
    assert more.startswith("“cyclone”")
    assert "coarser dust" in more


def test_of_a_test_of_one_state_it_is_the_line() -> None:
    leaks = Plan("leak", LEAK)
    words = says_words(leaks, [one(HIGHER, 0.2)], leaks.variants)
    assert words == "The line is not as it is described: look for a joint that leaks more than described."


def test_where_all_are_off_alike_it_is_what_they_share() -> None:
    words = says_words(PLAN, [one(LOWER), one(LOWER)], PLAN.variants)
    assert "something they share" in words
    assert "Of their difference that takes little away" in words
    mixed = says_words(PLAN, [one(LOWER), one(HIGHER, 0.2)], PLAN.variants)
    assert mixed.startswith("The states lie off differently")
    assert "“disc”" in mixed
    assert "“cyclone”" in mixed


def test_where_nothing_speaks_against_it_no_more_is_said() -> None:
    surer = says_words(PLAN, [one(AGREES, 0.01), one(AGREES, -0.01)], PLAN.variants)
    rough = says_words(PLAN, [one(AGREES, 0.01, surer=False)] * 2, PLAN.variants)
    assert "taken as a reading" in surer
    assert "the surer of the two" in rough
    assert says_words(PLAN, [None, None], PLAN.variants) == ""
    assert says_words(PLAN, [one(NOT_SURE), None], PLAN.variants) == ""


@pytest.mark.parametrize(
    ("expected", "found", "said"),
    [
        (Expected(-0.017, -0.5, 0.27), -0.024, "could not have said which is ahead"),
        (Expected(0.05, 0.03, 0.07), 0.052, "had the difference right"),
        (Expected(0.05, 0.04, 0.06), -0.05, "the other way round"),
        (Expected(0.05, 0.04, 0.06), 0.15, "too small"),
        (Expected(0.15, 0.14, 0.16), 0.05, "too large"),
    ],
)
def test_a_difference_beside_what_was_expected_of_it(expected: Expected, found: float, said: str) -> None:
    words = difference_words(PLAN, held(expected, found, 0.003), "cyclone", "disc", VOICE)
    assert said in words
    assert words.count("points") <= 3
    assert "“cyclone” against “disc”" in words


def test_a_difference_of_which_the_test_is_not_sure_is_only_told() -> None:
    words = difference_words(PLAN, held(Expected(0.05, 0.04, 0.06), 0.2, 0.0, unsure=True), "b", "a", VOICE)
    assert words.endswith("was found.")
