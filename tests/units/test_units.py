"""Units both ways: exact to store, forgiving to read, plain when refused."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.units import QUANTITIES, SYSTEMS, BadNumberError, format_value, parse_value
from fenwick.units.convert import from_display, to_display, water_column


@pytest.mark.parametrize("quantity", QUANTITIES)
@given(value=st.floats(1e-6, 1e5))
def test_there_and_back_in_either_system(quantity: str, value: float) -> None:
    for system in SYSTEMS:
        assert from_display(to_display(value, quantity, system), quantity, system) == pytest.approx(
            value, rel=1e-9, abs=1e-9
        )


@pytest.mark.parametrize(
    ("text", "quantity", "system", "stored"),
    [
        ("38", "bore", "metric", 0.038),
        ("38,5", "bore", "metric", 0.0385),
        ("1.5", "bore", "inch", 0.0381),
        ("1 1/2", "bore", "inch", 0.0381),
        ("1-1/2", "bore", "inch", 0.0381),
        ('2.5"', "bore", "metric", 0.0635),
        ("1.5 in", "bore", "metric", 0.0381),
        ("38 mm", "bore", "inch", 0.038),
        ("10 ft", "length", "metric", 3.048),
        ("100 CFM", "flow", "metric", 0.0471947443),
        ("−5", "temperature", "metric", -5.0),
        ("68", "temperature", "inch", 20.0),
        ("72.2", "suction", "inch", 17984.219),
        ("60", "share", "metric", 0.6),
    ],
)
def test_what_people_type_is_read(text: str, quantity: str, system: str, stored: float) -> None:
    assert parse_value(text, quantity, system) == pytest.approx(stored, rel=1e-6)


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        ("", "Enter a number in mm."),
        ("wide", "“wide” is not a number in mm."),
        ("nan", "“nan” is not a number in mm."),
        ("1e999", "“1e999” is not a usable number."),
        ("5 kg", "“kg” is not a unit of this field; use mm or in."),
        ("3 __import__('os')", "“__import__('os')” is not a unit of this field; use mm or in."),
        ("1/0", "“/0” is not a unit of this field; use mm or in."),
    ],
)
def test_what_cannot_be_read_is_said(text: str, sentence: str) -> None:
    with pytest.raises(BadNumberError) as caught:
        parse_value(text, "bore", "metric")
    assert str(caught.value) == sentence


@pytest.mark.parametrize(
    ("value", "quantity", "system", "text"),
    [
        (0.038, "bore", "metric", "38 mm"),
        (0.038, "bore", "inch", "1.50 in"),
        (0.0417, "flow", "metric", "41.7 L/s"),
        (0.2222, "flow", "metric", "222 L/s"),
        (18000.0, "suction", "metric", "18 kPa"),
        (-3.0, "temperature", "metric", "−3 °C"),
        (0.924, "share", "metric", "92.4 %"),
    ],
)
def test_running_text(value: float, quantity: str, system: str, text: str) -> None:
    assert format_value(value, quantity, system, unit=True) == text


def test_a_field_shows_small_numbers_rather_than_nothing() -> None:
    assert format_value(1e-9, "bore", "metric", field=True) == "1e-06"


def test_a_tube_of_water_reads_the_suction() -> None:
    assert water_column(1000.0, "metric") == "102 mm of water"  # published
    assert water_column(249.08891, "inch") == "1 inches of water"
