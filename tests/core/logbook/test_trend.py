"""Whether it gets worse: by its own scatter, against its own good days."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.logbook.trend import LESS, MORE, RECOVERED, SAME, STEADY, UNKNOWN, WORSE, FigureOverTime, trend_of
from fenwick.core.rules import RuleBook

RULES = RuleBook()


def told(values: list[float], better: int = MORE) -> str:
    return trend_of(FigureOverTime(np.arange(len(values)) * 14.0, np.array(values), better), RULES).word


@pytest.mark.parametrize(
    ("values", "word"),
    [
        ([0.96, 0.97], UNKNOWN),
        ([0.96, 0.965, 0.958, 0.962, 0.961, 0.959], STEADY),
        ([0.96, 0.965, 0.958, 0.962, 0.82, 0.81], WORSE),
        ([0.96, 0.965, 0.958, 0.82, 0.81, 0.96, 0.962, 0.961], RECOVERED),
        ([0.96, 0.965, 0.958, 0.82, 0.961, 0.96, 0.962], STEADY),  # one alone may be a slip
        ([0.96, 0.965, 0.958, 0.962, 0.828, 0.965, 0.97], STEADY),  # what lies behind two good ones is past
        ([0.97, 0.96, 0.95, 0.94, 0.92, 0.9, 0.88, 0.86, 0.84], WORSE),  # slowly, without any step
    ],
)
def test_what_is_kept(values: list[float], word: str) -> None:
    assert told(values) == word


def test_a_wipe_that_gets_greyer_is_worse_and_a_cleaner_one_is_not() -> None:
    assert told([0.0, 1.0, 1.0, 0.0, 1.0, 3.0, 3.0, 3.0], LESS) == WORSE
    assert told([3.0, 3.0, 2.0, 3.0, 1.0, 0.0, 0.0], LESS) != WORSE


def test_suction_at_a_fixed_place_is_worse_whichever_way_it_goes() -> None:
    for end in (4800.0, 7200.0):
        assert told([6000.0, 6050.0, 5980.0, 6020.0, end, end], SAME) == WORSE


def test_it_says_since_when() -> None:
    found = trend_of(FigureOverTime(np.arange(8) * 10.0, np.array([9.0, 9.1, 9.0, 9.1, 9.0, 6.0, 6.1, 6.0])), RULES)
    assert found.since == 50.0
    assert found.good == pytest.approx(9.05, abs=0.1)
    assert found.now == pytest.approx(6.03, abs=0.1)


@given(st.lists(st.floats(0.5, 1.5), min_size=4, max_size=30), st.floats(0.1, 1e4))
def test_the_unit_of_a_figure_says_nothing(values: list[float], unit: float) -> None:
    assert told(values) == told([unit * value for value in values])


def test_a_figure_that_only_scatters_is_rarely_called_worse() -> None:
    chance = np.random.default_rng(4)
    words = [told(list(1.0 + 0.02 * chance.standard_normal(12))) for _ in range(400)]
    assert words.count(WORSE) < 0.05 * len(words)
    fallen = [told(list(1.0 + 0.02 * chance.standard_normal(12) - 0.15 * (np.arange(12) > 8))) for _ in range(400)]
    assert fallen.count(WORSE) > 0.95 * len(fallen)
