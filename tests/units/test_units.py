"""Units both ways: exact to store, forgiving to read, plain when refused."""

import math
from contextlib import suppress
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.units import QUANTITIES, SYSTEMS, BadNumberError, format_value, parse_plain, parse_value, read, unit_label
from fenwick.units.convert import from_display, line_between, to_display, water_column
from fenwick.units.names import unit_named, units_of

OWN_NAMES = {unit_named(spelled, quantity) for quantity in QUANTITIES for spelled in units_of(quantity)}


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
        ("-1/2", "bore", "metric", -0.0005),
        ("120 m³/h", "flow", "metric", 0.0333333),
        ("120 m3/h", "flow", "inch", 0.0333333),
        ("180 mbar", "suction", "metric", 18000.0),
        ("72.2 inches of water", "suction", "metric", 17984.219),
        ("5.3 inHg", "suction", "metric", 17947.863),
        ("2 MPa", "stress", "metric", 2e6),
        ("38 micron", "grain", "metric", 38e-6),
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
        ("1 9**9**9", "“9**9**9” is not a unit of this field; use mm or in."),
        ("5 mm mm", "“mm mm” is not a unit of this field; use mm or in."),
        ("²", "“²” is not a number in mm."),
        ("٣", "“٣” is not a number in mm."),
        ("inf", "“inf” is not a number in mm."),
        ("9" * 400, f"“{'9' * 30}…” is too long: a number takes 40 characters at most."),
        (f"{'9' * 400}/{'9' * 400}", f"“{'9' * 30}…” is too long: a number takes 40 characters at most."),
        ("1 " + "m" * 400, f"“1 {'m' * 28}…” is too long: a number takes 40 characters at most."),
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


@pytest.mark.parametrize("quantity", QUANTITIES)
def test_every_unit_of_the_list_is_read_and_measures_what_its_field_does(quantity: str) -> None:
    for spelled in units_of(quantity):
        assert parse_value(f"3 {spelled}", quantity, "metric") > parse_value(f"2 {spelled}", quantity, "metric"), (
            spelled
        )


@pytest.mark.parametrize("quantity", QUANTITIES)
def test_what_a_field_shows_behind_a_number_is_a_unit_that_it_takes_in_either_system(quantity: str) -> None:
    for shown, asked in product(SYSTEMS, SYSTEMS):
        text = f"7 {unit_label(quantity, shown)}"
        assert parse_value(text, quantity, asked) == pytest.approx(from_display(7.0, quantity, shown))


def test_a_unit_whose_letters_mean_something_else_in_capitals_is_refused() -> None:
    with pytest.raises(BadNumberError):
        parse_value("5 mPa", "suction", "metric")


@given(text=st.text(max_size=60), quantity=st.sampled_from(sorted(QUANTITIES)))
def test_any_text_is_a_finite_number_or_refused(text: str, quantity: str) -> None:
    with suppress(BadNumberError):
        assert math.isfinite(parse_value(text, quantity, "metric"))


@given(number=st.integers(0, 10**6), tail=st.text("0123456789*/+-^() eE_.,numisqrtHODAfactl%²³", max_size=30))
def test_no_text_of_a_person_reaches_the_library_of_units(number: int, tail: str) -> None:
    """Given to its parser as an expression, 9**9**9 would be worked out."""
    asked: list[str] = []

    def asking(source: str, target: str) -> tuple[float, float]:
        asked.append(source)
        return line_between(source, target)

    with pytest.MonkeyPatch.context() as patch, suppress(BadNumberError):
        patch.setattr(read, "line_between", asking)
        parse_value(f"{number} {tail}", "flow", "metric")
    assert set(asked) <= OWN_NAMES


@given(value=st.floats(1e-9, 1e5), quantity=st.sampled_from(sorted(QUANTITIES)), system=st.sampled_from(SYSTEMS))
def test_whatever_a_field_shows_it_takes_again(value: float, quantity: str, system: str) -> None:
    shown = format_value(value, quantity, system, field=True)
    again = format_value(parse_value(shown, quantity, system), quantity, system, field=True)
    assert float(again) == pytest.approx(float(shown), rel=1e-11)


def test_a_bare_number_takes_no_unit() -> None:
    assert parse_plain("3,5") == 3.5
    with pytest.raises(BadNumberError, match="takes a number without a unit"):
        parse_plain("3 percent")


@given(value=st.floats(1e15, 1e290), quantity=st.sampled_from(sorted(QUANTITIES)), system=st.sampled_from(SYSTEMS))
def test_a_number_of_hundreds_of_digits_is_shown_by_its_power_of_ten(value: float, quantity: str, system: str) -> None:
    shown = format_value(value, quantity, system, field=True)
    assert len(shown) < 20
    assert parse_value(shown, quantity, system) == pytest.approx(value)
