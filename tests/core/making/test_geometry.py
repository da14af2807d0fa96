"""Lengths, areas and places of parts against analytic geometry, on designs of every type."""

from __future__ import annotations

from dataclasses import replace
from math import acos, asin, cos, pi, radians, sin, sqrt, tan

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from fenwick.core.components.bins import Bin
from fenwick.core.components.chambers import ElbowLid, OneBody, RimInlet
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, Slot, SlottedDisc
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.formulas.pattern import cone_pattern
from fenwick.core.formulas.unrolled import inside_of_wrap, pivot_to_cutter, round_slot_area, wrap_length
from fenwick.core.making.given import LEFT, MakingChoices, making_of
from fenwick.core.making.outlines import Notch, area, mirrored, notched_disc, round_slot
from fenwick.core.making.pack import parts_of
from fenwick.core.making.parts import MadePart, MadeParts
from fenwick.core.rules import RuleBook

NEAR = 0.05e-3  #: [m]
RULES = RuleBook()
BIN = Bin((0.0, 0.42), (0.32, 0.38), wall=0.003)


def made(stage: Separator, **chosen: object) -> MadeParts:
    return parts_of(stage, making_of(MakingChoices(**chosen), RULES))  # type: ignore[arg-type]


def chamber(**changes: object) -> SlottedDisc:
    plain = SlottedDisc("sep", 0.34, 0.12, 0.05, 0.063, 0.06, (Slot(0.03, radians(240.0)),), BIN)
    return replace(plain, **changes)  # type: ignore[arg-type]


def cyclone(**changes: float) -> Cyclone:
    shape = CycloneGeometry(0.07, 0.03, 0.15, 0.05, 0.08, 0.12, 0.39, 0.06)
    return Cyclone("sep", replace(shape, **changes), "shop-built", BIN)


def part_of(found: MadeParts, name: str) -> MadePart:
    part = found.get(name)
    assert part is not None, name
    return part


class TestIndependentFigures:
    def test_a_wrap_on_its_neutral_axis(self) -> None:
        wall = part_of(made(chamber(), wall_thickness=1.5e-3), "wall")
        assert wall.dims["wrap_m"] == pytest.approx(1.07285, abs=5e-6)
        assert wall.dims["length_m"] == pytest.approx(1.07285 + 0.025, abs=5e-6)

    def test_a_cone_of_sheet(self) -> None:
        flat = part_of(made(cyclone(), wall_thickness=1e-3), "cone")
        assert flat.dims["half_angle_deg"] == pytest.approx(9.462, abs=5e-4)
        assert flat.dims["outer_radius_m"] == pytest.approx(0.4593, abs=1e-4)
        assert flat.dims["inner_radius_m"] == pytest.approx(0.1855, abs=1e-4)
        assert flat.dims["sector_deg"] == pytest.approx(59.18, abs=5e-3)

    def test_a_slot_with_round_ends(self) -> None:
        disc = part_of(made(chamber()), "slotted-disc")
        assert disc.dims["slot_area_m2"] == pytest.approx(19280e-6, rel=3e-3)
        assert -area(disc.outline[1]) == pytest.approx(disc.dims["slot_area_m2"], rel=1e-4)

    def test_a_cutter_runs_in_the_waste(self) -> None:
        assert float(pivot_to_cutter(0.170, 0.006, waste_outside=True)) == pytest.approx(0.173)
        assert float(pivot_to_cutter(0.170, 0.006, waste_outside=False)) == pytest.approx(0.167)

    @given(st.floats(0.05, 1.0), st.floats(2e-4, 6e-3))
    def test_a_wrap_that_is_measured_gives_its_inside_back(self, inside: float, t: float) -> None:
        assert float(inside_of_wrap(wrap_length(inside, t), t)) == pytest.approx(inside, rel=1e-12)


