"""Runs of a test as dots, state by state, each with its mean and interval, on one scale."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.bench.trials.expect import Expected
from fenwick.drawing.axes import PlotFrame, span_ticks
from fenwick.drawing.render import render
from fenwick.units.convert import from_display
from fenwick.wording.say import Voice

WIDTH, ROW, TOP, BOTTOM = 560.0, 74.0, 6.0, 30.0
LEFT, RIGHT = 24.0, 24.0
MOST_LETTERS = 48  #: of a state's name


@dataclass(frozen=True)
class RunMark:
    """One run."""

    number: int
    outcome: float
    counts: bool


@dataclass(frozen=True)
class StateRow:
    """One state."""

    name: str
    runs: tuple[RunMark, ...]
    mean: float | None
    low: float | None
    high: float | None
    expected: Expected | None = None  #: by the model


@dataclass(frozen=True)
class Dot:
    """One run on the page [px]."""

    x: float
    y: float
    number: int
    counts: bool


@dataclass(frozen=True)
class DrawnState:
    """One state on the page; all in [px]."""

    name: str
    y: float
    dots: list[Dot]
    mean: float | None
    ends: tuple[float, float] | None
    expected: float | None
    believed: tuple[float, float] | None  #: the ends of what the model holds possible


@dataclass(frozen=True)
class RunsScene:
    """The whole picture, for a page or for paper; all in [px], from the top left."""

    width: float
    height: float
    left: float
    right: float
    top: float
    bottom: float
    rows: list[DrawnState]
    ticks: list[tuple[float, str]]
    description: str


def runs_scene(
    states: Sequence[StateRow], quantity: str, voice: Voice, within: tuple[float, float]
) -> RunsScene | None:
    """Lay the runs out; None where nothing has been read and nothing is expected.

    Parameters
    ----------
    states : of the test
    quantity, voice : of the outcome, and whose units
    within : least and most that can be
    """
    values = [run.outcome for state in states for run in state.runs]
    values += [end for state in states for end in (state.low, state.high) if end is not None]
    values += [end for state in states for end in _of(state.expected)]
    if not values:
        return None
    low, high = min(values), max(values)
    room = max(0.06 * (high - low), 0.02 * abs(high)) or from_display(1.0, quantity, voice.system)
    ticks = span_ticks(max(low - room, within[0]), min(high + room, within[1]), quantity, voice.system)
    frame = PlotFrame(WIDTH, TOP + ROW * len(states) + BOTTOM, LEFT, RIGHT, TOP, BOTTOM)
    x = frame.across(ticks[0], ticks[-1])
    return RunsScene(
        **frame.places,
        rows=[_drawn(state, TOP + ROW * (i + 0.62), x) for i, state in enumerate(states)],
        ticks=[(x(t), voice.figure(t, quantity, unit=False)) for t in ticks],
        description="; ".join(_described(state, quantity, voice) for state in states),
    )


def _of(expected: Expected | None) -> tuple[float, ...]:
    return () if expected is None else (expected.low, expected.value, expected.high)


def render_runs(scene: RunsScene | None) -> Markup:
    """The picture as SVG; empty where there is none."""
    return Markup() if scene is None else render("runs_chart.svg.jinja", s=scene)


def _drawn(state: StateRow, y: float, x: Callable[[float], float]) -> DrawnState:
    name = state.name if len(state.name) <= MOST_LETTERS else state.name[: MOST_LETTERS - 1] + "…"
    ends = None if state.low is None or state.high is None else (x(state.low), x(state.high))
    mean = None if state.mean is None else x(state.mean)
    model = state.expected
    if model is None:
        return DrawnState(name, y, _dots(state, y, x), mean, ends, None, None)
    return DrawnState(name, y, _dots(state, y, x), mean, ends, x(model.value), (x(model.low), x(model.high)))


def _dots(state: StateRow, y: float, x: Callable[[float], float]) -> list[Dot]:
    """Runs of one value beside each other, not on top of each other."""
    dots: list[Dot] = []
    for run in state.runs:
        at = x(run.outcome)
        near = sum(abs(at - dot.x) < 10.0 for dot in dots)
        dots.append(Dot(at, y - 8.0 - 9.0 * near if near < 2 else y - 8.0, run.number, run.counts))
    return dots


def _described(state: StateRow, quantity: str, voice: Voice) -> str:
    model = ""
    if state.expected is not None:
        middle, least, most = (voice.figure(v, quantity) for v in (state.expected.value, *_ends(state.expected)))
        model = f"; the model expects {middle}, {least} to {most}"
    if state.mean is None or state.low is None or state.high is None:
        return f"{state.name}: nothing that counts yet{model}"
    mean, low, high = (voice.figure(value, quantity) for value in (state.mean, state.low, state.high))
    return f"{state.name}: {mean}, between {low} and {high}{model}"


def _ends(expected: Expected) -> tuple[float, float]:
    return expected.low, expected.high
