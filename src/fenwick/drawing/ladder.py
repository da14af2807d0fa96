"""The suction ladder: what a gauge on the wall reads along the line, under the drawing it belongs to."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.judging.assess import Assessment
from fenwick.drawing.axes import axis_ticks
from fenwick.drawing.render import render
from fenwick.drawing.scene import Scene
from fenwick.drawing.shapes import text_width
from fenwick.wording.say import Voice

TOP, LEFT, RIGHT_MARGIN = 24.0, 44.0, 10.0
BELOW = 22.0
WORDS = {"entry": "entry", "filter": "filter", "separator": "separator"}


@dataclass(frozen=True)
class Rung:
    """One station."""

    x: float
    y: float
    reading: str
    title: str


@dataclass(frozen=True)
class LossLabel:
    """A part's loss over its stretch."""

    x: float
    text: str


def render_ladder(scene: Scene, found: Assessment, voice: Voice, height: float, name: str) -> Markup:
    """The ladder as SVG, as wide as the scene."""
    s = found.point.stations
    deepest = max(float(s.static_suction[:, 0].max()), 1.0)
    ticks = axis_ticks(deepest, "suction", voice.system)
    bottom = height - BELOW

    def down(suction: float) -> float:
        return TOP + (bottom - TOP) * suction / ticks[-1]

    shown = [i for i, station in enumerate(s.ids) if _on_way(station, scene)]
    places = _places(scene, found, shown)
    rungs = [Rung(places[0] - 12.0, TOP, voice.figure(0.0, "suction"), "in the room")]
    labels: list[LossLabel] = []
    merged = 0.0
    for place, i in zip(places, shown, strict=True):
        suction = float(s.static_suction[i, 0])
        rungs.append(Rung(place, down(suction), voice.figure(suction, "suction"), _title(s.ids[i], voice)))
        merged += float(s.loss[i, 0])
        if s.kinds[i] in ("step", "inlet"):
            continue  # a change of bore is counted with the part that follows it
        if merged > 0.02 * deepest:
            middle = 0.5 * (rungs[-2].x + place)
            labels.append(LossLabel(middle, f"{_short(s.ids[i], voice)} {_loss(merged, voice)}"))
        merged = 0.0
    return render(
        "ladder.svg.jinja",
        width=scene.canvas.width,
        height=height,
        top=TOP,
        left=LEFT,
        right=scene.canvas.width - RIGHT_MARGIN,
        rungs=rungs,
        labels=_apart(labels, scene.canvas.width) if scene.canvas.labels else [],
        ticks=[(down(tick), voice.figure(tick, "suction", unit=False)) for tick in ticks],
        name=name,
        title="Suction along the line",
        description="Static suction, as a gauge on the wall reads it: "
        + ", ".join(f"{rung.title} {rung.reading}" for rung in rungs)
        + ".",
    )


def _on_way(station: str, scene: Scene) -> bool:
    """Whether a station belongs to the way that is drawn."""
    part = station.split(">")[-1].split(":")[0]
    return part == "vacuum" or part in scene.on_way


def _places(scene: Scene, found: Assessment, shown: list[int]) -> list[float]:
    """x of every shown station's end; never to the left of the one before."""
    s, places, last = found.point.stations, [], LEFT + 18.0
    beyond = scene.vacuum.inlet[0] + 0.35 * scene.vacuum.width
    for i in shown:
        kind = s.kinds[i]
        if kind == "filter":
            x = beyond
        elif kind == "step":
            x = last
        elif kind == "inlet":
            x = scene.vacuum.inlet[0]
        else:
            x = scene.stations.get(s.ids[i], last)
        last = max(last, x)
        places.append(last)
    return places


def _title(station: str, voice: Voice) -> str:
    if ":" in station:
        part, _, end = station.partition(":")
        return f"{voice.name(part)} {end.replace('>', ' to ')}"
    return " to ".join(voice.name(part) for part in station.split(">"))


def _short(station: str, voice: Voice) -> str:
    part, _, end = station.partition(":")
    return WORDS.get(end, end) if end else voice.name(part)


def _loss(loss: float, voice: Voice) -> str:
    return voice.figure(loss, "suction", unit=False)


def _apart(labels: list[LossLabel], width: float) -> list[LossLabel]:
    """Largest first would hide the order; keep the order and drop what would touch its neighbour."""
    kept: list[LossLabel] = []
    edge = LEFT
    for label in labels:
        half = text_width(label.text, 13.0) / 2
        x = max(label.x, edge + half + 4)
        if x + half > width - 4 or x - label.x > 46:
            continue
        kept.append(LossLabel(x, label.text))
        edge = x + half
    return kept
