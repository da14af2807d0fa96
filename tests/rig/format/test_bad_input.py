"""Bad rig files: refused in one sentence that names the key and the rule, never with a traceback."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.rig import RigError, check_rig, read_rig
from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import split_path

HOSE = "line.branches[0].elements[0]"


def put(document: Any, path: str, value: Any) -> None:
    """Set a value in a parsed file; the key may be new, and odd."""
    if "[" in path.replace("[0]", "").replace("[1]", "") or path.count("]") != path.count("["):
        document["vacuum"][path.removeprefix("vacuum.")] = value
        return
    *way, last = split_path(path)
    for item in way:
        document = document[item]
    document[last] = value


@pytest.mark.parametrize(
    ("path", "value", "message"),
    [
        (f"{HOSE}.bore_m", -0.038, f"{HOSE}.bore_m: must be at least 0.001 m (got -0.038 m)"),
        (f"{HOSE}.bore_m", 0, "must be at least 0.001 m (got 0 m)"),
        (f"{HOSE}.length_m", -1.0, f"{HOSE}.length_m: must be above 0 m (got -1 m)"),
        (f"{HOSE}.length_m", 1e12, "must be at most 200 m (got 1e+12 m)"),
        (f"{HOSE}.bore_m", "wide", f"{HOSE}.bore_m: must be a number in m (got “wide”)"),
        (f"{HOSE}.bore_m", True, "must be a number in m (got true)"),
        (f"{HOSE}.bore_m", None, f"{HOSE}.bore_m: must be a number in m"),
        (f"{HOSE}.bore_m", 10**400, "must be a number in m (got a number far too large)"),
        (f"{HOSE}.wall", "furry", f"{HOSE}.wall: must be 'smooth', 'light-rib'"),
        (f"{HOSE}.kind", "teleporter", f"{HOSE}.kind: must be one of 'hose', 'reducer'"),
        (f"{HOSE}.colour", "red", f"{HOSE}.colour: is not a key of the rig format"),
        ("vacuum.[", 1, "vacuum.[: is not a key of the rig format"),
        ("vacuum.a]b", 1, "is not a key of the rig format"),
        (f"{HOSE}.id", "sep", f"{HOSE}.id: “sep” is taken"),
        (f"{HOSE}.id", "a b", "has characters that are not allowed here"),
        ("vacuum.curve.sealed_suction_pa", 0, "vacuum.curve.sealed_suction_pa: must be above 0 Pa (got 0 Pa)"),
        (
            "vacuum.curve.air_watts",
            2000.0,
            "vacuum.curve.air_watts: are too high for this sealed suction and open flow",
        ),
        ("vacuum.curve.kind", "guess", "vacuum.curve.kind: must be one of 'nameplate', 'points', 'holes'"),
        ("version", 2, "version: is newer than this Fenwick reads (1)"),
        ("version", "1", "version: must be 1"),
        ("format", "other", "format: must be “fenwick-rig”"),
        ("dust.kind", "silica", "dust.kind: silica-bearing masonry dust is not for this equipment"),
        ("dust.kind", "flour", "dust.kind: must be one of planer, saw"),
        ("line.branches", [], "line.branches: needs at least 1 of them"),
        ("line.branches[0].port", None, "line.branches[0].port: is missing: a branch has either a port or branches"),
        ("line.branches[0].id", "junction", "“junction” is taken"),
        ("line.elements", {}, "line.elements: must be a list in brackets (got an object)"),
        (
            "line.elements[0].inlet_bore_m",
            0.13,
            "line.elements[0].inlet_bore_m: must fit the chamber's height, at most 0.12 m",
        ),
        ("line.elements[0].outlet_d_m", 0.5, "line.elements[0].outlet_d_m: must be narrower than the chamber"),
        ("line.elements[0].slots[0].arc_deg", 400.0, "line.elements[0].slots[0].arc_deg: must be at most 360 °"),
        (
            "line.elements[0].bin.fill_height_m",
            0.5,
            "line.elements[0].bin.fill_height_m: must not be above the bin's rim",
        ),
        ("line.elements[0].bin.profile[1].height_m", 0.0, "profile[1].height_m: must be above the height before it"),
        ("site.temperature_c", 99.0, "site.temperature_c: must be at most 60 °C (got 99 °C)"),
        ("name", "", "name: must not be empty"),
        ("name", "a\nb", "name: has characters that are not allowed here"),
    ],
)
def test_one_wrong_key_is_named_with_its_rule(document: dict[str, Any], path: str, value: Any, message: str) -> None:
    put(document, path, value)
    with pytest.raises(RigError) as caught:
        check_rig(document)
    assert message in str(caught.value)
    assert len(caught.value.problems) == 1


@pytest.mark.parametrize("key", ["vacuum", "line", "version"])
def test_a_missing_part_is_named(document: dict[str, Any], key: str) -> None:
    del document[key]
    with pytest.raises(RigError, match=f"{key}: is missing"):
        check_rig(document)


@pytest.mark.parametrize(
    ("raw", "message"),
    [
        (b"", "the file is empty"),
        (b"  \n", "the file is empty"),
        (b"[1, 2]", "the file holds a list; a rig file is one JSON object"),
        (b"3", "a rig file is one JSON object"),
        (b"{", "the file is not JSON: line 1, column 2"),
        (b"hello", "the file is not JSON"),
        (b'{"a": NaN}', "NaN is not a number"),
        (b'{"a": -Infinity}', "-Infinity is not a number"),
        (b'{"a": 1, "a": 2}', "the key “a” stands twice in one object"),
        (b"\xff\xfe{}", "not text in UTF-8"),
        (b"[" * 100_000, "nested too deeply"),
        (b'{"a": ' + b"9" * 5000 + b"}", "a number far too long"),
        (b" " * 1_000_001, "the file is 1.0 MB; a rig file is at most 1 MB"),
        (b"{}", "format: is missing"),
    ],
)
def test_what_is_no_rig_file_is_refused(raw: bytes, message: str) -> None:
    with pytest.raises(RigError) as caught:
        read_rig(raw)
    assert message in str(caught.value)


def test_every_problem_is_listed_and_the_first_is_shown(document: dict[str, Any]) -> None:
    put(document, f"{HOSE}.bore_m", -1.0)
    put(document, f"{HOSE}.length_m", "long")
    with pytest.raises(RigError, match=r"bore_m: .* \(and 1 more\)") as caught:
        check_rig(document)
    assert [problem.path for problem in caught.value.problems] == [f"{HOSE}.bore_m", f"{HOSE}.length_m"]


def test_an_infinite_number_in_parsed_data_is_refused(document: dict[str, Any]) -> None:
    put(document, f"{HOSE}.length_m", float("inf"))
    with pytest.raises(RigError, match="length_m"):
        check_rig(document)


def test_problems_speak_the_user_units(document: dict[str, Any]) -> None:
    put(document, f"{HOSE}.bore_m", 5.0)
    with pytest.raises(RigError) as caught:
        check_rig(document)
    problem = caught.value.problems[0]
    assert problem.sentence("metric") == "must be at most 1000 mm (got 5000 mm)"
    assert problem.sentence("inch") == "must be at most 39.3701 in (got 196.8504 in)"


def test_an_edit_that_breaks_a_rule_or_has_no_place_is_refused(rig: Rig) -> None:
    with pytest.raises(RigError, match="must fit the chamber's height"):
        edit_rig(rig, {"line.elements[0].inlet_bore_m": 0.2})
    with pytest.raises(RigError, match="is not part of this line"):
        edit_rig(rig, {"line.elements[9].bore_m": 0.2})


@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(max_size=8),
        lambda c: st.lists(c, max_size=3) | st.dictionaries(st.text(max_size=8), c, max_size=3),
    )
)
def test_no_json_value_breaks_the_reader(value: Any) -> None:
    raw = json.dumps({"format": "fenwick-rig", "version": 1, "vacuum": value, "line": value}).encode()
    with pytest.raises(RigError) as caught:
        read_rig(raw)
    assert str(caught.value)
