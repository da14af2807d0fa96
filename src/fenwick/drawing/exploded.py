"""A design taken apart, to scale: its parts over one another as they go together, each with its number."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from markupsafe import Markup

from fenwick.core.making.outlines import Loop
from fenwick.core.making.parts import MadePart
from fenwick.drawing.flat_parts import CORNERS, HEIGHT, TOP, WIDTH, FlatCorner, face_path, in_column, spread_out
from fenwick.drawing.render import render

MIDDLE, FOOT = 218.0, 388.0  #: of the stack
WIDEST = 214.0  #: of the stack [px]
FLATTEN = 0.13  #: how flat a circle is seen
GAP = 15.0  #: between two parts [px]
SHORTEST, TALLEST = 2.5, 78.0  #: a part as high as it is drawn; taller ones are broken off [px]
BALLOONS, APART = 366.0, 27.0  #: x of the numbers, and how far apart [px]
UPRIGHT = ("outlet-tube", "throat", "drop-pipe")
BODIES = ("bin", "vessel", "head", "cyclone", "chamber")
GASKETS = ("gasket", "head-gasket", "flange-gasket")
FLAT_PANELS = ("tray", "deck-plate")


@dataclass(frozen=True)
class ApartPiece:
    """One part as it is drawn."""

    part: str
    number: int
    title: str
    state: str  #: key of its colour
    label: tuple[str, ...]
    link: str
    face: str  #: path of what one sees from above; empty: none
    sides: str  #: path of what one sees from the side; empty: none
    clear: bool
    balloon: tuple[float, float]
    at: tuple[float, float]  #: where its leader ends
    words: tuple[float, float] | None = None  #: of its label; None: it has none
    broken: bool = False  #: whether it is taller than drawn
    sheet: bool = False


@dataclass(frozen=True)
class ExplodedScene:
    """What the template asks for."""

    width: float
    height: float
    pieces: tuple[ApartPiece, ...]
    axis: tuple[float, float] | None  #: of the stack, from its first part to its last
    middle: float = MIDDLE
    marks: tuple[str, ...] = field(default=())


@dataclass(frozen=True)
class Shown:
    """What is said of a part on the drawing."""

    title: str
    label: tuple[str, ...]
    state: str


def render_exploded(
    parts: Sequence[MadePart], shown: Mapping[str, Shown], link: Callable[[str], str], name: str
) -> Markup:
    """The parts as SVG.

    Parameters
    ----------
    shown : by the part's id
    link : address of a part's page
    name : makes its ids unique on a page
    """
    scene = exploded_scene(parts, shown, link)
    said = "; ".join(f"{piece.number} {piece.title}, {', '.join(piece.label)}" for piece in scene.pieces)
    return render("exploded.svg.jinja", s=scene, name=name, description=f"From the top down: {said}.")


def exploded_scene(parts: Sequence[MadePart], shown: Mapping[str, Shown], link: Callable[[str], str]) -> ExplodedScene:
    """Where each part is drawn."""
    stacked = [part for part in parts if _stacks(part)] if any(_is_body(part) for part in parts) else []
    scale = _scale(stacked)
    y, heights = TOP, [_height(part, scale) for part in stacked]
    room = FOOT - TOP - sum(heights) - sum(_lift(part, scale) for part in stacked)
    gap = min(GAP * 1.6, max(room / max(len(stacked) - 1, 1), 3.0))
    places: dict[str, tuple[float, float]] = {}
    for part, high in zip(stacked, heights, strict=True):
        y += _lift(part, scale)
        places[part.id] = (y, high)
        y += high + gap
    numbers = {part.id: i for i, part in enumerate(parts, start=1)}
    balloons = _balloons([places[part.id][0] + places[part.id][1] / 2.0 for part in stacked])
    pieces = [
        _stacked_piece(part, numbers[part.id], shown[part.id], link(part.id), places[part.id], scale, at)
        for part, at in zip(stacked, balloons, strict=True)
    ]
    aside = [part for part in parts if part.id not in places and _is_drawn(part)]
    corners = in_column(aside, scale) if stacked else spread_out(aside)
    pieces += [
        _flat_piece(part, numbers[part.id], shown[part.id], link(part.id), corner)
        for part, corner in zip(aside, corners, strict=False)
    ]
    axis = None
    if stacked:
        last = places[stacked[-1].id]
        axis = (places[stacked[0].id][0], last[0] + last[1])
    return ExplodedScene(WIDTH, HEIGHT, tuple(pieces), axis)


def _is_body(part: MadePart) -> bool:
    """Whether other parts go over and under it; a stand and a box have none."""
    return part.id in (*BODIES, "lid") or part.kind in ("wrap", "cone")


def _stacks(part: MadePart) -> bool:
    return (
        part.kind in ("disc", "ring", "wrap", "cone")
        or (part.kind == "tube" and part.id in UPRIGHT)
        or part.id in (*BODIES, *GASKETS, *FLAT_PANELS)
    ) and _across(part) > 0.0


def _is_drawn(part: MadePart) -> bool:
    return bool(part.outline) or part.kind == "tube"


def _across(part: MadePart) -> float:
    """How wide it is at its widest [m]; 0 where that is not known."""
    d = part.dims
    if part.id in GASKETS:
        return d["length_m"] / np.pi
    if part.kind == "panel":
        return max(d["width_m"], d["height_m"])
    for key in ("rim_d_m", "d_m", "top_d_m", "inner_d_m", "body_d_m", "outer_d_m"):
        if key in d:
            return d[key]
    return 0.0


def _scale(stacked: Sequence[MadePart]) -> float:
    """[px/m]"""
    widest = max((_across(part) for part in stacked), default=0.4)
    scale = WIDEST / widest
    needed = sum(_height(part, scale) + _lift(part, scale) for part in stacked) + 6.0 * len(stacked)
    return scale * min(1.0, (FOOT - TOP) / needed) if needed > 0.0 else scale


def _lift(part: MadePart, scale: float) -> float:
    """How far its upper face reaches over its middle [px]."""
    return _across(part) / 2.0 * scale * FLATTEN * 0.7


def _height(part: MadePart, scale: float) -> float:
    d = part.dims
    high = d.get("height_m", part.stock.thickness) if part.kind != "panel" else part.stock.thickness
    if part.kind == "tube":
        high = d["length_m"]
    if part.id in GASKETS:
        high = d["thickness_m"]
    return float(np.clip(high * scale, SHORTEST, TALLEST))


def _balloons(wanted: list[float]) -> list[float]:
    """Heights of the numbers, no two closer than they may be, all within the picture."""
    at: list[float] = []
    for y in wanted:
        at.append(max(y, at[-1] + APART) if at else max(y, TOP))
    over = at[-1] - (HEIGHT - 16.0) if at else 0.0
    if over > 0.0:
        at[-1] -= over
        for i in range(len(at) - 2, -1, -1):
            at[i] = min(at[i], at[i + 1] - APART)
    return at


def _stacked_piece(
    part: MadePart, number: int, shown: Shown, link: str, place: tuple[float, float], scale: float, balloon: float
) -> ApartPiece:
    y, high = place
    half = _across(part) / 2.0 * scale
    low = _foot_width(part) / 2.0 * scale
    face = _face(part, y, scale)
    tall = part.dims.get("height_m", part.dims.get("length_m", 0.0)) * scale > TALLEST and part.kind != "panel"
    sides = _sides(half, low, y, high, part)
    return ApartPiece(
        part.id, number, shown.title, shown.state, shown.label, link, face, sides, _clear(part),
        (BALLOONS, balloon), (MIDDLE + (half + low) / 2.0, y + high / 2.0), (BALLOONS + 18.0, balloon), tall,
        part.kind == "wrap",
    )  # fmt: skip


def _foot_width(part: MadePart) -> float:
    return part.dims.get("bottom_d_m", _across(part) * (0.88 if part.id in ("bin", "cyclone") else 1.0))


def _clear(part: MadePart) -> bool:
    return part.stock.material in ("polycarbonate", "acrylic", "petg")


def _face(part: MadePart, y: float, scale: float) -> str:
    """What one sees of it from above: its own outline, flattened."""
    if part.kind in ("disc", "ring") or part.id in FLAT_PANELS:
        middle = (part.outline[0].min(axis=0) + part.outline[0].max(axis=0)) / 2.0
        return " ".join(_flat(loop - middle, y, scale) for loop in part.outline)
    half = _across(part) / 2.0 * scale
    inner = half - 2.5 if part.id in GASKETS else 0.0
    return " ".join([_ellipse(half, y), *([_ellipse(inner, y)] if inner > 0.0 else [])])


def _flat(loop: Loop, y: float, scale: float) -> str:
    thin = loop[:: max(1, len(loop) // CORNERS)]
    points = " ".join(f"{MIDDLE + px * scale:.1f},{y - py * scale * FLATTEN:.1f}" for px, py in thin.tolist())
    return f"M {points} Z"


def _ellipse(half: float, y: float) -> str:
    flat = half * FLATTEN
    return (
        f"M {MIDDLE - half:.1f},{y:.1f} A {half:.1f} {flat:.1f} 0 1 0 {MIDDLE + half:.1f},{y:.1f} "
        f"A {half:.1f} {flat:.1f} 0 1 0 {MIDDLE - half:.1f},{y:.1f} Z"
    )


def _sides(half: float, low: float, y: float, high: float, part: MadePart) -> str:
    """Its wall, down to the front half of its lower edge."""
    foot = y + high
    if part.id in FLAT_PANELS:
        return (
            f"M {MIDDLE - half:.1f},{y + half * FLATTEN:.1f} V {foot + half * FLATTEN:.1f} "
            f"H {MIDDLE + half:.1f} V {y + half * FLATTEN:.1f} Z"
        )
    return (
        f"M {MIDDLE - half:.1f},{y:.1f} L {MIDDLE - low:.1f},{foot:.1f} "
        f"A {low:.1f} {low * FLATTEN:.1f} 0 0 0 {MIDDLE + low:.1f},{foot:.1f} L {MIDDLE + half:.1f},{y:.1f} "
        f"A {half:.1f} {half * FLATTEN:.1f} 0 0 1 {MIDDLE - half:.1f},{y:.1f} Z"
    )


def _flat_piece(part: MadePart, number: int, shown: Shown, link: str, corner: FlatCorner) -> ApartPiece:
    x, y = corner.x + 10.0, corner.y
    return ApartPiece(
        part.id, number, shown.title, shown.state, shown.label, link, face_path(part, corner.x, y, corner.scale),
        "", _clear(part), (x, y - 11.0), (x, y), (x + 14.0, y - 11.0),
    )  # fmt: skip
