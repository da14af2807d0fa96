"""Lengths as they are set on a ruler: tenths of a millimetre, or inches and their sixty-fourths."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.units import INCH, METRIC, parse_value
from fenwick.units.workshop import METRES_IN_AN_INCH, cut_length, inch_fraction


@pytest.mark.parametrize(
    ("value", "metric", "inch"),
    [
        (0.0, "0 mm", "0 in"),
        (0.0254, "25.4 mm", "1 in"),
        (0.0127, "12.7 mm", "1/2 in"),
        (0.387, "387 mm", "15 15/64 in"),
        (0.0065, "6.5 mm", "1/4 in"),
        (0.00039, "0.4 mm", "1/64 in"),
        (-0.003, "−3 mm", "−1/8 in"),
        (2.44, "2440 mm", "96 1/16 in"),
    ],
)
def test_both_ways(value: float, metric: str, inch: str) -> None:
    assert cut_length(value, METRIC) == metric
    assert cut_length(value, INCH) == inch


def test_without_its_unit() -> None:
    assert cut_length(0.387, METRIC, unit=False) == "387"
    assert cut_length(0.387, INCH, unit=False) == "15 15/64"


@given(st.floats(0.0, 3.0))
def test_what_is_shown_is_read_again_within_half_a_mark(value: float) -> None:
    tenth = parse_value(cut_length(value, METRIC), "bore", METRIC)
    assert tenth == pytest.approx(value, abs=0.051e-3)
    mark = parse_value(cut_length(value, INCH), "bore", INCH)
    assert mark == pytest.approx(value, abs=METRES_IN_AN_INCH / 127.9)


@given(st.integers(0, 64 * 100))
def test_a_fraction_is_shortened(parts: int) -> None:
    text = inch_fraction(parts / 64.0 * METRES_IN_AN_INCH)
    if "/" in text:
        over, under = (int(one) for one in text.split(" ")[-1].split("/"))
        assert over % 2 == 1
        assert under in (2, 4, 8, 16, 32, 64)
