"""How many squares of a sheet at a hood were hit by dust."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from fenwick.core.arrays import Array, one_value
from fenwick.core.rules import RuleBook
from fenwick.phone.found import FlatPicture, RefusedError, found_in
from fenwick.phone.light import powers, smooth_fit
from fenwick.phone.reading import SQUARES, Overlay, PhoneReading
from fenwick.phone.targets import COLUMNS, GRID, ROWS, SHEET, SQUARE

SCALE = 4.0  #: of the flat picture [px/mm]
EDGE = 1.2  #: of a square, left out on every side [mm]
SHADE = 0.06  #: of the light on white paper, off a smooth field [-]
UNSURE = 0.5  #: share of the least that is a hit, either way, at which a square may be one or not [-]


def read_squares(rgb: Array, rules: RuleBook) -> PhoneReading:
    """The squares that are hit.

    Parameters
    ----------
    rgb : 0 … 255, shape (high, wide, 3) [unit of a picture]
    rules : how much dust on a square is a hit

    Raises
    ------
    RefusedError
    """
    flat = found_in(rgb, SHEET.key, scale=SCALE)
    covered = _covered(flat, _light(flat), one_value(rules["phone.dust"]))
    least = one_value(rules["phone.hit"])
    hit = int((covered >= least).sum())
    low = int((covered >= least * (1.0 + UNSURE)).sum())
    high = int((covered >= least * (1.0 - UNSURE)).sum())
    seen = {
        "of": ROWS * COLUMNS,
        "share_hit": round(hit / (ROWS * COLUMNS), 4),
        "share_of_area": round(float(covered.mean()), 4),
        "rows": ["".join("#" if one >= least else "." for one in row) for row in covered],
    }
    drawn = (Overlay(flat.corners), *_hit_drawn(flat, covered >= least))
    return PhoneReading(SQUARES, float(hit), float(low), float(high), seen, drawn)


def _hit_drawn(flat: FlatPicture, hit: NDArray[np.bool_]) -> list[Overlay]:
    """A frame round every square that is hit."""
    found = []
    for row, column in np.argwhere(hit):
        left, top = GRID.left + column * SQUARE + 0.8, GRID.top + row * SQUARE + 0.8
        side = SQUARE - 1.6
        there = np.array([[left, top], [left + side, top], [left + side, top + side], [left, top + side]])
        found.append(Overlay(flat.in_picture(there), role="thing"))
    return found


def _light(flat: FlatPicture) -> Array:
    """The light of each colour over the sheet, from its white rim: coefficients of the logarithm, shape (6, 3)."""
    places, light = [], []
    for one in SHEET.white:
        for left in np.arange(one.left, one.left + one.width - 3.9, 4.0):
            for top in np.arange(one.top, one.top + one.height - 3.9, 4.0):
                places.append(((left + 2.0) / SHEET.width, (top + 2.0) / SHEET.height))
                light.append(np.median(flat.at(float(left), float(top), 4.0, 4.0).reshape(-1, 3), axis=0))
    x, y = np.array(places).T
    values = np.log(np.maximum(np.array(light), 1e-4))
    fits = [smooth_fit(powers(x, y), values[:, colour]) for colour in range(3)]
    if max(float(np.sqrt(np.mean(left**2))) for _, left in fits) > SHADE:
        raise RefusedError("A shadow lies on the sheet: turn, so that the light falls evenly.")
    return np.column_stack([field for field, _ in fits])


def _covered(flat: FlatPicture, field: Array, dust: float) -> Array:
    """Share of each square that is covered by dust, which is darker or yellower than paper, shape (ROWS, COLUMNS)."""
    found = np.zeros((ROWS, COLUMNS))
    for row in range(ROWS):
        for column in range(COLUMNS):
            left, top = GRID.left + column * SQUARE + EDGE, GRID.top + row * SQUARE + EDGE
            side = SQUARE - 2.0 * EDGE
            points = flat.at(left, top, side, side)
            middle = np.array([(left + side / 2) / SHEET.width, (top + side / 2) / SHEET.height])
            white = np.exp(powers(middle[0], middle[1]) @ field)
            found[row, column] = float((points[..., 2] / white[2] < 1.0 - dust).mean())
    return found
