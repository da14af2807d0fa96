"""What the shop has to make things with, as limits of a search."""

from __future__ import annotations

from fenwick.services.shop_stock import sheets_of, workshop_of
from fenwick.shop import ShopFile
from fenwick.units import format_value


def of_stock(shop: ShopFile | None, system: str) -> dict[str, str]:
    """The fields that the largest sheet and the saws at hand fill; nothing where the shop has said nothing.

    A router cuts any hole, so that only a shop without one is held to its hole saws.
    """
    sheets, workshop = sheets_of(shop), workshop_of(shop)
    lengths: dict[str, float] = {}
    if sheets:
        largest = max(sheets, key=lambda sheet: sheet.width * sheet.height)
        lengths |= {"sheet_width": largest.width, "sheet_height": largest.height}
    if workshop.hole_saws and "router" not in workshop.saws:
        lengths["largest_hole"] = max(saw.d for saw in workshop.hole_saws)
        lengths["cutter_reach"] = max(saw.depth for saw in workshop.hole_saws)
    return {key: format_value(value, "bore", system, field=True) for key, value in lengths.items()}
