"""What is printed and laid beside a thing, so that a photo of it can be measured. All in millimetres, y downwards."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array

RING, HOLE, DOT = 6.0, 3.2, 1.4  #: radii of a mark: black ring, white inside, a dot in some of them [mm]
PAPER = 96.0  #: lightness of plain paper, L*
GREYS = (18.0, 34.0, 50.0, 64.0, 77.0, 88.0)  #: lightness of the grey patches, L*


@dataclass(frozen=True)
class Patch:
    """A rectangle of one lightness."""

    left: float
    top: float
    width: float
    height: float
    lightness: float = PAPER  #: L*

    def inside(self, margin: float) -> Patch:
        """Without its edges.

        Parameters
        ----------
        margin : left out on every side [mm]
        """
        wide, high = self.width - 2.0 * margin, self.height - 2.0 * margin
        return Patch(self.left + margin, self.top + margin, wide, high, self.lightness)


@dataclass(frozen=True)
class PrintedWords:
    """A line of text."""

    x: float
    y: float  #: of its baseline
    text: str
    size: float  #: of a capital letter, about


@dataclass(frozen=True)
class Target:
    """A printed sheet with four marks in its corners."""

    key: str
    title: str
    width: float
    height: float
    dots: tuple[bool, ...]  #: which marks have a dot, clockwise from the top left: it tells the sheets apart
    black: tuple[Patch, ...]  #: what else is printed: lines, ticks and grey patches
    white: tuple[Patch, ...]  #: where nothing is printed, for the light
    words: tuple[PrintedWords, ...]
    corner: float  #: from the edges to the middle of a mark
    soft: float  #: width of an edge, above which a picture of it is blurred

    @property
    def marks(self) -> Array:
        """Middles of the marks, clockwise from the top left, shape (4, 2) [mm]."""
        c, w, h = self.corner, self.width, self.height
        return np.array([[c, c], [w - c, c], [w - c, h - c], [c, h - c]])


WINDOW = Patch(36.0, 22.0, 48.0, 46.0)  #: of the card, to be cut out
BAR = (35.0, 85.0, 77.0)  #: the 50 mm of the card: from, to, and how far down [mm]
SQUARE, COLUMNS, ROWS = 10.0, 22, 16  #: of the sheet [mm]
GRID = Patch(22.5, 20.0, SQUARE * COLUMNS, SQUARE * ROWS)
LINE = 0.35  #: width of a printed line [mm]


def _greys() -> tuple[Patch, ...]:
    """The same patches on both sides of the window, the other way up on the right: what differs is the light."""
    step = WINDOW.height / len(GREYS)
    left = [Patch(19.0, WINDOW.top + i * step, 12.0, step, grey) for i, grey in enumerate(GREYS)]
    right = [Patch(89.0, WINDOW.top + i * step, 12.0, step, grey) for i, grey in enumerate(reversed(GREYS))]
    return (*left, *right)


def _frame(patch: Patch) -> tuple[Patch, ...]:
    x, y, w, h = patch.left, patch.top, patch.width, patch.height
    return (
        Patch(x - LINE, y - LINE, w + 2.0 * LINE, LINE, 60.0),
        Patch(x - LINE, y + h, w + 2.0 * LINE, LINE, 60.0),
        Patch(x - LINE, y, LINE, h, 60.0),
        Patch(x + w, y, LINE, h, 60.0),
    )


def _bar() -> tuple[Patch, ...]:
    start, end, y = BAR
    ticks = [Patch(x - 0.3, y - 3.0, 0.6, 6.0, 0.0) for x in (start, end)]
    return (Patch(start, y - 0.3, end - start, 0.6, 0.0), *ticks)


CARD = Target(
    "card",
    "Card: lay it on the filter or the wipe, which shows in its window",
    120.0,
    90.0,
    (True, False, False, False),
    (*_greys(), *_frame(WINDOW), *_bar()),
    (
        Patch(19.0, 4.0, 82.0, 7.0),
        Patch(19.0, 69.5, 82.0, 3.5),
        Patch(4.0, 20.0, 12.0, 50.0),
        Patch(104.0, 20.0, 12.0, 50.0),
    ),
    (
        PrintedWords(36.0, 17.5, "Cut this window out", 2.6),
        PrintedWords(35.0, 84.0, "50 mm when printed at 100 %", 2.6),
        PrintedWords(35.0, 88.0, "Fenwick card, for filters and wipes", 2.4),
    ),
    9.0,
    1.3,
)


def _lines() -> tuple[Patch, ...]:
    across = [Patch(GRID.left, GRID.top + i * SQUARE - LINE / 2, GRID.width, LINE, 70.0) for i in range(ROWS + 1)]
    down = [Patch(GRID.left + i * SQUARE - LINE / 2, GRID.top, LINE, GRID.height, 70.0) for i in range(COLUMNS + 1)]
    return (*across, *down)


SHEET = Target(
    "sheet",
    "Sheet of squares: lay it at the hood, run one cut, count the squares that are hit",
    265.0,
    200.0,
    (True, True, False, False),
    _lines(),
    (
        Patch(20.0, 4.0, 225.0, 9.0),
        Patch(20.0, 183.0, 225.0, 8.0),
        Patch(4.0, 20.0, 12.0, 160.0),
        Patch(249.0, 20.0, 12.0, 160.0),
    ),
    (PrintedWords(20.0, 196.5, f"Fenwick sheet: {COLUMNS * ROWS} squares of 10 mm", 2.4),),
    9.0,
    2.2,
)
WIDE, TALL, UP = 44.0, 264.0, 10.0  #: of the strip, and between its ticks [mm]


def _ticks() -> tuple[Patch, ...]:
    lengths = [10.0 if i % 5 == 0 else 5.0 for i in range(1, 26)]
    return tuple(
        Patch(WIDE / 2.0 - long / 2.0, TALL - i * UP - 0.25, long, 0.5, 0.0) for i, long in enumerate(lengths, 1)
    )


STRIP = Target(
    "strip",
    "Strip: its lower edge on the floor of the bin, or between the legs of a U of water",
    WIDE,
    TALL,
    (True, True, True, False),
    _ticks(),
    (Patch(3.0, 18.0, 11.0, 228.0), Patch(30.0, 18.0, 11.0, 228.0)),
    tuple(PrintedWords(WIDE / 2.0 - 3.0, TALL - i * UP - 1.0, f"{10 * i}", 2.6) for i in range(5, 26, 5)),
    8.0,
    1.6,
)
TARGETS = {one.key: one for one in (CARD, SHEET, STRIP)}
