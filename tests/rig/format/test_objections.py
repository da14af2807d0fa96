"""What is refused of new values, and opens all the same where it was stored before."""

from __future__ import annotations

from typing import Any

import pytest

from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line, check_rig, edit_rig, read_from_outside, write_rig
from fenwick.rig.format.objections import objections
from fenwick.rig.result import solve_rig


@pytest.fixture
def document() -> dict[str, Any]:
    """The demo's line with a cyclone."""
    found: dict[str, Any] = demo_rig("demo_cyclone").model_dump(mode="json")
    return found


def with_wet(document: dict[str, Any], port_dust: str | None, water: float = 5.0) -> Rig:
    """It grinds steel, behind a wet stage; its port may make another dust."""
    document["dust"] = {"kind": "steel-grinding"}
    document["line"]["branches"][0]["port"]["dust"] = port_dust
    stage = {"id": "wet", "kind": "wet-stage", "throat_d_m": 0.03, "immersion_m": 0.03, "vessel_d_m": 0.3,
             "water_kg": water, "outlet_height_m": 0.4}  # fmt: skip
    document["line"]["elements"].insert(1, stage)
    return check_rig(document)


def checks(rig: Rig) -> dict[str, str]:
    """Levels of its checks by name."""
    return {check["id"]: check["level"] for check in solve_rig(rig)["checks"]}


def test_wood_ahead_of_water_opens_where_it_was_stored_and_is_not_brought_in(document: dict[str, Any]) -> None:
    rig = with_wet(document, "saw")
    assert checks(rig)["wet-dust"] == "act"
    with pytest.raises(RigError) as refused:
        read_from_outside(write_rig(rig))
    assert refused.value.problems[0].path == "line.branches[0].port.dust"
    other = edit_rig(rig, {"name": "Renamed"})  # it can be changed all the same
    assert edit_rig(other, {"line.branches[0].port.dust": None}).line.branches[0].port is not None


def test_wood_is_refused_at_the_field_of_a_port_before_a_wet_stage(document: dict[str, Any]) -> None:
    rig = with_wet(document, None)
    for dust in ("saw", "planer", "mdf-routing"):
        with pytest.raises(RigError) as refused:
            edit_rig(rig, {"line.branches[0].port.dust": dust})
        assert "wet stage" in refused.value.problems[0].rule
    assert edit_rig(rig, {"line.branches[0].port.dust": "fibre-composite"})


def test_water_stays_below_the_outlet(document: dict[str, Any]) -> None:
    rig = with_wet(document, None)
    with pytest.raises(RigError) as refused:
        edit_rig(rig, {"line.elements[1].water_kg": 40.0})
    assert refused.value.problems[0].path == "line.elements[1].water_kg"
    assert "outlet" in refused.value.problems[0].sentence("metric")
    full = with_wet(demo_rig("demo_cyclone").model_dump(mode="json"), None, water=40.0)
    assert checks(full)["wet-overfull"] == "act"


def test_a_tube_wider_than_its_cone_is_told_and_not_made_anew(document: dict[str, Any]) -> None:
    sep = next(part for part in document["line"]["elements"] if part["kind"] == "separator")
    assert sep["type"] == "cyclone"
    at = document["line"]["elements"].index(sep)
    sep["outlet_d_m"] = round(0.7 * sep["body_d_m"], 4)
    sound = check_rig(document)
    assert objections(sound) == ()
    assert checks(sound)["tube-in-cone"] == "ok"
    deep = sep["total_height_m"] - 0.01
    with pytest.raises(RigError) as refused:
        edit_rig(sound, {f"line.elements[{at}].outlet_length_m": deep})
    assert refused.value.problems[0].path == f"line.elements[{at}].outlet_length_m"
    sep["outlet_length_m"] = deep
    stored = check_rig(document)
    assert checks(stored)["tube-in-cone"] == "act"
    assert edit_rig(stored, {"name": "Renamed"}).name == "Renamed"


PROFILE = "line.elements[0].bin.profile"


