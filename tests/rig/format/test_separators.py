"""Separators in the rig file: every kind read, exchanged, solved and refused by the key that is wrong."""

from typing import Any

import pytest

from fenwick.rig import Rig, RigError, build_line, check_rig, edit_rig, read_rig, write_rig
from fenwick.rig.edits.kinds import KINDS, change_kind, kind_of
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.result import solve_rig


def separator(rig: Rig) -> SeparatorPart:
    """The demo's separator."""
    found = next(e for e in rig.line.elements if e.id == "sep")
    assert isinstance(found, SeparatorPart)
    return found


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_stands_on_the_same_bin_solves_and_survives_its_file(rig: Rig, kind: str) -> None:
    changed = change_kind(rig, "sep", kind)
    assert kind_of(separator(changed)) == kind
    assert separator(changed).bin == separator(rig).bin
    assert read_rig(write_rig(changed)) == changed
    result = solve_rig(changed)
    (one,) = result["separators"]
    assert 0.0 <= one["efficiency_low"] <= one["efficiency"] <= one["efficiency_high"] <= 1.0
    assert one["models"]["orbit"]["cut_size_m"] == one["cut_size_m"]
    assert len(one["models"]) == (4 if kind == "cyclone" else 1)
    assert sum(result["fate"].values()) == pytest.approx(1.0)


def test_a_kind_begins_with_the_hose_that_is_there(rig: Rig) -> None:
    cyclone = separator(change_kind(rig, "sep", "cyclone"))
    height, width = cyclone.inlet
    assert height * width == pytest.approx(3.14159 / 4 * 0.050**2, rel=0.03)
    back = separator(change_kind(change_kind(rig, "sep", "cyclone"), "sep", "rim-inlet"))
    assert back.inlet[0] == pytest.approx(0.050, rel=0.02)
    with pytest.raises(RigError, match="no kind of separator"):
        change_kind(rig, "sep", "bagpipe")


def test_a_round_inlet_is_the_square_of_equal_area(rig: Rig) -> None:
    changed = change_kind(rig, "sep", "cyclone")
    round_one = edit_rig(
        changed,
        {f"line.elements[0].inlet_{key}": value for key, value in
         (("height_m", None), ("width_m", None), ("bore_m", 0.05))},
    )  # fmt: skip
    (stage,) = build_line(round_one).separators
    assert stage.hose_bore == pytest.approx(0.05)
    assert stage.geometry.inlet_height == pytest.approx(stage.geometry.inlet_width)


BAD: list[tuple[str, dict[str, Any], str]] = [
    ("cyclone", {"outlet_d_m": 0.5}, "outlet_d_m: must be narrower than the body, at most"),
    ("cyclone", {"outlet_length_m": 2.0}, "outlet_length_m: must be shorter than the cyclone is high, at most"),
    ("cyclone", {"cylinder_height_m": 2.9}, "cylinder_height_m: must not be above the whole height"),
    ("cyclone", {"dust_outlet_d_m": 0.9}, "dust_outlet_d_m: must not be wider than the body"),
    ("cyclone", {"inlet_width_m": 0.2}, "inlet_width_m: must not reach past the body's centre, where the outlet is"),
    ("cyclone", {"inlet_height_m": 0.9}, "inlet_height_m: must fit the cylinder's height"),
    ("cyclone", {"inlet_height_m": None}, "inlet_height_m: is missing: an inlet has a height and a width"),
    ("cyclone", {"inlet_bore_m": 0.05}, "inlet_bore_m: must be left out where the inlet's height and width are given"),
    ("cyclone", {"finish": "gilded"}, "finish: must be 'smooth' or 'shop-built'"),
    ("cyclone", {"slots": []}, "slots: is not a key of the rig format"),
    ("slotted-disc", {"slots": [{"width_m": 0.3, "arc_deg": 90}]}, "slots[0].width_m: must be less than the chamber's"),
    ("hung-disc", {"chamber_d_m": 0.4}, "chamber_d_m: must fit the bin where the disc hangs, 120 mm below the rim"),
    ("hung-disc", {"chamber_height_m": 0.42}, "chamber_height_m: must leave the disc above the bin's floor"),
    ("elbow-lid", {"outlet_length_m": 0.6}, "outlet_length_m: must end above the bin's floor"),
    ("elbow-lid", {"outlet_aim": "up"}, "outlet_aim: must be 'opposed' or 'centre'"),
    ("rim-inlet", {"inlet_bore_m": 0.25}, "inlet_bore_m: must not reach past the bin's centre"),
    ("cyclone", {"type": "windmill"}, "type: must be one of 'cyclone', 'slotted-disc'"),
]


@pytest.mark.parametrize(("kind", "changes", "message"), BAD, ids=[f"{kind}-{rule[:22]}" for kind, _, rule in BAD])
def test_what_does_not_fit_is_named_with_its_rule(rig: Rig, kind: str, changes: dict[str, Any], message: str) -> None:
    document = change_kind(rig, "sep", kind).model_dump(mode="json")
    document["line"]["elements"][0].update(changes)
    with pytest.raises(RigError) as caught:
        check_rig(document)
    assert f"line.elements[0].{message}" in str(caught.value)


WET = {"id": "wet", "kind": "wet-stage", "throat_d_m": 0.03, "immersion_m": 0.03, "vessel_d_m": 0.3, "water_kg": 5.0}


def test_a_wet_stage_takes_no_wood_and_no_light_metal(document: dict[str, Any]) -> None:
    document["line"]["elements"].insert(1, dict(WET))
    with pytest.raises(RigError, match=r"line\.elements\[1\]\.kind: a wet stage is not for sanding dust P120: wood"):
        check_rig(document)
    document["dust"]["kind"] = "aluminium"
    with pytest.raises(RigError, match=r"dust\.kind: dust of light metal is not for this equipment: it burns"):
        check_rig(document)
    document["dust"]["kind"] = "steel-grinding"
    result = solve_rig(check_rig(document))
    assert result["fate"]["wet"] > 0.0
    assert sum(result["fate"].values()) == pytest.approx(1.0)
    assert [one["id"] for one in result["separators"]] == ["sep", "wet"]


def test_swapped_hoses_travel_in_the_file(rig: Rig) -> None:
    swapped = edit_rig(rig, {"line.elements[0].hoses_swapped": True})
    assert read_rig(write_rig(swapped)) == swapped
    assert "swapped-hoses" in {check["id"] for check in solve_rig(swapped)["checks"]}
