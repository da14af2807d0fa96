"""What a separator saves by what was really spent, and when to look at what does not wear by the hour."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.logbook.lives import PastLives, belief, usual_of
from fenwick.core.logbook.looks import EVERY, PieceNow, first_hour, first_look, looks
from fenwick.core.logbook.money import Spent, saved
from fenwick.core.rules import RuleBook

RULES = RuleBook()


def spent(upkeep: float, separator: float, without: float, hours: float = 100.0, days: float = 180.0) -> Spent:
    """One shop."""
    return Spent(*(np.array([value]) for value in (upkeep, separator, hours, days, without)))


def life(*ratios: float) -> object:
    """What is believed of filters after some lives."""
    past = PastLives(np.array([list(ratios) or [np.nan]]), np.zeros((1, max(len(ratios), 1))))
    return belief(past, usual_of("filter", RULES))


def test_what_it_would_have_cost_is_the_model_s_hours_at_lives_as_they_are_here() -> None:
    as_modelled = saved(spent(10.0, 30.0, 0.5), life(*[1.0] * 12))  # type: ignore[arg-type]
    assert as_modelled.without.likely[0] == pytest.approx(50.0, rel=0.15)
    half = saved(spent(10.0, 30.0, 0.5), life(*[0.5] * 12))  # type: ignore[arg-type]
    assert half.without.likely[0] == pytest.approx(100.0, rel=0.15)
    assert as_modelled.paid_after.likely[0] == pytest.approx(180.0 * 30.0 / 40.0, rel=0.25)


def test_the_band_gets_narrower_with_lives() -> None:
    few, many = (saved(spent(10.0, 30.0, 0.5), life(*[1.0] * count)).without for count in (1, 20))  # type: ignore[arg-type]
    assert many.high[0] / many.low[0] < few.high[0] / few.low[0]


def test_a_separator_that_saves_nothing_never_pays_and_one_that_cost_nothing_has_paid() -> None:
    assert np.isinf(saved(spent(500.0, 30.0, 0.1), life(1.0)).paid_after.likely[0])  # type: ignore[arg-type]
    assert saved(spent(0.0, 0.0, 0.5), life(1.0)).paid_after.likely[0] == 0.0  # type: ignore[arg-type]


def test_without_a_price_nothing_is_said() -> None:
    found = saved(spent(10.0, 30.0, np.nan), life(1.0))  # type: ignore[arg-type]
    assert np.isnan(found.without.likely[0])
    assert np.isnan(found.paid_after.likely[0])


def next_look(piece: str, since: float, age: float | None = None, lives: tuple[float, ...] = ()) -> float:
    """Days until the next look."""
    return float(looks([PieceNow(piece, since, age, lives)], RULES).days.likely[0])


def test_what_was_never_renewed_is_looked_at_by_the_calendar() -> None:
    for piece, key in EVERY.items():
        assert next_look(piece, 0.0) == RULES[key]
        assert next_look(piece, 1000.0) == RULES[key] - 1000.0  # type: ignore[operator]


def test_the_older_a_seal_the_sooner_the_next_look_and_what_let_go_early_counts() -> None:
    new, old, known = (
        next_look("gasket", 0.0, 0.0),
        next_look("gasket", 0.0, 200.0),
        next_look("gasket", 0.0, 100.0, (120.0,)),
    )
    assert new > old > known > 0.0


def test_just_looked_at_it_is_not_due_at_once_however_old_it_is() -> None:
    least = float(RULES["log.look-least"]) * float(RULES["log.seals-every"])  # type: ignore[arg-type]
    assert next_look("gasket", 0.0, 5000.0) >= least


@given(st.floats(0, 400), st.floats(0, 2000), st.lists(st.floats(20, 2000), max_size=5))
def test_a_look_is_never_farther_off_than_the_calendar_has_it(since: float, age: float, lives: list[float]) -> None:
    found = looks([PieceNow("gasket", since, age + since, tuple(lives))], RULES).days
    assert found.low[0] <= found.likely[0] <= found.high[0]
    assert found.likely[0] <= float(RULES["log.seals-every"]) - since + 1e-9


def test_a_joint_made_anew_is_looked_at_after_an_hour_of_work_however_that_goes() -> None:
    assert first_hour(0.0, 0.0, RULES) is None
    half = first_hour(0.5, 7.0, RULES)
    assert half is not None
    assert half.likely[0] == pytest.approx(0.5)
    assert half.low[0] <= half.likely[0] <= half.high[0]
    done = first_hour(1.5, 7.0, RULES)
    assert done is not None
    assert done.likely[0] == 0.0
    still = first_hour(1.5, 0.0, RULES)
    assert still is not None
    assert still.likely[0] == 0.0


def test_a_first_look_is_soon_and_never_overdue() -> None:
    found = first_look(RULES)
    assert 0.0 < found.low[0] <= found.likely[0] <= found.high[0]
