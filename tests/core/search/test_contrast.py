"""Two lines draw by draw: the same line differs in nothing, and a known change is told apart."""

from dataclasses import replace

import numpy as np
import pytest

from fenwick.core.doubt.uncertainty import DRAWS, sureness, vary
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.search.contrast import contrast, outcomes
from fenwick.core.search.effects import with_stage
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.schools import QUESTIONS, schools
from tests.lines import disc_line


def sealed(line: Line) -> Line:
    """The line with a tight bin."""
    stage = line.separators[0]
    return with_stage(line, stage.changed(bin=replace(stage.bin, leak_area=0.0)))


def test_a_line_differs_from_itself_in_nothing() -> None:
    for shift in contrast(disc_line(), disc_line(), 0, draws=200):
        assert shift.low == shift.middle == shift.high == 0.0
        assert not shift.told
        assert not shift.matters


def test_a_leak_is_told_apart_and_swaps_sign_with_the_order() -> None:
    leaking = disc_line(leak=40e-6)
    there = {shift.figure: shift for shift in contrast(leaking, sealed(leaking), 0)}
    back = {shift.figure: shift for shift in contrast(sealed(leaking), leaking, 0)}
    assert there["kept"].told
    assert there["kept"].low > 0.0
    assert back["kept"].high == pytest.approx(-there["kept"].low)
    assert there["kept"].low <= there["kept"].middle <= there["kept"].high
    assert not there["folding"].told


def test_the_same_assumption_draws_the_same_in_every_line() -> None:
    one = vary(disc_line(), 100, 7).drawn
    other = vary(disc_line(leak=1e-4, bore=0.05), 100, 7).drawn
    for key in set(one) & set(other):
        assert np.array_equal(one[key], other[key])
    assert not np.array_equal(one["dust.size"], one["bin.stir"])


def test_a_contrast_starts_from_the_line_as_it_stands_and_draws_as_its_bands_do() -> None:
    line = disc_line()
    kept = outcomes(line, 0, draws=DRAWS)["kept"]
    band = sureness(line).kept
    assert band is not None
    whole = assess(line).kept
    assert whole is not None
    assert kept[0] == pytest.approx(whole[0], abs=1e-6)
    assert float(np.median(kept[1:])) == pytest.approx(band.median, abs=1e-6)


def test_every_question_is_put_on_a_line_with_a_disc(rig: Rig) -> None:
    asked = {school.id: school for school in schools(rig, "sep")}
    assert set(asked) == {asked.name for asked in QUESTIONS}
    for school in asked.values():
        first, second = school.rigs
        assert first != second
        assert build_line(first).variants == build_line(second).variants == 1


def test_the_slot_s_start_cannot_be_told(rig: Rig) -> None:
    school = next(one for one in schools(rig, "sep") if one.id == "under-inlet")
    shifts = contrast(*(build_line(one) for one in school.rigs), 0, draws=100)
    assert not any(shift.told for shift in shifts)
