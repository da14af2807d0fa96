"""Packs, progress, ways and plans: one figure, one home, whatever page asks."""

from __future__ import annotations

from datetime import datetime

import pytest

from fenwick.builds.edit import choose, get, move, note_cut, tick
from fenwick.builds.model import BuildFile
from fenwick.core.arrays import one_value
from fenwick.core.making.cutters import HoleSaw, Workshop
from fenwick.core.making.layout import SheetStock
from fenwick.core.making.shopping import sum_of
from fenwick.core.making.stock import BinStock, TubeStock
from fenwick.core.rules import RuleBook
from fenwick.core.search.designs import BOUGHT, MADE, effort
from fenwick.data.demo import demo_build, demo_rig, demo_shop
from fenwick.rig import Rig, check_rig, edit_rig
from fenwick.rig.edits.kinds import KINDS, change_kind
from fenwick.rig.start.examples import EXAMPLES, example_rig
from fenwick.services.builds import (
    HOURS,
    as_built_edits,
    cost_of,
    felt_leak,
    in_order,
    planned,
    progress,
    stage_of,
    to_pay,
    windows,
)
from fenwick.services.make_or_buy import TIMES, make_or_buy_of
from fenwick.services.making import BuildAsked, NothingToBuildError, build_pack, hours_of, tolerances
from fenwick.services.making_files import METRIC_VOICE, pack_document, page_count, warnings_of
from fenwick.services.shop_stock import sheets_of, tubes_of, workshop_of
from fenwick.services.solving import solve

NOW = datetime(2026, 11, 28, 12, 0)  # a Saturday
ASKED = BuildAsked("sep")
AT = "2026-11-28T10:00:00Z"


def own(rig: Rig) -> dict:  # type: ignore[type-arg]
    return next(e for e in rig.model_dump(mode="json")["line"]["elements"] if e["id"] == "sep")


class TestShopping:
    """What is paid, by the shop's own prices before any rule, and nothing for what is there."""

    def test_prices_are_added_up_by_length_area_and_piece(self) -> None:
        pack = build_pack(example_rig("slotted-disc"), BuildAsked("sep"))
        by_key = {line.key: line for line in pack.to_buy}
        gasket = pack.part("gasket")
        assert gasket is not None
        assert by_key["gasket"].price == pytest.approx(1.5 * gasket.dims["length_m"])
        for sheet in (line for line in pack.to_buy if line.sheet is not None):
            assert sheet.sheet is not None
            assert sheet.price == pytest.approx(30.0 * sheet.count * sheet.sheet.width * sheet.sheet.height)
        assert {"sealant:hybrid", "sealant:pva"} & set(by_key)
        assert "bin" not in by_key

    def test_what_the_shop_pays_goes_before_the_rule(self) -> None:
        rig = example_rig("slotted-disc")
        usual, dear = (build_pack(rig, BuildAsked("sep", prices=prices)) for prices in ((), (("price.gasket", 3.0),)))
        more = sum_of(dear.to_buy) - sum_of(usual.to_buy)
        gasket = usual.part("gasket")
        assert gasket is not None
        assert more == pytest.approx(1.5 * gasket.dims["length_m"])

    def test_what_is_bought_whole_costs_what_the_finder_says_or_what_the_line_says(self) -> None:
        rig = example_rig("cyclone")
        pack = build_pack(rig, BuildAsked("sep", bought=True))
        stage = stage_of(rig, "sep")
        assert stage is not None
        by_rule = one_value(effort("cyclone", stage, BOUGHT, (1.0, 1.0), RuleBook()).cost)
        assert next(line.price for line in pack.to_buy if line.key == "cyclone") == pytest.approx(by_rule)
        document = rig.model_dump(mode="json")
        next(e for e in document["line"]["elements"] if e["id"] == "sep")["price"] = 39.0
        priced = build_pack(check_rig(document), BuildAsked("sep", bought=True))
        assert next(line.price for line in priced.to_buy if line.key == "cyclone") == 39.0

    def test_a_bin_is_bought_where_the_shop_has_none_like_it(self) -> None:
        rig = example_rig("slotted-disc")
        has = build_pack(rig, BuildAsked("sep", bins=(BinStock("a", 0.5, 0.6), BinStock("b", 0.375, 0.42))))
        lacks = build_pack(rig, BuildAsked("sep", bins=(BinStock("a", 0.5, 0.6),)))
        assert [p.how for pack in (has, lacks) for p in pack.parts if p.id == "bin"] == ["have", "buy"]
        assert sum_of(lacks.to_buy) - sum_of(has.to_buy) == pytest.approx(25.0)

    def test_what_is_there_is_not_paid_again(self) -> None:
        rig, file = example_rig("slotted-disc"), BuildFile(what="sep")
        pack = build_pack(rig, ASKED)
        whole = to_pay(rig, file, ASKED)
        assert whole == pytest.approx(sum_of(pack.to_buy))
        for line in pack.to_buy:
            file = get(file, line.key, there=True)
        assert to_pay(rig, file, ASKED) == 0.0

    def test_every_way_says_what_its_pack_costs(self) -> None:
        rig = demo_rig()
        for way in make_or_buy_of(rig, "sep", ASKED):
            if way.here:
                assert way.money == pytest.approx(to_pay(rig, BuildFile(what="sep", bought=way.how == BOUGHT), ASKED))


