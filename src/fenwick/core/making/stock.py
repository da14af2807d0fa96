"""Taking what is at hand before anything is bought."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from fenwick.core.making.parts import BUY, HAVE, MadePart, Stock

LIKE = 1e-3  #: tubes whose bores differ by no more serve for each other [m]
BIN_LIKE = 0.01  #: bins whose rim and height differ by no more are alike [m]
SAW = 3e-3  #: lost at each cut [m]


@dataclass(frozen=True)
class TubeStock:
    """A tube or a rest of one."""

    id: str
    material: str
    bore: float  #: [m]
    wall: float  #: [m]
    length: float  #: [m]


def with_tubes(parts: Sequence[MadePart], tubes: Sequence[TubeStock]) -> tuple[MadePart, ...]:
    """The parts, with those tubes at hand that are there in bore and length; the longest is cut first.

    The outside of a tube at hand decides the holes round it, so only one of the wall that was reckoned with serves.
    """
    left = {tube.id: tube.length for tube in tubes}
    wanted = sorted((p for p in parts if p.kind == "tube" and p.how == BUY), key=lambda p: -p.dims["length_m"])
    found: dict[str, MadePart] = {}
    for part in wanted:
        fitting = [tube for tube in tubes if _serves(tube, part) and left[tube.id] >= part.dims["length_m"]]
        if fitting:
            tube = min(fitting, key=lambda one: left[one.id])
            left[tube.id] -= part.dims["length_m"] + SAW
            found[part.id] = replace(part, how=HAVE, stock=Stock(tube.material, tube.wall))
    return tuple(found.get(part.id, part) for part in parts)


@dataclass(frozen=True)
class BinStock:
    """A bin that stands about."""

    id: str
    rim: float  #: inside, at its top [m]
    height: float  #: [m]


def with_bins(parts: Sequence[MadePart], bins: Sequence[BinStock]) -> tuple[MadePart, ...]:
    """The parts, with a bin to buy where the bins that stand about are known and none of them is like it."""
    if not bins:
        return tuple(parts)
    return tuple(_bin_of(part, bins) if part.id == "bin" else part for part in parts)


def _bin_of(part: MadePart, bins: Sequence[BinStock]) -> MadePart:
    rim, height = part.dims["rim_d_m"], part.dims["height_m"]
    there = any(abs(b.rim - rim) <= BIN_LIKE and abs(b.height - height) <= BIN_LIKE for b in bins)
    return part if there else replace(part, how=BUY)


def _serves(tube: TubeStock, part: MadePart) -> bool:
    return abs(tube.bore - part.dims["bore_m"]) <= LIKE and abs(tube.wall - part.stock.thickness) <= LIKE / 2.0
