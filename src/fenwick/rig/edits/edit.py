"""Changing a checked rig, one key at a time; what comes out is checked again as a whole."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.guesses import prune_guesses
from fenwick.rig.format.making import MakePart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.objections import objections
from fenwick.rig.format.problems import Problem, RigError, split_path
from fenwick.rig.format.read import check_rig
from fenwick.rig.format.stand import StandPart

END_KEYS = ("tool_end", "vacuum_end", "end", "inlet_end")
BEGINS = {**dict.fromkeys(END_KEYS, EndPart), "stand": StandPart, "make": MakePart}  #: what nobody had described before


def edit_rig(rig: Rig, changes: dict[str, Any]) -> Rig:
    """A rig with the values at some paths replaced.

    Parameters
    ----------
    rig : stays as it is
    changes : path to new value, in the key's own unit; None clears an optional key. What is given counts as measured

    Raises
    ------
    RigError
        When a path does not exist or the changed rig breaks a rule.
    """
    document = rig.model_dump(mode="json")
    for path, value in changes.items():
        _set(document, path, value)
    prune_guesses(document, {*changes})
    return check_change(rig, document, changes)


def check_change(rig: Rig, document: Any, changes: Mapping[str, Any] | None = None) -> Rig:
    """A changed rig, checked as a whole; what would be refused of a new value is, what stood there before is not.

    Parameters
    ----------
    rig : before
    document : after
    changes : paths that were changed, so that a refusal stands at one of them

    Raises
    ------
    RigError
    """
    changed = check_rig(document)
    known = {(one.path, one.rule) for one in objections(rig)}
    fresh = tuple(one for one in objections(changed) if (one.path, one.rule) not in known)
    if fresh:
        raise RigError(tuple(_beside(one, changes or {}) for one in fresh))
    return changed


def _beside(problem: Problem, changes: Mapping[str, Any]) -> Problem:
    """A problem at the field that was changed, where it is one of the same part."""
    root = problem.path.rsplit(".", 1)[0]
    if problem.path in changes:
        return problem
    near = next((path for path in changes if path.rsplit(".", 1)[0] == root), problem.path)
    if near == problem.path:
        return problem
    return Problem(near, f"does not go with the rest: {problem.rule}", problem.limit, None, problem.quantity)


def value_at(rig: Rig, path: str) -> Any:
    """The value at a path; KeyError when there is none."""
    here: Any = rig
    for item in split_path(path):
        try:
            here = here[item] if isinstance(item, int) else getattr(here, item)
        except (IndexError, AttributeError, TypeError):
            raise KeyError(path) from None
    return here


def _set(document: Any, path: str, value: Any) -> None:
    *way, last = split_path(path)
    here = document
    try:
        for item in way:
            if item in BEGINS and here[item] is None:
                here[item] = BEGINS[item]().model_dump()
            here = here[item]
        here[last]
        here[last] = value
    except (KeyError, IndexError, TypeError):
        raise RigError((Problem(path, "is not part of this line"),)) from None
