"""Giving a box its sizes, passages and doors; what it begins with is what it is open by already."""

from __future__ import annotations

from typing import Any

from fenwick.core.arrays import one_value
from fenwick.rig.format.box import BoxPart
from fenwick.rig.format.hood import EnclosurePart

SIZE = {"width_m": 0.5, "depth_m": 0.45, "height_m": 0.5}  #: that a box begins with [m]
PASSAGE_WIDE, DOOR = 0.3, {"name": "Door open", "side": "left", "width_m": 0.25, "height_m": 0.3, "share": 0.2}
MOST = 6  #: passages, and doors
WAYS = {
    "sizes": "sizes given",
    "none": "told by its open area",
    "passage": "a passage more",
    "less-passage": "a passage less",
    "door": "a door more",
    "less-door": "a door less",
}


def changed_box(hood: EnclosurePart, way: str) -> dict[str, Any]:
    """The keys of a box round a tool as one of WAYS leaves them.

    Raises
    ------
    KeyError
        Where that cannot be done.
    """
    if way == "none":
        ways = [
            {"name": one.name or "In use", "area_m2": round(one_value(one.area), 6), "share": one.share}
            for one in hood.ways
        ]
        return {"box": None, "openings": ways}
    if way == "sizes":
        area = one_value(hood.ways[0].area)
        passage = {"side": "front", "width_m": PASSAGE_WIDE, "height_m": round(area / PASSAGE_WIDE, 4)}
        size = {**SIZE, "height_m": max(SIZE["height_m"], round(passage["height_m"] + 0.1, 3))}  # type: ignore[operator]
        return {"box": {**size, "passages": [passage], "doors": []}, "openings": []}
    if hood.box is None:
        raise KeyError(way)
    return {"box": _more_or_less(hood.box, way), "openings": []}


def _more_or_less(box: BoxPart, way: str) -> dict[str, Any]:
    document = box.model_dump(mode="json")
    key = "passages" if way.endswith("passage") else "doors"
    if way.startswith("less-"):
        document[key] = document[key][:-1]
    elif way in ("passage", "door") and len(document[key]) < MOST:
        new = DOOR if way == "door" else {"side": "front", "width_m": PASSAGE_WIDE, "height_m": 0.05}
        document[key].append(dict(new))
    else:
        raise KeyError(way)
    return document
