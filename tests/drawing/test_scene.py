"""Drawings: to scale, titled, with labels that keep clear of each other, whatever the user wrote."""

from itertools import pairwise
from typing import Any
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.judging.assess import assess
from fenwick.data.demo import demo_rig
from fenwick.drawing import (
    NARROW,
    WIDE,
    Scene,
    lay_out_scene,
    render_curve,
    render_fate,
    render_ladder,
    render_line,
    render_plan,
)
from fenwick.drawing.canvas import Canvas
from fenwick.drawing.run import curve_length, part_boxes
from fenwick.drawing.shapes import Curve, slice_bezier
from fenwick.rig import Rig, build_line, check_rig, edit_rig
from fenwick.rig.edits.structure import add_part, duplicate_part
from fenwick.rig.voice import voice_for


def scene_of(rig: Rig, canvas: Canvas = WIDE, system: str = "metric") -> Scene:
    """The rig laid out."""
    return lay_out_scene(
        rig, assess(build_line(rig)), voice_for(rig, system), canvas, lambda part: f"?part={part}", None
    )


def test_bores_separator_and_bin_are_to_scale(rig: Rig) -> None:
    scene = scene_of(rig)
    bores = {part.id: part.bore for part in scene.parts if part.kind == "hose"}
    assert bores["hose-b"] / bores["hose-a"] == pytest.approx(63 / 38)
    (stage,) = scene.stages
    assert stage.body[2][0] - stage.body[1][0] == pytest.approx(0.34 * scene.scale)
    assert scene.floor - stage.body[1][1] == pytest.approx(0.42 * scene.scale)
    assert stage.dust_top == pytest.approx(scene.floor - 0.17 * scene.scale)


def test_a_hose_longer_than_its_place_is_drawn_cut_and_a_short_one_is_not(rig: Rig) -> None:
    parts = {part.id: part for part in scene_of(rig).parts}
    assert parts["hose-b"].cut is not None
    short = {part.id: part for part in scene_of(edit_rig(rig, {"line.branches[0].elements[2].length_m": 0.3})).parts}
    assert short["hose-b"].cut is None


def test_parts_are_numbered_with_the_air(rig: Rig) -> None:
    ids = [part.id for part in sorted(scene_of(rig).parts, key=lambda part: part.number)]
    assert ids == ["drum-sander", "hose-a", "cuff", "hose-b", "sep", "link", "vacuum"]


@pytest.mark.parametrize("system", ["metric", "inch"])
def test_labels_keep_clear_of_each_other_and_stay_inside(rig: Rig, system: str) -> None:
    labels = scene_of(rig, system=system).labels
    assert len(labels) == 6
    for i, label in enumerate(labels):
        assert label.box.within(WIDE.width, WIDE.height)
        assert not any(label.box.overlaps(other.box, gap=0) for other in labels[i + 1 :])


@given(st.floats(0.02, 0.1), st.floats(0.3, 15.0), st.floats(0.15, 0.6), st.floats(0.1, 1.2), st.floats(0.0, 40.0))
def test_any_line_fits_its_picture(bore: float, length: float, wide: float, tall: float, tilt: float) -> None:
    changes: dict[str, Any] = {
        "line.branches[0].elements[0].bore_m": bore,
        "line.branches[0].elements[0].length_m": length,
        "line.elements[0].chamber_d_m": wide,
        "line.elements[0].inlet_bore_m": 0.05,
        "line.elements[0].slots[0].width_m": 0.02,
        "line.elements[0].tilt_deg": tilt,
        "line.elements[0].bin.profile[1].height_m": max(tall, 0.2),
    }
    rig = edit_rig(demo_rig(), changes)
    for canvas in (WIDE, NARROW):
        scene = scene_of(rig, canvas)
        assert scene.stages[0].top > 20
        hoses = [part for part in scene.parts if part.curve and part.kind == "hose"]
        for part in hoses:
            assert part.curve is not None
            for step in range(21):
                x, y = part.curve.at(step / 20)
                assert -20 < x < canvas.width + 20
                assert -20 < y < scene.floor


def test_pictures_are_wellformed_with_title_and_description(rig: Rig) -> None:
    found, voice = assess(build_line(rig)), voice_for(rig, "metric")
    scene = scene_of(rig)
    assert found.fate is not None
    drawn = {
        "line": render_line(scene, "a"),
        "ladder": render_ladder(scene, found, voice, 122, "b"),
        "fate": render_fate(found.fate, 600),
        "plan": render_plan(rig.line.elements[0], "c"),  # type: ignore[arg-type]
    }
    trees = {name: ElementTree.fromstring(str(svg)) for name, svg in drawn.items()}
    assert "Hose B (to act on)" in trees["line"].findtext("desc", "")
    assert trees["line"].findtext("title") == "Drum sander line: from Drum sander to Drum vac 1300 W"
    assert "Hose A 3" in trees["ladder"].findtext("desc", "")
    assert "bin" in trees["fate"].get("aria-label", "")
    assert "240° from 0°" in trees["plan"].findtext("desc", "")


