"""What holds a shop's dust: bins, filters, bags and tanks, each once, however many lines have it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from contextlib import suppress
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.dust.separation import fill_mark
from fenwick.core.errors import CoreError
from fenwick.core.hours.wear import Wear, wear_of
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.logbook.entries import BAG, BIN, FILTER, TANK
from fenwick.logged import Logged
from fenwick.rig import Rig, build_line
from fenwick.rig.format.problems import Problem
from fenwick.rig.format.separator import SeparatorPart
from fenwick.shop import ShopFile

STEPS = 400  #: of a bin's height


@dataclass(frozen=True)
class Holder:
    """One of them, on one line or on several."""

    key: str  #: the same for every line that has it
    kind: str  #: BIN, FILTER, BAG or TANK
    name: str  #: of the bin, or of the vacuum
    lines: tuple[int, ...]  #: that have it


@dataclass(frozen=True)
class BinOnLine:
    """The first bin of a line."""

    stage: str
    mark: float  #: height up to which it may fill [m]
    volume: float  #: up to there [m^3]
    bulk: float | None  #: density of the line's dust as it lies [kg/m^3]


def holders_of(rigs: Iterable[tuple[int, Rig]], shop: ShopFile | None) -> list[Holder]:
    """Every bin, filter, bag and tank of some lines."""
    lines: dict[str, list[int]] = {}
    told: dict[str, tuple[str, str]] = {}
    for line_id, rig in rigs:
        for kind, whose, name in _on(line_id, rig, shop):
            key = f"{kind}:{whose}"
            told.setdefault(key, (kind, name))
            lines.setdefault(key, []).append(line_id)
    return [Holder(key, *told[key], tuple(lines[key])) for key in told]


def _on(line_id: int, rig: Rig, shop: ShopFile | None) -> list[list[str]]:
    found, vacuum = [], vacuum_key(rig, shop)
    part = first_separator(rig)
    if part is not None:
        owned = {one.id: one.name for one in shop.bins} if shop else {}
        shared = part.bin.of_shop if part.bin.of_shop in owned else None
        found.append([BIN, shared or f"line {line_id}", owned[shared] if shared else rig.name])
    if rig.vacuum.bag is not None:
        found.append([BAG, vacuum, rig.vacuum.name])
    else:
        found.append([TANK, vacuum, rig.vacuum.name])
        if rig.vacuum.filter is not None:
            found.append([FILTER, vacuum, rig.vacuum.name])
    return found


def vacuum_key(rig: Rig, shop: ShopFile | None) -> str:
    """Which vacuum a line has: one of the shop's by its id or its name, else one that is told by its name alone."""
    owned = shop.vacuums if shop else ()
    by_id = next((one.id for one in owned if one.id == rig.vacuum.of_shop), None)
    name = rig.vacuum.name.casefold()
    return by_id or next((one.id for one in owned if one.name.casefold() == name), f"called {name}")


def first_separator(rig: Rig) -> SeparatorPart | None:
    """The stage whose bin is followed: the first."""
    return next((part for part in rig.line.elements if isinstance(part, SeparatorPart)), None)


def emptied(rig: Rig) -> Rig:
    """A rig with nothing in its first bin, on its filter or in its bag: what wears does not hang on what is there."""
    vacuum, part = rig.vacuum, first_separator(rig)
    media = {
        name: None if medium is None else medium.model_copy(update={"held_kg": 0.0})
        for name, medium in (("filter", vacuum.filter), ("bag", vacuum.bag))
    }
    bare = rig.model_copy(update={"vacuum": vacuum.model_copy(update=media)})
    return bare if part is None else with_fill(bare, part.id, 0.0)


def with_fill(rig: Rig, stage: str, height: float) -> Rig:
    """A rig with dust of some height [m] in the bin of a stage."""
    elements = tuple(
        one.model_copy(update={"bin": one.bin.model_copy(update={"fill_height_m": height})})
        if isinstance(one, SeparatorPart) and one.id == stage
        else one
        for one in rig.line.elements
    )
    return rig.model_copy(update={"line": rig.line.model_copy(update={"elements": elements})})


@lru_cache(maxsize=256)
def wears_of(rig: Rig) -> Mapping[str, Wear]:
    """By the name of each tool port, what an hour there uses; a rig that was `emptied`. Ports unknown are left out."""
    line = build_line(rig)
    found = {}
    for port, leaf in enumerate(line.leaves):
        if leaf.port is None or leaf.port.name in found:
            continue
        with suppress(CoreError):  # a tool that cannot be worked out alone uses nothing that is known
            wear = wear_of(line_alone(line, port), port)
            if wear is not None:
                found[leaf.port.name] = wear
    return found


@lru_cache(maxsize=256)
def bin_on(rig: Rig) -> BinOnLine | None:
    """The first bin of a line; None without one, or where it is too shallow to hold anything."""
    line = build_line(rig)
    if not line.separators:
        return None
    height, volume = fill_mark(line.separators[0], line.rules)
    return BinOnLine(line.separators[0].id, height, volume, _bulk(line)) if volume > 0.0 else None


def _bulk(line: Line) -> float | None:
    return None if line.dust is None else line.dust.bulk_density


def share_of_bin(event: Logged, rig: Rig) -> float | None:
    """Of the first bin's room up to its mark, what an entry says was full [-]; None where it does not say."""
    there = bin_on(emptied(rig))
    if there is None:
        return None
    volume = event.volume
    if event.level is not None:
        volume = one_value(build_line(rig).separators[0].bin.volume_to(event.level))
    elif volume is None and event.mass is not None and there.bulk:
        volume = event.mass / there.bulk
    return None if volume is None else volume / there.volume


def over_bin(entry: Logged, rig: Rig | None) -> Problem | None:
    """What is wrong with a level above the rim of the line's bin; None where it is not."""
    part = None if rig is None else first_separator(rig)
    if part is None or entry.level is None or entry.level <= part.bin.profile[-1].height_m:
        return None
    return Problem("level", "stands over the rim: the bin is {limit} high", part.bin.profile[-1].height_m, None, "bore")


def height_of_share(rig: Rig, share: float) -> float | None:
    """How high the dust lies in the first bin at a share of its room up to the mark, at most to its rim [m]."""
    there = bin_on(emptied(rig))
    if there is None:
        return None
    bin_ = build_line(rig).separators[0].bin
    heights = np.linspace(0.0, bin_.height, STEPS)
    return float(np.interp(share * there.volume, bin_.volume_to(heights), heights))
