"""Which tool makes each round edge, and how far its pivot is set; a hole that no tool at hand cuts gets another way."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.formulas.unrolled import pivot_to_cutter
from fenwick.core.making.given import Making
from fenwick.core.making.parts import MadePart, Round, Trouble

ROUTER, HOLE_SAW, JIGSAW, TEMPLATE, SHEARS = "router", "hole-saw", "jigsaw", "guide-template", "shears"
SAW_FITS = 0.5e-3  #: a hole saw may be that much wider or narrower than the hole [m]
CORE = 0.012  #: of waste that the pivot of a trammel needs round it [m]
SHEARED = ("steel",)  #: cut with shears along a scribed line, not on a pivot


@dataclass(frozen=True)
class HoleSaw:
    """A hole saw."""

    d: float  #: [m]
    depth: float  #: [m]


@dataclass(frozen=True)
class Workshop:
    """The tools for making that are at hand."""

    hole_saws: tuple[HoleSaw, ...] = ()
    cutters: tuple[float, ...] = ()  #: diameters of the router's [m]
    saws: tuple[str, ...] = ("jigsaw",)
    known: bool = False  #: whether the shop has said what it has


@dataclass(frozen=True)
class CutSetting:
    """How one round edge is made."""

    part: str
    edge: str
    tool: str
    cutter: float  #: its diameter [m]
    radius: float  #: of the edge [m]
    pivot: float | None  #: from the pivot to the middle of the cutter [m]; None: there is none
    waste: str  #: inside or outside
    depth: float | None = None  #: of a groove [m]; None: through
    plug: bool = False  #: whether a plug gives back the centre that is gone


def cuts_of(part: MadePart, shop: Workshop, making: Making) -> tuple[tuple[CutSetting, ...], tuple[Trouble, ...]]:
    """A setting for each round edge of a part, and what cannot be cut so."""
    cuts, troubles = [], {}
    for edge in part.rounds:
        room = _room(part, edge)
        cutter = _cutter_for(room, shop, making)
        if room is not None and cutter > room + 1e-9:
            of = edge.key.partition("-")[0]
            troubles[of] = Trouble("cutter-wide", part.id, cutter, room, of)
        cuts.append(_cut(part, edge, cutter, shop))
    return tuple(cuts), tuple(troubles.values())


def _cutter_for(room: float | None, shop: Workshop, making: Making) -> float:
    """The widest cutter at hand that a groove or slot has room for, the narrowest otherwise [m]."""
    if not shop.cutters:
        usual = making.rule("cutter")
        return usual if room is None else min(usual, room)
    fitting = [one for one in shop.cutters if room is None or one <= room + 1e-9]
    return max(fitting) if fitting else min(shop.cutters)


def _room(part: MadePart, edge: Round) -> float | None:
    """Width of the groove or slot that an edge is of [m]; None: of neither."""
    if edge.key.startswith("groove"):
        return part.dims["groove_width_m"]
    return part.dims.get("slot_width_m") if edge.key.startswith("slot") else None


def _cut(part: MadePart, edge: Round, cutter: float, shop: Workshop) -> CutSetting:
    inside = edge.waste == "inside"
    depth = None if edge.through else edge.depth
    if part.stock.material in SHEARED:
        return CutSetting(part.id, edge.key, SHEARS, 0.0, edge.radius, None, edge.waste, depth)
    hole = inside and edge.through and not edge.key.startswith("slot")
    saw = _saw_for(edge, part.stock.thickness, shop) if hole else None
    if saw is not None:
        return CutSetting(part.id, edge.key, HOLE_SAW, saw.d, edge.radius, None, edge.waste)
    if hole and edge.radius < cutter + CORE:
        return CutSetting(
            part.id, edge.key, TEMPLATE if shop.cutters else JIGSAW, cutter, edge.radius, None, edge.waste
        )
    pivot = float(pivot_to_cutter(edge.radius, cutter, waste_outside=not inside))
    return CutSetting(part.id, edge.key, ROUTER, cutter, edge.radius, pivot, edge.waste, depth, _needs_plug(part, edge))


def _saw_for(edge: Round, thickness: float, shop: Workshop) -> HoleSaw | None:
    fits = [s for s in shop.hole_saws if abs(s.d - 2.0 * edge.radius) <= SAW_FITS and s.depth >= thickness]
    return min(fits, key=lambda s: abs(s.d - 2.0 * edge.radius), default=None)


def _needs_plug(part: MadePart, edge: Round) -> bool:
    """Whether the part comes with its centre gone: one that is at hand, with a hole there."""
    gone = any(other.key == "centre_hole" for other in part.rounds)
    return part.how == "have" and gone and edge.x == edge.y == 0.0 and edge.key not in ("centre_hole", "edge")
