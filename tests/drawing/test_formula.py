"""Arithmetic as it is written on paper."""

from __future__ import annotations

import numpy as np
import pytest
from bs4 import BeautifulSoup

from fenwick.data.demo import demo_rig
from fenwick.drawing.formula import render_formula, render_symbol
from fenwick.drawing.trend import render_trend
from fenwick.services.workings import all_explained, asked_of


def told(expression: str, **symbols: str) -> str:
    """The text of a formula, without what only shapes it."""
    return BeautifulSoup(render_formula(expression, symbols), "html.parser").text.replace("\u2062", "")


def shaped(expression: str, what: str) -> int:
    """How many elements of a kind a formula has."""
    return len(BeautifulSoup(render_formula(expression, {}), "html.parser").find_all(what))


@pytest.mark.parametrize(
    ("expression", "text"),
    [
        ("a + b * c", "a+bc"),
        ("(a + b) * c", "(a+b)c"),
        ("a - (b - c)", "a−(b−c)"),
        ("-(a + b)", "−(a+b)"),
        ("2 * a", "2a"),
        ("a * 2", "a·2"),
        ("maximum(a, b)", "max(a,b)"),
        ("log(a)", "ln(a)"),
        ("maximum(a, 1e-12)", "a"),
        ("maximum(a, 0)", "max(a,0)"),
        ("sum(w * k)", "∑wk"),
        ("sum(a + b)", "∑(a+b)"),
        ("a <= b", "a≤b"),
        ("1.5e-6 * T", "1.5·10−6T"),
        ("pi / 4", "π4"),
    ],
)
def test_it_reads_as_it_is_written(expression: str, text: str) -> None:
    assert told(expression) == text


def test_shapes_are_those_of_paper() -> None:
    assert shaped("a / b", "mfrac") == 1
    assert shaped("sqrt(a + b)", "msqrt") == 1
    assert shaped("a ** 0.5", "msqrt") == 1
    assert shaped("exp(-a / b)", "msup") == 1
    assert shaped("where(a > b, a, b)", "mtr") == 2
    assert shaped("clip(a, 0, 1)", "msubsup") == 1
    assert shaped("cumsum(a)", "munder") == 1
    assert shaped("interp(x, xs, ys)", "msub") == 1


def test_names_become_symbols_and_what_follows_an_underscore_is_set_lower() -> None:
    assert told("a / b", a="v_in", b="Q") == "vinQ"
    assert "<msub>" in render_symbol("v_in")
    assert "<msub>" not in render_symbol("Q")
    assert "&lt;" in render_symbol("<b>")


def test_a_base_with_a_power_gets_brackets_where_it_needs_them() -> None:
    assert told("(a + b) ** 2") == "(a+b)2"
    assert told("a ** 2") == "a2"
    assert told("(a / b) ** 2") == "(ab)2"


@pytest.mark.parametrize("name", ["demo_line", "demo_bench", "demo_cyclone"])
def test_every_formula_of_the_demo_can_be_written(name: str) -> None:
    rig = demo_rig(name)
    for working in all_explained(rig, asked_of(rig)).values():
        for step in working.steps:
            law = step.expression if step.expression is not None else step.residual
            assert law is not None
            written = render_formula(law, {})
            assert written.startswith("<math>")
            assert BeautifulSoup(written, "html.parser").text.strip()


def test_a_list_is_drawn_from_its_least_to_its_most() -> None:
    drawn = render_trend(np.array([1.0, 3.0, 2.0]))
    points = [tuple(map(float, one.split(","))) for one in drawn.split('points="')[1].split('"')[0].split()]
    assert len(points) == 3
    assert points[1][1] < points[2][1] < points[0][1]
    flat = render_trend(np.ones(4))
    assert "nan" not in flat
    assert "4 values" in flat
