"""Separators at their ends: more dust, leaning over, ledges, narrow slots, tubes too wide, elbows over a disc."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import pytest

from fenwick.rig import build_line, check_rig
from fenwick.rig.result import solve_rig
from fenwick.rig.voice import voice_for
from fenwick.wording.bin import bin_words
from tests.ends.rigs import (
    CYCLONE,
    DISC,
    HOOD,
    changed,
    check,
    kept,
    read,
    refused,
    rig_file,
    solved,
    step_of,
    with_bin,
)

FINE = "sanding-p120"
STAGES = {"cyclone": CYCLONE, "disc": DISC}


def leaning(stage: dict[str, Any], tilt: float) -> float:
    """What a stage keeps of fine sanding dust when it leans."""
    return kept(rig_file(FINE, (changed(stage, tilt_deg=tilt),)))


def slotted(width: float, arc: float = 240.0, several: int = 1) -> dict[str, Any]:
    """A disc with its opening in one slot, or in several of the same in all."""
    slots = [{"width_m": width, "arc_deg": arc / several, "start_deg": 360.0 * i / several} for i in range(several)]
    return changed(DISC, slots=slots)


@pytest.mark.parametrize("stage", STAGES.values(), ids=STAGES)
@pytest.mark.parametrize("dust", [FINE, "saw", "mdf-sanding"])
def test_more_dust_is_never_kept_worse(stage: dict[str, Any], dust: str) -> None:
    rates = (0.0, 1e-8, 1e-7, 1e-6, 1e-5, 3e-5, 1e-4, 1e-3, 1e-2, 0.1)
    shares = [kept(rig_file(dust, (stage,), rate=rate)) for rate in rates]
    # the wall is rougher for the strands that run down it, which is published; the surplus takes nothing back
    assert all(later > earlier - 1e-3 for earlier, later in pairwise(shares))
    assert shares[-1] > shares[0]


def test_the_load_that_counts_is_what_is_caught_at_the_port() -> None:
    near, far = (rig_file(FINE, (DISC,), hood={**HOOD, "distance_m": distance}, rate=1e-4) for distance in (0.03, 0.3))
    for document in (near, far):
        result = solved(document)
        entering = 1e-4 * result["ports"][0]["capture"]["total"] / result["vacuum"]["mass_flow_kg_s"]
        assert step_of(document, "kept", "sep.load") == pytest.approx(entering, rel=1e-6)
    assert step_of(near, "kept", "sep.load") > step_of(far, "kept", "sep.load")


@pytest.mark.parametrize("dust", [FINE, "saw"])
def test_a_cyclone_forgives_leaning_and_a_flat_disc_does_not(dust: str) -> None:
    cyclone, disc = (
        [kept(rig_file(dust, (changed(stage, tilt_deg=tilt),))) for tilt in (0, 20, 45)] for stage in (CYCLONE, DISC)
    )
    assert cyclone[0] - cyclone[1] < 0.015
    assert cyclone[2] > 0.9
    assert disc[0] - disc[1] > 0.05
    assert disc[2] < 0.65


@pytest.mark.parametrize("stage", STAGES.values(), ids=STAGES)
def test_leaning_takes_away_smoothly_up_to_its_side_where_nothing_is_kept(stage: dict[str, Any]) -> None:
    shares = [leaning(stage, tilt) for tilt in range(0, 91, 5)]
    assert shares == sorted(shares, reverse=True)
    assert shares[-1] == pytest.approx(0.0, abs=1e-6)
    assert max(a - b for a, b in pairwise(shares[:10])) < 0.13
    assert "tilt_deg" in refused(rig_file(FINE, (changed(stage, tilt_deg=91),)))


def test_a_ledge_near_the_dust_fades_away_and_high_up_it_costs() -> None:
    def with_ledge(height: float) -> float:
        ledges = [{"height_m": height, "depth_m": 0.03}]
        return kept(rig_file(FINE, (with_bin(DISC, ledges=ledges, fill_height_m=0.1),)))

    bare = kept(rig_file(FINE, (with_bin(DISC, fill_height_m=0.1),)))
    shares = [with_ledge(height) for height in (0.05, 0.09, 0.1, 0.11, 0.12, 0.13, 0.2, 0.3, 0.38)]
    assert shares[:3] == pytest.approx([bare] * 3)
    assert shares == sorted(shares, reverse=True)
    assert bare - shares[-1] > 0.05
    assert max(a - b for a, b in pairwise(shares[:6])) < 0.01  # it fades in, no step
    assert "at most 0.4 m (got 0.41 m)" in refused(
        rig_file(FINE, (with_bin(DISC, ledges=[{"height_m": 0.41, "depth_m": 0.03}]),))
    )


def test_narrow_slots_let_little_fall_and_say_so() -> None:
    shares = [kept(rig_file(FINE, (slotted(width),))) for width in (0.002, 0.005, 0.008, 0.012, 0.016)]
    assert shares == sorted(shares)
    assert shares[0] < 0.15
    for width, level in ((0.010, "watch"), (0.0149, "watch"), (0.016, None), (0.03, None)):
        said = check(rig_file(FINE, (slotted(width),)), "slot-narrow")
        assert (said["level"] if said and said["level"] != "ok" else None) == level, width


def test_a_short_arc_lets_little_fall_and_number_and_start_enter_no_figure() -> None:
    shares = [kept(rig_file(FINE, (slotted(0.03, arc),))) for arc in (2, 10, 30, 90)]
    assert shares == sorted(shares)
    assert shares[0] < 0.1
    one, three = (kept(rig_file(FINE, (slotted(0.03, 240, several),))) for several in (1, 3))
    turned = changed(DISC, slots=[{"width_m": 0.03, "arc_deg": 240, "start_deg": 77}])
    assert one == pytest.approx(three) == pytest.approx(kept(rig_file(FINE, (turned,))))


def test_what_a_test_of_the_slots_told_is_a_factor_of_this_line() -> None:
    document = rig_file(FINE, (DISC,))
    plain = kept(document)
    document["tuning"] = {"slot": 2.0}
    assert kept(document) < plain
    document["tuning"] = {"slot": 1.0}
    assert kept(document) == pytest.approx(plain)


def test_an_outlet_tube_wider_than_the_cone_where_it_ends_is_to_act_on() -> None:
    said = check(rig_file("saw", (changed(CYCLONE, outlet_length_m=0.55),)), "tube-in-cone")
    assert said is not None
    assert said["level"] == "act"
    assert said["value"] > said["limit"]
    fits = check(rig_file("saw", (changed(CYCLONE, outlet_length_m=0.3),)), "tube-in-cone")
    assert fits is None or fits["level"] == "ok"


def test_a_tube_that_ends_above_the_bottom_of_its_inlet_is_warned_of() -> None:
    warned, well = (
        solved(rig_file("saw", (changed(CYCLONE, outlet_length_m=length),)))["warnings"] for length in (0.05, 0.09)
    )
    assert any("above the bottom of its inlet" in sentence for sentence in warned)
    assert not any("above the bottom of its inlet" in sentence for sentence in well)


def test_a_mixture_keeps_the_densities_of_its_parts_apart() -> None:
    def shares(kinds: list[dict[str, Any]]) -> float:
        document = rig_file(FINE, (DISC,), hood=None)
        document["dust"] = {"kind": "mixture", "kinds": kinds}
        return kept(document)

    light, heavy = (kept(rig_file(kind, (DISC,), hood=None)) for kind in ("mdf-sanding", "fibre-composite"))
    low, high = sorted((light, heavy))
    half = shares([{"kind": "mdf-sanding", "parts": 1}, {"kind": "fibre-composite", "parts": 1}])
    assert low < half < high
    assert half == pytest.approx(0.5 * (light + heavy), abs=0.01)
    alone = shares([{"kind": "mdf-sanding", "parts": 1}, {"kind": "mdf-sanding", "parts": 3}])
    assert alone == pytest.approx(light, abs=1e-6)


def test_an_elbow_over_a_disc_keeps_less_than_a_tangential_inlet_and_knows_its_clearance() -> None:
    tangential = changed(DISC, inlet_style="tangential")
    elbow = changed(DISC, inlet_style="elbow", outlet_aim="opposed", elbow_reach_m=0.07)
    assert kept(rig_file(FINE, (tangential,))) == pytest.approx(kept(rig_file(FINE, (DISC,))))
    assert kept(rig_file(FINE, (elbow,))) < kept(rig_file(FINE, (tangential,)))
    for reach, level in ((0.07, "ok"), (0.115, "watch"), (0.13, "act")):  # the last stands on its disc
        said = check(rig_file(FINE, (changed(elbow, elbow_reach_m=reach),)), "elbow-clear")
        assert said is not None
        assert said["level"] == level
        assert said["value"] == pytest.approx(0.12 - reach)


def test_a_one_body_build_stands_where_its_vacuum_stands_and_has_no_link() -> None:
    build = changed(DISC, type="one-body", window_area_m2=0.002, head_d_m=0.35, head_height_m=0.3)
    document = rig_file("saw", (build,))
    document["line"]["elements"] = [build]
    assert kept(document) > 0.9
    room = {"mass_kg": 5.0, "base_m": 0.36, "headroom_m": 2.0}
    flat, tall = (
        {**document, "line": {**document["line"], "elements": [changed(build, stand=room, head_height_m=height)]}}
        for height in (0.3, 0.4)
    )
    heights = [check(one, "headroom") for one in (flat, tall)]
    assert heights[0] is not None
    assert heights[1] is not None
    assert heights[1]["limit"] - heights[0]["limit"] == pytest.approx(0.1, abs=1e-6)


def test_a_disc_below_an_elbow_is_told_how_deep_it_hangs_and_how_wide_it_may_be_there() -> None:
    hung = changed(
        DISC, hung=True, chamber_d_m=0.28, inlet_style="elbow", outlet_aim="opposed", elbow_reach_m=0.07,
        bin=changed(DISC["bin"], profile=[{"height_m": 0.0, "d_m": 0.2}, {"height_m": 0.4, "d_m": 0.32}]),
    )  # fmt: skip
    rig = read(rig_file(FINE, (hung,)))
    line = build_line(rig)
    said = bin_words(line, line.separators[0], voice_for(rig, "metric"))
    # 120 mm below the rim of a bin that narrows by 0.3 mm a millimetre, and 80 mm, which clears the elbow by 10
    assert "Where the disc hangs the bin is 284 mm wide: a gap of 2 mm all round." in said
    assert "Its elbow reaches 70 mm down: a disc 80 mm deep or more is clear of it, 296 mm wide or less there." in said
    standing = read(rig_file(FINE, (changed(hung, hung=False),)))
    line = build_line(standing)
    said = bin_words(line, line.separators[0], voice_for(standing, "metric"))
    assert said[-1] == "Its elbow reaches 70 mm down: a disc 80 mm deep or more is clear of it."


def test_slots_that_leave_hardly_any_disc_are_to_watch_and_those_that_meet_to_act_on(
    document: dict[str, Any],
) -> None:
    def level(second: float) -> list[str]:
        own = next(e for e in document["line"]["elements"] if e["id"] == "sep")
        own["slots"] = [{"width_m": 0.03, "arc_deg": 150.0}, {"width_m": 0.03, "arc_deg": 150.0, "start_deg": second}]
        return [one["level"] for one in solve_rig(check_rig(document))["checks"] if one["id"] == "slot-land"]

    assert level(180.0) == []
    assert level(153.0) == ["watch"]  # 3° of 140 mm are 7 mm
    assert level(140.0) == ["act"]
