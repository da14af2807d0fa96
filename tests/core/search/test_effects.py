"""What a separator keeps with one thing otherwise: every point of a range is the line with just that made."""

from __future__ import annotations

from dataclasses import replace
from math import radians

import numpy as np
import pytest

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.line.rows import bin_leak_reading
from fenwick.core.search.effects import (
    LEAK_STEPS,
    MOST_LEAK_SHARE,
    MOST_TILT,
    SWEEP_POINTS,
    Sweep,
    effects,
    made_otherwise,
    put_right,
    sweeps,
    with_stage,
)
from tests.lines import disc_line

FAULTY = {"fill": 0.2, "leak": 20e-6, "tilt": radians(10.0)}


def stage_of(line: Line) -> Separator:
    """The only one."""
    (stage,) = line.separators
    return stage


def kept(line: Line, stage: Separator) -> float:
    """By the line with that separator in it, solved alone."""
    share = assess(with_stage(line, stage)).kept
    assert share is not None
    return float(share[0])


def ranges(line: Line) -> dict[str, Sweep]:
    """By what runs through its range."""
    return {sweep.id: sweep for sweep in sweeps(line, stage_of(line))}


@pytest.mark.parametrize("point", [0, 7, 20, 33, SWEEP_POINTS - 1])
def test_a_point_of_the_fill_is_the_line_with_that_fill_alone(point: int) -> None:
    line = disc_line(**FAULTY)
    stage, fill = stage_of(line), ranges(line)["fill"]
    alone = stage.changed(bin=replace(stage.bin, fill_height=float(fill.value[point])))
    assert fill.kept[point] == pytest.approx(kept(line, alone), abs=2e-4)


@pytest.mark.parametrize("point", [0, 7, 20, 33, SWEEP_POINTS - 1])
def test_a_point_of_the_tilt_is_the_line_that_leans_so_alone(point: int) -> None:
    line = disc_line(**FAULTY)
    stage, tilt = stage_of(line), ranges(line)["tilt"]
    assert tilt.kept[point] == pytest.approx(kept(line, stage.changed(tilt=float(tilt.value[point]))), abs=2e-4)


@pytest.mark.parametrize("point", [0, 1, 2, 4])
def test_a_point_of_the_leak_is_the_line_that_leaks_so_alone(point: int) -> None:
    line = disc_line(**FAULTY)
    stage, leak = stage_of(line), ranges(line)["leak"]
    area = float(LEAK_STEPS[point]) * 1e-5 * max(one_value(stage.hose_bore) / 0.05, 0.2) ** 2
    found = assess(with_stage(line, stage.changed(bin=replace(stage.bin, leak_area=area))))
    assert found.kept is not None
    assert leak.value[point] == pytest.approx(float(found.separations[0].leak_share[0]), rel=2e-3, abs=1e-6)
    assert leak.kept[point] == pytest.approx(float(found.kept[0]), abs=2e-4)


def test_every_range_knows_where_the_line_stands() -> None:
    line = disc_line(**FAULTY)
    found = ranges(line)
    assert list(found) == ["fill", "tilt", "leak"]
    assert found["fill"].now == pytest.approx(0.2)
    assert found["tilt"].now == pytest.approx(radians(10.0))
    assert found["leak"].now == pytest.approx(float(assess(line).separations[0].leak_share[0]), rel=2e-3)
    here = np.interp(found["leak"].now, found["leak"].value, found["leak"].kept)
    assert here == pytest.approx(kept(line, stage_of(line)), abs=0.02)


def test_ranges_go_from_nothing_wrong_to_as_far_as_is_followed() -> None:
    line = disc_line(**FAULTY)
    found = ranges(line)
    assert found["fill"].value[-1] == pytest.approx(stage_of(line).bin.height)
    assert found["tilt"].value[-1] == pytest.approx(MOST_TILT)
    assert 0.5 * MOST_LEAK_SHARE < found["leak"].value[-1] <= MOST_LEAK_SHARE
    assert all(sweep.value.shape == sweep.kept.shape for sweep in found.values())


def test_a_bin_that_nobody_measured_leaks_as_its_lid_does() -> None:
    line = disc_line(leak=None)
    stage = stage_of(line)
    loose = with_stage(line, stage.changed(bin=replace(stage.bin, closure="loose")))
    tight = with_stage(line, stage.changed(bin=replace(stage.bin, closure="screwed-gasket")))
    assert ranges(loose)["leak"].now > ranges(tight)["leak"].now
    assert one_value(bin_leak_reading(stage_of(loose), line.rules)) > one_value(
        bin_leak_reading(stage_of(tight), line.rules)
    )


def test_a_fault_that_is_not_there_cannot_be_put_right() -> None:
    assert {one.id for one in put_right(stage_of(disc_line(fill=0.0, leak=0.0)))} == set()
    assert {one.id for one in put_right(stage_of(disc_line(**FAULTY)))} == {"empty", "seal", "upright"}


def test_each_thing_otherwise_changes_just_that() -> None:
    stage = stage_of(disc_line())
    for other in made_otherwise(stage):
        assert type(other.stage) is type(stage)
        assert other.stage != stage
        assert other.stage.id == stage.id
    assert len({other.id for other in made_otherwise(stage)}) == len(list(made_otherwise(stage)))


def test_gains_are_against_the_line_as_it_stands_and_faults_come_worst_first() -> None:
    line = disc_line(**FAULTY)
    now = kept(line, stage_of(line))
    faults, sizes = effects(line, stage_of(line))
    assert [one.gain for one in faults] == sorted((one.gain for one in faults), reverse=True)
    assert [one.gain for one in sizes] == sorted((one.gain for one in sizes), reverse=True)
    for effect in (*faults, *sizes):
        assert effect.kept - effect.gain == pytest.approx(now, abs=2e-4)