class TestSlots:
    @given(st.floats(0.08, 0.4), st.floats(0.05, 0.3), st.floats(0.6, 6.0), st.floats(-3.0, 3.0))
    def test_length_width_and_area(self, radius: float, share: float, turn: float, start: float) -> None:
        width = share * radius
        middle = radius - width / 2.0
        assume(turn * middle > 1.2 * width)
        loop = round_slot(radius, width, start, turn)
        shape = Polygon(loop)
        assert shape.is_valid
        assert shape.area == pytest.approx(float(round_slot_area(radius, width, turn)), rel=5e-4)
        far = np.hypot(loop[:, 0], loop[:, 1])
        assert far.max() == pytest.approx(radius, abs=NEAR)
        assert far.min() >= radius - width - NEAR
        turned = (np.arctan2(loop[:, 1], loop[:, 0]) - start) % (2.0 * pi)
        turned = np.where(turned > turn + 0.2, turned - 2.0 * pi, turned)
        assert turned.min() * middle == pytest.approx(0.0, abs=5.0 * NEAR)
        assert turned.max() * middle == pytest.approx(turn * middle, abs=5.0 * NEAR)

    @given(st.floats(0.1, 0.3), st.floats(0.1, 0.3), st.floats(0.5, 5.0))
    def test_a_notch_is_the_ring_less_its_two_corners(self, radius: float, share: float, turn: float) -> None:
        width, corner = share * radius, 0.003
        floor = radius - width
        lean = asin(corner / (floor + corner))
        cut = (floor + corner) * cos(lean) * corner / 2.0 - floor**2 * lean / 2.0 - corner**2 * (pi / 2.0 - lean) / 2.0
        wanted = pi * radius**2 - ((radius**2 - floor**2) * turn / 2.0 - 2.0 * cut)
        loop = notched_disc(radius, [Notch(width, 0.3, turn)], corner)
        assert Polygon(loop).is_valid
        assert area(loop) == pytest.approx(wanted, rel=2e-4)

    def test_a_slot_begins_where_the_inlet_grazes_and_turns_with_the_air(self) -> None:
        """At 12 o'clock, clockwise for a right hand; the other hand is its mirror image."""
        stage = chamber(slots=(Slot(0.03, radians(60.0)),))
        right, left = (part_of(made(stage, swirl=hand), "slotted-disc") for hand in ("right", LEFT))
        for disc, sign in ((right, 1.0), (left, -1.0)):
            x = sign * disc.outline[1][:, 0]
            assert x.min() == pytest.approx(0.0, abs=NEAR)
            assert x.max() > 0.1
        assert np.allclose(mirrored(right.outline[0])[:, 0].max(), left.outline[0][:, 0].max())

    def test_overlapping_slots_are_told_and_the_disc_still_comes_out(self) -> None:
        found = made(chamber(slots=(Slot(0.03, 2.0), Slot(0.03, 2.0, 1.0))))
        assert "slots-overlap" in {one.key for one in found.troubles}
        assert Polygon(part_of(found, "slotted-disc").outline[0]).is_valid

    def test_slots_that_leave_too_little_between_them_are_told(self) -> None:
        near = made(chamber(slots=(Slot(0.03, 2.0), Slot(0.03, 2.0, 2.05))))
        far = made(chamber(slots=(Slot(0.03, 2.0), Slot(0.03, 2.0, 2.5))))
        assert "slot-land" in {one.key for one in near.troubles}
        assert "slot-land" not in {one.key for one in far.troubles}


class TestInlet:
    @given(st.floats(0.15, 0.6), st.floats(0.1, 0.45), st.floats(5e-4, 4e-3))
    def test_a_round_cut_out_is_the_pipe_met_by_the_wall(self, inside: float, share: float, t: float) -> None:
        """Every corner, wrapped back on the wall's outside, lies on the pipe's outside or on the tangent generator."""
        bore = share * inside
        stage = chamber(
            chamber_diameter=inside, inlet_bore=bore, chamber_height=bore + 0.05, outlet_diameter=0.3 * bore
        )
        wall = part_of(made(stage, wall_thickness=t, wall="steel"), "wall")
        outside, radius = inside / 2.0 + t, bore / 2.0 + 0.002
        offset = inside / 2.0 - bore / 2.0
        axis = wall.dims["inlet_height_m"] + 0.004
        for x, y in wall.outline[1]:
            theta = pi / 2.0 - (x - wall.dims["tangent_m"]) / outside
            from_axis = np.hypot(outside * sin(theta) - offset, y - axis)
            assert abs(from_axis - radius) < NEAR or abs(theta - pi / 2.0) < 1e-9
        wide = float(np.ptp(wall.outline[1][:, 0]))
        least, most = asin((offset - radius) / outside), asin(min((offset + radius) / outside, 1.0))
        assert wide == pytest.approx(outside * (most - least), abs=NEAR)
        assert wall.dims["cut_out_m"] == pytest.approx(wide, abs=NEAR)

    def test_a_rectangle_is_as_long_as_the_wall_between_its_sides(self) -> None:
        wall = part_of(made(chamber(inlet_rectangle=(0.08, 0.03)), wall_thickness=1.5e-3), "wall")
        outside = 0.1715
        assert wall.dims["cut_out_m"] == pytest.approx(outside * acos((0.17 - 0.03) / outside), abs=1e-9)
        assert -area(wall.outline[1]) == pytest.approx(0.08 * wall.dims["cut_out_m"], rel=1e-9)

    def test_the_block_is_hollow_as_the_wall_is_round(self) -> None:
        block = part_of(made(chamber(), wall_thickness=1.5e-3), "inlet-block")
        radius = block.dims["saddle_radius_m"]
        assert radius == pytest.approx(0.1715)
        shape = Polygon(block.outline[0])
        assert shape.is_valid
        assert shape.intersection(Point(0.0, 0.0).buffer(radius - NEAR, 400)).area < 1e-7
        assert block.dims["hole_axis_m"] == pytest.approx(0.17 - 0.025)

    def test_the_other_hand_is_the_mirror_image(self) -> None:
        right, left = (part_of(made(chamber(), swirl=hand), "wall") for hand in ("right", "left"))
        middle = right.dims["length_m"] / 2.0
        assert np.allclose(np.sort(2.0 * middle - right.outline[1][:, 0]), np.sort(left.outline[1][:, 0]))
        assert (right.swirl, left.swirl) == ("right", "left")

    def test_a_tube_taller_than_its_chamber_is_told(self) -> None:
        found = made(chamber(chamber_height=0.05, outlet_length=0.02))
        assert "inlet-too-tall" in {one.key for one in found.troubles}


