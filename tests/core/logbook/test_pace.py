"""Weeks to come: what is certain is exact, what is more comes later, and nothing is said of a shop nobody knows."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.logbook.pace import FOLLOWED, WEEK, Pace, PastWeeks, pace
from fenwick.core.rules import RuleBook

RULES, DRAWS = RuleBook(), 400


def steady(used: float, weeks: int = 30, usual: float = np.nan) -> Pace:
    """One thing of which as much was used in every week."""
    return pace(PastWeeks(np.full((1, weeks), used), np.array([usual])), RULES, DRAWS, 3)


def days(of: Pace, left: float) -> np.ndarray:
    """Days until so much more is used, in every draw."""
    return of.days_until(np.full((1, DRAWS), left))[0]


def test_weeks_that_were_all_alike_go_on_alike() -> None:
    found = days(steady(0.25), 1.0)
    assert found == pytest.approx(np.full(DRAWS, 4.0 * WEEK))


def test_what_is_over_is_due_now_and_what_is_never_used_never() -> None:
    assert np.all(days(steady(0.25), 0.0) == 0.0)
    assert np.all(days(steady(0.25), -1.0) == 0.0)
    assert np.all(np.isinf(days(steady(0.0), 0.5)))


def test_beyond_two_years_nothing_is_said() -> None:
    assert np.all(np.isinf(days(steady(0.001), 1.0)))
    almost = days(steady(1.0 * WEEK / (FOLLOWED - 5.0)), 1.0)
    assert np.all(np.isfinite(almost))


def test_nothing_is_known_of_a_shop_without_hours_and_without_jobs() -> None:
    none = pace(PastWeeks(np.full((1, 4), np.nan), np.array([np.nan])), RULES, DRAWS, 3)
    assert np.all(np.isnan(days(none, 1.0)))


def test_jobs_alone_say_about_when_and_logged_weeks_say_it_closer() -> None:
    by_jobs = pace(PastWeeks(np.full((1, 1), np.nan), np.array([0.25])), RULES, DRAWS, 3)
    both = steady(0.25, usual=0.25)
    for found in (by_jobs, both):
        assert np.median(days(found, 1.0)) == pytest.approx(4.0 * WEEK, rel=0.25)
    assert np.std(days(both, 1.0)) < np.std(days(by_jobs, 1.0))


def test_a_log_of_many_weeks_outweighs_what_the_jobs_say() -> None:
    few, many = (np.median(days(steady(0.1, weeks, usual=0.5), 1.0)) for weeks in (1, 50))
    assert few < many
    assert many == pytest.approx(10.0 * WEEK, rel=0.25)


def test_a_week_off_counts_as_one() -> None:
    used = np.tile([0.5, 0.0], 20)[None, :]
    found = pace(PastWeeks(used, np.array([np.nan])), RULES, DRAWS, 3)
    assert np.median(days(found, 1.0)) == pytest.approx(4.0 * WEEK, rel=0.2)


@given(
    st.lists(st.floats(0.0, 1.0), min_size=1, max_size=20),
    st.floats(0.0, 2.0),
    st.floats(0.0, 2.0),
    st.sampled_from([np.nan, 0.0, 0.2]),
)
def test_more_takes_longer_in_every_draw(weeks: list[float], less: float, more: float, usual: float) -> None:
    less, more = sorted((less, more))
    found = pace(PastWeeks(np.array([weeks]), np.array([usual])), RULES, 50, 1)
    sooner, later = (found.days_until(np.full((1, 50), left))[0] for left in (less, more))
    assert np.all((sooner <= later + 1e-9) | (np.isinf(sooner) & np.isinf(later)))
    assert np.all(sooner >= 0.0)


@given(st.floats(1e-6, 1.0), st.floats(0.0, 2.0))
def test_there_is_no_jump_as_what_is_left_goes_to_nothing(left: float, scatter: float) -> None:
    swings = Pace(np.full((1, 3), 0.2), np.full((1, 3), scatter), np.array([[-2.0, 0.0, 2.0]]))
    near, nearer = (swings.days_until(np.full((1, 3), value)) for value in (left, 0.5 * left))
    assert np.all(nearer <= near)
    nothing = swings.days_until(np.full((1, 3), 1e-12))
    assert np.all(nothing[0, 1:] < 1.0)
