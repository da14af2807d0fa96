"""Changing what a line is made of: parts added, duplicated, moved and removed. What comes out is checked as a whole."""

from __future__ import annotations

import copy
from typing import Any

from fenwick.rig.edits.edit import check_change
from fenwick.rig.format.guesses import copy_guesses, prune_guesses
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import Problem, RigError

#: what can be added, with what it is called
ADDABLE = {
    "hose": "Hose",
    "reducer": "Reducer",
    "elbow": "Elbow",
    "gate": "Gate",
    "leak": "Leak",
    "filter": "In-line filter",
    "plate": "Perforated plate",
    "loss": "Fixed loss",
    "separator": "Separator",
    "wet-stage": "Wet stage",
}

ON_TRUNK = ("separator", "wet-stage")  #: kinds that stand where all branches have joined


def add_part(rig: Rig, after: str, kind: str) -> tuple[Rig, str]:
    """A rig with a new part of a kind behind another, in the direction of the air, and the new part's id.

    Behind a tool is at the start of its branch; behind the vacuum is the last place before it.

    Raises
    ------
    RigError
        When there is no such place or kind, or the part may not stand there.
    """
    if kind not in ADDABLE:
        raise RigError((Problem("", f"there is no kind of part called “{kind[:20]}”"),))
    document = rig.model_dump(mode="json")
    run, at = _place_after(document, after)
    bore = bore_before(document, run, at)
    name = fresh_id(rig, kind)
    run.insert(at, {"id": name, "kind": kind, "name": fresh_name(rig, ADDABLE[kind]), **_defaults(kind, bore)})
    return check_change(rig, document), name


def duplicate_part(rig: Rig, part: str) -> tuple[Rig, str]:
    """A rig with a copy of a part behind it, and the copy's id.

    Raises
    ------
    RigError
    """
    document = rig.model_dump(mode="json")
    run, at = _find(document, part)
    twin = copy.deepcopy(run[at])
    twin["id"] = fresh_id(rig, twin["kind"])
    twin["name"] = fresh_name(rig, f"{(twin.get('name') or part)[:100].removesuffix(' copy')} copy")
    run.insert(at + 1, twin)
    copy_guesses(document, part, twin["id"])
    return check_change(rig, document), twin["id"]


def remove_part(rig: Rig, part: str) -> Rig:
    """A rig without a part.

    Raises
    ------
    RigError
    """
    document = rig.model_dump(mode="json")
    run, at = _find(document, part)
    del run[at]
    prune_guesses(document)
    return check_change(rig, document)


def move_part_behind(rig: Rig, part: str, after: str) -> Rig:
    """A rig with a part taken out and put behind another; behind a tool is the start of its branch.

    Raises
    ------
    RigError
        When there is no such place, or the part may not stand there.
    """
    if part == after:
        return rig
    document = rig.model_dump(mode="json")
    run, at = _find(document, part)
    moved = run.pop(at)
    target, place = _place_after(document, after)
    target.insert(place, moved)
    return check_change(rig, document)


def replace_part(rig: Rig, part: str, kind: str, values: dict[str, Any]) -> Rig:
    """A rig with a part exchanged for another; id and, unless a new one is given, name stay.

    Raises
    ------
    RigError
        When the part may not be exchanged so.
    """
    document = rig.model_dump(mode="json")
    run, at = _find(document, part)
    old = run[at]
    run[at] = {"id": part, "name": old["name"], "kind": kind, **values}
    changed = [guess for guess in document["guesses"] if guess["part"] == part]
    document["guesses"] = [guess for guess in document["guesses"] if guess not in changed]
    return check_change(rig, document)


def move_part(rig: Rig, part: str, by: int) -> Rig:
    """A rig with a part one place further along the air (+1) or against it (−1).

    With a single branch a part crosses between branch and trunk; otherwise it stays in its run.

    Raises
    ------
    RigError
        At the end of the run, or where the part may not stand.
    """
    document = rig.model_dump(mode="json")
    run, at = _find(document, part)
    moved = run.pop(at)
    target = at + by
    if 0 <= target <= len(run):
        run.insert(target, moved)
        return check_change(rig, document)
    line = document["line"]
    single = line["branches"][0]["elements"] if len(line["branches"]) == 1 else None
    if by > 0 and run is single:
        line["elements"].insert(0, moved)
    elif by < 0 and run is line["elements"] and single is not None:
        single.append(moved)
    else:
        raise RigError((Problem("", "the part is at the end of its run"),))
    return check_change(rig, document)


