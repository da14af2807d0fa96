"""Files as they come from a telephone, opened within bounds, upright and without what they say beside their points."""

from __future__ import annotations

import threading
from io import BytesIO

import numpy as np
from PIL import Image, ImageOps, UnidentifiedImageError

from fenwick.core.arrays import Array

#: points of a picture that is unpacked whole, and of one that is unpacked small at once
MOST_PIXELS = {"PNG": 25_000_000, "WEBP": 25_000_000, "JPEG": 120_000_000}
HEIC = (b"heic", b"heix", b"hevc", b"mif1", b"heim", b"heis")  #: what stands behind “ftyp” in such a file
MEASURED_SIDE = 2400  #: of a picture that is measured [px]

#: what a library of many formats raises over a file that is none, or a damaged one
DAMAGED = (UnidentifiedImageError, Image.DecompressionBombError, OSError, SyntaxError, ValueError, TypeError)
NO_PICTURE = "This file is no picture that can be read: JPEG, PNG or WebP, please."
NO_HEIC = (
    "This is a HEIC picture, which is not read here. Send it as JPEG: in the camera's settings choose the most "
    "compatible format, or share the picture as JPEG."
)
_ONE_AT_A_TIME = threading.Lock()  # each takes memory by its points


class BadPhotoError(ValueError):
    """A file that is no photo that can be read; says so in a sentence."""


def upright_picture(raw: bytes, most_side: int = MEASURED_SIDE) -> Image.Image:
    """A photo in RGB, at most so large.

    Parameters
    ----------
    raw : the file
    most_side : of the picture [px]

    Raises
    ------
    BadPhotoError
    """
    if not raw:
        raise BadPhotoError("Choose a photo first.")
    if raw[4:8] == b"ftyp" and raw[8:12] in HEIC:
        raise BadPhotoError(NO_HEIC)
    with _ONE_AT_A_TIME:
        try:
            return _opened(raw, most_side)
        except BadPhotoError:
            raise
        except DAMAGED as error:
            raise BadPhotoError(NO_PICTURE) from error


def _opened(raw: bytes, most_side: int) -> Image.Image:
    with Image.open(BytesIO(raw), formats=tuple(MOST_PIXELS)) as opened:
        most = MOST_PIXELS[str(opened.format)]
        if opened.width * opened.height > most:  # its head says so: nothing is unpacked yet
            raise BadPhotoError(f"This picture is too large: at most {most // 1_000_000} million points.")
        opened.thumbnail((most_side, most_side))
        return ImageOps.exif_transpose(opened).convert("RGB")


def points_of(raw: bytes) -> Array:
    """A photo as numbers, 0 … 255, shape (high, wide, 3) [unit of a picture].

    Raises
    ------
    BadPhotoError
    """
    return np.asarray(upright_picture(raw))
