"""Forecasts against shops whose truth is known: the band holds it, and a longer log makes it narrower."""

import numpy as np
import pytest

from fenwick.core.logbook.due import Forecast, forecast
from fenwick.core.logbook.lives import BEFORE, PastLives, belief, usual_of
from fenwick.core.logbook.pace import FOLLOWED, WEEK, PastWeeks
from fenwick.core.rules import RuleBook

RULES, SHOPS, LONG = RuleBook(), 200, 300


def simulated(kind: str, lives: int, seed: int) -> tuple[Forecast, np.ndarray]:
    """(forecasts, days on which it was really due) of shops that are off from the model, each in its own way."""
    chance, usual = np.random.default_rng(seed), usual_of(kind, RULES)
    shift = usual.unsure * chance.standard_normal(SHOPS)
    scatter = usual.scatter * np.exp(0.5 * chance.standard_normal(SHOPS))
    life = np.exp(shift[:, None] + scatter[:, None] * chance.standard_normal((SHOPS, lives + 1)))
    early = chance.random((SHOPS, lives)) < 0.2  # some were ended before they had to be
    ratio = np.where(early, life[:, :-1] * chance.uniform(0.4, 0.95, early.shape), life[:, :-1])
    by_jobs = chance.uniform(0.05, 0.5, SHOPS)
    mean = by_jobs * np.exp(0.45 * chance.standard_normal(SHOPS))
    logged = min(52, 4 * lives)
    weeks = mean[:, None] * chance.gamma(4.0, 0.25, (SHOPS, logged)) if lives else np.full((SHOPS, 1), np.nan)
    past = PastLives(ratio if lives else np.full((SHOPS, 1), np.nan), np.where(early, BEFORE, 0) if lives else weeks)
    used = chance.uniform(0.0, 0.5, SHOPS)
    found = forecast(used, np.zeros(SHOPS), belief(past, usual), PastWeeks(weeks, by_jobs), RULES)
    ahead = np.cumsum(mean[:, None] * chance.gamma(4.0, 0.25, (SHOPS, LONG)), axis=1)
    left = life[:, -1] - used
    true = [WEEK * np.interp(one, [0.0, *path], np.arange(LONG + 1)) for one, path in zip(left, ahead, strict=True)]
    return found, np.where(left <= 0.0, 0.0, np.array(true))


@pytest.mark.parametrize("kind", ["bin", "filter", "seal"])
@pytest.mark.parametrize("lives", [0, 2, 8, 24])
def test_nine_in_ten_bands_of_two_hundred_shops_hold_the_truth(kind: str, lives: int) -> None:
    held = []
    for seed in (1, 2, 3):
        found, true = simulated(kind, lives, seed)
        held.append(np.mean((found.days.low <= true) & (true <= found.days.high)))
    assert 0.85 <= np.mean(held) <= 0.95


@pytest.mark.parametrize("kind", ["bin", "filter", "seal"])
def test_the_band_shrinks_as_the_log_grows(kind: str) -> None:
    def width(lives: int) -> float:
        found, _ = simulated(kind, lives, 7)
        return float(np.median((np.minimum(found.days.high, FOLLOWED) - found.days.low) / found.days.likely.mean()))

    assert width(0) > 1.05 * width(4) > 1.05 * 1.05 * width(24)


def one(ratios: list[float], used: float = 0.0, ended: int = 0, kind: str = "filter") -> Forecast:
    """A single thing of which half a modelled life is used each week."""
    past = PastLives(np.array([ratios or [np.nan]]), np.full((1, max(len(ratios), 1)), ended))
    weeks = PastWeeks(np.full((1, 20), 0.5), np.array([np.nan]))
    return forecast(np.array([used]), np.zeros(1), belief(past, usual_of(kind, RULES)), weeks, RULES)


def test_without_any_past_the_model_is_believed() -> None:
    assert one([]).days.likely[0] == pytest.approx(14.0, rel=0.1)


def test_a_filter_that_lasted_a_third_of_what_the_model_said_moves_the_date() -> None:
    before, after, sure = one([]), one([9.0 / 24.0]), one([9.0 / 24.0] * 6)
    assert before.days.likely[0] > 1.5 * after.days.likely[0] > 1.5 * 0.9 * sure.days.likely[0]
    assert sure.days.likely[0] == pytest.approx(14.0 * 9.0 / 24.0, rel=0.15)
    assert sure.days.high[0] / sure.days.low[0] < after.days.high[0] / after.days.low[0]


def test_one_that_was_changed_before_it_had_to_be_only_bounds_its_life() -> None:
    as_due, early = one([0.5]), one([0.5], ended=BEFORE)
    assert early.days.likely[0] > as_due.days.likely[0]
    assert one([2.0], ended=BEFORE).days.likely[0] > one([]).days.likely[0]


def test_what_is_over_is_due_now_and_what_is_hardly_used_is_not() -> None:
    found = one([1.0] * 10, used=3.0)
    assert found.days.likely[0] == 0.0
    assert found.past_due[0] > 0.95
    assert one([1.0] * 10, used=0.1).past_due[0] < 0.05


def test_where_nobody_knows_how_the_work_goes_no_day_is_said() -> None:
    past = PastLives(np.full((1, 1), np.nan), np.zeros((1, 1)))
    weeks = PastWeeks(np.full((1, 1), np.nan), np.array([np.nan]))
    found = forecast(np.array([0.4]), np.zeros(1), belief(past, usual_of("bin", RULES)), weeks, RULES)
    assert np.isnan(found.days.likely[0])
    assert found.used.likely[0] == pytest.approx(0.4, rel=0.1)


def test_a_shop_that_stands_still_is_never_due() -> None:
    past = PastLives(np.full((1, 1), np.nan), np.zeros((1, 1)))
    found = forecast(
        np.array([0.2]),
        np.zeros(1),
        belief(past, usual_of("bin", RULES)),
        PastWeeks(np.zeros((1, 30)), np.array([np.nan])),
        RULES,
    )
    assert np.isinf(found.days.likely[0])


def test_many_things_at_once_are_each_as_by_itself() -> None:
    ratio = np.array([[0.4, 0.5, np.nan], [1.2, np.nan, np.nan]])
    weeks = PastWeeks(np.full((2, 20), 0.5), np.full(2, np.nan))
    both = forecast(
        np.zeros(2), np.zeros(2), belief(PastLives(ratio, np.zeros((2, 3))), usual_of("filter", RULES)), weeks, RULES
    )
    for row, ratios in enumerate(([0.4, 0.5], [1.2])):
        assert both.days.likely[row] == pytest.approx(one(ratios).days.likely[0], rel=0.05)
