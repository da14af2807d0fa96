"""The frame of a plot: its corners hold the ends of its axes, whatever those run over."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.drawing import ageing_chart, air_chart, curve, fan_chart, grade_chart, log_chart, sweep_chart, tradeoff
from fenwick.drawing.axes import PlotFrame

FRAMES = [module.FRAME for module in (ageing_chart, air_chart, curve, fan_chart, grade_chart, log_chart, sweep_chart)]
FRAMES += tradeoff.FRAMES.values()
EVERY = pytest.mark.parametrize("frame", FRAMES)


@EVERY
def test_a_plot_lies_within_its_picture(frame: PlotFrame) -> None:
    assert 0.0 < frame.left < frame.right < frame.width
    assert 0.0 < frame.top < frame.bottom < frame.height


@EVERY
@given(low=st.floats(-1e6, 1e6), span=st.floats(1e-3, 1e6), share=st.floats(0.0, 1.0))
def test_the_ends_of_an_axis_stand_at_the_corners(frame: PlotFrame, low: float, span: float, share: float) -> None:
    high = low + span
    x, y = frame.across(low, high), frame.up(low, high)
    assert (x(low), y(low)) == (frame.left, frame.bottom)
    assert x(high) == pytest.approx(frame.right)
    assert y(high) == pytest.approx(frame.top)
    between = low + share * span
    assert frame.left - 1e-6 <= x(between) <= frame.right + 1e-6
    assert frame.top - 1e-6 <= y(between) <= frame.bottom + 1e-6


@EVERY
def test_more_is_farther_right_and_higher_up(frame: PlotFrame) -> None:
    x, y = frame.across(0.0, 10.0), frame.up(0.0, 10.0)
    assert x(7.0) > x(3.0)
    assert y(7.0) < y(3.0)


def test_a_template_is_told_every_edge() -> None:
    frame = PlotFrame(100.0, 50.0, 10.0, 20.0, 5.0, 8.0)
    told = {"width": 100.0, "height": 50.0, "left": 10.0, "right": 80.0, "top": 5.0, "bottom": 42.0}
    assert frame.places == told
