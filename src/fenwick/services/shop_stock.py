"""What the shop has to make things from and with."""

from __future__ import annotations

from fenwick.core.making.cutters import HoleSaw, Workshop
from fenwick.core.making.layout import SheetStock
from fenwick.core.making.stock import TubeStock
from fenwick.shop import ShopFile

DEEP = 0.025  #: that a hole saw cuts, where it is not said [m]


def workshop_of(shop: ShopFile | None) -> Workshop:
    """Tools for making."""
    if shop is None or not shop.cutting:
        return Workshop()
    saws = [one for one in shop.cutting if one.kind == "hole-saw" and one.d_m is not None]
    return Workshop(
        hole_saws=tuple(HoleSaw(one.d_m or 0.0, DEEP if one.depth_m is None else one.depth_m) for one in saws),
        cutters=tuple(one.d_m for one in shop.cutting if one.kind == "cutter" and one.d_m is not None),
        saws=tuple(one.kind for one in shop.cutting if one.kind not in ("hole-saw", "cutter")),
        known=True,
    )


def sheets_of(shop: ShopFile | None) -> tuple[SheetStock, ...]:
    """Sheets and off-cuts."""
    if shop is None:
        return ()
    return tuple(
        SheetStock(one.id, one.material, one.thickness_m, one.width_m, one.height_m, price=one.price)
        for one in shop.sheets
    )


def tubes_of(shop: ShopFile | None) -> tuple[TubeStock, ...]:
    """Tubes and rests of them."""
    if shop is None:
        return ()
    return tuple(TubeStock(one.id, one.material, one.bore_m, one.wall_m, one.length_m) for one in shop.tubes)
