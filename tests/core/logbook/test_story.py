"""One thing through the log: what work used, where its lives ended, and what is learned from each."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.logbook.lives import BEFORE
from fenwick.core.logbook.story import TurningPoint, UsedWork, past_lives, past_weeks, steady, story_of


def work(*pairs: tuple[float, float]) -> UsedWork:
    """Work at days, by what it used."""
    return UsedWork(np.array([day for day, _ in pairs]), np.array([used for _, used in pairs]))


DAILY = work(*((float(day), 0.1) for day in range(1, 31)))


def test_before_the_log_says_that_a_life_began_nothing_is_known() -> None:
    assert story_of(DAILY, [], 30.0).begun is None


def test_a_bin_that_was_emptied_full_after_eight_tenths_of_the_model_fills_faster_than_the_model_says() -> None:
    story = story_of(DAILY, [TurningPoint(0.0), TurningPoint(8.0, share=1.0)], 12.0)
    assert story.ratios == pytest.approx((0.8,))
    assert story.used == pytest.approx(0.4)
    assert story.begun == 8.0


def test_a_bin_emptied_half_full_says_as_much() -> None:
    assert story_of(DAILY, [TurningPoint(0.0), TurningPoint(4.0, share=0.5)], 4.0).ratios == pytest.approx((0.8,))


def test_looking_at_it_starts_from_what_was_seen_and_learns_from_it() -> None:
    story = story_of(DAILY, [TurningPoint(0.0), TurningPoint(4.0, share=0.5, fresh=False)], 6.0)
    assert story.ratios == pytest.approx((0.8,))
    assert (story.seen, story.used) == pytest.approx((0.5, 0.2))
    assert story.begun == 0.0


def test_emptying_without_a_word_begins_anew_and_teaches_nothing() -> None:
    story = story_of(DAILY, [TurningPoint(0.0), TurningPoint(4.0)], 5.0)
    assert story.ratios == ()
    assert story.used == pytest.approx(0.1)


def test_what_too_little_was_seen_of_teaches_nothing() -> None:
    assert story_of(DAILY, [TurningPoint(0.0), TurningPoint(1.0, share=0.05, fresh=False)], 5.0).ratios == ()


def test_a_change_of_the_line_forgets_what_was_learned() -> None:
    turns = [
        TurningPoint(0.0),
        TurningPoint(5.0, share=1.0),
        TurningPoint(6.0, fresh=False, anew=True),
        TurningPoint(10.0, share=1.0),
    ]
    assert story_of(DAILY, turns, 12.0).ratios == pytest.approx((0.5,))


def test_a_filter_that_goes_on_with_a_cake_has_less_of_a_life_before_it() -> None:
    story = story_of(DAILY, [TurningPoint(0.0, left=0.2), TurningPoint(8.0, share=1.0, ended=BEFORE)], 8.0)
    assert story.ratios == pytest.approx((1.0,))
    assert story.ended == (BEFORE,)


@given(st.lists(st.tuples(st.floats(0, 100), st.floats(0, 2)), max_size=30), st.floats(0, 100))
def test_in_whatever_order_things_happen_what_was_used_is_never_below_nothing(
    pairs: list[tuple[float, float]], day: float
) -> None:
    story = story_of(work(*sorted(pairs)), [TurningPoint(day)], 100.0)
    assert story.used >= -1e-9
    assert story.used <= sum(used for _, used in pairs) + 1e-9


def test_weeks_are_counted_back_from_today_and_a_quiet_one_counts() -> None:
    weeks = past_weeks([work((1.0, 0.3), (20.0, 0.5))], [0.0], [None], 21.0)
    assert weeks.used.tolist() == [[0.3, 0.0, 0.5]]
    assert np.isnan(weeks.usual[0])
    none = past_weeks([work()], [None], [0.2], 21.0)
    assert np.isnan(none.used).all()
    assert none.usual[0] == 0.2


def test_the_usual_week_spreads_over_its_days() -> None:
    spread = steady(0.7, 0.0, 10.5)
    assert spread.used.sum() == pytest.approx(1.05)
    assert spread.until(5.0) == pytest.approx(0.5)
    assert steady(0.7, 5.0, 5.0).used.size == 0


def test_lives_stand_side_by_side_with_room_for_the_longest() -> None:
    stories = [
        story_of(DAILY, [TurningPoint(0.0), TurningPoint(4.0, share=1.0), TurningPoint(9.0, share=1.0)], 9.0),
        story_of(DAILY, [], 9.0),
    ]
    lives = past_lives(stories)
    assert lives.ratio[0].tolist() == pytest.approx([0.4, 0.5])
    assert np.isnan(lives.ratio[1]).all()
