"""Photos as they come from a telephone, made small, upright and free of what they say about where they were taken."""

from __future__ import annotations

from io import BytesIO

from PIL import Image, ImageOps, UnidentifiedImageError

MOST_SIDE = 1600  #: [px]
MOST_PIXELS = 60_000_000
QUALITY = 82


class BadPhotoError(ValueError):
    """A file that cannot be kept as a photo; says so in a sentence."""


def small_jpeg(raw: bytes) -> bytes:
    """A photo as a JPEG of at most `MOST_SIDE`.

    Raises
    ------
    BadPhotoError
    """
    if not raw:
        raise BadPhotoError("Choose a photo first.")
    try:
        with Image.open(BytesIO(raw)) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise BadPhotoError("This picture is too large: at most 60 million points.")
            picture = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError) as error:
        if isinstance(error, BadPhotoError):
            raise
        raise BadPhotoError("This file is no picture that can be read: JPEG or PNG, please.") from error
    picture.thumbnail((MOST_SIDE, MOST_SIDE))
    out = BytesIO()
    picture.save(out, "JPEG", quality=QUALITY)
    return out.getvalue()
