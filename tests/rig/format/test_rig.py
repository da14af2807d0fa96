"""Good rig files: kept as they are, described, and solved into the result contract."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.rig import Rig, check_rig, edit_rig, read_rig, write_rig
from fenwick.rig.format.describe import describe
from fenwick.rig.result import solve_rig


def test_a_rig_written_and_read_is_the_same_rig(rig: Rig) -> None:
    assert read_rig(write_rig(rig)) == rig


@given(st.floats(0.001, 1.0))
def test_any_bore_survives_the_file_to_the_last_bit(bore: float) -> None:
    from fenwick.data.demo import demo_rig

    changed = edit_rig(demo_rig(), {"line.elements[1].bore_m": bore})
    assert read_rig(write_rig(changed)).line.elements[1].bore_m == bore  # type: ignore[union-attr]


def test_a_file_with_a_byte_order_mark_and_whole_numbers_is_read(document: dict[str, Any]) -> None:
    document["line"]["branches"][0]["elements"][0]["length_m"] = 3
    assert read_rig(b"\xef\xbb\xbf" + json.dumps(document).encode()).name == document["name"]


def test_the_result_follows_the_contract(rig: Rig) -> None:
    result = solve_rig(rig)
    assert (result["format"], result["version"]) == ("fenwick-result", 1)
    assert set(result["vacuum"]) == {"flow_m3_s", "suction_pa", "mass_flow_kg_s"}
    (port,) = result["ports"]
    assert port["id"] == "drum-sander"
    assert port["open"] is True
    assert 0 < port["capture"]["total"] < 1
    stations = {station["element"]: station for station in result["stations"]}
    assert stations["hose-b"]["carrying"] == "settles"
    assert "carrying" not in stations["sep"]
    assert stations["hose-a"]["velocity_m_s"] > stations["hose-b"]["velocity_m_s"]
    (sep,) = result["separators"]
    assert sep["efficiency_low"] < sep["efficiency"] < sep["efficiency_high"]
    assert set(sep["models"]) == {"orbit"}
    assert sum(result["fate"].values()) == pytest.approx(1.0)
    assert {check["level"] for check in result["checks"]} <= {"ok", "watch", "act"}
    assert sum(s["loss_pa"] for s in result["stations"]) == pytest.approx(result["vacuum"]["suction_pa"], rel=0.02)


def test_what_cannot_be_known_is_absent(document: dict[str, Any]) -> None:
    del document["dust"]
    del document["line"]["branches"][0]["port"]["hood"]
    result = solve_rig(check_rig(document))
    assert "fate" not in result
    assert "capture" not in result["ports"][0]
    assert "efficiency" not in result["separators"][0]
    assert any("dust is not known" in warning for warning in result["warnings"])


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"line.branches[0].elements[0].bore_m": 0.001}, "Next to nothing flows"),
        ({"vacuum.curve.sealed_suction_pa": 1.0}, "The fan has no suction to speak of"),
        ({"line.branches[0].elements[0].roughness_m": 0.005}, "rougher for its bore"),
        ({"line.branches[0].elements[0].bends[0].radius_m": 0.01}, "it kinks"),
    ],
)
def test_a_hopeless_line_is_answered_with_a_warning(rig: Rig, changes: dict[str, Any], words: str) -> None:
    result = solve_rig(edit_rig(rig, changes))
    assert any(words in warning for warning in result["warnings"])


def test_a_wall_too_short_to_fold_has_no_folding_suction(rig: Rig) -> None:
    short = {"line.elements[0].bin.profile[1].height_m": 0.004, "line.elements[0].bin.fill_height_m": 0.0}
    result = solve_rig(edit_rig(rig, short))
    (check,) = [check for check in result["checks"] if check["id"] == "bin-collapse"]
    assert "value" not in check
    assert check["level"] == "ok"
    assert "too short to fold" in check["text"]


def test_a_shut_gate_and_a_missing_filter_are_said(document: dict[str, Any]) -> None:
    document["line"]["branches"][0]["gate"] = {"opening": 0}
    del document["vacuum"]["filter"]
    result = solve_rig(check_rig(document))
    assert result["ports"][0]["open"] is False
    assert "fate" not in result
    assert any("gate at Drum sander is shut" in warning for warning in result["warnings"])
    assert any("No filter and no bag" in warning for warning in result["warnings"])


def test_the_models_describe_their_own_fields(document: dict[str, Any]) -> None:
    bore = describe(Rig, "line.branches[0].elements[0].bore_m", document)
    assert bore is not None
    assert (bore.title, bore.quantity, bore.choices, bore.optional) == ("Bore", "bore", (), False)
    leak = describe(Rig, "line.elements[0].bin.leak_area_m2", document)
    assert leak is not None
    assert (leak.quantity, leak.optional) == ("gap", True)
    assert describe(Rig, "line.elements[0].nonsense", document) is None
