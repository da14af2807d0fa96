"""Charts of the separator: what they show is what was computed."""

import re
from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import pytest

import fenwick
from fenwick.core.formulas.sizes import SIZES, lognormal_weights
from fenwick.core.search.designs import RANGES
from fenwick.core.search.effects import Sweep
from fenwick.core.search.finder import Design
from fenwick.drawing.grade_chart import GradeChart, render_grade_chart
from fenwick.drawing.lid import render_lid
from fenwick.drawing.sweep_chart import render_sweep
from fenwick.drawing.tradeoff import SHAPES, render_tradeoff
from fenwick.wording.say import Voice
from tests.lines import disc_line

VOICE = Voice("metric", {})
STYLE = Path(fenwick.__file__).parent / "web/static/css/finder.css"
LABELS = {kind: kind for kind in SHAPES}


def parse(markup: object) -> ElementTree.Element:
    """A picture, parsed."""
    return ElementTree.fromstring(str(markup))


def points(svg: ElementTree.Element, name: str) -> np.ndarray:
    """Points of a polyline."""
    line = next(p for p in svg.iter("polyline") if p.get("class") == name)
    return np.array([[float(v) for v in pair] for pair in re.findall(r"([-\d.]+),([-\d.]+)", str(line.get("points")))])


def grade_chart(kept: float = 0.5) -> GradeChart:
    """A dust of 50 µm of which every size is kept alike."""
    entering = lognormal_weights(50e-6, 2.0)[:, 0]
    return GradeChart(entering, np.full(60, kept), np.ones(60), {"lapple": np.full(60, 0.9)}, 10e-6, 1.0 - kept, 50e-6)


def test_columns_split_into_what_stays_and_what_passes() -> None:
    svg = parse(render_grade_chart(grade_chart(0.75), VOICE, "g"))
    heights = {
        name: sum(float(str(r.get("height"))) for r in svg.iter("rect") if r.get("class") == name)
        for name in ("stays", "passes")
    }
    assert heights["passes"] / (heights["stays"] + heights["passes"]) == pytest.approx(0.25, abs=0.01)
    assert "25.0 % by mass gets past" in str(ElementTree.tostring(svg))


def test_the_curve_runs_over_all_sizes_from_left_to_right() -> None:
    svg = parse(render_grade_chart(grade_chart(), VOICE, "g"))
    curve = points(svg, "kept")
    assert len(curve) == len(SIZES)
    assert np.all(np.diff(curve[:, 0]) > 0.0)
    assert np.ptp(curve[:, 1]) == pytest.approx(0.0)
    assert len([p for p in svg.iter("polyline") if "model-lapple" in str(p.get("class"))]) == 1


def test_the_tallest_column_stands_at_the_dust_s_own_size() -> None:
    svg = parse(render_grade_chart(grade_chart(1.0), VOICE, "g"))
    stays = [r for r in svg.iter("rect") if r.get("class") == "stays"]
    tallest = max(stays, key=lambda r: float(str(r.get("height"))))
    at = points(svg, "kept")
    expected = float(np.interp(np.log(50e-6), np.log(SIZES[:, 0]), at[:, 0]))
    assert float(str(tallest.get("x"))) == pytest.approx(expected, abs=14.0)


def test_a_sweep_shows_where_the_line_stands_and_where_to_stop() -> None:
    sweep = Sweep("fill", np.linspace(0.0, 0.4, 5), np.array([1.0, 1.0, 0.8, 0.4, 0.0]), 0.2)
    svg = parse(render_sweep(sweep, VOICE, "s", 0.3))
    curve = points(svg, "kept")
    dot = next(c for c in svg.iter("circle"))
    assert float(str(dot.get("cx"))) == pytest.approx(curve[2, 0], abs=0.2)
    assert float(str(dot.get("cy"))) == pytest.approx(curve[2, 1], abs=0.2)
    mark = next(line for line in svg.iter("line") if line.get("class") == "empty-by")
    assert float(str(mark.get("x1"))) == pytest.approx(curve[3, 0], abs=0.2)
    assert "now 80 %" in str(ElementTree.tostring(svg))


