"""The order of work: what makers trip over, by name; when it is done; what a shop has is used first."""

from __future__ import annotations

from math import radians

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.separator import Slot, SlottedDisc
from fenwick.core.making.given import MakingChoices, making_of
from fenwick.core.making.pack import parts_of
from fenwick.core.making.schedule import Window, schedule
from fenwick.core.making.stand import stand_parts
from fenwick.core.making.steps import WorkStep, broken_by, cure_time, ordered, without_missing
from fenwick.core.making.work import stand_work, work_of
from fenwick.core.rules import RuleBook
from fenwick.rig import build_line
from fenwick.rig.start.examples import EXAMPLES, example_rig
from tests.core.making.test_geometry import BIN, chamber, cyclone

MAKING = making_of(MakingChoices(), RuleBook())


def steps_of(stage: object) -> tuple[WorkStep, ...]:
    return work_of(stage, parts_of(stage, MAKING), MAKING, 3.0)  # type: ignore[arg-type]


def order_of(stage: object) -> list[str]:
    return [step.id for step in steps_of(stage)]


def comes_in(order: list[str], *names: str) -> bool:
    places = [order.index(name) for name in names]
    return places == sorted(places)


class TestWhatMakersTripOver:
    def test_slot_ends_are_bored_then_the_slot_cut_then_its_edges_then_the_dry_assembly(self) -> None:
        assert comes_in(order_of(chamber()), "bore-slot-ends", "cut-slot", "trim-slot", "dry-assembly")

    def test_inlet_block_dry_fit_outline_cut_seal(self) -> None:
        order = order_of(chamber())
        assert comes_in(
            order, "shape-block", "bore-block", "dry-fit-inlet", "mark-cut-out", "cut-cut-out", "seal-inlet"
        )

    def test_the_disc_is_set_by_the_wrap_as_it_came_out(self) -> None:
        assert comes_in(order_of(chamber()), "wrap-dry", "cut-by-wrap", "groove-disc")

    def test_the_pivot_stays_until_groove_and_edge_are_turned(self) -> None:
        assert comes_in(order_of(chamber()), "groove-roof", "edge-roof", "hole-roof")
        assert comes_in(order_of(cyclone()), "groove-roof", "edge-roof", "hole-roof")

    def test_no_screw_stands_in_the_path_of_a_later_cut(self) -> None:
        assert comes_in(order_of(chamber()), "trim-slot", "edge-disc", "drill-ring")

    def test_the_inner_seam_is_reached_before_the_disc_goes_in(self) -> None:
        order = order_of(chamber())
        assert comes_in(order, "close-seam", "seal-inlet", "seal-disc")
        assert next(step for step in steps_of(chamber()) if step.id == "seal-inlet").last == "inner-seam"

    def test_the_rim_is_felt_before_the_first_run_and_that_comes_last(self) -> None:
        for kind in EXAMPLES:
            line = build_line(example_rig(kind))
            stage = next(one for one in line.trunk if one.id in ("wet" if kind == "wet-stage" else "sep",))
            order = order_of(stage)
            assert comes_in(order, "seat-rim", "first-run")
            assert order[-1] == "first-run"

    def test_moving_a_step_too_early_tells_what_it_breaks(self) -> None:
        steps = steps_of(chamber())
        order = [step.id for step in steps]
        assert broken_by(order, steps) == ()
        order.remove("cut-slot")
        order.insert(0, "cut-slot")
        broken = broken_by(order, steps)
        assert [(one.step, one.needs, one.because) for one in broken] == [("cut-slot", "bore-slot-ends", "ends-first")]


class TestEveryType:
    @pytest.mark.parametrize("kind", EXAMPLES)
    def test_every_step_has_its_parts_and_the_hours_add_up(self, kind: str) -> None:
        line = build_line(example_rig(kind))
        stage = next(one for one in line.trunk if one.id == ("wet" if kind == "wet-stage" else "sep"))
        found = parts_of(stage, MAKING)  # type: ignore[arg-type]
        steps = work_of(stage, found, MAKING, 3.0)  # type: ignore[arg-type]
        names = {part.id for part in found.parts}
        assert all(set(step.parts) <= names for step in steps)
        assert sum(step.hands for step in steps) == pytest.approx(3.0 * 3600.0)
        ids = {step.id for step in steps}
        assert len(ids) == len(steps)
        assert all(set(step.after) <= ids for step in steps)
        made = {part.id for part in found.parts if part.how == "make" and part.stock.material != "paper"}
        worked = {name for step in steps for name in step.parts}
        assert made <= worked, f"{made - worked} is in no step"

    def test_a_stand_has_its_own(self) -> None:
        parts = stand_parts(chamber(), MAKING, 20.0)
        assert stand_work(parts, MAKING, 2.0)[-1].id == "fix-straps"
        casters = parts.get("casters")
        assert casters is not None
        assert casters.dims["bears_kg"] == pytest.approx(20.0 / 3.0)
        unknown = stand_parts(chamber(), MAKING, None).get("casters")
        assert unknown is not None
        assert unknown.dims == {}


