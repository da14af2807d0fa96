"""Gates turned one by one: shut if open, open if shut, and nothing where there is none."""

from __future__ import annotations

import pytest

from fenwick.data.demo import demo_rig
from fenwick.rig import edit_rig
from fenwick.rig.edits.ports import alone, open_gates, turned


def test_turned_twice_a_gate_is_as_it_was() -> None:
    rig = demo_rig("demo_bench")
    once = turned(rig, "sweep")
    assert once is not None
    assert open_gates(once) - open_gates(rig) == {"sweep"}
    assert turned(once, "sweep") == rig


def test_a_gate_that_stands_a_little_open_is_shut() -> None:
    ajar = edit_rig(demo_rig("demo_bench"), {"line.branches[2].gate.opening": 0.2})
    assert "sweep" in open_gates(ajar)
    shut = turned(ajar, "sweep")
    assert shut is not None
    assert "sweep" not in open_gates(shut)


@pytest.mark.parametrize("branch", ["bench", "main", "vacuum", "nothing", ""])
def test_where_there_is_no_gate_there_is_nothing_to_turn(branch: str) -> None:
    assert turned(demo_rig("demo_bench"), branch) is None


def test_one_port_opened_alone_leaves_its_gates_alone_open() -> None:
    lone = alone(demo_rig("demo_bench"), "sander")
    assert lone is not None
    assert open_gates(lone) == {"sander"}
