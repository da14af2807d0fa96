"""What lines have that the shop does not list."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass

from fenwick.rig import Rig, RigError
from fenwick.shop import ShopFile
from fenwick.shop.from_line import filled_from


@dataclass(frozen=True)
class FillRow:
    """A line, and what of it the shop does not list."""

    line_id: int
    line: str
    missing: tuple[str, ...]


def fill_rows(shop: ShopFile, lines: Sequence[tuple[int, Rig]]) -> list[FillRow]:
    """A row for every line that has something to enter."""
    rows = []
    for line_id, rig in lines:
        with suppress(RigError):  # the shop holds no more
            missing = filled_from(shop, rig).added
            if missing:
                rows.append(FillRow(line_id, rig.name, missing))
    return rows
