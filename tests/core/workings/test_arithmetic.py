"""The small language of the steps."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.errors import OutsideDomainError
from fenwick.core.workings.arithmetic import FUNCTIONS, evaluate

NUMBERS = st.floats(0.1, 10.0)


@given(NUMBERS, NUMBERS)
def test_it_reckons_as_python_does(a: float, b: float) -> None:
    names = {"a": a, "b": b}
    assert evaluate("(a + b) ** 2 / (a * b) - sqrt(a)", names) == pytest.approx((a + b) ** 2 / (a * b) - a**0.5)
    assert evaluate("where(a > b, a, b)", names) == max(a, b) == evaluate("maximum(a, b)", names)
    assert evaluate("-a + clip(b, 1, 2)", names) == pytest.approx(-a + min(max(b, 1.0), 2.0))


@given(st.lists(NUMBERS, min_size=2, max_size=20))
def test_lists_are_handled_element_by_element(values: list[float]) -> None:
    column = np.array(values)
    assert evaluate("sum(x * 2)", {"x": column}) == pytest.approx(2.0 * sum(values))
    assert evaluate("cumsum(x)", {"x": column}) == pytest.approx(np.cumsum(values))
    assert evaluate("interp(1.5, i, x)", {"i": np.arange(column.size), "x": column}) == pytest.approx(
        np.interp(1.5, np.arange(column.size), column)
    )


@pytest.mark.parametrize(
    "expression",
    [
        "__import__('os')",
        "a.real",
        "[1, 2]",
        "lambda: 1",
        "a if a else 1",
        "a and b",
        "'x'",
        "open(a)",
        "sum(a, axis=0)",
        "a[0]",
        "unknown + 1",
        "1 +",
        "a == 1",
        "a // 2",
    ],
)
def test_anything_else_is_refused(expression: str) -> None:
    with pytest.raises(OutsideDomainError):
        evaluate(expression, {"a": 1.0, "b": 2.0})


def test_every_function_is_one_that_a_reader_knows() -> None:
    known = {"sqrt", "exp", "log", "sin", "cos", "tan", "atan", "minimum", "maximum", "where", "sum", "cumsum"}
    assert set(FUNCTIONS) == known | {"interp", "clip"}
