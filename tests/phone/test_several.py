"""Several photos or recordings together: repeats, before and after, open and shut."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.phone.found import RefusedError
from fenwick.phone.reading import DEPTH, GREY, PITCH, SQUARES, PhoneReading
from fenwick.phone.several import together


def reading(kind: str, value: float, half: float = 1.0, **seen: float) -> PhoneReading:
    """A reading with a band."""
    return PhoneReading(kind, value, value - half, value + half, dict(seen))


@given(st.lists(st.floats(10.0, 200.0), min_size=2, max_size=6))
def test_repeats_are_their_mean_and_scatter_widens_the_band(values: list[float]) -> None:
    found = together([reading(DEPTH, one) for one in values])
    assert found.value == pytest.approx(sum(values) / len(values))
    assert found.low is not None
    assert found.high is not None
    assert found.low <= found.value <= found.high
    assert found.high - found.value >= 0.6 - 1e-9
    assert len(found.seen["values"]) == len(values)


def test_three_alike_are_surer_than_one_and_three_unlike_are_less_sure() -> None:
    one = reading(DEPTH, 100.0, 2.0)
    alike = together([reading(DEPTH, v, 2.0) for v in (99.9, 100.0, 100.1)])
    unlike = together([reading(DEPTH, v, 2.0) for v in (80.0, 100.0, 120.0)])
    assert alike.high is not None
    assert unlike.high is not None
    assert one.high is not None
    assert alike.high < one.high < unlike.high


def test_lightness_of_repeats_goes_along() -> None:
    stars = ({"L": 60.0, "L_low": 59.0, "L_high": 61.0}, {"L": 62.0, "L_low": 61.0, "L_high": 63.0})
    found = together([reading(GREY, 2.0, 0.1, **one) for one in stars])
    assert found.seen["L"] == 61.0
    assert found.seen["L_low"] < 61.0 < found.seen["L_high"]


def test_squares_before_and_after_are_told_apart() -> None:
    found = together([reading(SQUARES, value, share_of_area=value / 1000.0) for value in (40.0, 31.0)])
    assert found.value == 31.0
    assert (found.seen["before"], found.seen["more"]) == (40.0, -9.0)


def test_open_shut_and_as_it_stands_are_a_share_of_the_open_flow() -> None:
    found = together([reading(PITCH, value) for value in (300.0, 360.0, 330.0)])
    assert found.value == 330.0
    assert found.seen["share_of_open_flow"] == pytest.approx(0.5)
    assert 0.0 <= found.seen["share_low"] < 0.5 < found.seen["share_high"] <= 1.0
    assert found.seen["ratio"] == pytest.approx(1.2)


def test_a_motor_that_sounds_lower_when_shut_is_refused() -> None:
    with pytest.raises(RefusedError, match="higher than open"):
        together([reading(PITCH, value) for value in (360.0, 300.0, 330.0)])
    only_two = together([reading(PITCH, value) for value in (360.0, 300.0)])
    assert "share_of_open_flow" not in only_two.seen
