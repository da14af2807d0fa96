"""Hoses and fittings between two bodies: draped over the floor, or hung from an outlet over to the vacuum."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from math import atan2, degrees, hypot, sqrt

from fenwick.drawing.shapes import Box, Curve, DrawnPart, Point, bezier, slice_bezier
from fenwick.rig import Rig
from fenwick.rig.format.elements import (
    ElbowPart,
    GatePart,
    HosePart,
    InlineFilterPart,
    LeakPart,
    LossPart,
    PlatePart,
    ReducerPart,
)
from fenwick.rig.format.separator import SeparatorPart, WetStagePart

FITTING_WIDTH = {
    "reducer": 20.0,
    "gate": 14.0,
    "gate-mark": 14.0,
    "junction": 30.0,
    "loss": 16.0,
    "elbow": 22.0,
    "plate": 12.0,
    "filter": 34.0,
    "leak": 0.0,
}
LABEL_ROOM = 44.0  #: kept free between a hose's belly and the floor
JOINS = "joins-"  #: before the id of the branch that others join
CUT_FROM = 1.25  #: a hose longer than the curve drawn by this much is drawn cut


@dataclass(frozen=True)
class Piece:
    """An element as the drawing needs it; metres."""

    id: str
    kind: str
    bore_in: float
    bore_out: float
    length: float = 0.0
    wall: str = ""


@dataclass(frozen=True)
class GateMark:
    """The gate where a branch joins; it is changed with its tool."""

    opening: float


@dataclass(frozen=True)
class JunctionMark:
    """Where other branches join the way that is drawn."""

    id: str
    names: tuple[str, ...]


def trunk_runs(rig: Rig) -> list[list[object]]:
    """The trunk's elements ahead of the first stage, between stages, and behind the last."""
    runs: list[list[object]] = [[]]
    for element in rig.line.elements:
        if isinstance(element, SeparatorPart | WetStagePart):
            runs.append([])
        else:
            runs[-1].append(element)
    return runs


def pieces_of(elements: list[object]) -> list[Piece]:
    """Elements of the rig file as pieces; a run without any hose gets a plain joint to fill it."""
    pieces: list[Piece] = []
    for element in elements:
        match element:
            case HosePart():
                pieces.append(Piece(element.id, "hose", element.bore_m, element.bore_m, element.length_m, element.wall))
            case ReducerPart():
                pieces.append(Piece(element.id, "reducer", element.bore_in_m, element.bore_out_m, element.length_m))
            case LossPart() | GatePart() | ElbowPart() | PlatePart() | InlineFilterPart():
                pieces.append(Piece(element.id, element.kind, element.bore_m, element.bore_m))
            case GateMark():
                pieces.append(Piece("", "gate-mark", _last_bore(pieces), _last_bore(pieces)))
            case JunctionMark():
                pieces.append(Piece(element.id, "junction", _last_bore(pieces), _last_bore(pieces)))
            case LeakPart():
                pieces.append(Piece(element.id, "leak", _last_bore(pieces), _last_bore(pieces)))
    if not any(piece.kind == "hose" for piece in pieces):
        pieces.append(Piece("", "joint", _last_bore(pieces), _last_bore(pieces)))
    return pieces


def _last_bore(pieces: list[Piece]) -> float:
    return pieces[-1].bore_out if pieces else 0.045


def widths_of(pieces: list[Piece], room: float) -> list[float]:
    """Room of each piece: fittings take what they need, hoses share the rest by the root of their length.

    Parameters
    ----------
    room : that there is for all of them [px]
    """
    fixed = sum(FITTING_WIDTH.get(piece.kind, 0.0) for piece in pieces)
    squeeze = min(1.0, 0.5 * room / fixed) if fixed else 1.0
    weights = [sqrt(max(piece.length, 0.15)) if piece.kind in ("hose", "joint") else 0.0 for piece in pieces]
    left = room - fixed * squeeze
    return [
        left * weight / sum(weights) if weight else FITTING_WIDTH[piece.kind] * squeeze
        for piece, weight in zip(pieces, weights, strict=True)
    ]


