"""The shop as a document: site, circuits, vacuums, tools, hoses, fittings, jobs and the room, checked as a whole."""

from fenwick.shop.edit import add_item, duplicate_item, edit_shop, remove_item
from fenwick.shop.model import ShopFile, money_sign
from fenwick.shop.read import check_shop, read_shop, write_shop

__all__ = [
    "ShopFile",
    "add_item",
    "check_shop",
    "duplicate_item",
    "edit_shop",
    "money_sign",
    "read_shop",
    "remove_item",
    "write_shop",
]