def runs(document: dict[str, Any]) -> list[tuple[str, list[Any]]]:
    """Every run of elements of a parsed file with the id of its branch; the trunk's is the vacuum's."""
    found: list[tuple[str, list[Any]]] = []

    def visit(branches: list[Any]) -> None:
        for branch in branches:
            found.append((branch["id"], branch["elements"]))
            visit(branch["branches"])

    visit(document["line"]["branches"])
    return [*found, ("vacuum", document["line"]["elements"])]


def _find(document: dict[str, Any], part: str) -> tuple[list[Any], int]:
    for _, run in runs(document):
        for i, element in enumerate(run):
            if element["id"] == part:
                return run, i
    raise RigError((Problem("", "only parts between tool and vacuum can be moved or removed"),))


def _place_after(document: dict[str, Any], after: str) -> tuple[list[Any], int]:
    for owner, run in runs(document):
        if owner == after:
            return run, len(run) if after == "vacuum" else 0
    run, at = _find(document, after)
    return run, at + 1


def bore_before(document: dict[str, Any], run: list[Any], at: int) -> float:
    """The bore that a part put there would meet."""
    for element in reversed(run[:at]):
        for key in ("bore_m", "bore_out_m", "outlet_d_m"):
            if key in element:
                return float(element[key])
    ports = [branch["port"] for branch in _all_branches(document["line"]["branches"]) if branch["elements"] is run]
    return float(ports[0]["bore_m"]) if ports and ports[0] else 0.05


def _all_branches(branches: list[Any]) -> list[Any]:
    return [one for branch in branches for one in (branch, *_all_branches(branch["branches"]))]


def _defaults(kind: str, bore: float) -> dict[str, Any]:
    narrow = min(bore, 0.1)
    table: dict[str, dict[str, Any]] = {
        "hose": {"bore_m": bore, "length_m": 1.0, "wall": "wire-helix"},
        "reducer": {"bore_in_m": bore, "bore_out_m": bore, "length_m": 0.05},
        "elbow": {"bore_m": bore, "angle_deg": 90.0, "style": "short"},
        "gate": {"bore_m": bore, "opening": 1.0},
        "leak": {"area_m2": 20e-6},
        "filter": {"bore_m": bore, "medium": "bag", "area_m2": 0.2},
        "loss": {"bore_m": bore, "k": 0.5},
        "plate": {"bore_m": bore, "holes": [{"diameter_m": 0.008, "count": 24}]},
        "wet-stage": {"throat_d_m": 0.03, "immersion_m": 0.03, "vessel_d_m": 0.3, "water_kg": 5.0},
        "separator": {
            "type": "slotted-disc",
            "chamber_d_m": 0.35,
            "chamber_height_m": 0.12,
            "inlet_bore_m": narrow,
            "outlet_d_m": narrow,
            "outlet_length_m": 0.06,
            "slots": [{"width_m": 0.03, "arc_deg": 240.0}],
            "bin": {"profile": [{"height_m": 0.0, "d_m": 0.35}, {"height_m": 0.4, "d_m": 0.35}]},
        },
    }
    return table[kind]


def fresh_id(rig: Rig, kind: str) -> str:
    """An id that nothing in the rig has yet."""
    taken = {e.id for e in rig.line.elements} | {b.id for _, b in rig.line.walk()}
    taken |= {e.id for _, branch in rig.line.walk() for e in branch.elements}
    return next(f"{kind}-{i}" for i in range(1, 10_000) if f"{kind}-{i}" not in taken)


def fresh_name(rig: Rig, word: str) -> str:
    """A name that no part and no tool has yet."""
    taken = {e.name for e in rig.line.elements} | {e.name for _, branch in rig.line.walk() for e in branch.elements}
    taken |= {branch.port.name for _, branch in rig.line.walk() if branch.port}
    return next(name for i in range(1, 10_000) if (name := word if i == 1 else f"{word} {i}") not in taken)
