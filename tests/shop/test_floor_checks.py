"""Heads that swing or travel, hoses that snag there, cords that are walked or rolled over."""

from __future__ import annotations

from math import radians

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.catalogue.tools import IN_HAND, TOOLS
from fenwick.core.formulas.route import Block
from fenwick.core.rules import RuleBook
from fenwick.core.site.cords import Trodden, cord_crossing
from fenwick.core.site.sweep import BODY, SIDES, HeadSweep, free_side, snags
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.services.checks import acts_of, reviewed
from fenwick.shop import ShopFile, add_item, edit_shop
from fenwick.shop.floor_checks import checks_of_floor
from fenwick.shop.plan import lay_floor

ROOM = (5.0, 4.0)
RULES = RuleBook()


def head(faces: str = "front", travel: float = 0.4, swing: float = 0.0) -> HeadSweep:
    """A head in the middle of a room."""
    return HeadSweep("saw", (2.5, 2.0), faces, travel, swing, radians(50.0))


def test_a_head_that_travels_comes_to_what_lies_before_and_behind_it_and_not_beside() -> None:
    points = np.array([[2.5, 1.5], [2.5, 2.5], [1.9, 2.0], [3.1, 2.0], [2.5, 1.2], [2.5, 2.0]])
    assert head().reaches(points).tolist() == [True, True, False, False, False, False]
    turned = head("left").reaches(points).tolist()
    assert turned == [False, False, False, False, False, False]
    assert head("left").reaches(np.array([[2.0, 2.0], [3.0, 2.0]])).all()


def test_a_head_that_swings_turns_so_far_to_either_side() -> None:
    swings = head(travel=0.0, swing=0.8)
    at = np.radians(np.array([0.0, 45.0, 55.0, 90.0, 180.0]))
    points = np.stack([2.5 + 0.6 * np.sin(at), 2.0 - 0.6 * np.cos(at)], axis=-1)
    assert swings.reaches(points).tolist() == [True, True, False, False, True]


@given(st.sampled_from(sorted(SIDES)), st.floats(0.05, 1.0), st.floats(0.0, 1.0))
def test_a_hose_led_off_at_the_free_side_never_snags(faces: str, travel: float, swing: float) -> None:
    sweep = head(faces, travel, swing)
    side = free_side(sweep, (4.5, 0.5), ROOM, (), RULES)
    assert side is not None
    out = np.array(sweep.place) + (BODY + 0.25) * np.array(SIDES[side])
    assert not snags(sweep, np.array([sweep.place, out]))


def test_the_free_side_looks_to_the_separator_and_away_from_walls_and_furniture() -> None:
    assert free_side(head(), (4.8, 2.0), ROOM, (), RULES) == "right"
    assert free_side(head(), (0.2, 2.0), ROOM, (), RULES) == "left"
    assert free_side(head(), (4.8, 2.0), ROOM, [Block(3.0, 2.0, 0.3, 0.5)], RULES) == "left"
    in_a_corner = HeadSweep("saw", (0.1, 2.0), "front", 0.4, 0.0, radians(50.0))
    assert free_side(in_a_corner, None, (0.5, 4.0), (), RULES) is None


def test_a_hose_straight_ahead_snags_and_one_to_the_side_does_not() -> None:
    assert snags(head(), np.array([[2.5, 2.0], [2.5, 0.2]]))
    assert not snags(head(), np.array([[2.5, 2.0], [4.5, 2.0]]))
    assert snags(head(), np.array([[0.5, 1.6], [4.5, 1.6]])), "that of another tool may, too"
    assert not snags(head(travel=0.0), np.array([[2.5, 2.0], [2.5, 0.2]]))


