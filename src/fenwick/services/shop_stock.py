"""What the shop has to make things from and with."""

from __future__ import annotations

from fenwick.core.making.cutters import Workshop
from fenwick.core.making.layout import Sheet
from fenwick.shop import ShopFile


def workshop_of(shop: ShopFile | None) -> Workshop:
    """Tools for making."""
    del shop
    return Workshop()


def sheets_of(shop: ShopFile | None) -> tuple[Sheet, ...]:
    """Sheets and off-cuts."""
    del shop
    return ()
