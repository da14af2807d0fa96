"""Changing a shop: values at paths, things added, duplicated and removed; always checked as a whole."""

from __future__ import annotations

import copy
from typing import Any

from fenwick.core.catalogue.tools import COMMONEST, TOOLS
from fenwick.core.catalogue.vacuums import COMMONEST as COMMONEST_VACUUM
from fenwick.rig.format.hood import generic_hood
from fenwick.rig.format.problems import Problem, RigError, split_path
from fenwick.rig.start.answers import Answers
from fenwick.rig.start.vacuum import guess_vacuum
from fenwick.shop.model import GROUPS, ShopFile
from fenwick.shop.read import check_shop

SINGULAR = {
    "circuits": "circuit",
    "vacuums": "vacuum",
    "tools": "tool",
    "hoses": "hose",
    "fittings": "fitting",
    "furniture": "bench",
    "jobs": "job",
    "bins": "bin",
    "sheets": "sheet",
    "tubes": "tube",
    "cutting": "cutter",
    "salvaged": "salvaged",
    "prices": "price",
}


#: what a job begins as when it is counted otherwise: one kerf through a board, or a board planed
WORK_BEGINS: dict[Any, dict[str, float]] = {
    "time": {"hours_a_week": 2.0},
    "cuts": {"times_a_week": 20.0, "width_m": 0.0025, "depth_m": 0.025, "length_m": 1.0},
    "planed": {"times_a_week": 5.0, "width_m": 0.15, "depth_m": 0.002, "length_m": 1.0},
}


def edit_shop(shop: ShopFile, changes: dict[str, Any]) -> ShopFile:
    """A shop with the values at some paths replaced; None clears an optional key.

    Raises
    ------
    RigError
        When a path does not exist or the changed shop breaks a rule.
    """
    document = shop.model_dump(mode="json")
    for path, value in changes.items():
        _set(document, path, value)
    for job in document["jobs"]:
        if isinstance(job, dict):
            job |= {key: value for key, value in WORK_BEGINS.get(job.get("work"), {}).items() if job.get(key) is None}
    return check_shop(document)


def _set(document: Any, path: str, value: Any) -> None:
    *way, last = split_path(path)
    here = document
    try:
        for item in way:
            if isinstance(here, dict) and here.get(item) is None and isinstance(item, str):
                here[item] = {}  # an end or a place that was not described before
            here = here[item]
        here[last] = value
    except (KeyError, IndexError, TypeError):
        raise RigError((Problem(path, "is not part of this shop"),)) from None


def add_item(shop: ShopFile, group: str, **values: Any) -> tuple[ShopFile, str]:
    """A shop with one more thing of a group, and its id; `values` go over the usual ones.

    Raises
    ------
    RigError
    """
    if group not in GROUPS:
        raise RigError((Problem("", f"there is no list called “{group[:20]}”"),))
    document = shop.model_dump(mode="json")
    name = _fresh_id(shop, SINGULAR[group])
    document[group].append({"id": name, **_usual(shop, group), **values})
    return check_shop(document), name


def duplicate_item(shop: ShopFile, item: str) -> tuple[ShopFile, str]:
    """A shop with a copy of a thing behind it, and the copy's id.

    Raises
    ------
    RigError
    """
    document = shop.model_dump(mode="json")
    group, at = find_item(shop, item)
    twin = copy.deepcopy(document[group][at])
    twin["id"] = _fresh_id(shop, SINGULAR[group])
    if "name" in twin:
        twin["name"] = f"{twin['name'][:100]} copy"
    document[group].insert(at + 1, twin)
    return check_shop(document), twin["id"]


def remove_item(shop: ShopFile, item: str) -> ShopFile:
    """A shop without a thing, and without what only referred to it.

    Raises
    ------
    RigError
    """
    document = shop.model_dump(mode="json")
    group, at = find_item(shop, item)
    del document[group][at]
    document["jobs"] = [job for job in document["jobs"] if job["tool"] != item]
    for other in (*document["vacuums"], *document["tools"]):
        if other["circuit"] == item:
            other["circuit"] = None
    return check_shop(document)


def find_item(shop: ShopFile, item: str) -> tuple[str, int]:
    """(group, place) of a thing by its id.

    Raises
    ------
    RigError
        When the shop has none.
    """
    for group in GROUPS:
        for i, thing in enumerate(getattr(shop, group)):
            if thing.id == item:
                return group, i
    raise RigError((Problem("", "the shop has no such thing any more"),))


def _fresh_id(shop: ShopFile, word: str) -> str:
    taken = {thing.id for group in GROUPS for thing in getattr(shop, group)}
    return next(name for i in range(1, 10_000) if (name := f"{word}-{i}") not in taken)


def _usual(shop: ShopFile, group: str) -> dict[str, Any]:
    middle = {"x_m": round(shop.room.width_m / 2, 1), "y_m": round(shop.room.depth_m / 2, 1)}
    match group:
        case "circuits":
            return {"name": "Outlet", "rating_a": 16.0, "place": {"x_m": 0.0, "y_m": middle["y_m"]}}
        case "vacuums":
            return {**guess_vacuum(Answers(vacuum=COMMONEST_VACUUM)).document, "place": middle}
        case "tools":
            return {**tool_of_kind(COMMONEST), "place": middle}
        case "hoses":
            return {"name": "Hose", "bore_m": 0.038, "length_m": 2.0}
        case "fittings":
            return {"name": "Adapter", "one_bore_m": 0.038, "other_bore_m": 0.05, "length_m": 0.05}
        case "furniture":
            return {"name": "Bench", "place": middle}
        case "jobs":
            if not shop.tools:
                raise RigError((Problem("", "a job needs a tool: add the tool first"),))
            return {"name": "Job", "tool": shop.tools[0].id, "hours_a_week": 2.0}
        case _:
            return dict(_TO_MAKE_WITH[group])


#: what things to make from and with begin as
_TO_MAKE_WITH: dict[str, dict[str, Any]] = {
    "bins": {"name": "Bin", "top_d_m": 0.38, "bottom_d_m": 0.32, "height_m": 0.42},
    "sheets": {"material": "plywood", "thickness_m": 0.012, "width_m": 1.22, "height_m": 0.61},
    "tubes": {"bore_m": 0.05, "length_m": 0.5},
    "cutting": {"kind": "hole-saw", "d_m": 0.054, "depth_m": 0.038},
    "salvaged": {"name": "Old tank", "kind": "tank"},
    "prices": {"of": "make.sheet", "price": 30.0},
}


def tool_of_kind(kind: str) -> dict[str, Any]:
    """A tool of a generic kind, as the shop file has it, but for its id."""
    tool = TOOLS[kind]
    port: dict[str, Any] = {
        "name": tool.label,
        "bore_m": tool.port_bore,
        "dust_rate_kg_s": tool.dust_rate,
        "hood": generic_hood(tool),
    }
    if tool.machine:
        port["machine"] = tool.machine
    return {"kind": kind, "dust": tool.dust, "current_a": tool.current, "ports": [port]}
