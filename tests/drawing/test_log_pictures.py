"""The strip of what is due, a line in small, a figure over the months: nothing leaves its picture or meets another."""

import re
from itertools import pairwise
from xml.etree import ElementTree

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.drawing.due_strip import LETTER, WIDTH, StripItem, render_due_strip
from fenwick.drawing.small_line import BODIES, SmallLine, render_small_line
from fenwick.drawing.trend_chart import FRAMES, TrendMark, TrendPlot, render_trend_chart

DAYS = st.floats(-400, 900) | st.just(float("inf"))


def parse(markup: object) -> ElementTree.Element:
    """A picture, parsed."""
    return ElementTree.fromstring(str(markup))


@given(st.lists(st.tuples(DAYS, DAYS, DAYS), max_size=9), st.sampled_from(list(WIDTH)))
def test_every_bar_dot_and_note_stays_on_the_strip(days: list[tuple[float, float, float]], size: str) -> None:
    items = [
        StripItem(f"Thing {i}", "in 3 to 5 weeks", *sorted(three), level="ok", link="/log")
        for i, three in enumerate(days)
    ]
    svg = parse(render_due_strip(items, size))
    for bar in svg.iter("rect"):
        assert float(str(bar.get("x"))) >= 0.0
        assert float(str(bar.get("x"))) + float(str(bar.get("width"))) <= WIDTH[size]
    for dot in svg.iter("circle"):
        assert 0.0 <= float(str(dot.get("cx"))) <= WIDTH[size]
    for note in (one for one in svg.iter("text") if one.get("class") == "due-note"):
        at, words = float(str(note.get("x"))), LETTER * len(str(note.text))
        if size == "wide":
            assert (at - words if note.get("text-anchor") == "end" else at + words) <= WIDTH[size]
            assert at - (words if note.get("text-anchor") == "end" else 0.0) >= 0.0


def test_the_dot_stands_on_the_likely_day() -> None:
    svg = parse(render_due_strip([StripItem("Bin", "soon", 7.0, 14.0, 28.0, "watch", "/log")]))
    ticks = [float(str(line.get("x1"))) for line in svg.iter("line")]
    dot = next(svg.iter("circle"))
    assert float(str(dot.get("cx"))) == pytest.approx(ticks[2], abs=0.2)
    bar = next(svg.iter("rect"))
    assert float(str(bar.get("x"))) == pytest.approx(ticks[1], abs=0.2)


@pytest.mark.parametrize("stage", [*BODIES, None])
@pytest.mark.parametrize("amiss", ["tool", "hose", "stage", "bin", "vacuum", None])
def test_what_is_amiss_is_marked_once(stage: str | None, amiss: str | None) -> None:
    svg = str(render_small_line(SmallLine("Line", "bandsaw", 3, stage, 0.5, 0.8, 0.4, amiss, "act")))
    expected = 0 if amiss is None or (stage is None and amiss in ("stage", "bin")) else 1
    assert svg.count("amiss-act") == expected
    assert "3 tools" in svg


def test_a_fuller_bin_shows_more_dust() -> None:
    def top(fill: float) -> float:
        svg = str(render_small_line(SmallLine("Line", "bandsaw", 1, "disc", fill, None, None, None, "ok")))
        found = re.search(r'class="dust" d="M [\d.]+ ([\d.]+)', svg)
        return float(found[1]) if found else 1e9

    assert top(0.9) < top(0.5) < top(0.1) < top(0.0)


@given(
    st.lists(st.tuples(st.floats(-3000, 0), st.floats(-1e3, 1e3)), min_size=1, max_size=30),
    st.lists(st.floats(-4000, 0), max_size=6),
    st.sampled_from(list(FRAMES)),
)
def test_every_value_and_mark_stays_in_the_frame(
    values: list[tuple[float, float]], marks: list[float], size: str
) -> None:
    values.sort()
    plot = TrendPlot(
        np.array([day for day, _ in values]),
        np.array([value for _, value in values]),
        ((values[0][1], "first"),),
        None,
        tuple(TrendMark(day, "new gasket", "ok") for day in marks),
        "ok",
        "A figure",
    )
    svg = parse(render_trend_chart(plot, size))
    frame = FRAMES[size]
    for spot in svg.iter("circle"):
        assert frame.left - 1.0 <= float(str(spot.get("cx"))) <= frame.right + 1.0
        assert frame.top - 1.0 <= float(str(spot.get("cy"))) <= frame.bottom + 1.0
    words = [one for one in svg.iter("text") if "trend-words" in str(one.get("class"))]
    spans = sorted((str(one.get("y")), float(str(one.get("x")))) for one in words)
    for (row, before), (other, after) in pairwise(spans):
        assert row != other or after - before >= 6.2 * len("new gasket") - 0.2
