"""Gauges over the drawing: one for each hole, none on another, each a link that says what was read there."""

from __future__ import annotations

import re
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.judging.assess import assess
from fenwick.data.demo import demo_rig
from fenwick.drawing import NARROW, WIDE, Scene, lay_out_scene
from fenwick.drawing.canvas import Canvas
from fenwick.drawing.holes import TOOL, VACUUM, Hole, _apart, lay_out_holes, render_holes
from fenwick.rig import build_line
from fenwick.rig.voice import voice_for

PLACES = (TOOL, "hose-a", "hose-b", "sep", "link", VACUUM)


def scene(canvas: Canvas = WIDE) -> Scene:
    """The demo line laid out."""
    rig = demo_rig()
    found, voice = assess(build_line(rig)), voice_for(rig, "metric")
    return lay_out_scene(rig, found, voice, canvas, lambda part: f"?part={part}", None, named=False)


def holes(read: str = "", here: str = "sep", best: str = "") -> list[Hole]:
    """A gauge in every place."""
    return [
        Hole(
            at,
            f"suction {at}",
            read,
            "≈ 12.3",
            "ok" if read else "",
            at == here,
            best if at == here else "",
            f"?at={at}",
        )
        for at in PLACES
    ]


@pytest.mark.parametrize("canvas", [WIDE, NARROW])
@pytest.mark.parametrize("read", ["", "2.5", "125.4"])
def test_no_gauge_lies_on_another_and_all_are_on_the_picture(canvas: Canvas, read: str) -> None:
    laid = lay_out_holes(scene(canvas), holes(read))
    for one, other in pairwise(laid.holes):
        assert one.gauge + one.half < other.gauge - other.half
        assert one.x <= other.x
    assert laid.holes[0].gauge - laid.holes[0].half > 0.0
    assert laid.holes[-1].gauge + laid.holes[-1].half < canvas.width
    assert all(0.0 < one.y < laid.canvas.height for one in laid.holes)


@given(
    places=st.lists(st.floats(0.0, 852.0), min_size=1, max_size=8).map(sorted),
    half=st.floats(10.0, 40.0),
)
def test_gauges_move_apart_and_keep_their_order(places: list[float], half: float) -> None:
    found = _apart(places, [half] * len(places), 852.0)
    assert all(b - a >= 2.0 * half - 1e-9 for a, b in pairwise(found))
    assert found[-1] + half <= 852.0


def test_each_is_a_link_that_says_what_it_is() -> None:
    drawn = str(render_holes(scene(), holes("5.2", "sep", "tells most"), "test"))
    labels = re.findall(r'aria-label="(Read [^"]+)"', drawn)
    assert len(labels) == len(PLACES)
    assert "Read suction sep: 5.2 read, ≈ 12.3, tells most" in labels
    assert drawn.count('aria-current="true"') == 1
    assert drawn.count("hole-best") == 1
    assert drawn.count("is-ok") >= len(PLACES)


def test_what_a_user_wrote_is_harmless_on_it() -> None:
    bad = Hole("sep", '<script>alert("x")</script>', "<b>", "", "", False, "", '?at="><script>')
    drawn = str(render_holes(scene(), [bad], "test"))
    assert "<script" not in drawn
    assert "<b>" not in drawn