@pytest.mark.parametrize(
    ("profile", "path"),
    [
        ([{"height_m": 0.0, "d_m": 0.3}, {"height_m": 0.4, "width_m": 0.3, "depth_m": 0.4}], "profile[1].d_m"),
        ([{"height_m": 0.0, "width_m": 0.3, "depth_m": 0.3}, {"height_m": 0.4, "d_m": 0.4}], "profile[1].width_m"),
        ([{"height_m": 0.0, "width_m": 0.3}, {"height_m": 0.4, "width_m": 0.4}], "profile[0].depth_m"),
        ([{"height_m": 0.0}, {"height_m": 0.4, "d_m": 0.4}], "profile[0].d_m"),
        ([{"height_m": 0.0, "d_m": 0.3, "width_m": 0.3}, {"height_m": 0.4, "d_m": 0.4}], "profile[0].width_m"),
    ],
)
def test_a_bin_is_round_or_it_is_not(profile: list[dict[str, float]], path: str) -> None:
    document = demo_rig().model_dump(mode="json")
    document["line"]["elements"][0]["bin"]["profile"] = profile
    with pytest.raises(RigError) as refused:
        check_rig(document)
    assert refused.value.problems[0].path.endswith(path)


def test_a_rectangular_bin_solves_and_survives_its_file() -> None:
    document = demo_rig().model_dump(mode="json")
    bin_ = document["line"]["elements"][0]["bin"]
    bin_["profile"] = [
        {"height_m": 0.0, "width_m": 0.4, "depth_m": 0.5},
        {"height_m": 0.5, "width_m": 0.44, "depth_m": 0.54},
    ]
    rig = check_rig(document)
    assert check_rig(rig.model_dump(mode="json")) == rig
    result = solve_rig(rig)
    assert 0.0 < result["separators"][0]["efficiency"] < 1.0
    assert "wall-not-judged" in {check["id"] for check in result["checks"]}
    assert build_line(rig).separators[0].bin.widest == 0.54


@pytest.mark.parametrize(
    ("key", "value", "where"),
    [
        ("stand", {"stands_on": "deck"}, "stand.base_height_m"),
        ("tilt_deg", 91.0, "tilt_deg"),
        ("inlet_style", "sideways", "inlet_style"),
        ("elbow_reach_m", 0.05, "elbow_reach_m"),
        ("price_to", 20.0, "price_to"),
    ],
)
def test_what_cannot_be_is_refused_at_its_key(key: str, value: object, where: str) -> None:
    document = demo_rig().model_dump(mode="json")
    sep = document["line"]["elements"][0]
    sep["price"] = None if key == "price_to" else sep["price"]
    sep[key] = value
    with pytest.raises(RigError) as refused:
        check_rig(document)
    assert refused.value.problems[0].path == f"line.elements[0].{where}"


def test_ninety_degrees_are_a_lean_and_keep_little() -> None:
    document = demo_rig().model_dump(mode="json")
    document["line"]["elements"][0]["tilt_deg"] = 90.0
    assert solve_rig(check_rig(document))["separators"][0]["efficiency"] == pytest.approx(0.0, abs=1e-9)


@pytest.mark.parametrize(
    ("fan", "where"),
    [
        ({}, "flow_m3_s"),
        ({"flow_m3_s": 0.1, "curve": {"kind": "nameplate", "sealed_suction_pa": 300.0, "open_flow_m3_s": 0.2}},
         "flow_m3_s"),
        ({"curve": {"kind": "points", "points": [{"flow_m3_s": 0.0, "suction_pa": 100.0},
                                                 {"flow_m3_s": 0.1, "suction_pa": 200.0},
                                                 {"flow_m3_s": 0.2, "suction_pa": 50.0}]}},
         "curve.points[1].suction_pa"),
    ],
)  # fmt: skip
def test_an_extra_fan_has_a_flow_or_a_curve_that_falls(fan: dict[str, Any], where: str) -> None:
    document = demo_rig().model_dump(mode="json")
    document["line"]["branches"][0]["port"]["hood"]["extra_fan"] = fan
    with pytest.raises(RigError) as refused:
        check_rig(document)
    assert refused.value.problems[0].path.endswith(f"extra_fan.{where}")


def test_every_level_of_a_check_has_a_word() -> None:
    assert set(checks(demo_rig()).values()) <= set(LEVEL_WORDS)