class TestCyclone:
    @given(st.floats(0.06, 0.4), st.floats(0.1, 0.9), st.floats(0.1, 0.6), st.floats(3e-4, 3e-3))
    def test_a_cone_unrolls_to_its_own_lengths(self, wide: float, share: float, high: float, t: float) -> None:
        narrow = share * wide
        flat = cone_pattern(wide, narrow, high, t)
        alpha = np.arctan((wide - narrow) / (2.0 * high))
        assert float(flat.angle * flat.outer) == pytest.approx(pi * (wide + t), rel=1e-9)
        assert float(flat.angle * flat.inner) == pytest.approx(pi * (narrow + t), rel=1e-9)
        assert float(flat.outer - flat.inner) == pytest.approx(high / cos(alpha), rel=1e-9)
        assert tan(alpha) == pytest.approx((wide - narrow) / 2.0 / high)

    def test_as_wide_below_as_above_it_is_a_wrap(self) -> None:
        assert part_of(made(cyclone(dust_outlet=0.15)), "cone").kind == "wrap"

    def test_lid_flange_and_ring_share_their_bolts(self) -> None:
        found = made(cyclone())
        circles = [{(d.x, d.y) for d in part_of(found, name).drills if d.purpose == "bolt"} for name in
                   ("lid", "flange", "backing-ring")]  # fmt: skip
        assert circles[0] == circles[1] == circles[2]
        assert len(circles[0]) >= 4
        assert any(y == 0.0 and x > 0.0 for x, y in circles[0])

    def test_a_bought_one_takes_the_bolts_that_were_measured(self) -> None:
        found = made(cyclone(), bought=True, bolt_circle=0.12, bolts=6, bolt_hole=0.0045)
        lid = part_of(found, "lid")
        assert sum(d.purpose == "bolt" for d in lid.drills) == 6
        assert all(sqrt(d.x**2 + d.y**2) == pytest.approx(0.06) for d in lid.drills if d.purpose == "bolt")
        assert "trace-it" not in {one.key for one in found.troubles}
        assert "trace-it" in {one.key for one in made(cyclone(), bought=True).troubles}


class TestInTheBin:
    def test_a_hung_disc_is_the_bin_at_its_depth_less_the_gap(self) -> None:
        stage = chamber(hung=True, chamber_diameter=0.355, chamber_height=0.12)
        disc = part_of(made(stage), "slotted-disc")
        there = 0.32 + 0.06 * 0.30 / 0.42
        assert disc.dims["gap_m"] == pytest.approx((there - 0.355) / 2.0)
        assert disc.dims["d_m"] == pytest.approx(0.355)

    def test_one_that_does_not_pass_the_rim_is_told(self) -> None:
        necked = Bin((0.0, 0.3, 0.42), (0.32, 0.38, 0.30))
        found = made(chamber(hung=True, bin=necked, chamber_diameter=0.34, chamber_height=0.12))
        assert "disc-past-rim" in {one.key for one in found.troubles}

    def test_rods_stand_between_tube_and_slots(self) -> None:
        disc = part_of(made(chamber(hung=True, chamber_diameter=0.35)), "slotted-disc")
        shape = Polygon(disc.outline[0])
        assert all(shape.contains(Point(d.x, d.y).buffer(d.d / 2.0)) for d in disc.drills)

    def test_a_tube_comes_through_its_roof(self) -> None:
        tube = part_of(made(chamber(outlet_length=0.0), plate_thickness=0.018, stub=0.05), "outlet-tube")
        assert tube.dims["length_m"] == pytest.approx(0.018 + 0.05)

    def test_holes_of_a_lid_that_meet_are_told(self) -> None:
        crowded = ElbowLid("sep", 0.15, 0.15, 0.05, BIN)
        assert "holes-meet" in {one.key for one in made(crowded).troubles}


