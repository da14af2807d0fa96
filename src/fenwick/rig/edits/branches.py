"""Changing where a line branches: tools added, gates where they join, tools removed."""

from __future__ import annotations

from typing import Any

from fenwick.rig.edits.edit import check_change
from fenwick.rig.edits.structure import bore_before, fresh_id, fresh_name, runs
from fenwick.rig.format.guesses import prune_guesses
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import Problem, RigError

NEW_HOSE = 1.5  #: length of the hose that a new tool comes with [m]


def add_tool(rig: Rig, beside: str) -> tuple[Rig, str]:
    """A rig with another tool where a tool's branch joins, and its id; gates keep the air where it was.

    Raises
    ------
    RigError
        When there is no such tool.
    """
    document = rig.model_dump(mode="json")
    siblings, at = _branch(document, beside)
    for sibling in siblings:
        sibling["gate"] = sibling["gate"] or {"opening": 1.0}
    bore = _joining_bore(document, siblings, siblings[at])
    new = _new_tool(rig, bore)
    siblings.insert(at + 1, new)
    return check_change(rig, document), new["id"]


def split_behind(rig: Rig, part: str) -> tuple[Rig, str]:
    """A rig in which a new tool joins behind a part, in the direction of the air; its id.

    The tool comes with its gate shut, so that nothing changes until it is opened.

    Raises
    ------
    RigError
        When there is no such part, or nothing may join there.
    """
    document = rig.model_dump(mode="json")
    _, run, at = _run_of(document, part)
    new = _new_tool(rig, bore_before(document, run, at + 1))
    _joined(rig, document, part, new)
    return check_change(rig, document), new["id"]


def join_behind(rig: Rig, tool: str, part: str) -> Rig:
    """A rig in which a tool that it has joins behind a part, in the direction of the air, with a gate.

    Raises
    ------
    RigError
        When there is no such tool or part, the tool is the only one, or the part is of its own branch.
    """
    document = rig.model_dump(mode="json")
    branches, at = _branch(document, tool)
    own = branches[at]
    if own["port"] is None:
        raise RigError((Problem("", "that is no tool of this line"),))
    if any(element["id"] == part for element in own["elements"]) or part == tool:
        raise RigError((Problem("", "a tool cannot join its own hose: drop it on that of another"),))
    _take_out(document, tool, len(rig.line.ways))
    _joined(rig, document, part, {**own, "gate": own["gate"] or {"opening": 1.0}})
    return check_change(rig, document)


def _run_of(document: dict[str, Any], part: str) -> tuple[str, list[Any], int]:
    """(id of the branch, or vacuum; its run; the place of a part in it)."""
    for owner, run in runs(document):
        at = next((i for i, element in enumerate(run) if element["id"] == part), None)
        if at is not None:
            return owner, run, at
    raise RigError((Problem("", "a tool can only join behind a part of the run"),))


def _joined(rig: Rig, document: dict[str, Any], part: str, branch: dict[str, Any]) -> None:
    """Let a branch join behind a part."""
    owner, run, at = _run_of(document, part)
    if owner == "vacuum":
        line = document["line"]
        inner = _inner(rig, run[: at + 1], branches=line["branches"], junction=line["junction_bore_m"])
        line |= {"elements": run[at + 1 :], "branches": [inner, branch], "junction_bore_m": None}
    else:
        branches, place = _branch(document, owner)
        branches[place] = _split_branch(rig, branches[place], at, branch)


def _split_branch(rig: Rig, branch: dict[str, Any], at: int, new: dict[str, Any]) -> dict[str, Any]:
    """The branch from the new junction on; what was ahead of it keeps its name and its port."""
    ahead = {**branch, "elements": branch["elements"][: at + 1], "gate": None, "join_angle_deg": 45.0}
    if ahead["port"] is not None:
        ahead["gate"] = branch["gate"]  # the gate stays with its tool
    return {
        "id": fresh_id(rig, "run"),
        "gate": None if branch["port"] is not None else branch["gate"],
        "join_angle_deg": branch["join_angle_deg"],
        "elements": branch["elements"][at + 1 :],
        "port": None,
        "branches": [ahead, new],
    }


