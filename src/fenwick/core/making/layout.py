"""Parts laid out on sheets: those at hand first, what is missing by the smallest size sold; holes are used, too."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Any

import numpy as np
import rectpack

from fenwick.core.catalogue.sheets import SOLD
from fenwick.core.making.given import PAPER, Making
from fenwick.core.making.outlines import area
from fenwick.core.making.parts import FLAT, MAKE, MadePart, Stock, Trouble

SAME = 0.5e-3  #: sheets whose thickness differs by no more are alike [m]
GRID = 1e-4  #: sizes are packed in whole steps of this [m]
MOST_SHEETS = 20  #: of one size, that are bought
GRAINED = ("plywood", "board")  #: materials that are bent along one way only


@dataclass(frozen=True)
class SheetStock:
    """A sheet or an off-cut."""

    id: str
    material: str
    thickness: float  #: [m]
    width: float  #: [m]
    height: float  #: [m]
    at_hand: bool = True
    price: float | None = None


@dataclass(frozen=True)
class Placed:
    """A copy of a part on a sheet."""

    part: str
    sheet: int  #: its place in `Layout.sheets`
    x: float  #: lower left of the part's own box [m]
    y: float  #: [m]
    turned: bool  #: by a quarter turn
    within: str | None = None  #: part whose hole it is cut from


@dataclass(frozen=True)
class Layout:
    """Every part that is cut from sheet, on the sheets it is cut from."""

    sheets: tuple[SheetStock, ...]
    placed: tuple[Placed, ...]
    troubles: tuple[Trouble, ...]

    def used(self, i: int, parts: Iterable[MadePart]) -> float:
        """Share of a sheet that ends up in parts [-].

        Parameters
        ----------
        i : place of the sheet [-]
        """
        by_id = {part.id: part for part in parts}
        net = sum(_net_area(by_id[one.part]) for one in self.placed if one.sheet == i)
        return net / (self.sheets[i].width * self.sheets[i].height)


def _net_area(part: MadePart) -> float:
    return sum(area(loop) for loop in part.outline)


def box_of(part: MadePart) -> tuple[float, float]:
    """Width and height of a flat part [m]."""
    low, high = part.outline[0].min(axis=0), part.outline[0].max(axis=0)
    return float(high[0] - low[0]), float(high[1] - low[1])


def lay_out(parts: Sequence[MadePart], at_hand: Sequence[SheetStock], making: Making) -> Layout:
    """Put every flat part that is made on sheets, the smallest of those at hand that does first."""
    cut = [part for part in parts if part.kind in FLAT and part.how == MAKE and _of_sheet(part)]
    cut.sort(key=_stock_key)
    sheets: list[SheetStock] = []
    placed: list[Placed] = []
    troubles: list[Trouble] = []
    for _, group in groupby(cut, key=_stock_key):
        _lay_out_one(list(group), at_hand, making, sheets, placed, troubles)
    return Layout(tuple(sheets), tuple(placed), tuple(troubles))


def _of_sheet(part: MadePart) -> bool:
    return part.stock.material != PAPER and part.kind != "block" and "segments" not in part.dims


def of_stock(sheets: Sequence[SheetStock], stock: Stock) -> list[SheetStock]:
    """The sheets of a material and thickness."""
    return [s for s in sheets if s.material == stock.material and abs(s.thickness - stock.thickness) <= SAME]


def _stock_key(part: MadePart) -> tuple[str, int]:
    return part.stock.material, round(part.stock.thickness / SAME)


def _lay_out_one(
    parts: list[MadePart],
    at_hand: Sequence[SheetStock],
    making: Making,
    sheets: list[SheetStock],
    placed: list[Placed],
    troubles: list[Trouble],
) -> None:
    """All that is cut from one kind of sheet."""
    kerf, margin = making.rule("kerf"), making.rule("margin")
    stock = parts[0].stock
    copies = [part for part in parts for _ in range(part.count)]
    own = of_stock(at_hand, stock)
    own.sort(key=lambda s: s.width * s.height)
    sold = [SheetStock(f"{w:g}x{h:g}", stock.material, stock.thickness, w, h, at_hand=False) for w, h in SOLD]
    fitting, too_large = _that_fit(copies, [*own, *sold], margin)
    inner, rest = _from_holes(fitting, kerf)
    troubles += [_too_large(part) for part in {one.id: one for one in too_large}.values()]
    grain = any(part.kind in ("wrap", "cone") for part in parts) and stock.material in GRAINED
    begin = len(placed)
    left = _pack(rest, own, [1] * len(own), kerf, margin, grain, sheets, placed)
    while left:
        size = _smallest_for(left, sold, kerf, margin, grain)
        left = _pack(left, [size], [MOST_SHEETS], kerf, margin, grain, sheets, placed)
    hosts = {one.part: one for one in placed[begin:]}
    for part, host in inner:
        hosts[part.id] = _within(part, host, hosts[host.id])
        placed.append(hosts[part.id])


def _from_holes(copies: list[MadePart], kerf: float) -> tuple[list[tuple[MadePart, MadePart]], list[MadePart]]:
    """(part, the part whose middle hole it is cut from), and the rest; the largest takes the smallest hole it fits."""
    hosts = sorted((p for p in copies if p.kind == "ring"), key=lambda p: p.dims["inner_d_m"])
    inner: list[tuple[MadePart, MadePart]] = []
    rest: list[MadePart] = []
    free = list(hosts)
    for part in sorted(copies, key=lambda p: -_round_box(p)):
        host = next((h for h in free if h is not part and _round_box(part) + 2.0 * kerf <= h.dims["inner_d_m"]), None)
        if host is None:
            rest.append(part)
        else:
            free.remove(host)
            inner.append((part, host))
    return inner, rest


def _round_box(part: MadePart) -> float:
    """Diameter of a circle that holds the part [m]."""
    return part.dims["d_m"] if part.kind in ("disc", "ring") else float(np.hypot(*box_of(part)))


def _within(part: MadePart, host: MadePart, there: Placed) -> Placed:
    """In the middle of the hole of a part that lies on a sheet."""
    wide, high = box_of(part)
    return Placed(
        part.id, there.sheet, there.x + (host.dims["d_m"] - wide) / 2.0, there.y + (host.dims["d_m"] - high) / 2.0,
        turned=False, within=host.id,
    )  # fmt: skip


def _that_fit(
    parts: list[MadePart], sheets: Sequence[SheetStock], margin: float
) -> tuple[list[MadePart], list[MadePart]]:
    taken = [part for part in parts if any(fits(part, sheet, margin) for sheet in sheets)]
    return taken, [part for part in parts if part not in taken]


def fits(part: MadePart, sheet: SheetStock, margin: float) -> bool:
    """Whether a flat part goes on a sheet, either way round.

    Parameters
    ----------
    margin : of the sheet that no part uses [m]
    """
    wide, high = box_of(part)
    room = sorted((sheet.width - 2.0 * margin, sheet.height - 2.0 * margin))
    return all(a <= b + 1e-9 for a, b in zip(sorted((wide, high)), room, strict=True))


def _too_large(part: MadePart) -> Trouble:
    wide, high = box_of(part)
    return Trouble("sheet-small", part.id, max(wide, high), min(wide, high))


def _smallest_for(
    left: list[MadePart], sold: Sequence[SheetStock], kerf: float, margin: float, grain: bool
) -> SheetStock:
    """The smallest size sold that takes all that is left; the largest where none does."""
    for size in sold:
        if len(_pack(left, [size], [1], kerf, margin, grain, [], [])) == 0:
            return size
    return sold[-1]


def _pack(
    parts: list[MadePart],
    sheets_: Sequence[SheetStock],
    counts: Sequence[int],
    kerf: float,
    margin: float,
    grain: bool,
    sheets: list[SheetStock],
    placed: list[Placed],
) -> list[MadePart]:
    """Pack what fits on some sheets; what is left over."""
    if not sheets_ or not parts:
        return parts
    packer = rectpack.newPacker(rotation=not grain)
    for i, part in enumerate(parts):
        wide, high = box_of(part)
        packer.add_rect(_steps(wide + kerf), _steps(high + kerf), rid=i)
    for i, (sheet, count) in enumerate(zip(sheets_, counts, strict=True)):
        room = (sheet.width - 2.0 * margin + kerf, sheet.height - 2.0 * margin + kerf)
        packer.add_bin(int(room[0] / GRID), int(room[1] / GRID), count=count, bid=i)
    packer.pack()
    done: set[int] = set()
    for packed in packer:
        if len(packed) == 0:
            continue
        sheets.append(sheets_[packed.bid])
        for rect in packed:
            placed.append(_placed(parts[rect.rid], rect, len(sheets) - 1, margin))
            done.add(rect.rid)
    return [part for i, part in enumerate(parts) if i not in done]


def _placed(part: MadePart, rect: Any, sheet: int, margin: float) -> Placed:
    wide, high = box_of(part)
    turned = abs(wide - high) > GRID and (rect.width > rect.height) != (wide > high)
    return Placed(part.id, sheet, margin + rect.x * GRID, margin + rect.y * GRID, turned)


def _steps(length: float) -> int:
    return int(np.ceil(length / GRID - 1e-6))
