"""Parts that lie flat beside a stack, or all over a picture: where each begins, how large, its face."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.making.parts import MadePart

WIDTH, HEIGHT, TOP = 486.0, 396.0, 18.0  #: of the picture, and where it begins [px]
LABEL_HIGH = 33.0  #: of a number with its label [px]
ASIDE, ASIDE_WIDE, ASIDE_HIGH = 12.0, 78.0, 56.0  #: column of what does not stand in the stack [px]
CELL_LEAST, MOST_HIGH = 104.0, 220.0  #: of a part where nothing is stacked [px]
SMALLER, LEAST = 0.9, 5.0  #: by which a scale is tried down, and how far [px/m]
CORNERS = 160  #: of an outline, as it is seen small


@dataclass(frozen=True)
class FlatCorner:
    """Where the face of a part begins that lies flat, and how large it is drawn."""

    x: float  #: [px]
    y: float  #: [px]
    scale: float  #: [px/m]


def in_column(aside: Sequence[MadePart], scale: float) -> list[FlatCorner]:
    """Beside the stack, under one another, as long as there is room."""
    found, y = [], TOP + 22.0
    for part in aside:
        wide, high = face_size(part)
        own = min(scale, ASIDE_WIDE / max(wide, 1e-6), ASIDE_HIGH / max(high, 1e-6))
        if y + high * own > HEIGHT - 6.0:
            break
        found.append(FlatCorner(ASIDE, y, own))
        y += high * own + LABEL_HIGH
    return found


def spread_out(flat: Sequence[MadePart]) -> list[FlatCorner]:
    """All over the picture, at the largest scale that they have room for."""
    scale = min((min((WIDTH - 2.0 * ASIDE) / w, MOST_HIGH / h) for w, h in map(face_size, flat)), default=1.0)
    while (found := _rows(flat, scale)) is None:
        scale *= SMALLER
    return found


def _rows(flat: Sequence[MadePart], scale: float) -> list[FlatCorner] | None:
    """In rows from the left; None where they do not all have room."""
    found, x, y, row = [], ASIDE, TOP + 22.0, 0.0
    for part in flat:
        wide, high = (size * scale for size in face_size(part))
        if x > ASIDE and x + max(wide, CELL_LEAST) > WIDTH - ASIDE:
            x, y, row = ASIDE, y + row + LABEL_HIGH, 0.0
        if y + high > HEIGHT - 6.0 and scale > LEAST:
            return None
        found.append(FlatCorner(x, y, scale))
        x, row = x + max(wide, CELL_LEAST) + ASIDE, max(row, high)
    return found


def face_size(part: MadePart) -> tuple[float, float]:
    """Width and height of the face that a part shows [m]."""
    if part.outline:
        size = part.outline[0].max(axis=0) - part.outline[0].min(axis=0)
        return float(size[0]), float(size[1])
    return part.dims["length_m"], part.dims["outer_d_m"]


def face_path(part: MadePart, x: float, y: float, scale: float) -> str:
    """The face as the path of an SVG.

    Parameters
    ----------
    x, y : its upper left corner [px]
    scale : [px/m]
    """
    if not part.outline:
        wide, high = part.dims["length_m"] * scale, part.dims["outer_d_m"] * scale
        end = high * 0.2
        return (
            f"M {x + end:.1f},{y:.1f} H {x + wide:.1f} V {y + high:.1f} H {x + end:.1f} "
            f"A {end:.1f} {high / 2.0:.1f} 0 0 1 {x + end:.1f},{y:.1f} Z"
        )
    low, top = part.outline[0].min(axis=0), part.outline[0].max(axis=0)
    paths = []
    for loop in part.outline:
        thin = loop[:: max(1, len(loop) // CORNERS)]
        points = " ".join(
            f"{x + (px - low[0]) * scale:.1f},{y + (top[1] - py) * scale:.1f}" for px, py in thin.tolist()
        )
        paths.append(f"M {points} Z")
    return " ".join(paths)
