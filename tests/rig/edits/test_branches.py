"""Tools that come and go: what the rest of the line does meanwhile."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.judging.assess import assess
from fenwick.core.line.operating import operating_point
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line
from fenwick.rig.edits.branches import add_tool, gate_branch, join_behind, remove_tool, split_behind
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


def test_a_tool_joins_the_run_it_is_dropped_on() -> None:
    rig = demo_rig("demo_bench")
    moved = join_behind(rig, "sweep", "router-hose")
    ways = {way[0].id: [branch.id for branch in way] for way in moved.line.ways}
    assert set(ways) == {"bandsaw", "router", "sander", "sweep"}
    assert ways["sweep"][1] == ways["router"][1], "they share the run from there on"
    sweep = next(way[0] for way in moved.line.ways if way[0].id == "sweep")
    assert [part.id for part in sweep.elements] == ["sweep-hose"]
    assert sweep.gate is not None
    assert moved.line.combinations == rig.line.combinations, "it is the same tool"
    assert assess(build_line(moved)).point.port_flow.shape[0] == 4


def test_a_tool_joins_on_the_trunk_too_and_back_again() -> None:
    rig = demo_rig("demo_bench")
    there = join_behind(rig, "sander", "main")
    assert [e.id for e in there.line.elements] == ["sep", "link"]
    back = join_behind(there, "sander", "router-hose")
    assert {way[0].id for way in back.line.ways} == {way[0].id for way in rig.line.ways}


@pytest.mark.parametrize(
    ("tool", "part", "words"),
    [
        ("sweep", "sweep-hose", "its own hose"),
        ("sweep", "sweep", "its own hose"),
        ("sweep", "vacuum", "behind a part of the run"),
        ("bench", "main", "no tool of this line"),
        ("nothing", "main", "no tool of this line"),
    ],
)
def test_where_a_tool_cannot_join_is_said_in_words(tool: str, part: str, words: str) -> None:
    with pytest.raises(RigError, match=words):
        join_behind(demo_rig("demo_bench"), tool, part)


def test_the_only_tool_stays_where_it_is() -> None:
    rig = demo_rig()
    with pytest.raises(RigError, match="the last tool"):
        join_behind(rig, rig.line.ways[0][0].id, "link")


def test_a_separator_moved_into_a_branch_says_where_it_belongs() -> None:
    with pytest.raises(RigError, match="where all tools have joined"):
        move_part_behind(demo_rig("demo_bench"), "sep", "router-hose")
