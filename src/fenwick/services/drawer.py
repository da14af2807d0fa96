"""The best lines that a shop's drawer makes, worked out once for each question."""

from __future__ import annotations

from functools import lru_cache

from fenwick.core.search.drawer import Task
from fenwick.rig import Rig
from fenwick.shop import ShopFile
from fenwick.shop.drawer import FoundLine, lines_from_drawer


@lru_cache(maxsize=16)
def from_drawer(rig: Rig, port: str, shop: ShopFile, task: Task) -> tuple[FoundLine, ...]:
    """The lines the drawer makes for a tool, the best first.

    Raises
    ------
    ValueError
        When the drawer allows more assignments than are tried.
    """
    return tuple(lines_from_drawer(rig, port, shop, task))
