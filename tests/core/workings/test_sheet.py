"""Steps as they are written down."""

from __future__ import annotations

import numpy as np
import pytest

from fenwick.core.errors import OutsideDomainError
from fenwick.core.rules import RuleBook, rule
from fenwick.core.workings.sheet import FIGURE, MEASURED, RULE, SOLVED, Sheet


def test_a_step_is_worked_out_from_its_inputs_and_keeps_where_they_come_from() -> None:
    sheet = Sheet(RuleBook())
    with sheet.section("Hose"):
        bore = sheet.given("hose.bore_m", "d", "Bore", 0.05, "m")
        area = sheet.step("hose.area", "A", "Area", "pi / 4 * d ** 2", "m²", d=bore)
    assert area.value == pytest.approx(np.pi / 4.0 * 0.0025)
    assert area.inputs == {"d": "hose.bore_m"}
    assert (bore.key, bore.section) == ("hose.bore_m", "Hose")
    assert sheet.given("hose.bore_m", "d", "Another", 0.07, "m") is bore


def test_a_rule_tells_its_range_and_whether_readings_moved_it() -> None:
    plain = Sheet(RuleBook()).rule("swirl.cut", "c")
    tuned = Sheet(RuleBook().with_values({"swirl.cut": 1.2})).rule("swirl.cut", "c")
    row = rule("swirl.cut")
    assert (plain.kind, plain.low, plain.high) == (RULE, row.low, row.high)
    assert (tuned.kind, tuned.value) == (MEASURED, 1.2)


def test_what_is_solved_must_keep_its_balance() -> None:
    sheet = Sheet(RuleBook())
    root = sheet.solved("root", "x", "A root", 2.0, "(value ** 2 - four) / four", "-", "", four=4.0)
    assert (root.kind, root.expression) == (SOLVED, None)
    with pytest.raises(OutsideDomainError, match="does not fit"):
        sheet.solved("wrong", "x", "A root", 2.1, "(value ** 2 - four) / four", "-", "", four=4.0)


def test_a_working_holds_what_leads_to_its_figure_and_nothing_else() -> None:
    sheet = Sheet(RuleBook())
    one, two = sheet.given("a", "a", "One", 1.0), sheet.given("b", "b", "Two", 2.0)
    mine = sheet.step("mine", "m", "Mine", "x + 1", x=one)
    other = sheet.step("other", "o", "Other", "x + y", x=mine, y=two)
    assert [step.id for step in sheet.working("f", mine).steps] == ["a", "mine"]
    beside = sheet.working("f", mine, [other])
    assert [step.id for step in beside.steps] == ["a", "b", "mine", "other", FIGURE]
    assert beside.root.value == mine.value
    assert beside.root.inputs == {"x": "mine"}


def test_an_angle_stands_in_degrees_and_goes_on_in_radians() -> None:
    sheet = Sheet(RuleBook())
    turned = sheet.angle("elbow.angle_deg", "α", "Angle", np.pi / 2.0)
    assert sheet.steps["elbow.angle_deg"].value == pytest.approx(90.0)
    assert turned.value == pytest.approx(np.pi / 2.0)