@pytest.mark.parametrize(("kind", "most", "words"), [("tilt", np.pi / 4, "45°"), ("leak", 0.15, "15 %")])
def test_each_sweep_speaks_its_own_unit(kind: str, most: float, words: str) -> None:
    sweep = Sweep(kind, np.linspace(0.0, most, 4), np.linspace(1.0, 0.2, 4), 0.0)
    assert f"20 % at {words}" in str(render_sweep(sweep, VOICE, "s"))


def design(**changes: object) -> Design:
    """A design with some figures."""
    whole = Design("cyclone", disc_line().separators[0], 0.95, 0.035, 1500.0, 4e-6, 0.8, 20.0, 6.0, False, 0.9)
    return replace(whole, **changes)  # type: ignore[arg-type]


def test_the_plot_links_what_nobody_beats_and_greys_the_rest() -> None:
    designs = [design(), design(kind="hung-disc", kept=0.9, suction=900.0), design(dominated=True, kept=0.88)]
    svg = parse(render_tradeoff(designs, (0.85, 2000.0), 1, lambda i: f"?pick={i}", VOICE, LABELS))
    links = list(svg.iter("a"))
    assert [a.get("href") for a in links] == ["?pick=0", "?pick=1"]  # the picked one is drawn last, on top
    assert links[-1].get("aria-current") == "true"
    beaten = next(g for g in svg.iter("g") if g.get("class") == "beaten")
    assert len(list(beaten)) == 1
    assert "2 of them nobody beats" in str(ElementTree.tostring(svg))


@pytest.mark.parametrize("kind", list(RANGES))
def test_each_kind_that_is_sought_has_a_mark_and_a_colour_of_its_own(kind: str) -> None:
    drawn = parse(render_tradeoff([design(kind=kind)], (0.85, 1000.0), 0, str, VOICE, {kind: kind}))
    (link,) = drawn.iter("a")
    assert f"kind-{kind}" in str(link.get("class")).split()
    assert SHAPES[kind] in [path.get("d") for path in link.iter("path")]
    assert list(SHAPES.values()).count(SHAPES[kind]) == 1
    colours = re.findall(r"\.kind-([\w-]+) \{\s*fill: (#\w+)", STYLE.read_text())
    assert len({colour for _, colour in colours}) == len(RANGES) == len(SHAPES)
    assert kind in dict(colours)


def test_more_kept_stands_higher_and_more_suction_farther_right() -> None:
    designs = [design(kept=0.99, suction=500.0), design(kept=0.9, suction=2500.0)]
    svg = parse(render_tradeoff(designs, (0.85, 1000.0), None, lambda i: f"?pick={i}", VOICE, LABELS))
    (x0, y0), (x1, y1) = (
        map(float, re.findall(r"[-\d.]+", str(path.get("transform")))[:2])
        for path in svg.iter("path")
        if str(path.get("transform")).startswith("translate")
    )
    assert x0 < x1
    assert y0 < y1
    today = next(g for g in svg.iter("g") if g.get("class") == "today")
    x, y = map(float, re.findall(r"[-\d.]+", str(today.get("transform"))))
    assert x0 < x < x1
    assert y > y1


@pytest.mark.parametrize("bolts", [3, 6, 8])
def test_the_lid_has_its_bolts_evenly_on_their_circle(bolts: int) -> None:
    picture, words = render_lid(0.06, 0.11, bolts, 0.0055, VOICE)
    svg = parse(picture)
    circles = [c for c in svg.iter("circle") if c.get("class") == "hole"]
    assert len(circles) == bolts + 1
    places = np.array([[float(str(c.get("cx"))) - 90.0, float(str(c.get("cy"))) - 90.0] for c in circles[1:]])
    radii = np.hypot(*places.T)
    assert np.ptp(radii) < 0.2
    assert radii[0] / float(str(circles[0].get("r"))) == pytest.approx(0.11 / 0.06, rel=0.02)
    assert words == f"Hole 60 mm; {bolts} holes of 5.5 mm on a circle of 110 mm; gasket 60 mm inside, 140 mm outside."
