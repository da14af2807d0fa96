"""What past lives leave to be believed: more of them are surer, a bound moves it one way only, no end runs flat."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.logbook.lives import AFTER, BEFORE, IN_TIME, LifeBelief, PastLives, Usual, belief, usual_of
from fenwick.core.rules import RuleBook

USUAL = Usual(0.5, 0.2)


def believed(ratios: list[float], ended: list[int] | None = None, usual: Usual = USUAL) -> LifeBelief:
    """Of one thing with some past lives."""
    told = np.array([ratios or [np.nan]])
    return belief(PastLives(told, np.array([ended or [IN_TIME] * told.size])), usual)


def middle(ratios: list[float], ended: list[int] | None = None) -> float:
    """The middle of the shop's own ratio."""
    return float(believed(ratios, ended).typical[0])


def spread(ratios: list[float]) -> float:
    """How far the next life may lie, in its logarithm."""
    return float(np.std(np.log(believed(ratios).draws(2000, 1)[0])))


def test_before_anything_was_seen_the_model_is_believed_as_far_as_its_rule_says() -> None:
    assert middle([]) == pytest.approx(1.0, abs=0.01)
    assert spread([]) == pytest.approx(np.hypot(0.5, 0.2 * np.exp(0.25)), rel=0.15)


@pytest.mark.parametrize("kind", ["bin", "filter", "seal"])
def test_every_kind_that_wears_has_its_rules(kind: str) -> None:
    usual = usual_of(kind, RuleBook())
    assert usual.unsure > 0.0
    assert usual.scatter > 0.0


def test_lives_that_were_all_alike_are_believed_more_and_more() -> None:
    middles = [middle([2.0] * count) for count in (0, 1, 2, 5, 20)]
    assert middles == sorted(middles)
    assert middles[-1] == pytest.approx(2.0, rel=0.03)
    spreads = [spread([2.0] * count) for count in (0, 1, 4, 16)]
    assert spreads == sorted(spreads, reverse=True)


def test_lives_that_differ_leave_a_wide_band_however_many_there_are() -> None:
    assert spread([0.5, 2.0] * 10) > 2.0 * spread([1.0] * 20)


def test_one_that_was_ended_early_only_moves_it_up_and_one_too_late_only_down() -> None:
    for ratio in (0.2, 0.8, 1.0, 1.5, 3.0):
        assert middle([ratio], [BEFORE]) >= middle([]) - 1e-6
        assert middle([ratio], [AFTER]) <= middle([]) + 1e-6
    assert middle([0.05], [BEFORE]) == pytest.approx(1.0, abs=0.02)  # it had hardly begun: that says nothing
    assert middle([3.0], [BEFORE]) > 1.5


def test_no_end_runs_flat() -> None:
    far = [middle([ratio] * 4) for ratio in (2.0, 4.0, 8.0, 12.0)]
    assert all(after > 1.2 * before for before, after in pairwise(far))


@given(st.lists(st.floats(0.05, 20.0), min_size=1, max_size=12))
def test_the_middle_lies_between_the_model_and_what_was_seen(ratios: list[float]) -> None:
    told = middle(ratios)
    assert min(1.0, *ratios) * 0.95 <= told <= max(1.0, *ratios) * 1.05


@given(st.lists(st.floats(0.05, 20.0), min_size=1, max_size=8), st.integers(0, 5))
def test_the_order_of_lives_and_room_for_more_say_nothing(ratios: list[float], more: int) -> None:
    plain = middle(ratios)
    assert middle(ratios[::-1]) == pytest.approx(plain)
    assert middle([*ratios, *[np.nan] * more]) == pytest.approx(plain)


def test_draws_have_the_middle_and_the_tails_of_what_is_believed() -> None:
    found = believed([1.5] * 6).draws(4000, 9)[0]
    assert np.median(found) == pytest.approx(middle([1.5] * 6), rel=0.05)
    assert np.all(found > 0.0)
    again = believed([1.5] * 6).draws(4000, 9)[0]
    assert np.array_equal(found, again)


def test_a_life_of_nothing_is_no_infinity() -> None:
    assert np.isfinite(middle([0.0]))
    assert np.all(np.isfinite(believed([0.0]).draws(100, 1)))
