"""A photo with what was seen drawn over it."""

from __future__ import annotations

from io import BytesIO

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from fenwick.phone.opened import upright_picture
from fenwick.phone.reading import Overlay

SHOWN_SIDE = 1100  #: of the picture as it is shown and kept [px]
COLOURS = {"sheet": (31, 111, 120), "thing": (185, 119, 43), "level": (166, 61, 47)}
QUALITY = 82
RIM, LEAST_RIM = 0.15, 20.0  #: round what is drawn, of its size [-] and [px]


def _cut_to(picture: NDArray[np.uint8], lines: tuple[Overlay, ...]) -> NDArray[np.uint8]:
    """The part of a picture that is spoken of, with a rim."""
    if not lines:
        return picture
    points = np.concatenate([line.points for line in lines])
    rim = RIM * float(np.ptp(points, axis=0).max()) + LEAST_RIM
    low = np.maximum(np.floor(points.min(axis=0) - rim), 0).astype(int)
    high = np.ceil(points.max(axis=0) + rim).astype(int)
    return picture[low[1] : high[1], low[0] : high[0]]


def drawn_over(raw: bytes, lines: tuple[Overlay, ...]) -> bytes:
    """The photo as a small JPEG, without what it says beside its points.

    Parameters
    ----------
    raw : the file
    lines : over the picture as it was measured

    Raises
    ------
    BadPhotoError
    """
    picture = np.array(upright_picture(raw))
    thick = max(round(max(picture.shape) / 300.0), 2)
    for line in lines:
        points = np.round(line.points).astype(np.int32).reshape(-1, 1, 2)
        cv2.polylines(picture, [points], line.closed, COLOURS[line.role], thick, cv2.LINE_AA)
    small = Image.fromarray(_cut_to(picture, lines))
    small.thumbnail((SHOWN_SIDE, SHOWN_SIDE))
    out = BytesIO()
    small.save(out, "JPEG", quality=QUALITY)
    return out.getvalue()
