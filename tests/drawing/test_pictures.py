"""Fan chart, joints and floor plan as SVG: to scale, escaped, within their frame."""

import re
from xml.etree import ElementTree

import pytest

from fenwick.core.components.joint import End
from fenwick.core.line.joints import Joint, fit_joint
from fenwick.core.rules import RuleBook
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.drawing import FanChart, RunningPoint, render_fan_chart
from fenwick.drawing.axes import axis_ticks
from fenwick.drawing.floor import render_floor
from fenwick.drawing.joint import render_joint
from fenwick.rig import build_line
from fenwick.rig.voice import voice_for
from fenwick.shop import edit_shop
from fenwick.shop.plan import lay_floor
from fenwick.units.convert import to_display

SVG = "{http://www.w3.org/2000/svg}"


def parsed(markup: str) -> ElementTree.Element:
    return ElementTree.fromstring(markup.replace("<svg ", '<svg xmlns="http://www.w3.org/2000/svg" ', 1))


def chart(points: list[tuple[float, float]], system: str = "metric") -> str:
    rig = demo_rig()
    curve = build_line(rig).vacuum.curve
    running = [RunningPoint("A <b>", 0.04, 6e3, True), RunningPoint("B", 0.0402, 5.9e3, False)]
    return str(render_fan_chart(FanChart(curve, 1.2, points, running), voice_for(rig, system), "c"))


def test_the_chart_holds_its_curve_within_the_axes_and_steps_marks_aside() -> None:
    picture = parsed(chart([(0.02, 14e3)]))
    fan = next(e for e in picture.iter(f"{SVG}polyline") if e.get("class") == "fan")
    xs, ys = zip(*[map(float, pair.split(",")) for pair in (fan.get("points") or "").split()], strict=True)
    assert list(xs) == sorted(xs)
    assert list(ys) == sorted(ys)  # suction falls, and y grows downwards
    circles = list(picture.iter(f"{SVG}circle"))
    assert len(circles) == 2
    assert abs(float(circles[0].get("cy") or 0) - float(circles[1].get("cy") or 0)) > 15
    assert sum(e.get("class") == "measured" for e in picture.iter(f"{SVG}path")) == 1
    assert "A &lt;b&gt;" in chart([])


@pytest.mark.parametrize("system", ["metric", "inch"])
@pytest.mark.parametrize("most", [12.0, 17.7e3, 0.9e3, 46e3])
def test_ticks_are_round_and_reach_past_the_most(most: float, system: str) -> None:
    ticks = axis_ticks(most, "suction", system, 5)
    assert ticks[0] == 0.0
    assert ticks[-2] < most <= ticks[-1] * 1.0001
    assert 2 <= len(ticks) <= 9
    step = to_display(ticks[1], "suction", system)
    mantissa = float(f"{step:e}".split("e")[0])
    assert min(abs(mantissa - round_one) for round_one in (1.0, 2.0, 2.5, 5.0)) < 0.01


@pytest.mark.parametrize(
    ("leaving", "entering", "shows"),
    [
        (End(0.034, 0.0380), End(0.0397, 0.044), "tape"),
        (End(0.034, 0.0400), End(0.0385, 0.042, plastic="metal"), "sleeve"),
        (End(0.028, 0.0320), End(0.0900, 0.100), "missing"),
        (End(), End(), "unknown"),
    ],
)
def test_a_joint_shows_what_makes_it_tight(leaving: End, entering: End, shows: str) -> None:
    fitted = fit_joint(Joint("a", "b", leaving, entering), RuleBook())
    picture = parsed(str(render_joint(fitted, "j", "a <joint>")))
    classes = " ".join(e.get("class") or "" for e in picture.iter())
    for other in ("tape", "sleeve", "missing", "unknown"):
        assert (other in classes.split()) is (other == shows)


def test_the_wider_end_is_drawn_wider_to_one_scale() -> None:
    fitted = fit_joint(Joint("a", "b", End(0.034, 0.0380), End(0.0397, 0.044)), RuleBook())
    walls = [e for e in parsed(str(render_joint(fitted, "j", ""))).iter(f"{SVG}rect") if e.get("class") == "bore"]
    heights = sorted(float(wall.get("height") or 0) for wall in walls)
    assert heights[1] / heights[0] == pytest.approx(39.7 / 34.0, rel=0.01)


def floor(**changes: object) -> ElementTree.Element:
    shop = edit_shop(demo_shop(), changes) if changes else demo_shop()
    return parsed(str(render_floor(shop, lay_floor(shop), {"bandsaw": "5.6 m"}, "f")))


def test_the_room_and_everything_in_it_is_to_scale() -> None:
    picture = floor()
    scale = float(picture.get("data-scale") or 0)
    room = next(e for e in picture.iter(f"{SVG}rect") if e.get("class") == "room-floor")
    assert float(room.get("width") or 0) == pytest.approx(5.0 * scale, abs=0.1)
    things = {e.get("data-item"): e for e in picture.iter(f"{SVG}g") if e.get("data-item")}
    shop = demo_shop()
    assert set(things) == {
        "separator",
        *(t.id for group in (shop.tools, shop.vacuums, shop.furniture, shop.circuits) for t in group),
    }
    bench = next(e for e in things["bench"].iter(f"{SVG}rect"))
    assert float(bench.get("width") or 0) == pytest.approx(2.2 * scale, abs=0.1)
    assert sum(e.get("class") == "run" for e in picture.iter(f"{SVG}polyline")) == 6


def test_a_deep_room_is_drawn_smaller_rather_than_cut_off() -> None:
    frame = [float(x) for x in (floor(**{"room.depth_m": 12.0}).get("viewBox") or "").split()]
    assert frame[3] <= 471
    for run in floor().iter(f"{SVG}polyline"):
        for x, y in re.findall(r"([\d.]+),([\d.]+)", run.get("points") or ""):
            assert 0 <= float(x) <= 640
            assert 0 <= float(y) <= 471


def test_without_a_separator_there_are_no_runs_but_a_spot() -> None:
    picture = floor(separator_place=None)
    assert not list(picture.iter(f"{SVG}polyline"))
    assert [e for e in picture.iter(f"{SVG}g") if e.get("class") == "spot"]
