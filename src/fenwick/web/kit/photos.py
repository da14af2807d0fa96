"""Photos as they come from a telephone, made small and free of what they say about where they were taken."""

from __future__ import annotations

from io import BytesIO

from PIL import Image

from fenwick.phone.opened import BadPhotoError, upright_picture

__all__ = ["BadPhotoError", "small_jpeg"]
MOST_SIDE = 1600  #: [px]
QUALITY = 82


def small_jpeg(raw: bytes) -> bytes:
    """A photo as a JPEG of at most `MOST_SIDE`, with nothing in it but its points.

    Raises
    ------
    BadPhotoError
    """
    upright = upright_picture(raw, MOST_SIDE)
    clean = Image.new("RGB", upright.size)
    clean.paste(upright)  # points alone: comments and profiles would go along otherwise
    out = BytesIO()
    clean.save(out, "JPEG", quality=QUALITY)
    return out.getvalue()