def draped(pieces: list[Piece], start: Point, end: Point, floor: float, scale: float) -> list[DrawnPart]:
    """A run from left to right; every hose sags between its joints."""
    parts, here, done = [], start, 0.0
    room = end[0] - start[0]
    for piece, width in zip(pieces, widths_of(pieces, room), strict=True):
        done += width
        there = (start[0] + done, start[1] + (end[1] - start[1]) * done / room)
        if piece.kind == "hose":
            curve = _sagging(here, there, piece.length * scale, floor - LABEL_ROOM - piece.bore_in * scale / 2)
        else:
            there = (there[0], here[1]) if piece.kind != "joint" else there
            curve = Curve(here, ((here, there, there),))
        parts.append(as_drawn(piece, curve, scale))
        here = there
    return parts


def _sagging(start: Point, end: Point, length: float, lowest: float) -> Curve:
    """From joint to joint with level ends and a belly as deep as the slack allows."""
    chord = hypot(end[0] - start[0], end[1] - start[1])
    lower = max(start[1], end[1])
    belly = min(lower + max(0.42 * (length - chord), 4.0), max(lowest, lower + 4.0))
    middle = (0.5 * (start[0] + end[0]), belly)
    reach = 0.46
    return Curve(
        start,
        (
            (
                (start[0] + reach * (middle[0] - start[0]), start[1]),
                (middle[0] - reach * (middle[0] - start[0]), belly),
                middle,
            ),
            ((middle[0] + reach * (end[0] - middle[0]), belly), (end[0] - reach * (end[0] - middle[0]), end[1]), end),
        ),
    )


def hung(pieces: list[Piece], start: Point, end: Point, scale: float) -> list[DrawnPart]:
    """A run that rises out of `start` and comes down into `end`; its pieces share one arch."""
    bore = max(piece.bore_in for piece in pieces) * scale
    rise = min(90.0, max(start[1] - bore, 24.0))
    first, second = (
        (start[0], start[1] - rise),
        (end[0] - 0.30 * (end[0] - start[0]), min(start[1], end[1]) - 0.9 * rise),
    )
    around = _length(start, first, second, end)
    shares = [width / around for width in widths_of(pieces, around)]
    parts, low = [], 0.0
    for piece, share in zip(pieces, shares, strict=True):
        high = min(1.0, low + share)
        parts.append(as_drawn(piece, slice_bezier(start, first, second, end, low, high), scale))
        low = high
    return parts


def _length(p0: Point, p1: Point, p2: Point, p3: Point) -> float:
    points = [bezier(p0, p1, p2, p3, t / 24) for t in range(25)]
    return sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(points))


def curve_length(curve: Curve) -> float:
    """Length of a curve [px]."""
    start, total = curve.start, 0.0
    for piece in curve.pieces:
        total += _length(start, *piece)
        start = piece[2]
    return total


def as_drawn(piece: Piece, curve: Curve, scale: float) -> DrawnPart:
    """A piece along its curve.

    Parameters
    ----------
    scale : [px/m]
    """
    middle = curve.at(0.5)
    cut = curve.at(0.24) if piece.kind == "hose" and piece.length * scale > CUT_FROM * curve_length(curve) else None
    ahead, behind = curve.at(0.55), curve.at(0.45)
    return DrawnPart(
        id=piece.id,
        kind=piece.kind,
        title="",
        number=0,
        anchor=middle,
        curve=curve,
        bore=piece.bore_in * scale,
        bore_out=piece.bore_out * scale,
        wall=piece.wall,
        cut=cut,
        turn=degrees(atan2(ahead[1] - behind[1], ahead[0] - behind[0])),
    )


def part_boxes(parts: list[DrawnPart]) -> list[Box]:
    """Small boxes along every run, for labels to keep clear of."""
    boxes = []
    for part in parts:
        assert part.curve is not None
        if part.kind == "junction":
            boxes.append(Box(part.anchor[0] - 22, part.anchor[1] - part.bore / 2 - 32, 38, 30))
        half = part.bore / 2 + (10 if part.kind in ("gate", "gate-mark", "junction") else 1)
        for step in range(13):
            x, y = part.curve.at(step / 12)
            boxes.append(Box(x - half, y - half, 2 * half, 2 * half))
    return boxes
