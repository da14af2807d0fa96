"""A tour of the live pages: ten minutes, a stop at a time, and left whenever one likes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from flask import Flask, request

COOKIE = "fenwick-tour"
TOOLS, MADE = "tools", "made"  #: which line a stop is at: the one with the most tools, or one with something to make


@dataclass(frozen=True)
class TourStop:
    """One page, what is on it, and what to try there."""

    endpoint: str
    title: str
    words: str
    try_it: str
    shows: str  #: selector of what is spoken of
    line: str = ""  #: TOOLS or MADE; empty: the page is the shop's


STOPS = (
    TourStop("home.show", "The shop at a glance",
        "Each card is a line as it stands: red is to be acted on, and the words say what. Below are the coming weeks.",
        "Find the worst card and read why; then the first thing under “Next, and why”.", ".home-lines"),
    TourStop("line.show", "A line, drawn",
        "Air comes in at the tools and leaves at the vacuum. Beside it: is there enough air, does it carry, what stays "
        "in the bin.",
        "Click a gate, and watch what the tool that stays open gets.", ".drawing-card", TOOLS),
    TourStop("line.show", "Change a part",
        "Pick any part: its measures stand below it, and every figure follows as you change them.",
        "Pick a hose, make it longer, and press u to take that back.", "#editor", TOOLS),
    TourStop("line.ports", "What each tool gets",
        "Alone, and with the others open: how much air, how fast it is, and whether that is enough there.",
        "Find the tool that gets too little. A click on it leads to its hood.", "main table", TOOLS),
    TourStop("line.way", "So much money, so many hours",
        "Single changes are put together to a way: each act with what it costs and what it brings.",
        "Put 0 where the money is: what can be had for nothing?", "main form", TOOLS),
    TourStop("dust.show", "Where the dust goes",
        "A hundred grams, followed to the floor, the bin, the filter and the room's air.",
        "Follow the broadest stream that does not end in the bin.", "main svg", TOOLS),
    TourStop("separator.show", "Inside the separator",
        "The section is drawn to scale. The curve says, grain by grain, what it keeps; the bin's level counts, too.",
        "Drag a knob of the section, and look at the curve. u takes it back.", "main svg", MADE),
    TourStop("build.show", "Making it",
        "Parts with what they are cut from, joints with their cures, steps in order: the sheets print 1 to 1.",
        "Say how many hours you have; see when it can run.", "main svg", MADE),
    TourStop("trials.hub", "Does it really?",
        "A test weighs what is fed and what is kept. Before it, you see what your scale and so many runs can tell.",
        "Open the result of a test: is its difference real?", "main", TOOLS),
    TourStop("log.show", "What was done",
        "One tap logs the usual, on a phone too; from that, Fenwick knows how full the bin is, in your shop.",
        "Tap “Emptied the bin” and then Undo.", ".log-quick"),
    TourStop("log.due", "What comes, and how sure that is",
        "Bin, filter and seals, by the model and by how long they really lasted here. With every life the bar narrows.",
        "Find what is overdue: a click on it logs it as done.", "main svg"),
    TourStop("log.trend", "Is it getting worse?",
        "The same few figures over the months, with what happened meanwhile. In this shop a seal let go.",
        "Find the month, and what was done about it.", "main svg"),
    TourStop("backups.show", "Nothing is ever lost",
        "A copy is put away each day, every change can be undone, and the whole shop goes out as one file.",
        "That is all. Leave the tour, and describe a line of your own: Start, in the foot of the page.", "main"),
)  # fmt: skip


def tour_stop() -> int | None:
    """The stop at which this browser's tour is, counted from 0; None: none is under way."""
    told = request.cookies.get(COOKIE, "")
    return int(told) if told.isascii() and told.isdecimal() and len(told) < 4 and int(told) < len(STOPS) else None


def init_app(app: Flask) -> None:
    """Tell every page where the tour is."""

    @app.context_processor
    def _tour() -> dict[str, Any]:
        at = tour_stop()
        if at is None:
            return {"tour": None, "tour_new": COOKIE not in request.cookies}
        return {"tour": STOPS[at], "tour_at": at + 1, "tour_of": len(STOPS)}
