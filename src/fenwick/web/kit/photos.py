"""Photos as they come from a telephone, made small, upright and free of what they say about where they were taken."""

from __future__ import annotations

import threading
from io import BytesIO

from PIL import Image, ImageOps, UnidentifiedImageError

MOST_SIDE = 1600  #: [px]
#: points of a picture that is unpacked whole, and of one that is unpacked small at once
MOST_PIXELS = {"PNG": 25_000_000, "WEBP": 25_000_000, "JPEG": 120_000_000}
QUALITY = 82
HEIC = (b"heic", b"heix", b"hevc", b"mif1", b"heim", b"heis")  #: what stands behind “ftyp” in such a file

#: what a library of many formats raises over a file that is none, or a damaged one
DAMAGED = (UnidentifiedImageError, Image.DecompressionBombError, OSError, SyntaxError, ValueError, TypeError)
NO_PICTURE = "This file is no picture that can be read: JPEG, PNG or WebP, please."
NO_HEIC = (
    "This is a HEIC picture, which is not read here. Send it as JPEG: in the camera's settings choose the most "
    "compatible format, or share the picture as JPEG."
)
_ONE_AT_A_TIME = threading.Lock()  # each takes memory by its points


class BadPhotoError(ValueError):
    """A file that cannot be kept as a photo; says so in a sentence."""


def small_jpeg(raw: bytes) -> bytes:
    """A photo as a JPEG of at most `MOST_SIDE`, with nothing in it but its points.

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
            return _made_small(raw)
        except BadPhotoError:
            raise
        # a library of many formats raises many kinds of errors over a damaged file
        except (
            UnidentifiedImageError,
            Image.DecompressionBombError,
            OSError,
            SyntaxError,
            ValueError,
            TypeError,
        ) as error:
            raise BadPhotoError(NO_PICTURE) from error


def _made_small(raw: bytes) -> bytes:
    with Image.open(BytesIO(raw), formats=tuple(MOST_PIXELS)) as opened:
        most = MOST_PIXELS[str(opened.format)]
        if opened.width * opened.height > most:  # its head says so: nothing is unpacked yet
            raise BadPhotoError(f"This picture is too large: at most {most // 1_000_000} million points.")
        opened.thumbnail((MOST_SIDE, MOST_SIDE))
        upright = ImageOps.exif_transpose(opened).convert("RGB")
    clean = Image.new("RGB", upright.size)
    clean.paste(upright)  # points alone: comments and profiles would go along otherwise
    out = BytesIO()
    clean.save(out, "JPEG", quality=QUALITY)
    return out.getvalue()
