"""What a way may be made of: nothing that another page doubts, the drawer before the shop, and what each takes."""

from __future__ import annotations

from typing import Any

import pytest

from fenwick.core.catalogue.parts import ADAPTER_PRICE
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT
from fenwick.core.judging.review import review
from fenwick.core.search.batch import VariantBatch
from fenwick.core.search.changes import stock_opening
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import Rig, build_line, check_rig
from fenwick.rig.edits.hood_options import hood_options
from fenwick.rig.edits.ports import alone
from fenwick.rig.edits.routes import route_length
from fenwick.rig.format.hood import EnclosurePart
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services.moves import Move, moves_for, with_moves
from fenwick.services.moves.fittings import fit_up
from fenwick.services.moves.move import MoveGround
from fenwick.services.solving import solve
from fenwick.shop import ShopFile, check_shop
from fenwick.shop.drawer import planned_reach


def shop_with(**changes: Any) -> ShopFile:
    """The demo shop with some of its lists replaced."""
    return check_shop({**demo_shop().model_dump(mode="json"), **changes})


def keys(moves: tuple[Move, ...], kind: str) -> list[str]:
    """Of one kind."""
    return [move.option.key for move in moves if move.option.key.partition("~")[0] == kind]


@pytest.mark.parametrize("name", ["demo_line", "demo_bench", "demo_cyclone"])
def test_every_move_makes_a_rig_that_solves_and_says_what_it_is(name: str) -> None:
    rig = demo_rig(name)
    moves = moves_for(rig, demo_shop(), range(len(rig.line.ways)))
    assert len({move.option.key for move in moves}) == len(moves)
    for move in moves:
        changed = with_moves(rig, [move])
        assert changed is not None, move.option.key
        assert changed != rig, move.option.key
        assert solve(changed).found.point.mass_flow[0] > 0.0
        for system in ("metric", "inch"):
            words = move.tell(voice_for(rig, system))
            assert words
            assert "{" not in words
        assert move.option.cost >= 0.0
        assert move.option.hours > 0.0


def test_a_hose_of_the_drawer_costs_nothing_but_the_adapters_that_are_not_there() -> None:
    rig, own = demo_rig(), demo_shop()
    bore = own.hoses[0].bore_m
    for fittings, cost in (([], 2.0), (None, 0.0)):
        several = [
            {"id": f"f{i}", "name": f"Adapter {i}", "one_bore_m": one, "other_bore_m": bore}
            for i, one in enumerate((0.027, 0.032, 0.035, 0.038, 0.05, 0.05, 0.0635, 0.063, 0.076, 0.1))
            if abs(one - bore) > 0.002
        ]
        shop = shop_with(fittings=several if fittings is None else fittings)
        ground = MoveGround.of(rig, shop, [0])
        joined = fit_up(ground, "hose-b", bore)
        assert joined.cost <= cost * ADAPTER_PRICE
        assert len(joined.uses) + joined.cost / ADAPTER_PRICE <= 2
        assert len(set(joined.uses)) == len(joined.uses)  # no adapter is in two places
    assert fit_up(MoveGround.of(rig, shop_with(fittings=[]), [0]), "hose-b", 0.0123).cost == 2 * ADAPTER_PRICE


def test_a_hose_that_lies_on_the_line_is_not_in_the_drawer() -> None:
    rig = demo_rig("demo_bench")
    laid = {voice_for(rig, "metric").name(part.id).lower() for _, b in rig.line.walk() for part in b.elements}
    offered = keys(moves_for(rig, demo_shop(), [0]), "hose")
    lying = [hose.id for hose in demo_shop().hoses if hose.name.lower() in laid]
    assert not [key for key in offered for name in lying if key.endswith(f"~{name}")]


def test_without_a_shop_nothing_is_taken_from_a_drawer_and_nothing_cut() -> None:
    moves = moves_for(demo_rig(), None, [0])
    assert moves
    assert not any(move.option.uses for move in moves)
    assert not keys(moves, "shorter")
    assert not keys(moves, "vacuum")
    assert not keys(moves, "bin")


def test_a_hose_is_cut_to_what_the_floor_plan_takes_and_no_further() -> None:
    rig, shop = demo_rig(), demo_shop()
    reach = planned_reach(rig, "drum-sander", shop)
    cut = [move for move in moves_for(rig, shop, [0]) if move.option.key.startswith("shorter~")]
    assert reach is not None
    assert len(cut) == 1
    after = with_moves(rig, cut)
    assert after is not None
    assert reach - 0.01 <= route_length(after, "drum-sander") < route_length(rig, "drum-sander")
    nowhere = shop_with(tools=[{**tool.model_dump(mode="json"), "place": None} for tool in shop.tools])
    assert not keys(moves_for(rig, nowhere, [0]), "shorter")


