"""Bins of any shape, wet vessels, stacks and carts at their ends; what cannot be judged says so."""

from __future__ import annotations

from typing import Any

import pytest

from fenwick.data.demo import demo_shop
from fenwick.services.checks import reviewed
from tests.ends.rigs import CYCLONE, DISC, LINK, changed, check, kept, read, refused, rig_file, with_bin

ROUND = [{"height_m": 0.0, "d_m": 0.3}, {"height_m": 0.4, "d_m": 0.32}]
SQUARE = [{"height_m": 0.0, "width_m": 0.266, "depth_m": 0.266}, {"height_m": 0.4, "width_m": 0.284, "depth_m": 0.284}]
WET: dict[str, Any] = {
    "id": "wet", "kind": "wet-stage", "throat_d_m": 0.04, "immersion_m": 0.05, "vessel_d_m": 0.3, "water_kg": 12.0,
    "outlet_height_m": 0.35,
}  # fmt: skip
STAND: dict[str, Any] = {"space_m": 0.6, "mass_kg": 3.0, "base_m": 0.35}
GRINDING = "steel-grinding"


def standing(stage: dict[str, Any] = CYCLONE, **stand: Any) -> dict[str, Any]:
    """A rig whose separator stands somehow."""
    return rig_file("saw", (changed(stage, stand={**STAND, **stand}),))


def level_of(document: dict[str, Any], name: str) -> str | None:
    """How a check stands; None where there is none."""
    said = check(document, name)
    return None if said is None else str(said["level"])


def test_a_square_bin_of_the_same_area_keeps_nearly_the_same() -> None:
    square, bucket = (kept(rig_file("saw", (with_bin(DISC, profile=profile),))) for profile in (SQUARE, ROUND))
    assert square == pytest.approx(bucket, abs=0.01)


def test_flat_walls_and_upright_ribs_are_not_judged_and_rings_are_taken_as_plain() -> None:
    for keys in ({"profile": SQUARE}, {"ribs": "upright"}):
        document = rig_file("saw", (with_bin(CYCLONE, **keys),))
        said = check(document, "wall-not-judged")
        assert said is not None
        assert "not judged" in said["text"]
        assert "Brace it" in said["text"]
        assert check(document, "bin-collapse") is None
    plain, rings = (
        check(rig_file("saw", (with_bin(CYCLONE, ribs=ribs),)), "bin-collapse") for ribs in ("none", "rings")
    )
    assert plain is not None
    assert rings is not None
    assert plain["value"] == rings["value"]


@pytest.mark.parametrize(
    ("profile", "told"),
    [
        ([SQUARE[0], ROUND[1]], "bin.profile[1].width_m: is missing"),
        ([ROUND[0], SQUARE[1]], "bin.profile[1].d_m: is missing"),
        ([{"height_m": 0.0, "width_m": 0.3}, SQUARE[1]], "depth_m"),
        ([{**ROUND[0], "width_m": 0.3, "depth_m": 0.3}, ROUND[1]], "must be left out where the bin has a diameter"),
    ],
)
def test_a_bin_is_round_or_rectangular_at_every_height(profile: list[dict[str, Any]], told: str) -> None:
    assert told in refused(rig_file("saw", (with_bin(CYCLONE, profile=profile),)))


@pytest.mark.parametrize(
    ("sight", "level", "told"),
    [
        ("clear", "ok", "through the wall"),
        ("window", "ok", "window"),
        ("lamp", "ok", "lamp"),
        ("opaque", "watch", "dip rod"),
    ],
)
def test_how_the_fill_is_read_is_told(sight: str, level: str, told: str) -> None:
    said = check(rig_file("saw", (with_bin(CYCLONE, sight=sight),)), "fill-seen")
    assert said is not None
    assert said["level"] == level
    assert told in said["text"]


@pytest.mark.parametrize("dust", ["saw", "planer", "metal-turnings", "mdf-sanding"])
def test_wood_and_light_metal_ahead_of_water_are_refused_as_the_lines_dust_and_as_a_ports(dust: str) -> None:
    assert "wood swells" in refused(rig_file(dust, (CYCLONE, WET)))
    document = rig_file(GRINDING, (CYCLONE, WET))
    assert refused(document) == ""
    document["line"]["branches"][0]["port"]["dust"] = dust
    assert "wood swells" in refused(document)
    assert level_of(document, "wet-dust") == "act"  # and one that is stored still opens


def test_wood_that_the_vacuum_last_held_ahead_of_water_is_to_act_on_until_it_is_emptied() -> None:
    held = rig_file(GRINDING, (CYCLONE, WET), last_held="saw")
    assert refused(held) == ""
    assert level_of(held, "wet-dust") == "act"
    emptied = rig_file(GRINDING, (CYCLONE, WET), last_held="saw", emptied=True)
    assert level_of(emptied, "wet-dust") in (None, "ok")


