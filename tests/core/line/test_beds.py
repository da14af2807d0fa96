"""Beds in runs that do not carry: how much lies there, what it costs, when it plugs."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Hose
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.line import Line
from tests.lines import disc_line


def with_run(bore: float, dust: str = "sanding-p120", **hose: float) -> Line:
    """A line with one run of some bore ahead of its separator."""
    line = disc_line(dust=dust)
    run = Hose("run", bore, hose.get("length", 2.0), rise=hose.get("rise", 0.0))
    return replace(line, branches=(replace(line.branches[0], elements=(run,)),))


def found(line: Line) -> Assessment:
    """It judged."""
    return assess(line)


@given(st.floats(0.02, 0.15), st.sampled_from(["sanding-p120", "saw", "planer", "metal-turnings"]))
def test_a_bed_leaves_what_carries_and_is_as_much_as_it_fills(bore: float, dust: str) -> None:
    line = with_run(bore, dust)
    judged = found(line)
    assert judged.beds is not None
    share, volume = float(judged.beds.share[0, 0]), float(judged.beds.volume[0, 0])
    settles = DUSTS[dust].conveying[0]
    assert judged.carrying is not None
    speed = float(judged.carrying.velocity[judged.carrying.ids.index("run"), 0])
    assert share == pytest.approx(min(0.9, max(0.0, 1.0 - speed / settles)))
    assert volume == pytest.approx(2.0 * float(bore_area(bore)) * share)
    assert float(judged.beds.suction[0, 0]) >= 0.0
    if 0.0 < share < 0.9:
        assert speed / (1.0 - share) == pytest.approx(settles)


def test_beds_stand_beside_the_line_and_not_inside_it() -> None:
    """What is caught and what the bin gets is that of the clean line."""
    wide = found(with_run(0.1))
    assert wide.fate is not None
    assert wide.beds is not None
    assert float(wide.beds.share[0, 0]) > 0.3
    assert float(wide.fate.bin[0]) > 0.3
    total = sum(float(wide.fate.share(end)[0]) for end in wide.fate.by_size)
    assert total == pytest.approx(1.0)


def test_a_rise_holds_none_and_neither_does_what_lies_behind_the_separator() -> None:
    level, half, up = (found(with_run(0.1, rise=rise)).beds for rise in (0.0, 1.0, 2.0))
    assert level is not None
    assert half is not None
    assert up is not None
    assert float(half.volume[0, 0]) == pytest.approx(0.5 * float(level.volume[0, 0]))
    assert float(up.volume[0, 0]) == float(up.share[0, 0]) == 0.0
    assert level.ids == ("run",)  # not the link


def test_a_long_chip_plugs_what_a_short_one_only_threatens() -> None:
    def level(dust: str, bore: float) -> int:
        return max((int(c.level[0]) for c in found(with_run(bore, dust)).checks if c.id == "bed"), default=-1)

    assert level("sanding-p120", 0.038) == -1  # it carries, there is no bed
    assert level("sanding-p120", 0.075) == 0
    assert level("planer", 0.075) == 1  # 25 mm chips over a bed
    assert level("sanding-p120", 0.20) == 2  # more than 0.7 of the bore


def test_no_step_where_a_bed_begins() -> None:
    bores = np.linspace(0.05, 0.06, 41)
    line = with_run(0.05)
    run = Hose("run", bores, 2.0)
    batch = found(replace(line, branches=(replace(line.branches[0], elements=(run,)),)))
    assert batch.beds is not None
    assert np.max(np.abs(np.diff(batch.beds.share[0]))) < 0.02
    assert np.max(np.abs(np.diff(batch.beds.suction[0]))) < 30.0
    assert np.all(np.diff(batch.beds.share[0]) >= 0.0)