class TestPack:
    @pytest.mark.parametrize("kind", [kind for kind in EXAMPLES if kind != "wet-stage"])
    def test_hours_are_those_of_the_finder(self, kind: str) -> None:
        rig = example_rig(kind)
        for bought in (False, True):
            pack = build_pack(rig, BuildAsked("sep", None, bought))
            stage = stage_of(rig, "sep")
            assert stage is not None
            how = BOUGHT if bought else MADE
            wanted = one_value(effort(kind, stage, how, (1.0, 1.0), RuleBook()).hours)
            assert pack.hours == pytest.approx(wanted)
            assert sum(step.hands for step in pack.steps) == pytest.approx(wanted * 3600.0)

    def test_a_stand_has_its_own_hours_on_top(self) -> None:
        rig = example_rig("slotted-disc")
        alone, both, under = (build_pack(rig, BuildAsked(what)) for what in ("sep", None, "stand"))
        assert both.hours == pytest.approx(alone.hours + under.hours)
        assert {part.id for part in both.parts} == {part.id for part in (*alone.parts, *under.parts)}
        assert len({step.id for step in both.steps}) == len(both.steps)

    def test_a_pack_is_worked_out_once(self) -> None:
        rig = example_rig("slotted-disc")
        assert build_pack(rig, ASKED) is build_pack(rig, BuildAsked("sep"))

    @pytest.mark.parametrize("what", ["nothing", "hood:nothing", "hood:tool", "hose", "vacuum"])
    def test_what_is_not_there_is_said(self, what: str) -> None:
        with pytest.raises(NothingToBuildError):
            build_pack(example_rig("slotted-disc"), BuildAsked(what))

    def test_a_wet_stage_has_no_stand(self) -> None:
        rig = example_rig("wet-stage")
        assert build_pack(rig, BuildAsked("wet")).title == "Wet vessel"
        part = next(e for e in rig.line.elements if e.id == "wet")
        pack = build_pack(rig, BuildAsked("wet"))
        assert hours_of(part, pack.making) == pytest.approx(pack.hours)  # type: ignore[arg-type]

    def test_a_bin_that_is_not_round_is_told(self) -> None:
        document = demo_rig().model_dump(mode="json")
        for point in next(e for e in document["line"]["elements"] if e["id"] == "sep")["bin"]["profile"]:
            point.update(d_m=None, width_m=0.4, depth_m=0.36)
        pack = build_pack(check_rig(document), ASKED)
        assert any("not round" in one for one in warnings_of(pack, METRIC_VOICE))

    def test_a_shop_in_the_cold_is_told(self) -> None:
        cold = edit_rig(demo_rig(), {"site.temperature_c": 2.0})
        assert any("At 2 °C" in one for one in warnings_of(build_pack(cold, ASKED), METRIC_VOICE))

    def test_the_file_and_the_pages_count_the_same(self) -> None:
        pack = build_pack(demo_rig(), ASKED)
        document = pack_document(pack, tolerances(demo_rig(), ASKED))
        assert len(document["parts"]) == len(pack.parts)  # type: ignore[arg-type]
        assert page_count(pack, "2026-11-28", "letter", METRIC_VOICE) > 1


