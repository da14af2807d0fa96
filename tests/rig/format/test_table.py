"""Cells of tables: what a spreadsheet would take for a formula, and what it could not hold."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.rig import RigError
from fenwick.rig.format.table import FORMULAS, LONGEST_CELL, cells_of, guarded, unguarded


@pytest.mark.parametrize("text", ["=1+1", "+cmd", "-2+3", "@sum", "\t=1", "\r=1", "−5", "-5 mm", "=HYPERLINK(1)", "+"])
def test_words_that_begin_as_a_formula_are_guarded(text: str) -> None:
    assert guarded(text)[:1] not in FORMULAS


@pytest.mark.parametrize("text", ["-5", "+3.5", "-0,25", "-1e-06", "12.4", "", "'quoted", "a=b"])
def test_numbers_stay_numbers_and_words_words(text: str) -> None:
    assert guarded(text) == text


@given(text=st.text(max_size=30))
def test_a_guarded_cell_says_what_it_said(text: str) -> None:
    assert unguarded(guarded(text)) == (text[1:] if text[:1] == "'" and text[1:2] in FORMULAS else text)


@pytest.mark.parametrize("size", [LONGEST_CELL + 1, 200_000, 1_000_000])
def test_a_cell_that_no_spreadsheet_holds_is_refused(size: int) -> None:
    with pytest.raises(RigError, match=f"holds more than {LONGEST_CELL} characters"):
        cells_of(f"1,{'9' * size}", ",")
    with pytest.raises(RigError, match="holds more than"):
        cells_of(f'1,"{"9" * size}"', ",")


def test_one_that_a_spreadsheet_holds_is_read() -> None:
    assert cells_of(f"1;{'9' * LONGEST_CELL}", ";")[1] == "9" * LONGEST_CELL
