"""Tools that come and go: what the rest of the line does meanwhile."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.line.operating import operating_point
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line
from fenwick.rig.edits.branches import add_tool, gate_branch, remove_tool, split_behind
from fenwick.rig.edits.structure import move_part_behind, replace_part


def flow(rig: Rig, port: str) -> float:
    line = build_line(rig)
    at = [leaf.id for leaf in line.leaves].index(port)
    return float(operating_point(line).port_flow[at, 0])


def ports(rig: Rig) -> list[str]:
    return [way[0].id for way in rig.line.ways]


def test_a_tool_beside_another_comes_with_its_gate_shut() -> None:
    rig, new = add_tool(demo_rig(), "drum-sander")
    assert ports(rig) == ["drum-sander", new]
    # a shut gate leaks a little, and the open gate of the first costs a little
    assert flow(rig, "drum-sander") == pytest.approx(flow(demo_rig(), "drum-sander"), rel=0.03)
    assert flow(rig, new) < 1e-3


@pytest.mark.parametrize("part", ["hose-a", "cuff", "hose-b"])
def test_a_tool_joining_along_a_branch_hardly_changes_the_rest(part: str) -> None:
    rig, new = split_behind(demo_rig(), part)
    assert sorted(ports(rig)) == sorted(["drum-sander", new])
    assert flow(rig, "drum-sander") == pytest.approx(flow(demo_rig(), "drum-sander"), rel=0.04)
    way = next(way for way in rig.line.ways if way[0].id == "drum-sander")
    along = [e.id for branch in way for e in branch.elements]
    assert along == [e.id for e in demo_rig().line.branches[0].elements]  # nothing lost, nothing out of order


def test_a_split_on_the_trunk_takes_every_tool_ahead_of_it_along() -> None:
    rig, new = split_behind(demo_rig("demo_bench"), "main")
    assert set(ports(rig)) == {*ports(demo_rig("demo_bench")), new}
    assert flow(rig, "bandsaw") == pytest.approx(flow(demo_rig("demo_bench"), "bandsaw"), rel=0.02)
    with pytest.raises(RigError, match="separator"):
        split_behind(demo_rig(), "sep")
    with pytest.raises(RigError, match="behind a part"):
        split_behind(demo_rig(), "drum-sander")


def test_removing_what_was_added_brings_the_line_back() -> None:
    for start, part in ((demo_rig(), "hose-a"), (demo_rig("demo_bench"), "drop-bandsaw")):
        rig, new = split_behind(start, part)
        back = remove_tool(rig, new)
        assert ports(back) == ports(start)
        assert [way[0].elements for way in back.line.ways] == [way[0].elements for way in start.line.ways]
        assert back.line.elements == start.line.elements


def test_a_junction_that_joins_nothing_goes_too() -> None:
    rig = remove_tool(demo_rig("demo_bench"), "router")
    assert ports(rig) == ["bandsaw", "sander", "sweep"]
    way = next(way for way in rig.line.ways if way[0].id == "sander")
    assert [e.id for e in way[0].elements] == ["sander-hose", "bench-pipe", "corner"]
    last = remove_tool(remove_tool(rig, "sander"), "sweep")
    with pytest.raises(RigError, match="last tool"):
        remove_tool(last, "bandsaw")


def test_a_gate_is_put_once() -> None:
    gated = gate_branch(demo_rig(), "drum-sander")
    assert gated.line.branches[0].gate is not None
    with pytest.raises(RigError, match="already"):
        gate_branch(gated, "drum-sander")
    with pytest.raises(RigError, match="no tool"):
        gate_branch(gated, "nobody")


def test_a_part_is_put_behind_another_and_exchanged() -> None:
    rig = move_part_behind(demo_rig(), "hose-b", "drum-sander")
    assert [e.id for e in rig.line.branches[0].elements] == ["hose-b", "hose-a", "cuff"]
    assert move_part_behind(rig, "cuff", "cuff") is rig
    values = {"bore_m": 0.05, "length_m": 2.0, "wall": "smooth"}
    changed = replace_part(rig, "hose-b", "hose", values)
    hose = changed.line.branches[0].elements[0]
    assert (hose.id, hose.name) == ("hose-b", "Hose B")
    with pytest.raises(RigError, match="bore_m"):
        replace_part(rig, "hose-b", "hose", {**values, "bore_m": -1.0})
    with pytest.raises(RigError):
        move_part_behind(rig, "hose-b", "nobody")


@given(st.lists(st.tuples(st.sampled_from(["add", "split", "remove"]), st.integers(0, 30)), max_size=8))
def test_any_sequence_leaves_a_line_that_solves(steps: list[tuple[str, int]]) -> None:
    rig = demo_rig("demo_bench")
    for step, pick in steps:
        tools = ports(rig)
        parts = [e.id for _, branch in rig.line.walk() for e in branch.elements]
        if step == "add":
            rig, _ = add_tool(rig, tools[pick % len(tools)])
        elif step == "split" and parts:
            rig, _ = split_behind(rig, parts[pick % len(parts)])
        elif step == "remove" and len(tools) > 1:
            rig = remove_tool(rig, tools[pick % len(tools)])
    point = operating_point(build_line(rig))
    assert point.residual[0] < 1.0
    assert len({*ports(rig)}) == len(ports(rig))