def test_a_strap_clears_that_it_tips_over_and_nothing_else() -> None:
    rig = demo_rig()
    (strap,) = [move for move in moves_for(rig, demo_shop(), [0]) if move.option.still]
    tied = with_moves(rig, [strap])
    assert tied is not None

    def acting(one: Rig) -> set[str]:
        solved = solve(one)
        return {check.id for check in review(solved.line, solved.found) if int(check.level[0]) == ACT}

    assert acting(rig) - acting(tied) == {"tips"}
    assert strap.option.clears == 1
    assert not [move for move in moves_for(tied, demo_shop(), [0]) if move.option.still]


def leak_of(rig: Rig) -> float | None:
    """What the bin under the slot chamber leaks by."""
    part = next(e for e in rig.line.elements if e.id == "sep")
    assert isinstance(part, SeparatorPart)
    return part.bin.leak_area_m2


def test_a_bin_whose_lid_is_not_known_leaks_as_the_one_before_it_did() -> None:
    rig = demo_rig()
    leak = leak_of(rig)
    assert leak
    plain = {"id": "pail", "name": "Pail", "top_d_m": 0.36, "bottom_d_m": 0.33, "height_m": 0.5}
    for closure, kept in ((None, True), ("clamp-ring", False)):
        shop = shop_with(bins=[{**plain, "closure": closure}])
        (move,) = [one for one in moves_for(rig, shop, [0]) if one.option.key.startswith("bin~")]
        changed = with_moves(rig, [move])
        assert changed is not None
        assert (leak_of(changed) == leak) is kept


def test_no_box_is_closer_than_the_work_that_passes_through_it() -> None:
    rig = demo_rig("demo_bench")
    rules = build_line(rig).rules
    boxes = [move for move in moves_for(rig, demo_shop(), range(4)) if move.option.key.startswith("box~")]
    assert boxes
    for move in boxes:
        changed = with_moves(rig, [move])
        assert changed is not None
        branch = next(way[0] for way in changed.line.ways if way[0].id == move.option.part)
        assert branch.port is not None
        assert isinstance(branch.port.hood, EnclosurePart)
        open_ = sum(way.area_m2 for way in branch.port.hood.openings)
        assert open_ >= stock_opening(branch.port.machine, rules)
    assert stock_opening("planer", rules) > stock_opening("router-table", rules) > 0.0
    assert stock_opening(None, rules) == 0.0


def test_a_branch_without_a_gate_beside_others_is_offered_one(document: dict[str, Any]) -> None:
    rig = demo_rig("demo_bench")
    assert not keys(moves_for(rig, None, [0]), "gate")
    bare = rig.model_dump(mode="json")

    def ungated(branches: list[Any]) -> None:
        for branch in branches:
            branch["gate"] = None
            ungated(branch["branches"])

    ungated(bare["line"]["branches"])
    open_ = check_rig(bare)
    offered = keys(moves_for(open_, None, [0]), "gate")
    assert len(offered) == len(open_.line.ways)
    assert not keys(moves_for(check_rig(document), None, [0]), "gate")  # a single tool needs none


def test_the_shops_own_price_comes_before_the_rule_of_thumb() -> None:
    rig = demo_rig()
    dear = shop_with(prices=[{"id": "p", "of": "price.sealant", "price": 33.0}])
    (move,) = [one for one in moves_for(rig, dear, [0]) if one.option.key.startswith("seal-bin~")]
    assert move.option.cost == 33.0


def test_what_is_held_in_the_hand_gets_no_box_and_no_board() -> None:
    rig = demo_rig("demo_bench")
    at_sander = [move for move in moves_for(rig, demo_shop(), [2]) if move.option.part == "sander"]
    assert at_sander
    assert not [move for move in at_sander if move.option.key.startswith(("box~", "plate~"))]
    lone = alone(rig, "sander")
    assert lone is not None
    options = hood_options(lone, "sander", solve(lone).found)
    assert not {"box", "plate"} & {option.id for option in options}


def test_a_hose_is_cut_or_exchanged_and_never_both() -> None:
    moves = moves_for(demo_rig(), demo_shop(), [0])
    (cut,) = [move for move in moves if move.option.key.startswith("shorter~")]
    others = [move for move in moves if move.option.key.startswith(("hose~hose-a~", "bore~hose-a~"))]
    assert others
    assert {move.option.slot for move in others} == {cut.option.slot}


def test_a_hose_of_the_drawer_brings_its_own_wall() -> None:
    rig, shop = demo_rig("demo_bench"), demo_shop()
    line = build_line(rig)
    for move in moves_for(rig, shop, [0]):
        if not move.option.key.startswith("hose~main~"):
            continue
        batch = VariantBatch(line, [move.option.candidates]).line()
        changed = with_moves(rig, [move])
        assert changed is not None
        whole = build_line(changed)
        screened, solved = (assess(one).point.mass_flow[0] for one in (batch, whole))
        assert screened == pytest.approx(solved, rel=1e-6)


@pytest.mark.parametrize("machine", [None, "bandsaw", "hand-held-sander", "lathe"])
def test_what_a_box_stays_open_by_is_never_negative(machine: str | None) -> None:
    assert stock_opening(machine, build_line(demo_rig()).rules) >= 0.0
