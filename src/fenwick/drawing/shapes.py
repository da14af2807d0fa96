"""What a scene is made of. Coordinates are in pixels of the picture, y downwards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate, pairwise
from math import hypot

Point = tuple[float, float]


@dataclass(frozen=True)
class Curve:
    """A run of cubic Béziers: the start, then (control, control, end) for each."""

    start: Point
    pieces: tuple[tuple[Point, Point, Point], ...]

    @property
    def path(self) -> str:
        """As an SVG path."""
        steps = " ".join("C " + " ".join(f"{x:.1f} {y:.1f}" for x, y in piece) for piece in self.pieces)
        return f"M {self.start[0]:.1f} {self.start[1]:.1f} {steps}"

    @property
    def end(self) -> Point:
        """Where it ends."""
        return self.pieces[-1][2]

    def at(self, share: float) -> Point:
        """The point at a share of its pieces."""
        position = min(max(share, 0.0), 1.0) * len(self.pieces)
        i = min(int(position), len(self.pieces) - 1)
        start = self.start if i == 0 else self.pieces[i - 1][2]
        return bezier(start, *self.pieces[i], position - i)


def bezier(p0: Point, p1: Point, p2: Point, p3: Point, t: float) -> Point:
    """A point of one cubic Bézier."""
    a, b, c, d = (1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3
    return (a * p0[0] + b * p1[0] + c * p2[0] + d * p3[0], a * p0[1] + b * p1[1] + c * p2[1] + d * p3[1])


def between(p: Point, q: Point, t: float) -> Point:
    """The point a share t of the way from p to q."""
    return (p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]))


def slice_bezier(p0: Point, p1: Point, p2: Point, p3: Point, low: float, high: float) -> Curve:
    """The part of a cubic between two parameters (de Casteljau twice)."""

    def head(a: Point, b: Point, c: Point, d: Point, t: float) -> tuple[Point, Point, Point, Point]:
        ab, bc, cd = between(a, b, t), between(b, c, t), between(c, d, t)
        abc, bcd = between(ab, bc, t), between(bc, cd, t)
        return a, ab, abc, between(abc, bcd, t)

    a, b, c, d = head(p0, p1, p2, p3, high)
    d, c, b, a = head(d, c, b, a, 1.0 - (low / high if high else 0.0))
    return Curve(a, ((b, c, d),))


def straight(start: Point, end: Point) -> Curve:
    """A straight curve."""
    return Curve(start, ((between(start, end, 1 / 3), between(start, end, 2 / 3), end),))


def divided(curve: Curve, shares: Sequence[float]) -> list[Curve]:
    """A curve in pieces, one behind the other.

    Parameters
    ----------
    shares : of its length, that sum to 1 [-]
    """
    starts = [curve.start, *(piece[2] for piece in curve.pieces)]
    lengths = [_reach(start, *piece) for start, piece in zip(starts, curve.pieces, strict=False)]
    marks = [0.0, *accumulate(length / sum(lengths) for length in lengths)]
    low, parts = 0.0, list[Curve]()
    for high in accumulate(shares):
        cut = []
        for i, piece in enumerate(curve.pieces):
            span = marks[i + 1] - marks[i]
            first, last = max(low, marks[i]), min(min(high, 1.0), marks[i + 1])
            if last - first > 1e-9:
                cut.append(slice_bezier(starts[i], *piece, (first - marks[i]) / span, (last - marks[i]) / span))
        if not cut:
            here = parts[-1].end if parts else curve.start
            cut = [Curve(here, ((here, here, here),))]
        parts.append(Curve(cut[0].start, tuple(piece for one in cut for piece in one.pieces)))
        low = high
    return parts


def _reach(p0: Point, p1: Point, p2: Point, p3: Point) -> float:
    points = [bezier(p0, p1, p2, p3, t / 12) for t in range(13)]
    return max(sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(points)), 1e-6)


@dataclass(frozen=True)
class Box:
    """An upright rectangle, for keeping labels apart."""

    left: float
    top: float
    width: float
    height: float

    def overlaps(self, other: Box, gap: float = 2.0) -> bool:
        """Whether two boxes come closer than `gap`."""
        return (
            self.left < other.left + other.width + gap
            and other.left < self.left + self.width + gap
            and self.top < other.top + other.height + gap
            and other.top < self.top + self.height + gap
        )

    def within(self, width: float, height: float) -> bool:
        """Whether it lies inside a picture of that size."""
        return self.left >= 0 and self.top >= 0 and self.left + self.width <= width and self.top + self.height <= height


@dataclass(frozen=True)
class Label:
    """Two lines of text: what it is, and how it does, with the state's colour and word."""

    name: str
    detail: str
    level: str  #: ok, watch, act or empty
    x: float
    y: float  #: baseline of the name
    anchor: str = "middle"
    part: str = ""  #: id of the part it belongs to
    keyed: bool = False  #: there is no room for it: the drawing shows the part's number, and a key says the rest

    @property
    def box(self) -> Box:
        """Where it stands, by an estimate of the text's width."""
        width = max(text_width(self.name, 14.0), text_width(self.detail, 12.5))
        left = {"start": self.x, "middle": self.x - width / 2, "end": self.x - width}[self.anchor]
        return Box(left, self.y - 12.0, width, 30.0)


def text_width(text: str, size: float) -> float:
    """Width of a text in the drawing's typeface, slightly generous [px]."""
    return 0.45 * size * len(text)


@dataclass(frozen=True)
class DrawnPart:
    """Something on the drawing that can be picked."""

    id: str
    kind: str  #: tool, hose, reducer, loss, gate, leak, separator or vacuum
    title: str  #: spoken name
    number: int  #: in the order of the air, from 1
    anchor: Point  #: where its number is put when there is no room for labels
    level: str = ""
    curve: Curve | None = None
    bore: float = 0.0  #: drawn [px]
    bore_out: float = 0.0  #: [px]
    wall: str = ""
    cut: Point | None = None  #: where a hose too long for the picture is cut
    turn: float = 0.0  #: direction of the air [degrees, clockwise from the right]
    aside: tuple[Point, ...] = ()  #: further places where a label of it could begin
