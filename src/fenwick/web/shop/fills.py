"""What lines have that the shop does not list."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.rig import Rig
from fenwick.shop import ShopFile
from fenwick.shop.from_line import not_listed


@dataclass(frozen=True)
class FillRow:
    """A line, and what of it the shop does not list."""

    line_id: int
    line: str
    missing: tuple[str, ...]


def fill_rows(shop: ShopFile, lines: Sequence[tuple[int, Rig]]) -> list[FillRow]:
    """A row for every line that has something to enter."""
    rows = (FillRow(line_id, rig.name, not_listed(shop, rig)) for line_id, rig in lines)
    return [row for row in rows if row.missing]
