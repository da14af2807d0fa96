"""Where 100 g of dust end up, as one bar of true widths."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from markupsafe import Markup

from fenwick.core.dust.fate import Fate
from fenwick.drawing.render import render
from fenwick.drawing.shapes import text_width

ENDS = (
    ("bin", "bin"),
    ("wet", "under water"),
    ("inline", "in-line filter"),
    ("hood", "left in the hood"),
    ("extra", "extra filter"),
    ("filter", "filter"),
    ("exhaust", "exhaust"),
    ("blown", "extra exhaust"),
    ("room_air", "room air"),
    ("floor", "floor"),
)


@dataclass(frozen=True)
class FateEnd:
    """One end of the dust."""

    key: str
    words: str
    grams: str
    x: float
    width: float
    fits: bool  #: whether its words fit into the bar
    slight: bool  #: less than half a gram


def fate_ends(fate: Fate, width: float) -> list[FateEnd]:
    """The bar's segments; ends that get nothing are left out."""
    return ends_of({key: float(getattr(fate, key)[0]) for key, _ in ENDS}, width)


def ends_of(shares: Mapping[str, float], width: float) -> list[FateEnd]:
    """The segments of a bar from shares by `ENDS`; those that get nothing are left out."""
    ends, x = [], 0.0
    for key, words in ENDS:
        share = shares.get(key, 0.0)
        if share <= 0.0:
            continue
        grams = f"{100 * share:.0f} g" if share >= 0.005 else "under 1 g"
        wide = share * width
        ends.append(
            FateEnd(key, words, grams, x, wide, text_width(f"{words} {grams}", 13.0) + 12 < wide, share < 0.005)
        )
        x += wide
    return ends


def render_small_fate(fate: Fate, width: float) -> Markup:
    """The bar for a row of a table: grams alone, where they fit."""
    return _small(fate_ends(fate, width), width)


def render_small_ends(shares: Mapping[str, float], width: float) -> Markup:
    """The same for shares by the ends of `core.dust.fate` [-]; what stays in the vacuum counts as its filter."""
    held = sum(shares.get(key, 0.0) for key in ("tank", "bag", "paper"))
    return _small(ends_of({**shares, "filter": held}, width), width)


def _small(ends: list[FateEnd], width: float) -> Markup:
    ends = [replace(end, fits=end.width > 22.0) for end in ends]
    return render("fate_small.svg.jinja", ends=ends, width=width, height=18.0)


def render_fate(fate: Fate, width: float) -> Markup:
    """The bar as SVG of a given width [px]."""
    return render("fate.svg.jinja", ends=fate_ends(fate, width), width=width, height=28.0)
