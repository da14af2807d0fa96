"""What an hour uses is what upkeep says of the same line: one figure, one home."""

import numpy as np
import pytest

from fenwick.core.hours.upkeep import upkeep
from fenwick.core.hours.wear import SHARES, wear_of
from fenwick.core.line.ports import line_alone
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line
from tests.lines import disc_line


@pytest.mark.parametrize(
    ("name", "port"), [("demo_line", 0), ("demo_bench", 0), ("demo_bench", 2), ("demo_cyclone", 0)]
)
def test_it_is_what_upkeep_says(name: str, port: int) -> None:
    line = line_alone(build_line(demo_rig(name)), port)
    wear, told = wear_of(line, port), upkeep(line, port, 20.0)
    assert wear is not None
    assert told is not None
    assert wear.bin == pytest.approx(told.bin_hours, rel=1e-12)
    assert wear.filter == pytest.approx(told.with_it.life, rel=1e-12)
    assert wear.tank == pytest.approx(told.with_it.tank_full, rel=1e-12)
    between = told.with_it.lives.between[:, 0]
    assert wear.left[1] == pytest.approx(1.0 - between[1] / between[0])


def test_a_filter_fills_as_its_life_goes_on_and_begins_empty() -> None:
    line = line_alone(build_line(demo_rig()), 0)
    wear = wear_of(line, 0)
    assert wear is not None
    assert wear.held[0] == 0.0
    assert np.all(np.diff(wear.held) > 0.0)
    assert wear.held.shape == SHARES.shape


def test_without_a_dust_nothing_is_said() -> None:
    line = disc_line()
    assert line.dust is None or wear_of(line, 0) is None or wear_of(line, 0).filter > 0.0  # type: ignore[union-attr]
