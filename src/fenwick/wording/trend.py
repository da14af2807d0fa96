"""Whether something gets worse, in one sentence."""

from __future__ import annotations

import math

from fenwick.core.logbook.entries import GRADES
from fenwick.core.logbook.trend import RECOVERED, UNKNOWN, WORSE, TrendFound
from fenwick.wording.logbook import span
from fenwick.wording.say import Voice
from fenwick.wording.upkeep import hours

TITLES = {
    "kept": "Kept in the bin",
    "life": "Life of the filter, at the usual mix of work",
    "suction": "Suction at a fixed place",
    "wiped": "What a wipe through the tank shows",
    "between": "Days between emptyings",
}
WHAT = {
    "kept": "what is kept",
    "life": "the life of the filter",
    "suction": "the suction at the fixed place",
    "wiped": "the wipe",
    "between": "the time between emptyings",
}


WIPES = ("none", "breath", "film", "heap", "layer", "black")  #: along an axis
PIECE_WORDS = {
    "gasket": "gasket",
    "latch": "latch",
    "joint": "joint",
    "chamber-seal": "chamber seal",
    "cord": "cord",
    "brushes": "brushes",
    "hose": "hose",
    "whole-line": "line looked over",
}


def axis_words(kind: str, value: float, voice: Voice) -> str:
    """One value along an axis, where there is little room.

    Parameters
    ----------
    kind : key of `TITLES`
    value : in its own unit
    voice : whose units
    """
    return WIPES[min(max(round(value), 0), len(WIPES) - 1)] if kind == "wiped" else trend_figure(kind, value, voice)


def trend_figure(kind: str, value: float, voice: Voice) -> str:
    """One value of a figure.

    Parameters
    ----------
    kind : key of `TITLES`
    value : in its own unit
    voice : whose units
    """
    if math.isnan(value):
        return "not known"
    if kind == "life":
        return hours(value)
    if kind == "between":
        return span(value)
    if kind == "wiped":
        return f"“{GRADES[min(max(round(value), 0), len(GRADES) - 1)]}”"
    return voice.figure(value, "share" if kind == "kept" else "suction")


def trend_sentence(kind: str, found: TrendFound, voice: Voice) -> str:
    """What is said of a figure: whether it gets worse, against what, and since when."""
    now = trend_figure(kind, found.now, voice)
    if found.word == UNKNOWN:
        return f"Cannot be told yet: it takes four values or more. The last: {now}."
    good = trend_figure(kind, found.good, voice)
    lasts = "" if found.since is None else f" for {span(max(-found.since, 1.0))} now"
    if found.word == WORSE:
        return f"Yes: {WHAT[kind]} was {good} on its good days and has been {now}{lasts}."
    if found.word == RECOVERED:
        return f"No: {WHAT[kind]} has been back at {now}{lasts}; on its good days it is {good}."
    return f"No: {WHAT[kind]} holds at {now}, as on its good days ({good})."
