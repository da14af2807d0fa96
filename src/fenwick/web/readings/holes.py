"""The drawing of readings: at every hole what was read last, and what the line should show there."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np
from flask import url_for
from markupsafe import Markup

from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.tuning.fit import Fit, miss_level, slopes_at
from fenwick.core.tuning.readings import BLOCKED, FLOW, SEALED, SUCTION, Reading
from fenwick.data.lines import LineState
from fenwick.data.readings import Taken
from fenwick.drawing import NARROW, WIDE, lay_out_scene
from fenwick.drawing.canvas import Canvas
from fenwick.drawing.holes import TOOL, VACUUM, Hole, render_holes
from fenwick.services.solving import solve
from fenwick.wording.say import Voice
from fenwick.wording.tuning import reading_figure, reading_words


def drawn_holes(
    state: LineState,
    fitted: Fit,
    taken: Sequence[Taken],
    kinds: Sequence[tuple[str, str]],
    picked: Reading,
    best: Reading | None,
    voice: Voice,
) -> dict[str, Markup]:
    """The line with its gauges, wide and narrow.

    Parameters
    ----------
    fitted : to its readings, or as believed before any
    taken : the readings so far
    kinds : (id, words) of the places where suction can be read
    picked : what the form asks for: its kind says which suction the gauges show
    best : the reading that would tell most; None: none would
    """
    asked = _asked(kinds, picked, fitted)
    mean = slopes_at(fitted.line, asked, fitted.logs)[0]
    last = _last(taken)
    holes = [
        _hole(one, float(value), last.get(_place(one)), picked, best, state.id, voice)
        for one, value in zip(asked, mean, strict=True)
    ]
    ways = [leaf.id for leaf in fitted.line.leaves]
    port = (
        ways.index(picked.port)
        if picked.port in ways
        else next((i for i, leaf in enumerate(fitted.line.leaves) if leaf.open), 0)
    )
    link = _linked(state.id, picked, dict(kinds))
    return {
        name: _picture(state, voice, canvas, link, port, holes, f"holes-{name}")
        for name, canvas in (("wide", WIDE), ("narrow", NARROW))
    }


def _picture(
    state: LineState,
    voice: Voice,
    canvas: Canvas,
    link: Callable[[str], str],
    port: int,
    holes: Sequence[Hole],
    name: str,
) -> Markup:
    scene = lay_out_scene(state.rig, solve(state.rig).found, voice, canvas, link, None, port, named=False)
    there = {part.id for part in scene.parts} | {TOOL, VACUUM}
    return render_holes(scene, [hole for hole in holes if hole.at in there], name)


def _asked(kinds: Sequence[tuple[str, str]], picked: Reading, fitted: Fit) -> list[Reading]:
    """Everything that can be read on the drawing: air at the tool, suction at every hole, the vacuum alone."""
    suction = BLOCKED if picked.kind == BLOCKED else SUCTION
    port = picked.port or next((leaf.id for leaf in fitted.line.leaves if leaf.open), fitted.line.leaves[0].id)
    walls = [Reading(suction, 0.0, 1.0, port, place) for place, _ in kinds]
    return [Reading(FLOW, 0.0, 1.0, port), *walls, Reading(SEALED, 0.0, 1.0)]


def _place(reading: Reading) -> tuple[str, ...]:
    return (reading.kind, reading.port if reading.kind != SEALED else "", reading.station)


def _last(taken: Sequence[Taken]) -> Mapping[tuple[str, ...], Taken]:
    return {_place(one.reading): one for one in taken if not one.left_out}


def _hole(
    asked: Reading, value: float, last: Taken | None, picked: Reading, best: Reading | None, line_id: int, voice: Voice
) -> Hole:
    at = TOOL if asked.kind == FLOW else VACUUM if asked.kind == SEALED else asked.station
    known = bool(np.isfinite(value))
    level = ""
    if last is not None and known:
        level = LEVEL_WORDS[miss_level((last.reading.value - value) / last.reading.sd)]
    return Hole(
        at,
        reading_words(asked, voice),
        "" if last is None else _figure(asked, last.reading.value, voice),
        f"≈ {_figure(asked, value, voice)}" if known else "",
        level,
        _place(asked) == _place(picked),
        _best_words(asked, best),
        _address(line_id, asked),
    )


def _same_hole(asked: Reading, best: Reading) -> bool:
    """Whether both are read in one place, be the hose open or shut."""
    walls = (SUCTION, BLOCKED)
    return asked.station == best.station and (asked.kind == best.kind or (asked.kind in walls and best.kind in walls))


def _best_words(asked: Reading, best: Reading | None) -> str:
    if best is None or not _same_hole(asked, best):
        return ""
    return "tells most, shut" if best.kind == BLOCKED and asked.kind != BLOCKED else "tells most"


def _figure(asked: Reading, value: float, voice: Voice) -> str:
    """A suction without its unit, which stands under the drawing; air with it."""
    return reading_figure(asked, value, voice, unit=asked.kind == FLOW)


def _address(line_id: int, asked: Reading) -> str:
    told: dict[str, Any] = {"kind": asked.kind, "port": asked.port, "station": asked.station}
    return url_for("readings.show", line_id=line_id, **{key: words for key, words in told.items() if words})


def _linked(line_id: int, picked: Reading, places: Mapping[str, str]) -> Callable[[str], str]:
    """A part leads to the hole behind it; one without a hole leads nowhere else."""

    def link(part: str) -> str:
        kind = picked.kind if picked.kind in (SUCTION, BLOCKED) else SUCTION
        return _address(line_id, Reading(kind, 0.0, 1.0, picked.port, part if part in places else picked.station))

    return link
