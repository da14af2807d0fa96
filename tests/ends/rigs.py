"""Rig files to try rules with, and what the commands tell of them."""

from __future__ import annotations

import json
from copy import deepcopy
from typing import Any

from fenwick.data.demo import demo_shop
from fenwick.rig import Rig, RigError, read_from_outside
from fenwick.rig.format.read import read_rig
from fenwick.rig.result import solve_rig
from fenwick.services.workings import asked_of, explained

#: a smooth, sealed cyclone of 150 mm over a bucket that is nearly empty
CYCLONE: dict[str, Any] = {
    "id": "sep", "kind": "separator", "type": "cyclone", "body_d_m": 0.15, "inlet_height_m": 0.075,
    "inlet_width_m": 0.03, "outlet_d_m": 0.075, "outlet_length_m": 0.08, "cylinder_height_m": 0.225,
    "total_height_m": 0.6, "dust_outlet_d_m": 0.056, "finish": "smooth",
    "bin": {
        "profile": [{"height_m": 0.0, "d_m": 0.3}, {"height_m": 0.4, "d_m": 0.32}],
        "wall_m": 0.004, "material": "hdpe", "closure": "screwed-gasket", "leak_area_m2": 0.0, "fill_height_m": 0.02,
    },
}  # fmt: skip
#: a flat disc with one slot over the same bin
DISC: dict[str, Any] = {
    "id": "sep", "kind": "separator", "type": "slotted-disc", "chamber_d_m": 0.3, "chamber_height_m": 0.12,
    "inlet_bore_m": 0.05, "outlet_d_m": 0.063, "outlet_length_m": 0.06,
    "slots": [{"width_m": 0.03, "arc_deg": 240, "start_deg": 0}], "bin": CYCLONE["bin"],
}  # fmt: skip
HOSE: dict[str, Any] = {"id": "hose", "kind": "hose", "bore_m": 0.05, "length_m": 2.5, "wall": "smooth"}
LINK: dict[str, Any] = {"id": "link", "kind": "hose", "bore_m": 0.05, "length_m": 1.0, "wall": "smooth"}
HOOD: dict[str, Any] = {"kind": "opening", "distance_m": 0.06, "release": "active", "thrown_share": 0.6}
PAPER: dict[str, Any] = {"kind": "paper", "area_m2": 0.3, "held_kg": 0.0, "price": 20}


def rig_file(
    dust: str = "sanding-p120",
    stages: tuple[dict[str, Any], ...] = (CYCLONE,),
    hose: dict[str, Any] = HOSE,
    hood: dict[str, Any] | None = HOOD,
    port_bore: float = 0.05,
    rate: float = 150e-3 / 3600.0,
    open_flow: float = 0.062,
    **vacuum: Any,
) -> dict[str, Any]:
    """A rig file with one tool port; `rate` in kg/s, and keys of the vacuum by name."""
    port = {"name": "Tool", "bore_m": port_bore, "entry": "plain", "hood": hood, "dust_rate_kg_s": rate}
    whole: dict[str, Any] = {
        "format": "fenwick-rig", "version": 1, "name": "Tried",
        "vacuum": {
            "name": "Drum vac",
            "curve": {"kind": "nameplate", "sealed_suction_pa": 18000, "open_flow_m3_s": open_flow},
            "filter": PAPER, **vacuum,
        },
        "dust": {"kind": dust},
        "line": {
            "elements": [*stages, LINK],
            "branches": [
                {"id": "tool", "elements": [hose], "port": changed(port)}
            ],
        },
    }  # fmt: skip
    return deepcopy(whole)


def changed(document: dict[str, Any], **keys: Any) -> dict[str, Any]:
    """A copy of some part of a file with other keys; a key that becomes None is left out."""
    new = {**deepcopy(document), **keys}
    return {key: value for key, value in new.items() if value is not None}


def with_bin(stage: dict[str, Any], **keys: Any) -> dict[str, Any]:
    """A separator whose bin has other keys."""
    return changed(stage, bin=changed(stage["bin"], **keys))


def read(document: dict[str, Any]) -> Rig:
    """The rig of a file."""
    return read_rig(json.dumps(document).encode())


def solved(document: dict[str, Any]) -> dict[str, Any]:
    """What `fenwick solve` prints."""
    return solve_rig(read(document))


def captured(document: dict[str, Any]) -> dict[str, float]:
    """What the first port catches."""
    capture: dict[str, float] = solved(document)["ports"][0]["capture"]
    return capture


def kept(document: dict[str, Any]) -> float:
    """What the first separator keeps of what enters it."""
    return float(solved(document)["separators"][0]["efficiency"])


def check(document: dict[str, Any], name: str, part: str | None = None) -> dict[str, Any] | None:
    """A check of the result, by its id; None where there is none."""
    for one in solved(document)["checks"]:
        if one["id"] == name and part in (None, one["part"]):
            found: dict[str, Any] = one
            return found
    return None


def told(document: dict[str, Any], figure: str, room: bool = False) -> float:
    """What `fenwick explain` prints of a figure, in the demo's shop or in none."""
    rig = read(document)
    working = explained(rig, asked_of(rig, shop=demo_shop() if room else None), figure)
    assert working is not None, figure
    return float(working.root.value)


def step_of(document: dict[str, Any], figure: str, step: str) -> float:
    """A step on the way to a figure, by its id."""
    rig = read(document)
    working = explained(rig, asked_of(rig), figure)
    assert working is not None, figure
    return next(float(one.value) for one in working.steps if one.id == step)


def refused(document: dict[str, Any]) -> str:
    """Why a file from outside is refused; empty where it is taken."""
    try:
        read_from_outside(json.dumps(document).encode())
    except RigError as error:
        return str(error)
    return ""