def test_a_cord_takes_whichever_way_along_the_walls_is_clear() -> None:
    walked = Trodden("Walkway", Block(1.0, 2.0, 0.8, 4.0), wheels=False)
    assert cord_crossing((0.2, 0.2), (0.2, 3.8), [walked]) is None
    across = cord_crossing((0.2, 0.2), (3.0, 3.0), [walked])
    assert across is not None
    assert (across.over.name, across.place) == ("Walkway", (1.0, 2.0))
    half = Trodden("Cart", Block(0.2, 2.0, 0.3, 0.3), wheels=True)
    assert cord_crossing((0.2, 0.2), (3.0, 3.0), [half]) is None, "the other way round is clear"


def test_a_cord_that_is_stepped_over_twice_is_better_than_one_that_is_rolled_over_once() -> None:
    cart = Trodden("Cart", Block(0.2, 1.5, 0.4, 0.4), wheels=True)
    walked = [
        Trodden(f"Walkway {i}", Block(*at, 0.4, 0.4), wheels=False) for i, at in enumerate(((1.5, 0.2), (3.0, 1.5)))
    ]
    crossing = cord_crossing((0.2, 0.2), (3.0, 3.0), [cart, *walked])
    assert crossing is not None
    assert not crossing.over.wheels
    rolled = cord_crossing((0.2, 0.2), (3.0, 3.0), [walked[0], cart, Trodden("Bin", walked[0].block, wheels=True)])
    assert rolled is not None
    assert rolled.over.wheels, "of what lies on the way the worst is told"


@pytest.mark.parametrize("kind", sorted(TOOLS))
def test_only_what_stands_has_a_sweep(kind: str) -> None:
    shop, tool = add_item(demo_shop(), "tools", kind=kind, travel_m=0.3, place={"x_m": 2.0, "y_m": 2.0})
    swept = {one.id for one in lay_floor(shop).sweeps}
    assert (tool in swept) == (TOOLS[kind].machine not in IN_HAND)


@pytest.fixture
def saws() -> ShopFile:
    """The demo shop with a bandsaw whose table slides towards the separator, and a walkway all across."""
    shop = demo_shop()
    place = shop.separator_place
    assert place is not None
    at = next(i for i, tool in enumerate(shop.tools) if tool.id == "bandsaw")
    slid = edit_shop(shop, {f"tools[{at}].travel_m": 0.6, f"tools[{at}].faces": "right"})
    return add_item(slid, "furniture", name="Walkway", walked=True, width_m=0.6, depth_m=4.0)[0]


def test_the_checks_of_a_line_name_head_side_and_place(saws: ShopFile) -> None:
    plan = lay_floor(saws)
    assert [one.tool for one in plan.snags] == ["bandsaw"]
    assert plan.snags[0].side in ("front", "back", "left")
    found = {check.id: check for check in checks_of_floor(saws, demo_rig("demo_bench"))}
    assert found["snags"].part == "bandsaw"
    assert found["snags"].about[:2] == ("Bandsaw", "Bandsaw")
    assert found["cord-crossed"].about == ("Walkway", "feet")
    assert len(found["cord-crossed"].notes) == 2
    assert {"snags", "cord-crossed"} <= {check.id for check in reviewed(demo_rig("demo_bench"), saws)}


def test_wheels_over_a_cord_are_to_act_on(saws: ShopFile) -> None:
    at = len(saws.furniture) - 1
    rolled = edit_shop(saws, {f"furniture[{at}].wheels": True})
    rig = demo_rig("demo_bench")
    assert acts_of(rig, rolled) == acts_of(rig, saws) + 1


def test_hoses_go_over_a_walkway_and_nothing_is_said_of_another_vacuum(saws: ShopFile) -> None:
    lengths = {route.id: route.length for route in lay_floor(saws).routes}
    without = {route.id: route.length for route in lay_floor(demo_shop()).routes}
    assert lengths["drum-sander"] == pytest.approx(without["drum-sander"])
    assert checks_of_floor(None, demo_rig()) == []
    other = demo_rig().model_copy(update={"vacuum": demo_rig().vacuum.model_copy(update={"name": "Another"})})
    assert "cord-crossed" not in {check.id for check in checks_of_floor(saws, other)}
