"""The rules of thumb that the figures of a line rest on: those that a band draws."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.elements import Elbow, Element, Gate, Hose, InlineFilter, Leak, Port
from fenwick.core.components.hood import Enclosure
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.components.wet import WetStage
from fenwick.core.line.line import Line
from fenwick.core.line.rows import RIBBED_WALLS
from fenwick.core.rules import ENTRY_LOSS

GRAINS = ("dust.size", "dust.fines")
BIN = ("bin.leak-reading", "bin.stir", "bin.stir-depth", "bin.leak-weight", "bin.leak-jet")
HOOD = ("past", "missed", "power", "release", "airborne-size", "enters")
CAKE = ("k2", "k2-least", "k2-most", "laid-down", "tank-drop")
#: what decides how long filters and bags last, besides what they hold back
AGEING: tuple[str, ...] = (
    *(
        f"filter.{key}"
        for key in ("full", "cake", "stays", "stays-coated", "blinds-over", "worn", "cleanings", "k1-bag")
    ),
    *("bag.cake", "bag.share", "tank.volume"),
)
#: what filters let past
PASSING: tuple[str, ...] = (
    *(f"{kind}.{key}" for kind in ("paper", "bag") for key in ("base", "size", "power")),
    *("hepa.passes", "filter.cake", "filter.tank-drop"),
)


def assumptions_of(line: Line) -> tuple[str, ...]:
    """Keys of the rules that the air of a line, what its ports catch and what its stages keep rest on."""
    found = dict.fromkeys(GRAINS)
    for key in _of_ports(line):
        found[key] = None
    for part in _parts(line):
        found |= dict.fromkeys(_of_part(part))
    for medium, place in ((line.vacuum.filter, "filter"), (line.vacuum.bag, "bag")):
        if medium is not None:
            found |= dict.fromkeys(_of_medium(medium, own=place == "filter"))
    return tuple(found)


def _parts(line: Line) -> Iterator[Element]:
    for leaf in line.leaves:
        if leaf.open:
            yield from (part for branch in leaf.way for part in branch.elements)
    yield from line.trunk


def _of_ports(line: Line) -> Iterator[str]:
    rated = False
    for leaf in line.leaves:
        if leaf.open:
            yield from _of_port(leaf.port)
            rated = rated or leaf.port.dust_rate is not None
        if any(branch.gate_opening is not None for branch in leaf.way):
            yield "gate.body"
    if rated and line.stages:
        yield "swirl.limit-load"


def _of_port(port: Port) -> Iterator[str]:
    yield "entry.reading"
    kind = ENTRY_LOSS[port.entry]
    if port.entry_loss is None and isinstance(kind, str):
        yield kind
    hood = port.hood
    if hood is None:
        return
    yield from (f"capture.{key}" for key in HOOD)
    if hood.thrown_bore is not None:
        yield "capture.narrower"
    if hood.rebound:
        yield "capture.rebound"
    if isinstance(hood, Enclosure):
        yield "capture.box-holds"


def _of_part(part: Element) -> Iterator[str]:
    match part:
        case Hose():
            if part.roughness is None:
                yield f"wall.{part.wall}"
            if part.bends and part.bend_factor is None and part.wall in RIBBED_WALLS:
                yield "bend.corrugated"
        case Elbow():
            yield from {"short": ("elbow.short",), "long-sweep": ("elbow.sweep",)}.get(part.style, ())
        case Gate():
            yield "gate.body"
        case Leak():
            yield "leak.reading"
        case InlineFilter():
            yield from _of_medium(part.medium, own=False)
        case WetStage():
            yield "wet.cut"
        case Separator():
            yield from _of_stage(part)


def _of_medium(medium: FilterMedium, *, own: bool) -> Iterator[str]:
    if not own:
        yield f"filter.k1-{medium.kind}"
    if np.any(np.asarray(medium.held) > 0.0) and medium.cake is None:
        yield from (f"filter.{key}" for key in CAKE)


def _of_stage(stage: Separator) -> Iterator[str]:
    yield from BIN
    if isinstance(stage, SlottedDisc):
        yield from ("slot.falls", "slot.arc", "slot.loss")
    manner = stage.manner
    keys = (manner.friction, manner.steepness, manner.exchange, manner.exchange_more, manner.swirl)
    yield from (key for key in keys if key is not None)
    if not isinstance(stage, Cyclone):
        yield "swirl.cut"  # for cyclones the published models disagree by as much
    if stage.bin.leak_area is None:
        yield f"closure.{stage.bin.closure}"
    if stage.swapped:
        yield "swirl.swapped"
    if np.any(stage.tilt):
        yield manner.tilt
    if stage.bin.ledges:
        yield from ("bin.ledge", "bin.swirl-zone", "bin.ledge-fades")
    yield "bin.brim"
