"""What the shop has to make things from and with."""

from __future__ import annotations

from fenwick.core.making.cutters import HoleSaw, Workshop
from fenwick.core.making.layout import SheetStock
from fenwick.core.making.stock import BinStock, TubeStock
from fenwick.services.making import BuildAsked
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


def bins_of(shop: ShopFile | None) -> tuple[BinStock, ...]:
    """Bins that stand about."""
    return () if shop is None else tuple(BinStock(one.id, one.top_d_m, one.height_m) for one in shop.bins)


def prices_known(shop: ShopFile | None) -> tuple[tuple[str, float], ...]:
    """What the shop pays itself, by the rule that it knows better than."""
    return () if shop is None else tuple((one.of, one.price) for one in shop.prices)


def asked_of(shop: ShopFile | None, what: str | None = None) -> BuildAsked:
    """What is to be built, with everything that the shop has."""
    return BuildAsked(
        what, workshop=workshop_of(shop), sheets=sheets_of(shop), tubes=tubes_of(shop), bins=bins_of(shop),
        prices=prices_known(shop), money="€" if shop is None else shop.money,
    )  # fmt: skip


def tubes_of(shop: ShopFile | None) -> tuple[TubeStock, ...]:
    """Tubes and rests of them."""
    if shop is None:
        return ()
    return tuple(TubeStock(one.id, one.material, one.bore_m, one.wall_m, one.length_m) for one in shop.tubes)