def test_what_the_user_wrote_is_escaped(document: dict[str, Any]) -> None:
    document["line"]["branches"][0]["elements"][0]["name"] = "<script>alert(1)</script>"
    svg = str(render_line(scene_of(check_rig(document)), "a"))
    assert "<script>" not in svg
    assert "&lt;script&gt;" in svg


def test_a_line_with_neither_separator_nor_hose_is_drawn(document: dict[str, Any]) -> None:
    document["line"]["elements"] = []
    document["line"]["branches"][0]["elements"] = []
    scene = scene_of(check_rig(document))
    assert [part.kind for part in scene.parts] == ["tool", "joint", "vacuum"]
    assert "hose-wall" in render_line(scene, "a")


def test_every_kind_of_part_is_drawn(document: dict[str, Any]) -> None:
    document["line"]["elements"][1:1] = [
        {"id": "gap", "kind": "leak", "area_m2": 2e-5},
        {"id": "plate", "kind": "loss", "bore_m": 0.063, "k": 1.5},
        {"id": "gate", "kind": "gate", "bore_m": 0.063, "opening": 0.7},
    ]
    svg = render_line(scene_of(check_rig(document)), "a")
    for part in ("gap", "plate", "gate", "cuff", "sep", "vacuum"):
        assert f'data-part="{part}"' in svg


def test_a_sliced_curve_is_a_part_of_the_whole() -> None:
    points = ((0.0, 0.0), (10.0, 40.0), (60.0, 40.0), (80.0, 0.0))
    whole = Curve(points[0], (points[1:],))
    halves = slice_bezier(*points, 0.0, 0.4), slice_bezier(*points, 0.4, 1.0)
    assert halves[0].end == pytest.approx(halves[1].start)
    assert halves[0].end == pytest.approx(whole.at(0.4))
    assert sum(curve_length(half) for half in halves) == pytest.approx(curve_length(whole), rel=0.01)


@pytest.mark.parametrize("system", ["metric", "inch"])
def test_no_label_lies_on_a_hose_of_the_demo(rig: Rig, system: str) -> None:
    scene = scene_of(rig, system=system)
    boxes = part_boxes([part for part in scene.parts if part.curve])
    for label in scene.labels:
        assert not label.keyed
        assert not any(label.box.overlaps(box, gap=-3) for box in boxes), label.name


def test_a_way_through_junctions_shows_who_joins() -> None:
    bench = demo_rig("demo_bench")
    found, voice = assess(build_line(bench)), voice_for(bench, "metric")
    scene = lay_out_scene(bench, found, voice, WIDE, lambda part: f"?part={part}", None, 1)
    kinds = [part.kind for part in scene.parts]
    assert kinds.count("junction") == 2
    assert kinds.count("gate-mark") == 1
    assert "Finishing sander" in {label.name for label in scene.labels}
    assert "sweep-hose" not in scene.on_way
    numbers = [part.number for part in scene.parts if part.number]
    assert numbers == list(range(1, len(numbers) + 1))


def test_every_rigid_part_is_drawn() -> None:
    rig = demo_rig()
    for kind in ("elbow", "filter", "gate", "loss", "reducer"):
        rig, _ = add_part(rig, "vacuum", kind)
    document = rig.model_dump(mode="json")
    holes = [{"diameter_m": 0.01, "count": 9}]
    document["line"]["elements"].append({"id": "plate", "kind": "plate", "bore_m": 0.05, "holes": holes})
    svg = render_line(scene_of(check_rig(document)), "a")
    ElementTree.fromstring(str(svg))
    for part in ("elbow-1", "filter-1", "gate-1", "loss-1", "reducer-1", "plate"):
        assert f'data-part="{part}"' in svg


def test_a_crowded_run_gets_numbers_with_a_key() -> None:
    rig = demo_rig()
    for _ in range(4):
        rig, _ = duplicate_part(rig, "hose-a")
    scene = scene_of(rig)
    keyed = [label for label in scene.labels if label.keyed]
    assert keyed
    svg = render_line(scene, "a")
    for label in keyed:
        assert label.name not in svg  # the key beside the drawing says it


def test_the_curve_shows_where_the_line_runs(rig: Rig) -> None:
    line = build_line(rig)
    found, voice = assess(line), voice_for(rig, "metric")
    tree = ElementTree.fromstring(str(render_curve(line, found, voice, "curve")))
    flow, suction = float(found.point.mass_flow[0] / found.point.room_density[0]), float(found.point.suction[0])
    words = tree.findtext("desc", "")
    assert f"runs at {flow * 1e3:.1f} L/s at {suction / 1e3:.1f} kPa" in words
    points = [tuple(map(float, pair.split(","))) for pair in tree.find("polyline[@class='fan']").get("points").split()]  # type: ignore[union-attr]
    assert all(b[1] > a[1] for a, b in pairwise(points))  # suction falls as flow rises; y runs downwards
    circle = tree.find("circle")
    assert circle is not None
    x, y = float(circle.get("cx", "0")), float(circle.get("cy", "0"))
    on_curve = min(abs(px - x) + abs(py - y) for px, py in points)
    assert on_curve < 4.0
