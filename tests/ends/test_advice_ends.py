"""Single changes at their ends: made for real they hold what they promise, and nothing else stands up against them."""

from __future__ import annotations

from typing import Any

import pytest

from fenwick.core.judging.review import review
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig
from fenwick.rig.edits.changes import apply_candidate
from fenwick.rig.edits.ports import alone
from fenwick.rig.voice import voice_for
from fenwick.services.advice import advice_for
from fenwick.services.solving import solve
from fenwick.wording import warnings
from tests.ends.rigs import CYCLONE, DISC, HOSE, LINK, changed, read, rig_file, with_bin

DEMOS = ("demo_line", "demo_bench", "demo_cyclone")


def planer() -> dict[str, Any]:
    """A planer on a wide port and two wide hoses."""
    hood = {"kind": "opening", "distance_m": 0.06, "release": "fast", "thrown_share": 0.9}
    document = rig_file("planer", (DISC,), hose=changed(HOSE, bore_m=0.1), hood=hood, port_bore=0.1, rate=1e-3)
    branch = document["line"]["branches"][0]
    branch["elements"].append(changed(HOSE, id="second", bore_m=0.1, length_m=1.0))
    branch["port"]["machine"] = "planer"
    return document


def to_act_on(rig: Rig) -> set[str]:
    """Ids of all checks that are to act on."""
    solved = solve(rig)
    return {check.id for check in review(solved.line, solved.found) if int(check.level[0]) == 2}


def told(rig: Rig) -> set[str]:
    """Every warning."""
    solved = solve(rig)
    return set(warnings(solved.line, solved.found, voice_for(rig, "metric")))


def ports() -> list[tuple[str, Rig, str]]:
    """Every tool port of the demos, open alone, and the planer's."""
    rigs = [*((name, demo_rig(name)) for name in DEMOS), ("planer", read(planer()))]
    return [
        (f"{name}-{leaf.id}", alone(rig, leaf.id) or rig, leaf.id)
        for name, rig in rigs
        for leaf in solve(rig).line.leaves
    ]


@pytest.mark.parametrize(("rig", "port"), [row[1:] for row in ports()], ids=[row[0] for row in ports()])
def test_no_page_doubts_what_is_advised(rig: Rig, port: str) -> None:
    at = [leaf.id for leaf in solve(rig).line.leaves].index(port)
    before, doubts = to_act_on(rig), told(rig)
    picked = advice_for(rig, None, at, 3)
    for outcome in (*picked.outcomes, *picked.others):
        made = apply_candidate(rig, outcome.candidate)
        allowed = before | ({"settling"} if outcome in picked.others else set())
        assert to_act_on(made) <= allowed, outcome.candidate
        assert told(made) <= doubts, outcome.candidate


def test_a_planer_on_a_wide_port_may_have_its_port_stepped_down_or_its_hoses_narrowed() -> None:
    rig = read(planer())
    picked = advice_for(rig, None, 0, 3)
    every = {one.candidate.kind: one for one in (*picked.outcomes, *picked.others)}
    narrower, stepped = every["narrower"], every["step-down"]
    for one in (narrower, stepped):
        assert one.helps("speed")
        assert one.mends
    assert narrower.caught is not None
    assert stepped.caught is not None
    assert narrower.caught[1] == pytest.approx(narrower.caught[0], abs=0.02)  # the mouth stays as wide
    assert stepped.caught[1] < stepped.caught[0]
    order = [one.candidate.kind for one in (*picked.outcomes, *picked.others)]
    assert order.index("narrower") < order.index("step-down")  # what loses chips comes behind


@pytest.mark.parametrize("stage", [CYCLONE, DISC], ids=["cyclone", "disc"])
def test_a_leaning_full_leaky_separator_is_set_right_one_thing_at_a_time(stage: dict[str, Any]) -> None:
    poor = changed(with_bin(stage, fill_height_m=0.3, leak_area_m2=3e-5), tilt_deg=15)
    picked = advice_for(read(rig_file("sanding-p120", (poor,))), None, 0, 3)
    every = {one.candidate.kind: one for one in (*picked.outcomes, *picked.others)}
    for kind in ("empty", "upright", "seal-bin"):
        assert every[kind].helps("kept"), kind


def test_where_nothing_is_to_act_on_the_list_holds_only_what_gains_something() -> None:
    wide = changed(HOSE, bore_m=0.05, length_m=1.0)
    document = rig_file("saw", (with_bin(CYCLONE, wall_m=0.008),), hose=wide)
    picked = advice_for(read(document), None, 0, 3)
    assert picked.unhelped == ()
    assert all(one.acts == (0, 0) for one in picked.outcomes)
    assert document["line"]["elements"][-1] == LINK