class TestStock:
    def test_what_the_demo_shop_has_is_used(self) -> None:
        shop = demo_shop()
        asked = BuildAsked("sep", None, False, workshop_of(shop), sheets_of(shop), tubes_of(shop))
        pack = build_pack(demo_rig(), asked)
        assert pack.part("outlet-tube").how == "have"  # type: ignore[union-attr]
        assert sum(sheet.at_hand for sheet in pack.layout.sheets) == 2
        assert next(cut for cut in pack.cuts["roof"] if cut.edge == "centre_hole").tool == "hole-saw"

    def test_without_a_shop_nothing_is_at_hand(self) -> None:
        assert (workshop_of(None), sheets_of(None), tubes_of(None)) == (Workshop(), (), ())

    def test_each_list_becomes_what_the_core_knows(self) -> None:
        shop = demo_shop()
        assert HoleSaw(0.067, 0.038) in workshop_of(shop).hole_saws
        assert workshop_of(shop).known
        assert SheetStock("ply-rest", "plywood", 0.012, 0.82, 0.6) in sheets_of(shop)
        assert TubeStock("drain-63", "pvc", 0.063, 0.002, 0.4) in tubes_of(shop)


class TestProgress:
    def test_of_the_demo(self) -> None:
        found = progress(demo_rig(), demo_build(), ASKED)
        assert found.parts["slotted-disc"] == "off"
        assert found.parts["roof"] == "cut"
        assert found.parts["gasket"] == found.parts["bin"] == "ready"
        assert found.now is not None
        assert found.now.id not in found.done
        assert [one.dim for one in found.open] == ["d_m"]
        assert 0.0 < found.hands_left < 3.0 * 3600.0

    def test_everything_ticked_is_everything_done(self) -> None:
        file = BuildFile(what="sep")
        for step in build_pack(demo_rig(), ASKED).steps:
            file = tick(file, step.id, AT, cures=False)
        found = progress(demo_rig(), file, ASKED)
        assert found.now is None
        assert found.hands_left == 0.0
        assert set(found.parts.values()) <= {"done", "ready", "buy"}

    def test_what_was_got_is_ready(self) -> None:
        found = progress(demo_rig(), get(BuildFile(what="sep"), "inlet-tube", there=True), ASKED)
        assert found.parts["inlet-tube"] == "ready"

    def test_a_step_that_a_changed_design_brings_comes_behind_the_one_it_follows(self) -> None:
        steps = build_pack(demo_rig(), ASKED).steps
        names = tuple(step.id for step in steps)
        without = tuple(name for name in names if name != "cut-slot")
        assert [step.id for step in in_order(steps, without)] == list(names)
        assert [step.id for step in in_order(steps, ("gone", *reversed(names)))] == list(reversed(names))

    def test_a_moved_step_is_broken_until_it_is_put_back(self) -> None:
        file = BuildFile(what="sep")
        names = [step.id for step in build_pack(demo_rig(), ASKED).steps]
        moved = move(file, names, "seal-disc", -6)
        assert progress(demo_rig(), moved, ASKED).broken
        assert not progress(demo_rig(), choose(moved, order=()), ASKED).broken


