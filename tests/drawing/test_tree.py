"""The drawing of a whole line: every tool, gate and run on it, the way looked at strong, whatever the user built."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from xml.etree import ElementTree

import numpy as np
import pytest
from bench.ways import with_tools
from hypothesis import given, settings

from fenwick.core.judging.alone import each_alone
from fenwick.core.judging.assess import assess
from fenwick.data.demo import demo_rig
from fenwick.drawing import TreeScene, lay_out_tree, render_tree
from fenwick.drawing.shapes import Curve, divided, straight
from fenwick.drawing.tools import SYMBOLS, symbol_of
from fenwick.rig import Rig, build_line, edit_rig
from fenwick.rig.format.elements import PortPart
from fenwick.rig.voice import voice_for
from tests.test_rigs import rigs


def tree_of(rig: Rig, port: int = 0, *, upright: bool = False) -> TreeScene:
    """A rig laid out whole."""
    line = build_line(rig)
    alone = np.asarray(each_alone(line).flow)
    return lay_out_tree(
        rig, assess(line), voice_for(rig, "metric"), alone, lambda part: f"?part={part}", None, port, upright=upright
    )


@pytest.mark.parametrize("upright", [False, True])
def test_every_tool_gate_and_part_is_on_it_once(upright: bool) -> None:
    rig = demo_rig("demo_bench")
    scene = tree_of(rig, upright=upright)
    assert [tool.id for tool in scene.tools] == [way[0].id for way in rig.line.ways]
    assert {gate.branch for gate in scene.gates} == {b.id for _, b in rig.line.walk() if b.gate is not None}
    every = [e.id for _, b in rig.line.walk() for e in b.elements] + [e.id for e in rig.line.elements] + ["vacuum"]
    assert sorted(part.id for part in scene.parts if part.id) == sorted(every)
    numbers = sorted(part.number for part in scene.parts if part.id)
    assert numbers == list(range(1, len(every) + 1))


@pytest.mark.parametrize(("port", "quiet"), [(0, "router-hose"), (1, "drop-bandsaw"), (3, "bench-pipe")])
def test_the_way_looked_at_is_strong_and_the_others_are_quiet(port: int, quiet: str) -> None:
    rig = demo_rig("demo_bench")
    scene = tree_of(rig, port)
    own = {e.id for branch in rig.line.ways[port] for e in branch.elements} | {"main", "sep", "link"}
    assert own <= scene.on_way
    assert quiet not in scene.on_way
    assert [tool.strong for tool in scene.tools] == [i == port for i in range(4)]


def test_bores_are_to_scale_and_runs_meet_their_pipe() -> None:
    scene = tree_of(demo_rig("demo_bench"))
    bores = {part.id: part.bore for part in scene.parts if part.kind == "hose"}
    assert bores["main"] / bores["sander-hose"] == pytest.approx(50 / 27)
    curves = {part.id: part.curve for part in scene.parts if part.curve is not None}
    first = scene.pipes[0].curve.start
    assert min(abs(curves["drop-bandsaw"].end[0] - pipe.curve.start[0]) for pipe in scene.pipes) < 1e-6
    assert first[1] == pytest.approx(scene.pipes[0].curve.end[1])
    assert curves["main"].start == pytest.approx(scene.pipes[-1].curve.end)


def test_a_shut_gate_looks_shut_and_its_tool_says_so() -> None:
    rig = demo_rig("demo_bench")
    open_ = {gate.branch: gate.open for gate in tree_of(rig).gates}
    assert open_ == {"bandsaw": True, "router": False, "sander": False, "sweep": False}
    turned = edit_rig(rig, {"line.branches[0].gate.opening": 0.0, "line.branches[2].gate.opening": 1.0})
    scene = tree_of(turned)
    assert {tool.id: tool.open for tool in scene.tools}["sweep"]
    svg = str(render_tree(scene, "a"))
    assert svg.count('class="gate is-shut"') == 3
    assert "Gate at Floor sweep: open" in svg
    bandsaw = next(tool for tool in scene.tools if tool.id == "bandsaw")
    assert "alone" in bandsaw.detail
    assert ", shut, " in bandsaw.title


@pytest.mark.parametrize(("count", "wider"), [(4, False), (6, False), (7, True), (12, True)])
def test_six_tools_fit_a_page_and_more_scroll(count: int, wider: bool) -> None:
    scene = tree_of(with_tools(count))
    assert (scene.canvas.width > 853) is wider
    assert ("scrolls" in str(render_tree(scene, "a"))) is wider
    assert tree_of(with_tools(count), upright=True).canvas.width == 360.0


@pytest.mark.parametrize("count", [4, 6, 12])
@pytest.mark.parametrize("upright", [False, True])
def test_no_name_of_a_tool_touches_another(count: int, upright: bool) -> None:
    rig = with_tools(count)
    boxes = []
    for tool in tree_of(rig, upright=upright).tools:
        wide = 6.0 * max(len(line) for line in tool.name)
        left = tool.text_at[0] - (wide / 2 if tool.anchor == "middle" else 0.0)
        boxes.append((left, left + wide, tool.text_at[1]))
        assert 1 <= len(tool.name) <= 2
    for i, one in enumerate(boxes):
        for other in boxes[i + 1 :]:
            assert one[1] < other[0] + 4.0 or other[1] < one[0] + 4.0 or abs(one[2] - other[2]) > 20.0


@settings(max_examples=25)
@given(rigs())
def test_any_line_is_drawn_whole_and_stays_on_its_picture(rig: Rig) -> None:
    for upright in (False, True):
        scene = tree_of(rig, len(rig.line.ways) - 1, upright=upright)
        svg = ElementTree.fromstring(str(render_tree(scene, "a")))
        assert svg.find("title") is not None
        for part in scene.parts:
            if part.curve is not None:
                for x, y in (part.curve.start, part.curve.end):
                    assert -40.0 <= x <= scene.canvas.width + 40.0
                    assert -60.0 <= y <= scene.canvas.height + 40.0


def test_what_the_user_wrote_is_escaped_on_the_tree_too() -> None:
    rig = edit_rig(demo_rig("demo_bench"), {"line.branches[0].port.name": "<b>&\"'"})
    for upright in (False, True):
        svg = str(render_tree(tree_of(rig, upright=upright), "a"))
        assert "<b>" not in svg
        ElementTree.fromstring(svg)


def test_tools_have_symbols_of_their_own_kind() -> None:
    def port(name: str, machine: str | None = None) -> PortPart:
        return PortPart.model_validate({"name": name, "bore_m": 0.05, "machine": machine})

    assert symbol_of(port("Anything", "planer")) == "planer"
    told = {name: symbol_of(port(name)) for name in ("Pillar drill", "Bench grinder", "Oak lathe", "Mitre saw", "Desk")}
    assert list(told.values()) == ["drill-press", "grinder", "lathe", "mitre-saw", "bench"]
    drawn = set()
    for symbol in SYMBOLS:
        rig = edit_rig(demo_rig("demo_bench"), {"line.branches[0].port.machine": None})
        scene = tree_of(rig)

        svg = str(render_tree(replace(scene, tools=(replace(scene.tools[0], symbol=symbol),)), "a"))
        drawn.add(svg.partition('data-part="bandsaw"')[2].partition("</a>")[0])
    assert len(drawn) == len(SYMBOLS)  # no two look the same


def test_a_divided_curve_is_whole() -> None:
    bent = Curve((0.0, 0.0), (((30.0, 0.0), (60.0, 0.0), (60.0, 30.0)),))
    whole = Curve(bent.start, (*bent.pieces, *straight((60.0, 30.0), (60.0, 200.0)).pieces))
    parts = divided(whole, [0.2, 0.0, 0.5, 0.3])
    assert parts[0].start == whole.start
    assert parts[-1].end == pytest.approx(whole.end)
    for one, other in pairwise(parts):
        assert one.end == pytest.approx(other.start, abs=1e-6)
