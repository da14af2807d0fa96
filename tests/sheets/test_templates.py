"""Templates as files: 1:1 in SVG, DXF and on paper, every line of CUT closed, squares of 100 mm, pages that join."""

from __future__ import annotations

import io
import re
from math import hypot

import ezdxf
import numpy as np
import pypdfium2 as pdfium
import pytest
from shapely.geometry import Polygon

from fenwick.core.making.outlines import area
from fenwick.rig.start.examples import EXAMPLES, WET, example_rig
from fenwick.services.making import BuildAsked, Pack, build_pack, tolerances
from fenwick.services.making_files import METRIC_VOICE, drawing_of, pack_files, templates_of
from fenwick.sheets.flat import FlatDrawing
from fenwick.sheets.flat_files import MARGIN, flat_svg
from fenwick.sheets.tiles import HEAD, LAP, tiling, write_templates
from fenwick.sheets.tiles import MARGIN as PAGE_MARGIN

DPI = 254.0  #: ten pixels a millimetre
PER_MM = DPI / 25.4


def pack_of(kind: str, **asked: object) -> Pack:
    what = "wet" if kind == WET else None
    return build_pack(example_rig(kind), BuildAsked(what, **asked))  # type: ignore[arg-type]


def files_of(kind: str, paper: str = "a4") -> dict[str, bytes]:
    asked = BuildAsked("wet" if kind == WET else None)
    rig = example_rig(kind)
    return pack_files(build_pack(rig, asked), tolerances(rig, asked), "2026-11-28", paper)


def page(pdf: bytes, i: int) -> np.ndarray:
    """A page as grey, row 0 at the top."""
    return np.asarray(pdfium.PdfDocument(pdf)[i].render(scale=DPI / 72.0).to_pil().convert("L"))


@pytest.mark.parametrize("kind", EXAMPLES)
def test_every_dxf_is_clean_and_closed_and_as_large_as_its_part(kind: str) -> None:
    pack, files = pack_of(kind), files_of(kind)
    for part in templates_of(pack):
        document = ezdxf.read(io.StringIO(files[f"{part.id}.dxf"].decode()))
        assert not document.audit().has_errors
        assert document.units == ezdxf.units.MM
        cut = [entity for entity in document.modelspace() if entity.dxf.layer == "CUT"]
        assert len(cut) == len(part.outline)
        assert all(entity.dxftype() == "LWPOLYLINE" and entity.closed for entity in cut)
        assert {entity.dxf.layer for entity in document.modelspace()} <= {"CUT", "CREASE", "DRILL", "TEXT"}
        for entity, loop in zip(cut, part.outline, strict=True):
            points = np.array(entity.get_points("xy"))
            assert abs(area(points)) / 1e6 == pytest.approx(abs(area(loop)), rel=1e-9)
        drills = [entity for entity in document.modelspace() if entity.dxf.layer == "DRILL"]
        assert sorted(round(e.dxf.radius * 2.0, 6) for e in drills) == sorted(round(d.d * 1e3, 6) for d in part.drills)


@pytest.mark.parametrize("kind", EXAMPLES)
def test_every_svg_is_one_to_one(kind: str) -> None:
    pack, files = pack_of(kind), files_of(kind)
    for part in templates_of(pack):
        text = files[f"{part.id}.svg"].decode()
        wide, high = (float(one) for one in re.findall(r'(?:width|height)="([\d.]+)mm"', text)[:2])
        box = [float(one) for one in re.search(r'viewBox="([^"]+)"', text)[1].split()]  # type: ignore[index]
        assert box == [0.0, 0.0, wide, high]
        drawn = drawing_of(pack, part, "2026-11-28", METRIC_VOICE)
        assert wide == pytest.approx(drawn.width + 2.0 * MARGIN, abs=1e-3)
        assert text.count("<path") == len(part.outline) + len(part.creases) + 1  # and the square


def test_a_sheet_says_what_it_is_of() -> None:
    text = files_of("slotted-disc")["slotted-disc.svg"].decode()
    for words in ("Slotted disc", "2026-11-28", "plywood 12 mm", "Right hand", "Tool side", "100 mm both ways?"):
        assert words in text


