"""Where makers disagree: both ways of each question, built on one line."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.edits.kinds import change_kind
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import path_of
from fenwick.rig.format.problems import RigError
from fenwick.rig.format.separator import ChamberPart, SeparatorPart

SHORT_TUBE, LONG_TUBE = 0.3, 0.85  #: of the chamber's height
BIG, SMALL = 1.35, 0.7  #: of the bin's height
STEEL_WALL, PLASTIC_WALL = 0.0006, 0.0025  #: usual walls [m]
BAG_AREA, CAKE = 0.3, 0.1  #: of a usual bag [m^2]; dust on each m^2 of a caked filter [kg]


@dataclass(frozen=True)
class School:
    """One question with both answers on this line."""

    id: str
    question: str
    first: str  #: what one school does
    second: str  #: what the other does
    habit: str  #: what no model here decides
    rigs: tuple[Rig, Rig]
    modelled: bool = True  #: whether the model sees the difference at all


Pair = Callable[[Rig, str], tuple[Rig, Rig]]


def _edits(*sides: dict[str, Any]) -> Pair:
    def pair(rig: Rig, part: str) -> tuple[Rig, Rig]:
        root = path_of(rig.model_dump(mode="json"), part)
        a, b = ({key.replace("@", root): value for key, value in side.items()} for side in sides)
        return edit_rig(rig, a), edit_rig(rig, b)

    return pair


def _kinds(first: str, second: str) -> Pair:
    return lambda rig, part: (change_kind(rig, part, first), change_kind(rig, part, second))


def _aims(rig: Rig, part: str) -> tuple[Rig, Rig]:
    lid = change_kind(rig, part, "elbow-lid")
    return _edits({"@.outlet_aim": "centre"}, {"@.outlet_aim": "opposed"})(lid, part)


def _tubes(rig: Rig, part: str) -> tuple[Rig, Rig]:
    chamber = _chamber(rig, part)
    high = chamber.chamber_height_m
    return _edits(
        {"@.outlet_length_m": round(SHORT_TUBE * high, 4)}, {"@.outlet_length_m": round(LONG_TUBE * high, 4)}
    )(rig, part)


def _slots(rig: Rig, part: str) -> tuple[Rig, Rig]:
    _chamber(rig, part)
    return _edits({"@.slots[0].start_deg": 0.0}, {"@.slots[0].start_deg": 90.0})(rig, part)


def _bins(rig: Rig, part: str) -> tuple[Rig, Rig]:
    old = next(e for e in rig.line.elements if e.id == part)
    assert isinstance(old, SeparatorPart)

    def scaled(share: float) -> list[dict[str, Any]]:
        return [{**p.model_dump(), "height_m": round(share * p.height_m, 4)} for p in old.bin.profile]

    fill = round(min(old.bin.fill_height_m, SMALL * old.bin.profile[-1].height_m), 4)
    common = {"@.bin.fill_height_m": fill, "@.bin.ledges": [], "@.bin.stiffeners": []}
    return _edits({**common, "@.bin.profile": scaled(SMALL)}, {**common, "@.bin.profile": scaled(BIG)})(rig, part)


def _bags(rig: Rig, part: str) -> tuple[Rig, Rig]:
    return _edits({"vacuum.bag": {"area_m2": BAG_AREA, "held_kg": 0.0}}, {"vacuum.bag": None})(rig, part)


def _cakes(rig: Rig, part: str) -> tuple[Rig, Rig]:
    if rig.vacuum.filter is None:
        raise KeyError("vacuum.filter")
    held = round(CAKE * rig.vacuum.filter.area_m2, 4)
    return _edits({"vacuum.filter.held_kg": held}, {"vacuum.filter.held_kg": 0.0})(rig, part)


def _chamber(rig: Rig, part: str) -> ChamberPart:
    found = next(e for e in rig.line.elements if e.id == part)
    if not isinstance(found, ChamberPart):
        raise KeyError(part)
    return found


PLASTIC = {"@.bin.material": "hdpe", "@.bin.wall_m": PLASTIC_WALL}
STEEL = {"@.bin.material": "steel", "@.bin.wall_m": STEEL_WALL}
NO_READING: dict[str, Any] = {"@.bin.leak_area_m2": None}


@dataclass(frozen=True)
class SchoolQuestion:
    """What makers disagree about."""

    name: str
    question: str
    first: str  #: one answer
    second: str  #: the other
    habit: str  #: what else speaks for either
    pair: Pair  #: a rig with either
    modelled: bool = True  #: whether the model sees the difference at all


QUESTIONS = (
    SchoolQuestion("cyclone-or-disc", "Cyclone or disc?", "a slotted disc", "a cyclone",
     "A disc is lower and quicker to make; a cone needs height and a tight seam.", _kinds("slotted-disc", "cyclone")),
    SchoolQuestion("in-or-on", "Disc in the bin, or a chamber on top?", "a chamber on top", "a disc in the bin",
     "In the bin nothing stands out, and the bin holds less.", _kinds("slotted-disc", "hung-disc")),
    SchoolQuestion("under-inlet", "Slot open or solid under the inlet?",
     "open under the inlet", "solid under the inlet",
     "A test of both on your line tells it, and what it finds can be taken into the line.", _slots, modelled=False),
    SchoolQuestion("tube", "Short or long outlet tube?", "a short tube", "a long tube",
     "A short tube risks air running straight across; the model does not see that.", _tubes),
    SchoolQuestion("aim", "Outlet elbow to the centre, or away from the inlet?", "to the centre", "away from the inlet",
     "Both are rules of thumb here, for a lid with two elbows.", _aims),
    SchoolQuestion("bag", "Bag kept for the fine dust, or left out for the air?", "with a bag", "without a bag",
     "Emptying a filter indoors puts the dust back into the air: a bag is also clean hands.", _bags),
    SchoolQuestion("cake", "Filter cake left on, or knocked off?", "a caked filter", "a clean filter",
     "Cleaning belongs outdoors, with a respirator. Never blow a filter out indoors.", _cakes),
    SchoolQuestion("wall", "Plastic or steel bin?", "plastic, 2.5 mm", "steel, 0.6 mm",
     "Steel does not charge up and does not melt; plastic shows the dust inside.",
     _edits(PLASTIC, STEEL)),
    SchoolQuestion("size", "Small bin or big?", "a small bin", "a big bin",
     "A big bin is emptied less often, and is heavy when it is.", _bins),
    SchoolQuestion("lid", "Screwed and sealed, or opened without tools?", "screwed, with a gasket", "snap-on",
     "A lid that is quick to open is emptied in time.",
     _edits({"@.bin.closure": "screwed-gasket", **NO_READING}, {"@.bin.closure": "snap-on", **NO_READING})),
)  # fmt: skip


def schools(rig: Rig, part: str) -> Iterator[School]:
    """Every question that this line can answer both ways; those it cannot are left out."""
    for asked in QUESTIONS:
        try:
            pair = asked.pair(rig, part)
            yield School(asked.name, asked.question, asked.first, asked.second, asked.habit, pair, asked.modelled)
        except (KeyError, RigError):
            continue
