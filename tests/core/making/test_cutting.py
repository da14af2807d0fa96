"""Cutter settings, sheets, tolerances, and what to do with what was cut otherwise."""

from __future__ import annotations

from dataclasses import replace
from math import pi

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.arrays import one_value
from fenwick.core.judging.assess import assess
from fenwick.core.making.as_cut import KEEP, RECUT, SHIM, TRIM, as_built, built_figures, judge_cut
from fenwick.core.making.bending import bend_troubles
from fenwick.core.making.cutters import HOLE_SAW, JIGSAW, ROUTER, SHEARS, TEMPLATE, HoleSaw, Workshop, cuts_of
from fenwick.core.making.given import MakingChoices, making_of
from fenwick.core.making.layout import SheetStock, box_of, lay_out
from fenwick.core.making.pack import parts_of
from fenwick.core.making.parts import MadePart, SawnHole, Stock
from fenwick.core.making.pieces import disc, panel, ring, wrap
from fenwick.core.making.stock import TubeStock, with_tubes
from fenwick.core.making.tolerances import KEPT, Tolerance, tolerance_of, tolerances_of
from fenwick.core.rules import RuleBook
from fenwick.core.search.effects import with_stage
from tests.core.making.test_geometry import chamber, cyclone, part_of
from tests.lines import disc_line

RULES = RuleBook()
MAKING = making_of(MakingChoices(), RULES)
PLY = Stock("plywood", 0.012)


class TestCutters:
    def test_the_pivot_is_set_from_the_edge_that_stays(self) -> None:
        cuts, _ = cuts_of(
            part_of(parts_of(chamber(), MAKING), "slotted-disc"), Workshop(cutters=(0.006, 0.0016)), MAKING
        )
        by_edge = {cut.edge: cut for cut in cuts}
        out, in_ = by_edge["slot-out"], by_edge["slot-in"]
        assert (out.pivot, out.waste) == (pytest.approx(0.17 - 0.003), "inside")
        assert (in_.pivot, in_.waste) == (pytest.approx(0.14 + 0.003), "outside")
        assert by_edge["groove-in"].cutter == 0.0016
        assert by_edge["groove-in"].depth == MAKING.groove

    def test_a_cutter_wider_than_its_groove_is_told(self) -> None:
        part = part_of(parts_of(chamber(), MAKING), "roof")
        assert [one.key for one in cuts_of(part, Workshop(cutters=(0.006,)), MAKING)[1]] == ["cutter-wide"]
        assert cuts_of(part, Workshop(cutters=(0.0015,)), MAKING)[1] == ()

    def test_a_hole_saw_that_fits_is_taken(self) -> None:
        plate = disc("lid", PLY, 0.4, holes=[SawnHole("centre_hole", 0.054)])
        shop = Workshop(hole_saws=(HoleSaw(0.0542, 0.03), HoleSaw(0.06, 0.03)))
        hole = next(cut for cut in cuts_of(plate, shop, MAKING)[0] if cut.edge == "centre_hole")
        assert (hole.tool, hole.cutter, hole.pivot) == (HOLE_SAW, 0.0542, None)

    def test_one_that_is_not_deep_enough_is_not(self) -> None:
        plate = disc("lid", PLY, 0.4, holes=[SawnHole("centre_hole", 0.054)])
        hole = next(
            cut for cut in cuts_of(plate, Workshop((HoleSaw(0.054, 0.008),)), MAKING)[0] if cut.edge == "centre_hole"
        )
        assert hole.tool == ROUTER

    def test_a_hole_too_small_for_a_trammel_gets_another_way(self) -> None:
        plate = disc("lid", PLY, 0.4, holes=[SawnHole("centre_hole", 0.03)])
        ways = [
            next(cut.tool for cut in cuts_of(plate, shop, MAKING)[0] if cut.edge == "centre_hole")
            for shop in (Workshop(), Workshop(cutters=(0.006,)))
        ]
        assert ways == [JIGSAW, TEMPLATE]

    def test_steel_is_cut_with_shears(self) -> None:
        cone = part_of(parts_of(cyclone(), MAKING), "cone")
        assert {cut.tool for cut in cuts_of(cone, Workshop(), MAKING)[0]} == {SHEARS}