def _inner(rig: Rig, elements: list[Any], branches: list[Any], junction: float | None) -> dict[str, Any]:
    """A branch that takes the place of the trunk's first parts and of all that joined ahead of them."""
    if len(branches) == 1 and branches[0]["port"] is not None:
        only = branches[0]
        return {**only, "elements": [*only["elements"], *elements]}
    return {"id": fresh_id(rig, "run"), "elements": elements, "branches": branches, "junction_bore_m": junction}


def gate_branch(rig: Rig, branch: str) -> Rig:
    """A rig with an open gate where a branch joins.

    Raises
    ------
    RigError
        When there is no such branch, or it has its gate already.
    """
    document = rig.model_dump(mode="json")
    branches, at = _branch(document, branch)
    if branches[at]["gate"] is not None:
        raise RigError((Problem("", "there is a gate already"),))
    branches[at]["gate"] = {"opening": 1.0}
    return check_change(rig, document)


def remove_tool(rig: Rig, tool: str) -> Rig:
    """A rig without a tool and its branch; a junction that joins nothing any more goes with it.

    Raises
    ------
    RigError
        When there is no such tool, or it is the last.
    """
    document = rig.model_dump(mode="json")
    _take_out(document, tool, len(rig.line.ways))
    line = document["line"]
    line["combinations"] = [c for c in line["combinations"] if tool not in c["ports"]]
    prune_guesses(document)
    return check_change(rig, document)


def _take_out(document: dict[str, Any], tool: str, tools: int) -> None:
    """Take a tool's branch out; a junction that joins nothing any more goes with it."""
    branches, at = _branch(document, tool)
    if tools == 1:
        raise RigError((Problem("", "the last tool cannot be removed: a line needs one"),))
    del branches[at]
    line = document["line"]
    line["branches"] = [_tidied(branch) for branch in line["branches"]]
    line["branches"] = [branch for branch in line["branches"] if branch["port"] or branch["branches"]]


def _tidied(branch: dict[str, Any]) -> dict[str, Any]:
    """A branch whose junctions all join something: a run with one branch left becomes part of that branch."""
    inner = [_tidied(one) for one in branch["branches"]]
    inner = [one for one in inner if one["port"] or one["branches"]]
    if len(inner) != 1:
        return {**branch, "branches": inner}
    only = inner[0]
    return {
        **only,
        "elements": [*only["elements"], *branch["elements"]],
        "gate": only["gate"] or branch["gate"],
        "join_angle_deg": branch["join_angle_deg"],
    }


def _branch(document: dict[str, Any], name: str) -> tuple[list[dict[str, Any]], int]:
    """The list that holds a branch, and its place there."""

    def search(branches: list[dict[str, Any]]) -> tuple[list[dict[str, Any]], int] | None:
        for i, branch in enumerate(branches):
            if branch["id"] == name:
                return branches, i
            found = search(branch["branches"])
            if found:
                return found
        return None

    found = search(document["line"]["branches"])
    if found is None:
        raise RigError((Problem("", "that is no tool of this line"),))
    return found


def _joining_bore(document: dict[str, Any], siblings: list[dict[str, Any]], branch: dict[str, Any]) -> float:
    run = branch["elements"]
    return bore_before(document, run, len(run))


def _new_tool(rig: Rig, bore: float) -> dict[str, Any]:
    narrow = min(bore, 0.1)
    name = fresh_name(rig, "New tool")
    hose = {"id": fresh_id(rig, "hose"), "kind": "hose", "name": fresh_name(rig, "Hose")}
    return {
        "id": fresh_id(rig, "tool"),
        "gate": {"opening": 0.0},
        "elements": [{**hose, "bore_m": narrow, "length_m": NEW_HOSE, "wall": "wire-helix"}],
        "port": {"name": name, "bore_m": narrow},
    }
