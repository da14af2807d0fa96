"""What has to be bought for a design, and about what it costs."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from fenwick.core.arrays import one_value
from fenwick.core.making.layout import SheetStock
from fenwick.core.making.parts import BUY, MadePart
from fenwick.core.rules import RULES, RuleBook

PART, SHEET, SEALANT = "part", "sheet", "sealant"
WHOLE = ("kit", "chamber", "cyclone")  #: what a bought separator comes as
#: rules that are prices: what a shop can know better
PRICES = tuple(
    rule.key for rule in RULES if rule.unit.startswith("money") and rule.key.startswith(("make.", "buy.", "price."))
)


@dataclass(frozen=True)
class ToBuy:
    """A line of the shopping list."""

    key: str  #: by which it is ticked off
    kind: str  #: PART, SHEET or SEALANT
    count: int
    price: float | None  #: of all of them, in the shop's money; None: not known
    part: MadePart | None = None
    sheet: SheetStock | None = None
    sealant: str = ""


def shopping(
    parts: Sequence[MadePart],
    sheets: Sequence[SheetStock],
    glues: Iterable[str],
    rules: RuleBook,
    whole: float | None,
) -> tuple[ToBuy, ...]:
    """Sheets, parts, sealants: everything that is not there.

    Parameters
    ----------
    glues : kinds of sealant and glue that it takes
    whole : price of the separator itself, where it is bought [money]
    """
    counted = Counter(sheet for sheet in sheets if not sheet.at_hand)
    lines = [
        ToBuy(_sheet_key(sheet), SHEET, count, count * sheet_price(sheet, rules), sheet=sheet)
        for sheet, count in counted.items()
    ]
    lines += [ToBuy(p.id, PART, p.count, part_price(p, rules, whole), part=p) for p in parts if p.how == BUY]
    price = one_value(rules["price.sealant"])
    return (*lines, *(ToBuy(f"sealant:{kind}", SEALANT, 1, price, sealant=kind) for kind in dict.fromkeys(glues)))


def part_price(part: MadePart, rules: RuleBook, whole: float | None) -> float | None:
    """Price of all pieces of a bought part, in the shop's money; None: not known.

    Parameters
    ----------
    whole : price of the separator itself [money]
    """
    if part.stands_for in WHOLE:
        return whole
    key = "price.tube" if part.kind == "tube" else f"price.{part.stands_for}"
    if key not in PRICES:
        return None
    by_length = next(rule.unit for rule in RULES if rule.key == key).endswith("/m")
    return part.count * one_value(rules[key]) * (part.dims["length_m"] if by_length else 1.0)


def sheet_price(sheet: SheetStock, rules: RuleBook) -> float:
    """Price of a sheet, in the shop's money."""
    return sheet.width * sheet.height * one_value(rules["make.sheet"]) if sheet.price is None else sheet.price


def sum_of(lines: Sequence[ToBuy]) -> float:
    """What the lines whose price is known cost together, in the shop's money."""
    return sum(line.price for line in lines if line.price is not None)


def _sheet_key(sheet: SheetStock) -> str:
    return f"sheet:{sheet.material}:{sheet.thickness * 1e6:.0f}:{sheet.id}"
