"""Chips that are thrown arrive; what floats counts every fan; a bed behind the port is the run's matter."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.ends.rigs import HOOD, HOSE, captured, changed, check, rig_file, solved

THROWN = {"kind": "opening", "distance_m": 0.06, "release": "fast", "thrown_share": 0.9}


def at_the_machine(
    bore: float = 0.1, hose: float = 0.1, dust: str = "planer", open_flow: float = 0.062, **hood: Any
) -> dict[str, Any]:
    """A machine that throws its chips at a mouth, on a run as wide."""
    document = rig_file(
        dust, hose=changed(HOSE, bore_m=hose), hood={**THROWN, **hood}, port_bore=bore, rate=1e-3, open_flow=open_flow
    )
    document["line"]["branches"][0]["port"]["machine"] = "planer"
    return document


@pytest.mark.parametrize("open_flow", [0.034, 0.05, 0.08])
@pytest.mark.parametrize(("dust", "aimed"), [("planer", 0.9), ("saw", 0.7), ("planer", 0.6)])
def test_most_of_what_is_aimed_at_a_wide_port_arrives(dust: str, aimed: float, open_flow: float) -> None:
    document = at_the_machine(dust=dust, thrown_share=aimed, open_flow=open_flow)
    port = solved(document)["ports"][0]
    assert 0.03 < port["flow_m3_s"] < 0.06
    assert port["capture"]["thrown"] > 0.95 * aimed
    assert port["capture"]["total"] > 0.85 * aimed


def test_two_bores_that_are_nearly_alike_catch_nearly_alike() -> None:
    narrow, wide = (captured(at_the_machine(bore, bore))["total"] for bore in (0.073, 0.08))
    assert abs(narrow - wide) < 0.03


def test_a_wide_port_on_a_narrow_hose_still_gets_its_chips_and_has_no_bed() -> None:
    document = at_the_machine(0.1, 0.035)
    assert captured(document)["total"] > 0.8
    hose = next(one for one in solved(document)["stations"] if one["element"] == "hose")
    assert hose["carrying"] == "carries"
    assert hose.get("bed_m3", 0.0) == 0.0


def test_a_share_that_belongs_to_another_mouth_falls_with_the_bore_and_without_a_step() -> None:
    totals = [captured(at_the_machine(bore, bore, thrown_bore_m=0.1))["total"] for bore in (0.04, 0.06, 0.08, 0.0999)]
    assert totals == sorted(totals)
    own = captured(at_the_machine(0.1, 0.1, thrown_bore_m=0.1))["total"]
    assert own == pytest.approx(totals[-1], abs=2e-3)
    assert own == pytest.approx(captured(at_the_machine())["total"], rel=1e-9)


@given(st.floats(0.03, 0.2), st.floats(1.02, 1.6))
@settings(max_examples=12)
def test_what_is_caught_falls_with_distance_and_rises_with_the_flow(distance: float, more: float) -> None:
    near, far = (captured(rig_file(hood={**HOOD, "distance_m": d})) for d in (distance, distance * more))
    assert far["total"] <= near["total"] + 1e-9
    weak, strong = (captured(rig_file(hood={**HOOD, "distance_m": distance}, open_flow=q)) for q in (0.04, 0.04 * more))
    assert strong["total"] >= weak["total"] - 1e-9
    assert strong["airborne"] >= weak["airborne"] - 1e-9


@given(st.floats(0.03, 0.15), st.floats(1e-4, 2e-3))
@settings(max_examples=12)
def test_nothing_jumps_with_the_bore(bore: float, step: float) -> None:
    one, other = (captured(at_the_machine(b, b))["total"] for b in (bore, bore + step))
    assert abs(one - other) < 0.03


@pytest.mark.parametrize("flow", [0.01, 0.03, 0.1])
def test_an_extra_fan_only_ever_adds_to_what_is_caught(flow: float) -> None:
    alone, helped = (captured(at_the_machine(**keys)) for keys in ({}, {"extra_fan": {"flow_m3_s": flow}}))
    assert helped["total"] > alone["total"]
    assert helped["airborne"] > alone["airborne"]
    assert helped["thrown"] >= alone["thrown"] - 1e-4


def test_what_an_extra_fan_without_a_filter_blows_out_is_its_own_and_never_the_vacuums() -> None:
    alone, bare, filtered = (
        solved(at_the_machine(dust="mdf-sanding", thrown_share=0.3, **keys))["fate"]
        for keys in (
            {},
            {"extra_fan": {"flow_m3_s": 0.08}},
            {"extra_fan": {"flow_m3_s": 0.08, "medium": "hepa", "area_m2": 1.0}},
        )
    )
    assert bare["extra_exhaust"] > 0.1
    assert "extra_exhaust" not in alone
    assert filtered.get("extra_exhaust", 0.0) < 0.01 * bare["extra_exhaust"]
    assert filtered["extra"] == pytest.approx(bare["extra_exhaust"], rel=0.01)
    assert bare["exhaust"] <= alone["exhaust"] * 1.2  # the vacuum gets no more than before
    for fate in (alone, bare, filtered):
        assert sum(fate.values()) == pytest.approx(1.0, abs=1e-9)


def test_the_motor_of_an_extra_fan_in_dusty_air_is_a_check() -> None:
    inside, outside = (
        at_the_machine(extra_fan={"flow_m3_s": 0.05, "motor": where}) for where in ("in-the-air", "outside")
    )
    said = check(inside, "fan-motor")
    assert said is not None
    assert said["level"] == "act"
    assert (check(outside, "fan-motor") or {"level": "ok"})["level"] == "ok"


def test_a_bed_is_told_beside_the_clean_line_and_changes_none_of_its_figures() -> None:
    document = at_the_machine()
    result = solved(document)
    hose = next(one for one in result["stations"] if one["element"] == "hose")
    assert hose["carrying"] == "settles"
    assert 0.3 < hose["bed_share"] <= 0.9
    area = 3.141592653589793 * 0.1**2 / 4
    assert hose["bed_m3"] == pytest.approx(hose["bed_share"] * area * 2.5)
    assert hose["bed_pa"] > 0.0
    settles = check(document, "settling", "hose")
    assert settles is not None
    assert settles["level"] == "act"
    finer = solved(at_the_machine(dust="sanding-p240"))  # carried or not, the air is the same, but for the load
    assert finer["vacuum"]["flow_m3_s"] == pytest.approx(result["vacuum"]["flow_m3_s"], rel=1e-2)


def test_a_rise_holds_no_bed() -> None:
    document = at_the_machine()
    document["line"]["branches"][0]["elements"][0] |= {"rise_m": 2.5}
    hose = next(one for one in solved(document)["stations"] if one["element"] == "hose")
    assert hose.get("bed_m3", 0.0) == 0.0
