"""Where nothing can be judged it says so, and the cautions that belong to a thing stand beside it."""

from __future__ import annotations

from typing import Any

import pytest

from tests.ends.rigs import CYCLONE, HOOD, HOSE, changed, check, refused, rig_file, solved, with_bin


def level_of(document: dict[str, Any], name: str) -> str | None:
    """How a check stands; None where there is none."""
    said = check(document, name)
    return None if said is None else str(said["level"])


def test_a_hose_of_unknown_wall_is_not_judged_and_a_thin_plain_one_goes_flat() -> None:
    unknown = check(rig_file("saw"), "hose-not-judged")
    assert unknown is not None
    assert "not judged" in unknown["text"]
    levels = [level_of(rig_file("saw", hose=changed(HOSE, wall_m=wall)), "hose-flat") for wall in (1e-3, 4e-3, 6e-3)]
    assert levels == ["act", "watch", "ok"]
    near = check(rig_file("saw", hose=changed(HOSE, wall_m=4e-3)), "hose-flat")
    assert near is not None
    assert near["value"] > near["limit"]
    assert "shuts itself" not in near["text"]  # it stands, with little left
    helix = rig_file("saw", hose=changed(HOSE, wall="wire-helix", wall_m=1e-3))
    assert check(helix, "hose-flat") is None


@pytest.mark.parametrize(
    ("material", "said"), [("pp", "not judged"), ("mdf", "not judged"), ("hdpe", "cracks or buckles")]
)
def test_a_sheet_is_judged_where_something_is_known_of_it(material: str, said: str) -> None:
    document = rig_file("saw", (changed(CYCLONE, body_material=material, body_m=0.004),))
    texts = [one["text"] for one in solved(document)["checks"] if one["id"].startswith("sheet")]
    assert len(texts) == 1
    assert said in texts[0]


@pytest.mark.parametrize(("cold", "level"), [(-5.0, "watch"), (4.0, "watch"), (18.0, "ok")])
def test_plastic_is_brittle_in_the_cold(cold: float, level: str) -> None:
    document = rig_file("saw")
    document["site"] = {"temperature_c": cold}
    assert level_of(document, "brittle") == level
    steel = rig_file("saw", (with_bin(CYCLONE, material="steel", wall_m=0.0005),))
    steel["site"] = {"temperature_c": cold}
    assert check(steel, "brittle") is None


def test_solvents_and_static_are_cautions_of_what_one_sees_through() -> None:
    window = rig_file("saw", (with_bin(CYCLONE, sight="window", material="polycarbonate"),))
    assert level_of(window, "window-static") == "watch"
    assert level_of(window, "solvent") == "ok"
    earthed = rig_file("saw", (with_bin(CYCLONE, sight="window", material="polycarbonate"),))
    earthed["line"]["earthed"] = True
    assert level_of(earthed, "window-static") == "ok"
    assert check(rig_file("saw", (with_bin(CYCLONE, sight="opaque"),)), "window-static") is None
    assert check(rig_file("saw"), "solvent") is None  # HDPE minds none


def test_ash_takes_a_metal_bin_and_a_vacuum_that_held_nothing_that_burns() -> None:
    steel = with_bin(CYCLONE, material="steel", wall_m=0.0005)
    assert level_of(rig_file("ash"), "ash-bin") == "act"
    assert level_of(rig_file("ash", (steel,)), "ash-bin") in (None, "ok")
    assert level_of(rig_file("ash", (steel,), last_held="saw"), "last-held") == "act"
    assert level_of(rig_file("saw", (steel,), last_held="ash"), "last-held") == "act"
    assert refused(rig_file("embers")) != ""


@pytest.mark.parametrize("dust", ["asbestos", "lead", "masonry", "embers", "nothing-known"])
def test_what_must_not_be_taken_up_is_refused_with_its_key(dust: str) -> None:
    assert "dust.kind" in refused(rig_file(dust))


RISING = [
    {"flow_m3_s": 0.0, "suction_pa": 500},
    {"flow_m3_s": 0.1, "suction_pa": 700},
    {"flow_m3_s": 0.2, "suction_pa": 0},
]


def test_noise_is_not_judged_and_says_so() -> None:
    said = check(rig_file("saw"), "noise-not-judged")
    assert said is not None
    assert "ear protection" in said["text"]


def test_what_was_rewired_is_to_act_on_until_it_is_tested() -> None:
    levels = [
        level_of(rig_file("saw", wiring=wiring), "rewired") for wiring in ("as-made", "rewired", "rewired-tested")
    ]
    assert levels == [None, "act", "ok"]
    assert check(rig_file("saw"), "rewired") is None
    fan = {"flow_m3_s": 0.05, "wiring": "rewired"}
    at_the_hood = check(rig_file("saw", hood={**HOOD, "extra_fan": fan}), "rewired-fan", "tool")
    assert at_the_hood is not None
    assert at_the_hood["level"] == "act"
    assert "electrician" in at_the_hood["text"]
    assert "must be 'as-made'" in refused(rig_file("saw", wiring="by-me"))


def test_a_fan_curve_that_rises_is_refused_at_its_point() -> None:
    document = rig_file("saw")
    document["vacuum"]["curve"] = {"kind": "points", "points": RISING}
    assert "curve.points[1].suction_pa: must fall in suction as flow rises" in refused(document)
    fan = {**HOOD, "extra_fan": {"curve": {"kind": "points", "points": RISING}, "bore_m": 0.1}}
    assert "extra_fan.curve.points[1].suction_pa" in refused(rig_file("saw", hood=fan))


def test_a_fan_with_a_curve_moves_less_through_a_narrow_duct() -> None:
    curve = {"kind": "nameplate", "sealed_suction_pa": 400, "open_flow_m3_s": 0.2}
    far = {**HOOD, "release": "fast"}
    airborne = [
        solved(rig_file("mdf-sanding", hood={**far, "extra_fan": {"curve": curve, "bore_m": bore}}))["ports"][0][
            "capture"
        ]["airborne"]
        for bore in (0.06, 0.1, 0.15)
    ]
    assert airborne == sorted(airborne)
    assert airborne[-1] > airborne[0] + 0.02


def test_every_check_has_a_sentence_that_ends_and_a_level_that_is_known() -> None:
    for document in (rig_file("saw"), rig_file("ash"), rig_file("planer", hose=changed(HOSE, bore_m=0.1))):
        for one in solved(document)["checks"]:
            assert one["level"] in ("ok", "watch", "act")
            assert one["text"].rstrip(")").endswith(".")
            assert "{" not in one["text"]
