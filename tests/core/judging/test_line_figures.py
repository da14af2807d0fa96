"""The figures of a line as it stands are those of its assessment, and what is not known is None."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT
from fenwick.core.judging.checks import containment_level
from fenwick.core.judging.line_figures import line_figures
from fenwick.core.judging.review import review
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line
from tests.lines import disc_line


@pytest.mark.parametrize("name", ["demo_line", "demo_bench", "demo_cyclone"])
def test_they_are_what_the_assessment_says(name: str) -> None:
    line = build_line(demo_rig(name))
    found = assess(line)
    checks = review(line, found)
    figures = line_figures(line, found, checks)
    assert figures.kept == pytest.approx(float(found.kept[0]))  # type: ignore[index]
    assert figures.collapse == pytest.approx(float(found.collapse.ratio[0]))  # type: ignore[union-attr]
    assert figures.acts == sum(int(check.level[0]) == ACT for check in checks)
    assert [port.id for port in figures.ports] == [leaf.id for leaf in line.leaves]
    for place, port in enumerate(figures.ports):
        assert port.flow == float(found.point.port_flow[place, 0])
        assert (port.caught is None) is not line.leaves[place].open
    speeds = [check for check in found.checks if check.id == "settling"]
    assert figures.slowest == pytest.approx(float(speeds[0].value[0]))


def test_what_is_not_known_is_none() -> None:
    line = replace(disc_line(), dust=None)
    found = assess(line)
    figures = line_figures(line, found, review(line, found))
    assert (figures.kept, figures.slowest) == (None, None)
    assert all((port.caught, port.in_bin) == (None, None) for port in figures.ports)
    assert figures.collapse is not None


def test_every_red_of_a_port_is_a_check() -> None:
    line = build_line(demo_rig())
    ids = {check.id for check in assess(line).checks}
    assert {"air-at-tool", "caught", "settling", "kept", "bin-collapse"} <= ids


def test_fine_dust_is_never_to_act_on() -> None:
    drawn = np.array([0.001, 0.05, 0.2, 0.3])
    assert containment_level(drawn, np.full(4, 0.2)).tolist() == [1, 1, 0, 0]