class TestSeat:
    @given(st.floats(0.2, 0.6), st.floats(0.5, 1.0))
    def test_a_ring_seats_on_the_rim_and_leaves_the_slot_open(self, rim: float, share: float) -> None:
        stage = chamber(bin=Bin((0.0, 0.4), (rim, rim), wall=0.003), chamber_diameter=share * rim, inlet_bore=0.04,
                        outlet_diameter=0.04)  # fmt: skip
        found = made(stage)
        ring, disc = part_of(found, "seat-ring"), part_of(found, "slotted-disc")
        inside = abs(ring.dims["d_m"] - (rim - 0.0005)) < 1e-9
        outside = abs(ring.dims["inner_d_m"] - (rim + 0.006 + 0.0005)) < 1e-9
        assert inside or outside
        assert ring.dims["inner_d_m"] >= share * rim - 1e-9
        assert disc.dims["d_m"] >= (ring.dims["d_m"] if outside else rim + 0.006) - 1e-9
        body = Polygon(ring.outline[0], ring.outline[1:])
        assert all(body.contains(Point(d.x, d.y)) for d in ring.drills)


def any_stage(draw: st.DrawFn) -> Separator:
    rim = draw(st.floats(0.15, 0.8))
    high = draw(st.floats(0.2, 1.0))
    bin_ = Bin((0.0, high), (draw(st.floats(0.7, 1.1)) * rim, rim), wall=draw(st.none() | st.floats(5e-4, 5e-3)))
    kind = draw(st.sampled_from(("disc", "hung", "one-body", "elbow", "rim", "cyclone")))
    bore = draw(st.floats(0.1, 0.4)) * rim
    if kind in ("elbow", "rim"):
        make = ElbowLid if kind == "elbow" else RimInlet
        return make("sep", bore, draw(st.floats(0.1, 0.4)) * rim, draw(st.floats(0.02, 0.5)) * high, bin_)
    if kind == "cyclone":
        d = draw(st.floats(0.3, 1.0)) * rim
        low = draw(st.floats(0.3, 0.9)) * d
        shape = CycloneGeometry(0.4 * d, 0.2 * d, d, 0.4 * d, 0.5 * d, 0.6 * d, draw(st.floats(0.8, 3.0)) * d, low)
        return Cyclone("sep", shape, "shop-built", bin_)
    chamber_high = draw(st.floats(0.3, 0.8)) * high
    wide = float(bin_.narrow_at(high - chamber_high)) * 0.98 if kind == "hung" else draw(st.floats(0.5, 1.1)) * rim
    slot = Slot(draw(st.floats(0.03, 0.2)) * wide, draw(st.floats(0.3, 6.0)), draw(st.floats(-3.0, 3.0)))
    sizes = (wide, chamber_high, min(bore, 0.4 * wide), 0.25 * wide, 0.3 * chamber_high, (slot,), bin_)
    if kind == "one-body":
        return OneBody("sep", *sizes)
    return SlottedDisc("sep", *sizes, hung=kind == "hung")


class TestEveryType:
    @given(st.composite(any_stage)(), st.sampled_from(("left", "right")), st.booleans())
    def test_outlines_are_closed_turn_the_right_way_and_hold_their_holes(
        self, stage: Separator, swirl: str, bought: bool
    ) -> None:
        for part in made(stage, swirl=swirl, bought=bought).parts:
            if not part.outline:
                continue
            outer, *holes = part.outline
            assert area(outer) > 0.0, part.id
            assert all(area(hole) < 0.0 for hole in holes), part.id
            assert Polygon(outer).is_valid, part.id
            assert all(Polygon(hole).is_valid for hole in holes), part.id

    @given(st.composite(any_stage)())
    def test_curves_stay_within_a_hair_of_their_circles(self, stage: Separator) -> None:
        for part in made(stage).parts:
            if part.kind in ("disc", "ring") and part.id != "slotted-disc":
                radius = part.dims["d_m"] / 2.0
                loop = part.outline[0]
                middle = (loop + np.roll(loop, -1, axis=0)) / 2.0
                assert np.hypot(middle[:, 0], middle[:, 1]).min() > radius - 0.02e-3
                assert LineString(loop).length == pytest.approx(2.0 * pi * radius, rel=1e-2)
