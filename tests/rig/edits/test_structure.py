"""Adding, duplicating, moving and removing parts: every result is a rig that is checked and can be solved."""

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.line.operating import operating_point
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line
from fenwick.rig.edits.structure import ADDABLE, ON_TRUNK, add_part, duplicate_part, move_part, remove_part


def branch_ids(rig: Rig) -> list[str]:
    """Parts of the first branch."""
    return [element.id for element in rig.line.branches[0].elements]


def trunk_ids(rig: Rig) -> list[str]:
    """Parts of the trunk."""
    return [element.id for element in rig.line.elements]


@pytest.mark.parametrize("kind", [kind for kind in ADDABLE if kind not in ON_TRUNK])
@pytest.mark.parametrize("after", ["drum-sander", "hose-a", "sep", "vacuum"])
def test_every_kind_can_be_added_anywhere_and_solves(rig: Rig, kind: str, after: str) -> None:
    changed, new = add_part(rig, after, kind)
    ids = branch_ids(changed) + trunk_ids(changed)
    assert len(ids) == len(branch_ids(rig) + trunk_ids(rig)) + 1
    expected = {"drum-sander": 0, "hose-a": 1, "sep": 4, "vacuum": 5}[after]
    assert ids[expected] == new
    assert operating_point(build_line(changed)).port_flow[0, 0] > 0


def test_a_new_part_meets_its_neighbour_without_a_step(rig: Rig) -> None:
    changed, new = add_part(rig, "hose-b", "hose")
    element = next(e for e in changed.line.branches[0].elements if e.id == new)
    assert element.bore_m == 0.063  # type: ignore[union-attr]
    first, name = add_part(rig, "drum-sander", "gate")
    assert next(e for e in first.line.branches[0].elements if e.id == name).bore_m == 0.05  # type: ignore[union-attr]


def test_a_separator_can_be_taken_out_and_put_in(rig: Rig) -> None:
    bare = remove_part(rig, "sep")
    assert trunk_ids(bare) == ["link"]
    again, new = add_part(bare, "link", "separator")
    assert trunk_ids(again) == ["link", new]
    for _ in range(3):
        rig, _ = add_part(rig, "sep", "separator")
    with pytest.raises(RigError, match="one separator more than the 4 on a line"):
        add_part(rig, "sep", "separator")
    with pytest.raises(RigError, match=r"belongs where all tools have joined"):
        add_part(bare, "hose-a", "separator")


def test_a_copy_stands_behind_its_original(rig: Rig) -> None:
    changed, new = duplicate_part(rig, "hose-a")
    assert branch_ids(changed) == ["hose-a", new, "cuff", "hose-b"]
    copy = changed.line.branches[0].elements[1]
    assert copy.name == "Hose A copy"
    assert copy.model_dump(exclude={"id", "name"}) == rig.line.branches[0].elements[0].model_dump(
        exclude={"id", "name"}
    )


def test_moving_crosses_between_branch_and_trunk_and_back(rig: Rig) -> None:
    moved = move_part(rig, "hose-b", +1)
    assert (branch_ids(moved), trunk_ids(moved)[0]) == (["hose-a", "cuff"], "hose-b")
    assert move_part(moved, "hose-b", -1) == rig
    assert branch_ids(move_part(rig, "cuff", -1)) == ["cuff", "hose-a", "hose-b"]
    with pytest.raises(RigError, match="end of its run"):
        move_part(rig, "hose-a", -1)
    with pytest.raises(RigError, match="end of its run"):
        move_part(rig, "link", +1)
    with pytest.raises(RigError, match="separator belongs"):
        move_part(rig, "sep", -1)


@pytest.mark.parametrize("part", ["drum-sander", "vacuum", "nothing"])
def test_tool_and_vacuum_stay(rig: Rig, part: str) -> None:
    for change in (remove_part, duplicate_part):
        with pytest.raises(RigError, match="only parts between tool and vacuum"):
            change(rig, part)


def test_in_a_tree_a_part_stays_in_its_run() -> None:
    bench = demo_rig("demo_bench")
    with pytest.raises(RigError, match="end of its run"):
        move_part(bench, "router-hose", +1)
    changed, new = add_part(bench, "bench", "gate")
    inner = next(branch for _, branch in changed.line.walk() if branch.id == "bench")
    assert [element.id for element in inner.elements] == [new, "bench-pipe", "corner"]


STEPS = st.lists(
    st.tuples(st.sampled_from(["add", "copy", "move", "remove"]), st.integers(0, 30), st.sampled_from(sorted(ADDABLE))),
    max_size=8,
)


@given(STEPS)
def test_any_run_of_changes_leaves_a_rig_that_solves(steps: list[tuple[str, int, str]]) -> None:
    rig = demo_rig()
    for what, at, kind in steps:
        ids = ["drum-sander", *branch_ids(rig), *trunk_ids(rig), "vacuum"]
        part = ids[at % len(ids)]
        with suppress(RigError):  # what may not stand there is refused, and the rig stays as it was
            match what:
                case "add":
                    rig, _ = add_part(rig, part, kind)
                case "copy":
                    rig, _ = duplicate_part(rig, part)
                case "move":
                    rig = move_part(rig, part, 1 if at % 2 else -1)
                case _:
                    rig = remove_part(rig, part)
    point = operating_point(build_line(rig))
    assert point.port_flow[0, 0] > 0
