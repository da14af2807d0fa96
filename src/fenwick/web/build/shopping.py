"""What is to buy, with its price, to be ticked off as it comes."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.builds.model import BuildFile
from fenwick.core.making.shopping import sum_of
from fenwick.services.builds import still_to_buy, to_pay
from fenwick.web.build.hand import InHand
from fenwick.wording.making.facts import buy_words, price_words
from fenwick.wording.say import Voice


@dataclass(frozen=True)
class BuyRow:
    """A line of the shopping list."""

    key: str
    words: str
    price: str
    there: bool


@dataclass(frozen=True)
class ShoppingView:
    """The shopping list."""

    rows: tuple[BuyRow, ...]
    left: int
    together: str  #: of what is not there
    instead: str  #: what it takes to have it bought, or made


def shopping_view(hand: InHand, voice: Voice, *, separator: bool) -> ShoppingView:
    """The list of what is in hand.

    Parameters
    ----------
    separator : whether it is one, which can be bought as well as made
    """
    pack, got = hand.found.pack, hand.found.file.got
    rows = [
        BuyRow(line.key, buy_words(line, voice), price_words(line.price, pack.money), line.key in got)
        for line in pack.to_buy
    ]
    left = still_to_buy(pack, hand.found.file)
    return ShoppingView(
        tuple(rows), len(left), price_words(sum_of(left), pack.money), _instead(hand) if separator else ""
    )


def _instead(hand: InHand) -> str:
    file = hand.found.file
    other = to_pay(hand.state.rig, _the_other_way(file), hand.asked)
    return f"{'Made' if file.bought else 'Bought'}, it would be {price_words(other, hand.found.pack.money)}."


def _the_other_way(file: BuildFile) -> BuildFile:
    """The record of a build that is bought where this one is made, and the reverse, with nothing there yet."""
    return file.model_copy(update={"bought": not file.bought, "got": ()})
