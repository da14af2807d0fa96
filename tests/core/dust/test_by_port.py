"""What of each port's dust ends in the bins: what the ports add up to is what the bin holds."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings

from fenwick.core.dust.by_port import in_bin_by_port
from fenwick.core.judging.assess import assess
from fenwick.core.line.ports import line_alone, line_together
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, build_line
from tests.lines import disc_line
from tests.test_rigs import rigs


@pytest.mark.parametrize("name", ["demo_line", "demo_bench", "demo_cyclone"])
def test_with_one_port_open_it_is_the_share_of_the_dust_in_the_bin(name: str) -> None:
    whole = build_line(demo_rig(name))
    for port, leaf in enumerate(whole.leaves):
        line = line_alone(whole, port)
        found = assess(line)
        told = in_bin_by_port(line, found.captures, found.arriving, found.fate)
        assert found.fate is not None
        assert told[leaf.id][0] == pytest.approx(found.fate.bin[0])


def test_with_several_open_each_has_its_own_and_none_has_more_than_it_caught() -> None:
    line = line_together(build_line(demo_rig("demo_bench")), ("bandsaw", "sweep"))
    found = assess(line)
    told = in_bin_by_port(line, found.captures, found.arriving, found.fate)
    assert set(told) == {"bandsaw", "sweep"}
    caught = {one.id: float(one.total[0]) for one in found.captures}
    assert all(0.0 < told[name][0] <= caught[name] + 1e-9 for name in told)


def test_of_dust_that_nobody_knows_nothing_is_said() -> None:
    line = replace(disc_line(), dust=None)
    found = assess(line)
    assert in_bin_by_port(line, found.captures, found.arriving, found.fate) == {}


@settings(max_examples=25)
@given(rigs())
def test_it_is_a_share_whatever_the_line(rig: Rig) -> None:
    line = build_line(rig)
    found = assess(line)
    for shares in in_bin_by_port(line, found.captures, found.arriving, found.fate).values():
        assert (shares >= -1e-12).all()
        assert (shares <= 1.0 + 1e-9).all()