def test_a_job_of_the_shop_that_makes_wood_on_a_line_with_water_is_to_act_on_of_its_own() -> None:
    shop = demo_shop()
    job = shop.jobs[0]
    tool = next(tool for tool in shop.tools if tool.id == job.tool)
    document = rig_file(GRINDING, (CYCLONE, WET))
    document["line"]["branches"][0]["port"]["name"] = tool.ports[0].name
    wet, dry = read(document), read(rig_file(GRINDING, (CYCLONE,)))
    elsewhere = read(rig_file(GRINDING, (CYCLONE, WET)))  # its tool bears another name
    found = {check.id: check for check in reviewed(wet, shop)}
    assert int(found["wet-job"].level[0]) == 2
    assert found["wet-job"].about == (tool.dust, job.name)
    assert "wet-dust" not in found
    for rig, owned in ((wet, None), (dry, shop), (elsewhere, shop)):
        assert "wet-job" not in {check.id for check in reviewed(rig, owned)}
    grinds = shop.model_copy(update={"tools": tuple(one.model_copy(update={"dust": GRINDING}) for one in shop.tools)})
    assert "wet-job" not in {check.id for check in reviewed(wet, grinds)}


def test_water_rises_to_the_line_not_to_pass_and_to_the_outlet() -> None:
    levels = [
        level_of(rig_file(GRINDING, (CYCLONE, changed(WET, water_kg=kg))), "wet-overfull") for kg in (12, 20, 22, 25)
    ]
    assert levels == ["ok", "ok", "watch", "act"]  # a file with the last still opens; its field takes no such value


def test_the_fuller_the_vessel_the_less_it_may_lean() -> None:
    leans = [check(rig_file(GRINDING, (CYCLONE, changed(WET, water_kg=kg))), "wet-lean") for kg in (8, 14, 20, 24)]
    values = [said["value"] for said in leans if said is not None]
    assert len(values) == 4
    assert values == sorted(values, reverse=True)


@pytest.mark.parametrize("on", ["vacuum", "deck"])
def test_a_stack_without_a_height_is_refused_at_its_field(on: str) -> None:
    assert "stand.base_height_m: is missing" in refused(standing(stands_on=on))
    assert refused(standing(stands_on=on, base_height_m=0.6)) == ""


def test_a_stack_stands_higher_and_tips_sooner_unless_a_heavy_vacuum_holds_it() -> None:
    floor, deck = standing(headroom_m=3.0), standing(headroom_m=3.0, stands_on="deck", base_height_m=0.7)
    heights = [check(one, "headroom") for one in (floor, deck)]
    tips = [check(one, "tips") for one in (floor, deck)]
    assert heights[0] is not None
    assert heights[1] is not None
    assert tips[0] is not None
    assert tips[1] is not None
    assert heights[1]["limit"] - heights[0]["limit"] == pytest.approx(0.7)
    assert tips[1]["value"] < tips[0]["value"]
    light, heavy = (
        check(standing(stands_on="vacuum", base_height_m=0.6, vacuum_mass_kg=mass), "tips") for mass in (2.0, 25.0)
    )
    assert light is not None
    assert heavy is not None
    assert heavy["value"] > 2.0 * light["value"]


def test_the_legs_of_a_deck_leave_room_to_lift_the_vacuums_head() -> None:
    legs = {
        height: level_of(standing(stands_on="deck", base_height_m=height, vacuum_height_m=0.5, head_lift_m=0.2), "legs")
        for height in (0.45, 0.6, 0.7)
    }
    assert legs == {0.45: "act", 0.6: "watch", 0.7: "ok"}


def test_what_is_fixed_or_tied_does_not_tip() -> None:
    loose, fixed, tied = (standing(**keys) for keys in ({}, {"fixed": True}, {"tied": True}))
    assert level_of(loose, "tips") in ("watch", "act")
    assert level_of(fixed, "tips") in (None, "ok")
    assert level_of(tied, "tips") in (None, "ok")


def test_a_cart_goes_through_the_narrowest_door_and_over_the_highest_step_or_says_so() -> None:
    narrow, wide = (standing(wheels=True, doorway_m=door) for door in (0.3, 0.8))
    assert (level_of(narrow, "doorway"), level_of(wide, "doorway")) == ("act", "ok")
    small, large = (standing(wheels=True, step_m=0.03, wheel_d_m=wheel) for wheel in (0.05, 0.16))
    assert (level_of(small, "step"), level_of(large, "step")) == ("watch", "ok")
    assert level_of(standing(wheels=True), "rolls-apart") == "watch"
    assert level_of(standing(wheels=True, tied=True), "rolls-apart") in (None, "ok")


def test_a_bin_is_weighed_with_the_lid_that_it_has() -> None:
    thin, thick = (
        check(rig_file("saw", (with_bin(CYCLONE, lid={"material": "plywood", "thickness_m": lid}),)), "full-weight")
        for lid in (0.009, 0.018)
    )
    assert thin is not None
    assert thick is not None
    more = 650.0 * 3.141592653589793 * 0.16**2 * 0.009
    assert thick["value"] - thin["value"] == pytest.approx(more, rel=0.02)
    disc = {"stiffener_material": "plywood", "stiffener_m": 0.009}
    glued = check(
        rig_file("saw", (with_bin(CYCLONE, lid={"material": "plywood", "thickness_m": 0.009, **disc}),)), "full-weight"
    )
    assert glued is not None
    assert glued["value"] > thin["value"]


def test_a_build_in_one_body_refuses_no_link_but_says_that_there_is_none() -> None:
    build = changed(DISC, type="one-body", window_area_m2=0.002)
    document = rig_file("saw", (build,))
    assert document["line"]["elements"][-1] == LINK
    assert refused(document) == ""
    document["line"]["elements"] = [build]
    assert kept(document) > 0.9
