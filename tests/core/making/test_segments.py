"""Rings that no sheet at hand takes whole."""

from __future__ import annotations

from math import pi, radians

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.making.given import MakingChoices, making_of
from fenwick.core.making.layout import SheetStock, lay_out
from fenwick.core.making.outlines import area
from fenwick.core.making.parts import MadePart, Stock
from fenwick.core.making.pieces import ring
from fenwick.core.making.segments import segment, with_segments
from fenwick.core.rules import RuleBook
from fenwick.rig.start.examples import example_rig
from fenwick.services.making import BuildAsked, build_pack

MAKING = making_of(MakingChoices(), RuleBook())
PLY = Stock("plywood", 0.012)


def off_cut(width: float, height: float, material: str = "plywood", thickness: float = 0.012) -> SheetStock:
    return SheetStock("off-cut", material, thickness, width, height)


def seat(stock: Stock = PLY) -> MadePart:
    return ring("seat-ring", stock, 0.38, 0.33)


def pieces(*sheets: SheetStock, stock: Stock = PLY) -> MadePart | None:
    found = with_segments([seat(stock)], sheets, MAKING)
    return found[1] if len(found) > 1 else None


def test_a_ring_that_a_sheet_takes_stays_whole() -> None:
    assert pieces(off_cut(0.42, 0.42)) is None


def test_with_no_sheet_at_hand_one_is_bought_and_the_ring_stays_whole() -> None:
    assert pieces() is None
    assert pieces(off_cut(0.42, 0.3, material="mdf")) is None
    assert pieces(off_cut(0.42, 0.3, thickness=0.018)) is None


def test_it_takes_the_fewest_segments_that_go_on_the_sheet() -> None:
    halves, more = pieces(off_cut(0.42, 0.3)), pieces(off_cut(0.3, 0.2))
    assert halves is not None
    assert more is not None
    assert halves.count == 2
    assert more.count > 2
    assert pieces(off_cut(0.06, 0.05)) is None  # nothing would go on it


def test_what_no_wood_glue_joins_is_not_sawn_up() -> None:
    sheet = off_cut(0.42, 0.3, material="hdpe", thickness=0.012)
    assert pieces(sheet, stock=Stock("hdpe", 0.012)) is None


@given(st.floats(0.2, 0.8), st.floats(0.02, 0.08), st.integers(2, 8), st.floats(3e-3, 20e-3))
def test_segments_less_their_laps_are_the_ring(wide: float, land: float, count: int, thickness: float) -> None:
    whole = ring("seat-ring", Stock("plywood", thickness), wide, wide - 2.0 * land)
    one = segment(whole, count, MAKING)
    if one is None:
        assert 3.0 * thickness / (wide / 2.0 - land / 2.0) >= pi / count - 1e-9
        return
    far, near = wide / 2.0, wide / 2.0 - land
    lapped = one.dims["lap_m"] / ((far + near) / 2.0)
    assert count * (radians(one.dims["segment_deg"]) - lapped) == pytest.approx(2.0 * pi)
    by_hand = 0.5 * (far**2 - near**2) * (2.0 * pi / count + lapped)
    assert area(one.outline[0]) == pytest.approx(by_hand, abs=0.02e-3 * 2.0 * pi * far / count + 1e-7)
    assert len(one.creases) == 2


def test_the_segments_lie_on_the_sheet_in_place_of_the_ring() -> None:
    small = [off_cut(0.42, 0.3), off_cut(0.42, 0.3)]
    layout = lay_out(with_segments([seat()], small, MAKING), small, MAKING)
    assert [one.part for one in layout.placed] == ["seat-ring-segment"] * 2
    assert all(one.at_hand for one in layout.sheets)


def test_segments_are_glued_up_before_anything_is_done_with_the_ring() -> None:
    sheets = (off_cut(0.42, 0.3), SheetStock("two", "plywood", 0.012, 0.42, 0.3))
    pack = build_pack(example_rig("slotted-disc"), BuildAsked("sep", sheets=sheets))
    order = [step.id for step in pack.steps]
    glued = order.index("glue-segments-seat-ring")
    assert order.index("saw-segments-seat-ring") < glued
    about = [step.id for step in pack.steps if "seat-ring" in step.parts]
    assert about[0] == "glue-segments-seat-ring"
    assert sum(step.hands for step in pack.steps) == pytest.approx(pack.hours * 3600.0)
    assert pack.part("seat-ring-segment") is not None
