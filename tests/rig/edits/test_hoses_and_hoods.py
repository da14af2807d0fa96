"""A hose laid as the floor plan has it, and what could be done at a hood: each a rig that solves, no gain made up."""

from __future__ import annotations

from math import pi
from typing import Any

import pytest

from fenwick.core.judging.assess import assess
from fenwick.core.search.whatif import TOLD_KEPT
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line, check_rig, read_rig, write_rig
from fenwick.rig.edits.hood_options import hood_options
from fenwick.rig.edits.routes import LEAST_HOSE, lay_hose, route_length
from fenwick.rig.format.elements import HosePart

TOOL = "drum-sander"
STILL = {"release": "slow", "thrown_share": 0.2, "rebound": False}


def own_hoses(rig: Rig, tool: str = TOOL) -> list[HosePart]:
    """Of the tool's own branch."""
    way = next(way for way in rig.line.ways if way[0].id == tool)
    return [part for part in way[0].elements if isinstance(part, HosePart)]


@pytest.mark.parametrize("length", [4.0, 6.5, 12.0])
def test_hoses_are_as_long_in_all_as_the_route(rig: Rig, length: float) -> None:
    laid = lay_hose(rig, TOOL, length, (pi / 2, pi / 4))
    assert route_length(laid, TOOL) == pytest.approx(length, abs=0.01)
    longest = max(own_hoses(rig), key=lambda hose: hose.length_m).id
    (changed,) = [hose for hose in own_hoses(laid) if hose.id == longest]
    assert [bend.angle_deg for bend in changed.bends] == [90.0, 45.0]


def test_the_longest_takes_up_the_difference_and_the_others_stay(rig: Rig) -> None:
    before = {hose.id: hose.length_m for hose in own_hoses(rig)}
    longest = max(before, key=lambda name: before[name])
    after = {hose.id: hose.length_m for hose in own_hoses(lay_hose(rig, TOOL, 9.0, ()))}
    assert {name for name in before if before[name] != after[name]} == {longest}


def test_a_route_shorter_than_the_other_hoses_leaves_a_stub(rig: Rig) -> None:
    laid = lay_hose(rig, TOOL, 0.1, ())
    assert min(hose.length_m for hose in own_hoses(laid)) == LEAST_HOSE


def test_a_longer_route_moves_less_air(rig: Rig) -> None:
    flows = [assess(build_line(lay_hose(rig, TOOL, length, ()))).point.port_flow[0, 0] for length in (4.0, 8.0, 16.0)]
    assert flows == sorted(flows, reverse=True)


def test_a_tool_that_is_not_there_or_has_no_hose_is_said(rig: Rig, document: dict[str, Any]) -> None:
    with pytest.raises(RigError, match="no tool of this line"):
        lay_hose(rig, "lathe", 3.0, ())
    branch = document["line"]["branches"][0]
    branch["elements"] = [part for part in branch["elements"] if part["kind"] != "hose"]
    with pytest.raises(RigError, match="no hose of its own"):
        lay_hose(check_rig(document), TOOL, 3.0, ())


def with_hood(document: dict[str, Any], hood: dict[str, Any], entry: str = "plain") -> Rig:
    """The demo line with another hood."""
    document["line"]["branches"][0]["port"] |= {"hood": hood, "entry": entry}
    return check_rig(document)


HOODS = {
    "opening": {"kind": "opening", "distance_m": 0.15, **STILL},
    "slot": {"kind": "slot", "distance_m": 0.1, "length_m": 0.4, "width_m": 0.03, "flanged": False, **STILL},
    "built-in": {"kind": "built-in", "distance_m": 0.05, **STILL},
    "enclosure": {"kind": "enclosure", "openings": [{"name": "Top", "area_m2": 0.05, "share": 1.0}], **STILL},
    "floor": {"kind": "floor", "width_m": 0.3, "gap_m": 0.005, **STILL},
}


@pytest.mark.parametrize("kind", sorted(HOODS))
def test_every_option_is_a_rig_that_comes_to_what_it_says(document: dict[str, Any], kind: str) -> None:
    rig = with_hood(document, HOODS[kind])
    found = assess(build_line(rig))
    assert found.fate is not None
    before = float(found.fate.room_air[0] + found.fate.floor[0])
    for option in hood_options(rig, TOOL, found):
        made = assess(build_line(option.rig)).fate
        assert made is not None
        assert option.gain == pytest.approx(before - float(made.room_air[0] + made.floor[0]))
        assert option.in_bin == pytest.approx(float(made.bin[0]))
        assert option.id == "outdoors" or option.gain > TOLD_KEPT
        assert read_rig(write_rig(option.rig)) == option.rig


@pytest.mark.parametrize("kind", sorted(HOODS))
def test_what_gains_most_comes_first_and_going_outdoors_last(document: dict[str, Any], kind: str) -> None:
    rig = with_hood(document, HOODS[kind])
    options = hood_options(rig, TOOL, assess(build_line(rig)))
    indoors = [option.gain for option in options if option.id != "outdoors"]
    assert indoors == sorted(indoors, reverse=True)
    assert all(option.id == "outdoors" for option in options[len(indoors) :])


def test_a_flange_is_offered_to_a_plain_port_alone(document: dict[str, Any]) -> None:
    def offered(entry: str) -> set[str]:
        rig = with_hood(document, {**HOODS["opening"], "distance_m": 0.08}, entry)
        return {option.id for option in hood_options(rig, TOOL, assess(build_line(rig)))}

    assert "flange" in offered("plain")
    assert "flange" not in offered("flanged")
    assert "flange" not in offered("bellmouth")


def test_a_box_is_closed_in_further_and_an_open_port_put_in_one(document: dict[str, Any]) -> None:
    closed = with_hood(document, HOODS["enclosure"])
    named = {option.id for option in hood_options(closed, TOOL, assess(build_line(closed)))}
    assert "box" not in named
    open_ = with_hood(document, HOODS["opening"])
    named = {option.id for option in hood_options(open_, TOOL, assess(build_line(open_)))}
    assert "box" in named
    assert "close-in" not in named


def test_outdoors_nobody_is_sent_outdoors(document: dict[str, Any]) -> None:
    document["line"]["branches"][0]["port"]["outdoors"] = True
    rig = check_rig(document)
    assert "outdoors" not in {option.id for option in hood_options(rig, TOOL, assess(build_line(rig)))}


@pytest.mark.parametrize("name", ["demo_line", "demo_bench", "demo_cyclone"])
def test_every_demo_tool_has_options_that_solve(name: str) -> None:
    rig = demo_rig(name)
    found = assess(build_line(rig))
    for way in rig.line.ways:
        for option in hood_options(rig, way[0].id, found):
            assert assess(build_line(option.rig)).point.mass_flow[0] > 0.0
