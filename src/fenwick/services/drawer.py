"""The best lines that a shop's drawer makes, worked out once for each question."""

from __future__ import annotations

from functools import lru_cache

from fenwick.core.search.drawer import Task
from fenwick.rig import Rig
from fenwick.shop import ShopFile
from fenwick.shop.drawer import FromDrawer, lines_from_drawer


@lru_cache(maxsize=16)
def from_drawer(rig: Rig, port: str, shop: ShopFile, task: Task) -> FromDrawer:
    """The lines the drawer makes for a tool, at no cost and for what may be spent.

    Raises
    ------
    ValueError
        When the drawer allows more assignments than are tried.
    """
    return lines_from_drawer(rig, port, shop, task)