class TestAsBuilt:
    def test_only_what_the_model_knows_becomes_a_change(self) -> None:
        file = note_cut(note_cut(BuildFile(what="sep"), "wall", "wrap_m", 1.0760), "roof", "d_m", 0.35)
        found = progress(demo_rig(), file, ASKED)
        edits = as_built_edits(demo_rig(), found)
        assert list(edits) == ["chamber_d_m"]
        assert edits["chamber_d_m"] == pytest.approx(1.0760 / 3.14159265 - 0.0015, abs=1e-5)

    @pytest.mark.parametrize(
        ("kind", "part", "dim", "key"),
        [
            ("slotted-disc", "outlet-tube", "reach_m", "outlet_length_m"),
            ("slotted-disc", "slotted-disc", "slot_width_m", "slots[0].width_m"),
            ("slotted-disc", "wall", "chamber_height_m", "chamber_height_m"),
            ("hung-disc", "slotted-disc", "d_m", "chamber_d_m"),
            ("cyclone", "barrel", "cylinder_height_m", "cylinder_height_m"),
            ("cyclone", "cone", "bottom_d_m", "dust_outlet_d_m"),
            ("elbow-lid", "outlet-tube", "reach_m", "outlet_length_m"),
        ],
    )
    def test_each_goes_to_its_key_and_the_line_takes_it(self, kind: str, part: str, dim: str, key: str) -> None:
        rig = example_rig(kind)
        wanted = build_pack(rig, ASKED).part(part).dims[dim]  # type: ignore[union-attr]
        found = progress(rig, note_cut(BuildFile(what="sep"), part, dim, wanted - 0.001), ASKED)
        edits = as_built_edits(rig, found)
        assert list(edits) == [key]
        at = next(i for i, e in enumerate(rig.line.elements) if e.id == "sep")
        changed = edit_rig(rig, {f"line.elements[{at}].{k}": v for k, v in edits.items()})
        assert build_pack(changed, ASKED).part(part).dims[dim] == pytest.approx(wanted - 0.001, abs=2e-6)  # type: ignore[union-attr]

    def test_what_it_costs_is_what_the_changed_line_keeps(self) -> None:
        rig = demo_rig()
        wanted = build_pack(rig, ASKED).part("slotted-disc").dims["slot_width_m"]  # type: ignore[union-attr]
        file = note_cut(BuildFile(what="sep"), "slotted-disc", "slot_width_m", wanted + 0.01)
        (verdict,) = progress(rig, file, ASKED).verdicts
        figures = cost_of(rig, verdict, "sep")
        assert figures is not None
        assert figures.kept is not None
        changed = edit_rig(rig, {"line.elements[0].slots[0].width_m": wanted + 0.01})
        assert figures.kept == pytest.approx(
            [one_value(solve(one).found.kept) for one in (rig, changed)]  # type: ignore[arg-type]
        )

    def test_a_felt_gap_is_added_to_what_the_closure_starts_from(self) -> None:
        assert felt_leak(demo_rig(), "sep", 0.0, 0.5) == pytest.approx(5e-6)
        assert felt_leak(demo_rig(), "sep", 0.5e-3, 0.04) == pytest.approx(25e-6)
        assert felt_leak(demo_rig(), "stand", 0.5e-3, 0.04) is None
        assert stage_of(demo_rig(), "hose-a") is None


class TestPlan:
    @pytest.mark.parametrize("hours", sorted(HOURS))
    def test_it_begins_now_and_never_before(self, hours: str) -> None:
        found = progress(demo_rig(), BuildFile(what="sep", hours=hours), ASKED)  # type: ignore[arg-type]
        slots = planned(found, NOW)
        since = NOW.hour * 3600.0
        assert min(slot.start for slot in slots) >= since
        assert {slot.step for slot in slots} == {step.id for step in found.steps}

    def test_a_weekend_is_friday_evening_saturday_and_sunday(self) -> None:
        days = {int(one.start // 86400.0) % 7 for one in windows("weekend", NOW)}
        assert days == {0, 1, 6}  # from a Saturday on: Saturday, Sunday, Friday

    def test_more_hours_are_never_later(self) -> None:
        def ends(hours: str) -> float:
            found = progress(demo_rig(), BuildFile(what="sep", hours=hours), ASKED)  # type: ignore[arg-type]
            return max(slot.end for slot in planned(found, NOW))

        assert ends("days") <= ends("evening") <= ends("20-minutes")


class TestWays:
    def test_every_kind_both_ways_with_the_keeping_of_its_own_line(self) -> None:
        rig = demo_rig()
        found = make_or_buy_of(rig, "sep", ASKED)
        assert {(way.kind, way.how) for way in found} == {(kind, how) for kind in KINDS for how in ("made", "bought")}
        for way in found:
            changed = rig if way.here else change_kind(rig, "sep", way.kind)
            assert way.kept == pytest.approx(one_value(solve(changed).found.kept))  # type: ignore[arg-type]
            assert way.ready >= way.hours * 3600.0 - 1.0

    def test_filters_only_leave_out(self) -> None:
        found = make_or_buy_of(demo_rig(), "sep", ASKED)
        for time, hours in TIMES.items():
            within = [way for way in found if way.within(time, tools=False)]
            assert all(way.hours <= hours + 1e-6 for way in within)

    def test_a_shop_without_a_router_cannot_turn_grooves(self) -> None:
        asked = BuildAsked("sep", workshop=Workshop(saws=("jigsaw", "drill"), known=True))
        found = {(way.kind, way.how): way for way in make_or_buy_of(demo_rig(), "sep", asked)}
        assert "router" in found["slotted-disc", "made"].missing
        assert found["elbow-lid", "made"].missing == ()
        assert not found["slotted-disc", "made"].within(None, tools=True)

    def test_something_else_has_no_ways(self) -> None:
        assert make_or_buy_of(demo_rig(), "stand", ASKED) == ()