class TestSheets:
    def test_what_is_at_hand_is_used_before_anything_is_bought(self) -> None:
        parts = [disc("roof", PLY, 0.35), disc("lid", PLY, 0.25)]
        own = SheetStock("rest", "plywood", 0.012, 0.8, 0.4)
        found = lay_out(parts, [own], MAKING)
        assert found.sheets == (own,)
        assert {one.part for one in found.placed} == {"roof", "lid"}

    def test_another_thickness_does_not_serve(self) -> None:
        found = lay_out([disc("roof", PLY, 0.35)], [SheetStock("thin", "plywood", 0.009, 0.8, 0.8)], MAKING)
        assert [sheet.at_hand for sheet in found.sheets] == [False]

    def test_a_disc_is_cut_from_the_hole_of_a_ring(self) -> None:
        found = lay_out([ring("seat-ring", PLY, 0.5, 0.4), disc("roof", PLY, 0.35)], [], MAKING)
        inner = next(one for one in found.placed if one.part == "roof")
        assert inner.within == "seat-ring"
        assert len(found.sheets) == 1

    def test_a_part_that_no_sheet_takes_is_named(self) -> None:
        long = wrap("wall", Stock("steel", 0.001), 1.2, 0.2, 0.025)
        found = lay_out([long, disc("roof", PLY, 0.2)], [], MAKING)
        assert [(one.key, one.part) for one in found.troubles] == [("sheet-small", "wall")]
        assert [one.part for one in found.placed] == ["roof"]

    @given(st.lists(st.tuples(st.floats(0.03, 0.55), st.floats(0.03, 0.55)), min_size=1, max_size=14))
    def test_no_two_parts_overlap_and_all_stay_on_their_sheet(self, sizes: list[tuple[float, float]]) -> None:
        parts = [panel(f"panel-{i}", MAKING, w, h) for i, (w, h) in enumerate(sizes)]
        found = lay_out(parts, [SheetStock("rest", "plywood", 0.012, 0.6, 0.4)], MAKING)
        assert sorted(one.part for one in found.placed) == sorted(part.id for part in parts)
        by_id = {part.id: part for part in parts}
        boxes = []
        for one in found.placed:
            wide, high = box_of(by_id[one.part])
            wide, high = (high, wide) if one.turned else (wide, high)
            sheet = found.sheets[one.sheet]
            assert one.x >= 0.01 - 1e-9
            assert one.x + wide <= sheet.width - 0.01 + 2e-4
            assert one.y + high <= sheet.height - 0.01 + 2e-4
            boxes.append((one.sheet, one.x, one.y, one.x + wide, one.y + high))
        for i, a in enumerate(boxes):
            for b in boxes[i + 1 :]:
                apart = a[0] != b[0] or a[3] <= b[1] or b[3] <= a[1] or a[4] <= b[2] or b[4] <= a[2]
                assert apart


class TestStock:
    def test_a_tube_at_hand_is_cut_up(self) -> None:
        parts = parts_of(chamber(), MAKING).parts
        found = with_tubes(parts, [TubeStock("rest", "pvc", 0.063, 0.002, 0.4)])
        assert {part.id: part.how for part in found if part.kind == "tube"} == {
            "outlet-tube": "have",
            "inlet-tube": "buy",
        }

    def test_one_of_another_wall_is_not(self) -> None:
        parts = parts_of(chamber(), MAKING).parts
        found = with_tubes(parts, [TubeStock("rest", "pvc", 0.063, 0.004, 0.4)])
        assert all(part.how == "buy" for part in found if part.kind == "tube")


class TestBending:
    def test_steel_bends_as_one_likes(self) -> None:
        assert bend_troubles(wrap("wall", Stock("steel", 0.001), 0.1, 0.1, 0.02), RULES) == []

    def test_polycarbonate_by_its_stress(self) -> None:
        """E t/(2 R) against 14 MPa: 1.5 mm stands 126 mm."""
        fine = wrap("wall", Stock("polycarbonate", 0.0015), 2.0 * 0.127, 0.1, 0.02)
        tight = wrap("wall", Stock("polycarbonate", 0.0015), 2.0 * 0.125, 0.1, 0.02)
        assert bend_troubles(fine, RULES) == []
        (found,) = bend_troubles(tight, RULES)
        assert (found.key, found.limit) == ("wrap-tight", pytest.approx(0.12589, rel=1e-3))

    def test_plywood_by_its_radius_and_an_unknown_sheet_is_said_to_be_unknown(self) -> None:
        ply = wrap("wall", Stock("plywood", 0.003), 0.28, 0.1, 0.02)
        assert [one.key for one in bend_troubles(ply, RULES)] == ["wrap-tight"]
        assert [one.key for one in bend_troubles(replace(ply, stock=Stock("petg", 0.001)), RULES)] == ["wrap-unknown"]


