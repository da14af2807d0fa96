"""A bought cyclone from what its seller prints; the rest follows usual proportions, as guesses."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi, sqrt
from typing import Any

from fenwick.core.formulas.cyclone import FAMILIES
from fenwick.rig.edits.guesswork import Guesswork
from fenwick.rig.edits.kinds import COMMON_KEYS
from fenwick.rig.format.guesses import GuessPart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import path_of
from fenwick.rig.format.read import check_rig
from fenwick.rig.format.separator import SeparatorPart

USUAL = FAMILIES["general-purpose"]


@dataclass(frozen=True)
class Printed:
    """What a seller prints; None where nothing is said."""

    name: str
    inlet_bore: float  #: [m]
    body: float  #: [m]
    height: float  #: of the cyclone [m]
    outlet: float | None = None  #: [m]
    dust_outlet: float | None = None  #: [m]
    flow: float | None = None  #: claimed [m^3/s]
    suction: float | None = None  #: claimed [Pa]
    efficiency: float | None = None  #: claimed [-]
    bolt_circle: float | None = None  #: [m]
    bolts: int | None = None
    bolt: float | None = None  #: diameter of a bolt hole [m]


def take_ready_made(rig: Rig, part: str, printed: Printed) -> Rig:
    """A rig with a bought cyclone in the place of a separator, over the same bin.

    Raises
    ------
    RigError
        When what is printed cannot be a cyclone.
    """
    work = Guesswork(part)
    side = sqrt(pi) / 2.0 * printed.inlet_bore
    outlet = work.take("outlet_d_m", printed.outlet, round(USUAL.outlet * printed.body, 4))
    hangs = round(max(side, USUAL.outlet_length * printed.body), 4)
    cylinder = round(max(hangs * 1.1, USUAL.cylinder / USUAL.height * printed.height), 4)
    dust_outlet = work.take("dust_outlet_d_m", printed.dust_outlet, round(USUAL.dust_outlet * printed.body, 4))
    sizes: dict[str, Any] = {
        "type": "cyclone",
        "finish": "smooth",
        "body_d_m": printed.body,
        "inlet_bore_m": printed.inlet_bore,
        "total_height_m": printed.height,
        "outlet_d_m": outlet,
        "outlet_length_m": hangs,
        "cylinder_height_m": cylinder,
        "dust_outlet_d_m": dust_outlet,
    }
    work.mark("outlet_length_m", hangs)
    work.mark("cylinder_height_m", cylinder)
    claim = {
        "flow_m3_s": printed.flow,
        "suction_pa": printed.suction,
        "efficiency": printed.efficiency,
        "bolt_circle_d_m": printed.bolt_circle,
        "bolts": printed.bolts,
        "bolt_d_m": printed.bolt,
    }
    document = rig.model_dump(mode="json")
    old = next(element for element in rig.line.elements if element.id == part)
    assert isinstance(old, SeparatorPart)
    kept = {key: value for key, value in old.model_dump(mode="json").items() if key in COMMON_KEYS}
    index = int(path_of(document, part).split("[")[-1].rstrip("]"))
    document["line"]["elements"][index] = {**kept, **sizes, "name": printed.name, "claim": claim}
    others = [guess for guess in document["guesses"] if guess["part"] != part or guess["key"].startswith("bin.")]
    document["guesses"] = [*others, *(GuessPart.model_validate(mark).model_dump(mode="json") for mark in work.marks)]
    return check_rig(document)
