"""Figures over the months, as pages show them: in the log with all their charts, on Home in small."""

from __future__ import annotations

import numpy as np
from flask import url_for

from fenwick.core.logbook.trend import RECOVERED, UNKNOWN, WORSE
from fenwick.drawing.trend_chart import TrendMark, TrendPlot
from fenwick.services.logbook.elsewhere import ON_WAY
from fenwick.services.logbook.trend import Happened, LineTrend, TrendSeries
from fenwick.wording.say import Voice
from fenwick.wording.trend import PIECE_WORDS, TITLES, axis_words, trend_sentence

LEVELS = {WORSE: "act", RECOVERED: "ok", UNKNOWN: "none"}


def level_of(series: TrendSeries) -> str:
    """How its latest values are judged."""
    return LEVELS.get(series.found.word, "ok")


def plot_of(series: TrendSeries, trend: LineTrend, voice: Voice) -> TrendPlot:
    """A series as it is drawn."""
    values = series.measured.value
    ends = dict.fromkeys((float(values.max()), float(values.min())))
    title = f"{TITLES[series.kind]}, {trend.name}: {values.size} values."
    return TrendPlot(
        series.measured.day,
        values,
        tuple((value, axis_words(series.kind, value, voice)) for value in ends),
        None if np.isnan(series.found.good) else series.found.good,
        tuple(map(_mark, trend.happened)),
        level_of(series),
        f"{title} {trend_sentence(series.kind, series.found, voice)}",
    )


def _mark(one: Happened) -> TrendMark:
    what = PIECE_WORDS.get(one.what)
    if one.what == ON_WAY:
        return TrendMark(one.day, "step of the way", "ok")
    if what is None:
        return TrendMark(one.day, "line changed", "ok")
    return TrendMark(one.day, f"{what} let go", "act") if one.let_go else TrendMark(one.day, f"new {what}", "ok")


def fault_link(line: int) -> str:
    """The way to the fault finder."""
    return url_for("faults.show", line_id=line)