class TestTolerances:
    LINE = disc_line()

    def test_at_its_limit_a_dimension_costs_a_point(self) -> None:
        stage = self.LINE.separators[0]
        disc_ = part_of(parts_of(stage, MAKING), "slotted-disc")
        found = tolerance_of(self.LINE, stage, disc_, "slot_width_m")
        assert found is not None
        assert found.low < disc_.dims["slot_width_m"] < found.high
        before = one_value(assess(self.LINE).kept)
        for edge in (found.low, found.high):
            if abs(edge / disc_.dims["slot_width_m"] - 1.0) > 0.249:
                continue  # nothing was lost as far as it was tried
            changed = as_built(stage, "slotted-disc", "slot_width_m", edge - disc_.dims["slot_width_m"])
            assert changed is not None
            after = one_value(assess(with_stage(self.LINE, changed)).kept)
            assert before - after == pytest.approx(0.01, abs=0.003)
        assert found.costs == KEPT

    def test_every_limit_holds_the_figure_that_is_wanted(self) -> None:
        stage = self.LINE.separators[0]
        parts = parts_of(stage, MAKING).parts
        by_id = {part.id: part for part in parts}
        for name, limits in tolerances_of(self.LINE, stage, parts, MAKING).items():
            for one in limits:
                assert one.low <= by_id[name].dims[one.dim] <= one.high, (name, one)


def plate(d: float = 0.34) -> MadePart:
    return disc("slotted-disc", PLY, d, holes=[SawnHole("centre_hole", 0.05)])


class TestAsCut:
    LIMIT = Tolerance("slotted-disc", "d_m", 0.339, 0.341, "leak")

    @pytest.mark.parametrize(
        ("measured", "do"), [(0.340, KEEP), (0.3395, KEEP), (0.337, SHIM), (0.33, RECUT), (0.343, TRIM)]
    )
    def test_an_edge_that_is_too_small_is_shimmed_and_one_too_large_trimmed(self, measured: float, do: str) -> None:
        found = judge_cut(plate(), "d_m", measured, self.LIMIT, ())
        assert found.do == do
        assert found.shim == (pytest.approx((0.34 - measured) / 2.0) if do == SHIM else 0.0)

    @pytest.mark.parametrize(("measured", "do"), [(0.05, KEEP), (0.048, TRIM), (0.054, SHIM), (0.06, RECUT)])
    def test_of_a_hole_it_is_the_other_way_round(self, measured: float, do: str) -> None:
        limit = Tolerance("slotted-disc", "centre_hole_d_m", 0.05, 0.052, "leak")
        assert judge_cut(plate(), "centre_hole_d_m", measured, limit, ()).do == do

    def test_without_a_limit_everything_is_kept(self) -> None:
        assert judge_cut(plate(), "d_m", 0.2, None, ()).do == KEEP

    def test_the_grooves_follow_the_wrap(self) -> None:
        parts = parts_of(chamber(), MAKING).parts
        wall = next(part for part in parts if part.id == "wall")
        measured = wall.dims["wrap_m"] + 0.003
        found = judge_cut(wall, "wrap_m", measured, None, parts)
        assert {(one.part, one.dim) for one in found.follows} == {
            ("roof", "groove_radius_m"), ("slotted-disc", "groove_radius_m"),
        }  # fmt: skip
        assert all(one.value == pytest.approx(measured / 2.0 / pi) for one in found.follows)

    def test_the_model_says_what_it_costs(self) -> None:
        line = disc_line()
        stage = line.separators[0]
        wider = as_built(stage, "slotted-disc", "slot_width_m", 0.02)
        assert wider is not None
        figures = built_figures(line, stage, wider)
        assert figures.kept is not None
        assert figures.kept[1] < figures.kept[0]
        assert as_built(stage, "roof", "d_m", 0.01) is None
        assert as_built(stage, "outlet-tube", "reach_m", -1.0) is None

    def test_the_same_figure_costs_nothing(self) -> None:
        line = disc_line()
        stage = line.separators[0]
        same = as_built(stage, "outlet-tube", "reach_m", 0.0)
        assert same is not None
        figures = built_figures(line, stage, same)
        assert figures.suction[0] == pytest.approx(figures.suction[1])
        assert np.isfinite(figures.suction[0])