def test_names_that_a_user_wrote_are_escaped() -> None:
    loop = np.array([(0.0, 0.0), (10.0, 0.0), (10.0, 10.0)])
    assert "<b>" not in flat_svg(FlatDrawing("<b>x</b>", 10.0, 10.0, (loop,)))


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_the_square_and_the_bar_measure_a_hundred_millimetres(paper: str) -> None:
    grey = page(files_of("hung-disc", paper)["templates.pdf"], 0)
    dark = grey < 128
    columns = np.flatnonzero(dark.sum(axis=0) > 95.0 * PER_MM)
    rows = np.flatnonzero(dark.sum(axis=1) > 95.0 * PER_MM)
    assert (columns.max() - columns.min()) / PER_MM == pytest.approx(100.0, abs=0.2)
    square = rows[rows > rows.min() + 5.0 * PER_MM]  # the first is the bar
    assert (square.max() - square.min()) / PER_MM == pytest.approx(100.0, abs=0.2)


def test_pages_join_at_their_crosses() -> None:
    """A slanted line over two pages: laid over each other by the lap, it goes on where it was."""
    line = np.array([(20.0, 40.0), (340.0, 120.0), (340.0, 121.0), (20.0, 41.0)])
    pdf = write_templates([FlatDrawing("long", 360.0, 150.0, (line,))], ["Long"], "Long", "a4")
    tiles = tiling(360.0, 150.0, "a4")
    assert tiles.columns == 2
    left, right = page(pdf, 1), page(pdf, 2)

    def at(grey: np.ndarray, x_mm: float) -> float:
        column = grey[: int(-PAGE_MARGIN * PER_MM) or None, round(x_mm * PER_MM)]
        high = (PAGE_MARGIN + HEAD) * PER_MM
        rows = np.flatnonzero(column[int(high) :] < 128)
        return float(rows.mean() + high) / PER_MM

    for into in (LAP * 0.3, LAP * 0.7):
        assert at(left, PAGE_MARGIN + tiles.step_x + into) == pytest.approx(at(right, PAGE_MARGIN + into), abs=0.2)


def test_every_template_is_whole_on_its_pages() -> None:
    for width, height in ((10.0, 10.0), (186.0, 265.0), (400.0, 300.0), (1100.0, 140.0)):
        tiles = tiling(width, height, "a4")
        assert (tiles.columns - 1) * tiles.step_x + tiles.room_x >= width
        assert (tiles.rows - 1) * tiles.step_y + tiles.room_y >= height
        assert tiles.columns == 1 or (tiles.columns - 2) * tiles.step_x + tiles.room_x < width


def test_parts_of_the_sheets_are_those_of_the_pack_and_lie_apart() -> None:
    document = ezdxf.read(io.StringIO(files_of("slotted-disc")["sheets.dxf"].decode()))
    assert not document.audit().has_errors
    loops = [np.array(e.get_points("xy")) for e in document.modelspace() if e.dxf.layer == "CUT"]
    outer = [Polygon(loop) for loop in loops if area(loop) > 0.0]
    pack = pack_of("slotted-disc")
    laid = [part for part in pack.parts if part.outline and part.kind != "block" and part.how == "make"]
    assert len(outer) == len(laid)
    holes = [Polygon(loop) for loop in loops if area(loop) < 0.0]
    for i, one in enumerate(outer):
        for other in outer[i + 1 :]:
            within = any(hole.contains(one) or hole.contains(other) for hole in holes)
            assert within or one.intersection(other).area < 1e-6


@pytest.mark.parametrize("kind", EXAMPLES)
def test_the_booklet_tells_every_step(kind: str) -> None:
    pack = pack_of(kind)
    pdf = pdfium.PdfDocument(files_of(kind)["booklet.pdf"])
    text = " ".join(" ".join(one.get_textpage().get_text_range().split()) for one in pdf)
    for i in range(1, len(pack.steps) + 1):
        assert f" {i} " in text
    assert "First switch-on" in text
    assert "Local codes and licensed practice come first" in text


def test_drills_stay_within_their_parts() -> None:
    for kind in EXAMPLES:
        for part in templates_of(pack_of(kind)):
            radius = max(hypot(x, y) for x, y in part.outline[0])
            assert all(hypot(d.x, d.y) + d.d / 2.0 <= radius for d in part.drills), (kind, part.id)
