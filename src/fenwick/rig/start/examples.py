"""A line with a separator of each type, to try a command on."""

from __future__ import annotations

from math import pi
from typing import Any

from fenwick.core.catalogue.parts import TYPICAL_HOSE_BORE
from fenwick.rig.edits.kinds import KINDS, change_kind
from fenwick.rig.format.model import Rig
from fenwick.rig.format.read import check_rig
from fenwick.rig.start.answers import Answers
from fenwick.rig.start.line import start_line

WET = "wet-stage"
EXAMPLES = (*KINDS, WET)
USUAL_BIN = {"top": 0.38, "bottom": 0.32, "height": 0.42}  #: [m]
TALL_BIN = {"top": 0.38, "bottom": 0.38, "height": 0.75}  #: [m]
FILTER_WIDE, FILTER_HIGH, CHAMBER_HIGH = 0.15, 0.16, 0.2  #: of a head's filter, and the chamber round it [m]
THROAT, WATER_HIGH, VESSEL = 0.05, 0.15, 0.3  #: [m]


def example_rig(kind: str) -> Rig:
    """A line with a separator of a type, over a bin on a tray with casters.

    Raises
    ------
    KeyError
        When there is no such type.
    """
    if kind not in EXAMPLES:
        raise KeyError(kind)
    wet = kind == WET
    size = TALL_BIN if kind == "rim-inlet" else USUAL_BIN
    answers = Answers(
        dust="steel-grinding" if wet else "saw",
        hose_bore=TYPICAL_HOSE_BORE,
        bin_material="hdpe",
        stands="disc",
        bin_top=size["top"],
        bin_bottom=size["bottom"],
        bin_height=size["height"],
    )
    rig = start_line(answers).planned
    base = "slotted-disc" if wet else kind
    if base != "slotted-disc":
        rig = change_kind(rig, "sep", base)
    document = rig.model_dump(mode="json")
    document["name"] = f"{KINDS[base].label} to try" if not wet else "Wet stage to try"
    own = next(e for e in document["line"]["elements"] if e["id"] == "sep")
    own["stand"] = {"wheels": True, "mass_kg": 3.0}
    if base == "slotted-disc":
        own["chamber_d_m"] = 0.34
    if base == "one-body":
        own |= {"outlet_d_m": FILTER_WIDE, "outlet_length_m": FILTER_HIGH, "chamber_height_m": CHAMBER_HIGH}
    if wet:
        document["line"]["elements"].insert(-1, _wet_stage())
    return check_rig(document)


def _wet_stage() -> dict[str, Any]:
    water = pi / 4.0 * VESSEL**2 * WATER_HIGH * 1000.0
    return {
        "id": "wet",
        "kind": "wet-stage",
        "name": "Wet vessel",
        "throat_d_m": THROAT,
        "immersion_m": 0.01,
        "vessel_d_m": VESSEL,
        "water_kg": round(water, 2),
        "outlet_height_m": 0.32,
    }
