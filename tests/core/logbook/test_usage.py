"""What hours use: a mix lies between its tools, a job that uses nothing can be done for ever."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.hours.wear import SHARES, Wear
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.logbook.due import due_level, used_level
from fenwick.core.logbook.entries import BAG, BIN, FILTER, TANK
from fenwick.core.logbook.handling import hours_a_year
from fenwick.core.logbook.usage import ToolHours, dust_held, life_at, life_of_mix, one_off, times_left
from fenwick.core.rules import RuleBook

RULES = RuleBook()


def wear(bin_: float | None = 10.0, filter_: float = 20.0, bag: float = np.inf, held: float = 0.3) -> Wear:
    """A tool."""
    return Wear(bin_, filter_, bag, 500.0, (0.0, 0.05), held * SHARES)


def test_the_life_at_one_tool_is_its_own_and_what_it_does_not_use_lasts_for_ever() -> None:
    assert [life_at(wear(), kind) for kind in (BIN, FILTER, BAG, TANK)] == [10.0, 20.0, np.inf, 500.0]
    assert life_at(wear(bin_=None), BIN) == np.inf
    assert life_at(wear(filter_=0.0), FILTER) == np.inf


def test_a_mix_of_work_fills_by_its_shares() -> None:
    mix = [ToolHours(wear(bin_=5.0), 1.0), ToolHours(wear(bin_=20.0), 3.0)]
    assert life_of_mix(mix, BIN) == pytest.approx(4.0 / (1.0 / 5.0 + 3.0 / 20.0))
    assert life_of_mix([], BIN) is None
    assert life_of_mix(mix, BAG) is None


@given(st.lists(st.tuples(st.floats(0.5, 500.0), st.floats(0.01, 100.0)), min_size=1, max_size=6))
def test_a_mix_lasts_no_longer_than_its_best_and_no_shorter_than_its_worst(tools: list[tuple[float, float]]) -> None:
    found = life_of_mix([ToolHours(wear(bin_=life), hours) for life, hours in tools], BIN)
    assert found is not None
    lives = [life for life, _ in tools]
    assert min(lives) * (1 - 1e-9) <= found <= max(lives) * (1 + 1e-9)


def test_dust_on_a_filter_goes_with_its_life_from_nothing() -> None:
    mix = [ToolHours(wear(held=0.2), 1.0), ToolHours(wear(held=0.4), 1.0)]
    assert dust_held(mix, 0.0) == 0.0
    assert dust_held(mix, 1.0) == pytest.approx(0.3)
    assert dust_held([], 1.0) is None


def test_what_is_left_of_a_job() -> None:
    assert times_left(wear(), BIN, 2.0, 0.5, 1.0) == pytest.approx(2.5)
    assert times_left(wear(), BIN, 2.0, 0.5, 2.0) == pytest.approx(5.0)
    assert times_left(wear(), BIN, 2.0, 1.4, 1.0) == 0.0
    assert times_left(wear(bin_=None), BIN, 2.0, 0.5, 1.0) == np.inf
    assert times_left(wear(), BIN, 0.0, 0.5, 1.0) == np.inf


def test_a_job_that_comes_once_takes_emptyings_and_cleanings_as_they_are_here() -> None:
    found = one_off(wear(), 20.0, {}, 0.03)
    assert (found.emptyings, found.cleanings, found.volume) == pytest.approx((2.0, 1.0, 0.06))
    faster = one_off(wear(), 20.0, {BIN: 0.5, FILTER: 2.0}, 0.03)
    assert (faster.emptyings, faster.cleanings) == pytest.approx((4.0, 0.5))
    bagged = one_off(wear(bag=5.0), 20.0, {}, 0.03)
    assert bagged.cleanings == pytest.approx(4.0)
    bare = one_off(wear(), 20.0, {}, None)
    assert (bare.emptyings, bare.volume) == (None, None)
    assert one_off(wear(filter_=np.inf), 20.0, {}, 0.03).cleanings == 0.0


def test_levels_of_what_is_due_and_of_what_is_used() -> None:
    assert [due_level(days, RULES) for days in (-3.0, 0.0, 0.1, 7.0, 7.1, np.inf)] == [ACT, ACT, WATCH, WATCH, OK, OK]
    assert due_level(np.nan, RULES) == OK
    assert [used_level(*pair) for pair in ((0.2, 0.5), (0.8, 1.1), (1.0, 1.3))] == [OK, WATCH, ACT]


def test_what_emptying_comes_to_in_a_year() -> None:
    assert hours_a_year(12, 365.25, 10.0) == pytest.approx(2.0)
    assert hours_a_year(3, 10.0, 10.0) is None
    assert hours_a_year(0, 400.0, 10.0) == 0.0