class TestGraph:
    def test_a_circle_is_refused(self) -> None:
        with pytest.raises(ValueError, match="circle"):
            ordered([WorkStep("a", (), {"b": "x"}), WorkStep("b", (), {"a": "x"})])

    def test_needs_of_a_step_that_is_gone_pass_on(self) -> None:
        steps = (WorkStep("a", ()), WorkStep("b", ("gone",), {"a": "x"}), WorkStep("c", (), {"b": "y"}))
        assert [(one.id, dict(one.after)) for one in without_missing(steps, [])] == [("a", {}), ("c", {"a": "x"})]

    @given(st.permutations(range(10)))
    def test_whatever_the_order_what_is_broken_is_what_comes_too_early(self, places: list[int]) -> None:
        steps = [WorkStep(str(i), (), {str(i - 1): "x"} if i else {}) for i in range(10)]
        order = [str(i) for i in places]
        broken = {one.step for one in broken_by(order, steps)}
        assert broken == {str(i) for i in range(1, 10) if order.index(str(i)) < order.index(str(i - 1))}


class TestSchedule:
    EVENINGS = tuple(Window(day * 86400.0 + 19 * 3600.0, day * 86400.0 + 21 * 3600.0) for day in range(60))

    def test_a_cure_waits_and_other_work_goes_on(self) -> None:
        steps = (
            WorkStep("glue", (), hands=600.0, cure=3600.0),
            WorkStep("load", (), {"glue": "fit-before-glue"}, hands=600.0),
            WorkStep("other", (), hands=1200.0),
        )
        slots = {one.step: one for one in schedule(steps, [Window(0.0, 1e9)])}
        assert slots["other"].start == 600.0
        assert slots["load"].start == 4200.0

    def test_work_stays_within_the_hours_one_has(self) -> None:
        steps = steps_of(chamber())
        slots = schedule(steps, self.EVENINGS)
        assert len(slots) == len(steps)
        for slot in slots:
            hour = slot.start % 86400.0 / 3600.0
            assert 19.0 - 1e-3 <= hour <= 21.0 + 1e-3

    def test_it_runs_when_everything_has_cured(self) -> None:
        slots = schedule(steps_of(chamber()), self.EVENINGS)
        last = max(slots, key=lambda one: one.start)
        assert last.step == "first-run"
        assert last.start >= max(one.cured for one in slots if one is not last) - 1e-6

    def test_what_is_done_is_not_planned_again(self) -> None:
        steps = steps_of(chamber())
        done = frozenset(step.id for step in steps[:5])
        assert {one.step for one in schedule(steps, self.EVENINGS, done)} == {step.id for step in steps[5:]}

    def test_twenty_minutes_a_day_are_enough_in_the_end(self) -> None:
        short = [Window(day * 86400.0, day * 86400.0 + 1200.0) for day in range(3)]  # the last comes again
        slots = schedule(steps_of(chamber()), short)
        assert len(slots) == len(steps_of(chamber()))

    @pytest.mark.parametrize(("sealant", "hours"), [("hybrid", 4.0 / 3.5 * 24.0), ("silicone", 32.0), ("pva", 24.0),
                                                    ("epoxy-fast", 1.0), ("hot-melt", 0.0)])  # fmt: skip
    def test_cures_are_those_of_the_table(self, sealant: str, hours: float) -> None:
        assert cure_time(sealant, MAKING) == pytest.approx(hours * 3600.0)


def test_a_hung_disc_is_measured_by_its_bin_first() -> None:
    stage = SlottedDisc("sep", 0.35, 0.12, 0.05, 0.063, 0.06, (Slot(0.03, radians(240.0)),), BIN, hung=True)
    order = order_of(stage)
    assert comes_in(order, "measure-bin", "edge-disc", "cut-slot", "drill-rods", "dry-assembly", "hang-disc")
