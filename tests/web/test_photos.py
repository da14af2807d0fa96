"""Photos: what they say about where they were taken is gone, and none of them takes the memory of the machine."""

import struct
import threading
import zlib
from io import BytesIO

import pytest
from PIL import Image

from fenwick.phone import opened
from fenwick.web.kit.photos import MOST_SIDE, BadPhotoError, small_jpeg


def saved(kind: str, size: tuple[int, int] = (64, 40), **how: object) -> bytes:
    out = BytesIO()
    Image.linear_gradient("L").resize(size).convert("RGB").save(out, kind, **how)
    return out.getvalue()


def png_of(width: int, height: int) -> bytes:
    """A picture whose head promises a size; it is far smaller on disk than in memory."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", width, height, 8, 0, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"")) + chunk(b"IEND", b"")


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_every_kind_comes_out_as_a_small_jpeg(kind: str) -> None:
    made = Image.open(BytesIO(small_jpeg(saved(kind, (3000, 2000)))))
    assert made.format == "JPEG"
    assert max(made.size) == MOST_SIDE


def test_nothing_but_its_points_is_kept() -> None:
    exif = Image.Exif()
    exif[0x010F] = "Shed camera"
    exif.get_ifd(0x8825)[1] = "N"
    raw = saved("JPEG", exif=exif, comment=b"behind the bandsaw", icc_profile=b"profile of a screen")
    assert b"behind the bandsaw" in raw
    made = small_jpeg(raw)
    for said in (b"Shed camera", b"behind the bandsaw", b"profile of a screen", b"Exif", b"GPS"):
        assert said not in made
    assert set(Image.open(BytesIO(made)).info) <= {"jfif", "jfif_version", "jfif_unit", "jfif_density"}


def test_it_stands_upright() -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # turned by a quarter
    assert Image.open(BytesIO(small_jpeg(saved("JPEG", (64, 40), exif=exif)))).size == (40, 64)


@pytest.mark.parametrize("size", [(6000, 6000), (14_000, 14_000), (60_000, 60_000)])
def test_one_that_would_fill_the_memory_is_refused_by_its_head(size: tuple[int, int]) -> None:
    with pytest.raises(BadPhotoError):
        small_jpeg(png_of(*size))


def test_a_heic_picture_is_told_how_to_be_sent() -> None:
    with pytest.raises(BadPhotoError, match=r"HEIC picture.*Send it as JPEG"):
        small_jpeg(b"\x00\x00\x00\x18ftypheic\x00\x00\x00\x00mif1heic")


@pytest.mark.parametrize("kind", ["GIF", "BMP", "TIFF", "PPM", "ICO"])
def test_other_kinds_are_not_even_opened(kind: str) -> None:
    with pytest.raises(BadPhotoError, match="JPEG, PNG or WebP"):
        small_jpeg(saved(kind))


BROKEN = (b"", b"holiday", saved("JPEG")[:300], saved("PNG")[:60], saved("WEBP")[:40], b"\xff\xd8\xff")


@pytest.mark.parametrize("raw", BROKEN)
def test_what_is_no_picture_is_said(raw: bytes) -> None:
    with pytest.raises(BadPhotoError):
        small_jpeg(raw)


def test_they_are_unpacked_one_at_a_time(monkeypatch: pytest.MonkeyPatch) -> None:
    at_work, most = [0], [0]
    make = opened._opened

    def watched(raw: bytes, most_side: int) -> Image.Image:
        at_work[0] += 1
        most[0] = max(most[0], at_work[0])
        made = make(raw, most_side)
        at_work[0] -= 1
        return made

    monkeypatch.setattr(opened, "_opened", watched)
    raw = saved("JPEG", (1200, 900))
    threads = [threading.Thread(target=small_jpeg, args=(raw,)) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert most[0] == 1
