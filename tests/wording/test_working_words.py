"""A working as text."""

from __future__ import annotations

import numpy as np
import pytest

from fenwick.core.workings.sheet import KINDS, Sheet
from fenwick.data.demo import demo_rig
from fenwick.rig.voice import part_names
from fenwick.services.workings import asked_of, explained
from fenwick.wording.working import KIND_WORDS, figure_of, lines_of, named, range_of, unit_of


@pytest.mark.parametrize(
    ("value", "text"),
    [
        (0.0, "0"),
        (12.3456, "12.35"),
        (0.001234, "0.001234"),
        (0.0001234, "1.234·10⁻⁴"),
        (98765.4, "98\u202f765"),
        (12345678.0, "1.235·10⁷"),
        (-0.00002, "-2·10⁻⁵"),
    ],
)
def test_a_value_is_told_in_four_figures(value: float, text: str) -> None:
    assert figure_of(value) == text


def test_of_many_values_the_least_and_the_most_are_told() -> None:
    assert figure_of(np.array([3.0, 1.0, 2.0])) == "3 values, 1 … 3"


def test_every_kind_has_a_word() -> None:
    assert set(KIND_WORDS) == set(KINDS)


def test_a_rule_tells_its_range_and_a_given_value_none() -> None:
    sheet = Sheet(asked_of(demo_rig()).line.rules)
    assert range_of(sheet.rule("swirl.cut", "c")) == "0.6 … 1.6"
    given = sheet.given("x", "x", "X", 1.0, "-")
    assert range_of(given) == ""
    assert unit_of(given) == ""


def test_sections_are_called_after_their_parts() -> None:
    names = {"sep": "Slot chamber", "hose-a": "Hose A"}
    assert named("sep", names) == "Slot chamber"
    assert named("sep: leak", names) == "Slot chamber: leak"
    assert named("Change of bore sander:entry>hose-a", names) == "Change of bore ahead of Hose A"
    assert named("The room", names) == "The room"


def test_the_text_ends_with_the_figure_and_names_what_went_in() -> None:
    rig = demo_rig()
    working = explained(rig, asked_of(rig), "inlet-speed:sep")
    assert working is not None
    lines = list(lines_of(working, part_names(rig)))
    assert "Slot chamber" in lines
    assert any("v_in" in line and "Q / (a * b)" in line and "Q: Q =" in line for line in lines)
    assert lines[-1].strip().startswith("Air speed in the inlet")
    assert any("solve 0 = " in line for line in lines)
