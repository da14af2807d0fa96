"""What can be written into the log: kinds of entries, what each is about, and what may be said of it."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.logbook.lives import AFTER, BEFORE, IN_TIME

# what an entry may be about
BIN, FILTER, BAG, TANK, PIECE, TOOL, LINE, SHOP = "bin", "filter", "bag", "tank", "piece", "tool", "line", "shop"
# amounts that an entry may have; each is a column of its own
LEVEL, VOLUME, MASS, HOURS, COUNT, MONEY, SUCTION, KEPT, GRADE, PITCH, QUIET = (
    "level", "volume", "mass", "hours", "count", "money", "suction", "kept", "grade", "pitch", "quiet",
)  # fmt: skip


@dataclass(frozen=True)
class EntryKind:
    """One kind of entry."""

    label: str  #: what was done
    about: str  #: BIN, FILTER and so on
    amounts: tuple[str, ...] = ()  #: what may be said of it
    needs: str = ""  #: the one without which it says nothing; "words": a text
    findings: str = ""  #: key of `FINDINGS`; empty: nothing is found
    caution: str = ""


FINDINGS: dict[str, dict[str, str]] = {
    "time": {"due": "It was time", "early": "Earlier than it had to be", "late": "Long overdue"},
    "state": {"good": "Good", "worn": "Worn, still tight", "let-go": "It has let go"},
}
ENDED = {"due": IN_TIME, "early": BEFORE, "late": AFTER}
PIECES = {
    "gasket": "Gasket of the bin",
    "latch": "Latches or ring",
    "joint": "Joint of the line",
    "chamber-seal": "Seal of the chamber",
    "cord": "Cord and plug",
    "brushes": "Brushes of the motor",
    "hose": "Hose",
    "whole-line": "The whole line, parts off",
}
SPENT_ON = {"filter": "Filters", "bag": "Bags", "parts": "Parts", "separator": "The separator itself", "other": "Other"}
#: of what a wipe shows, or a filter, 0 clean to 5 black
GRADES = ("no trace", "a grey breath", "a grey film", "dust one can heap", "a layer", "black")
GRADED_AT = {"tank": "Tank of the vacuum", "corners": "Corners of the tank", "filter": "Filter", "hose": "Hose"}
MASK = "Mask on, outdoors or with the window open, and let the dust settle before the lid comes off."
UNPLUG = "Unplug the vacuum first."

KINDS: dict[str, EntryKind] = {
    "emptied": EntryKind("Emptied the bin", BIN, (LEVEL, VOLUME, MASS), caution=MASK),
    "looked": EntryKind("Looked at the bin", BIN, (LEVEL,), LEVEL),
    "tapped": EntryKind("Tapped the filter", FILTER, findings="time", caution=f"{UNPLUG} {MASK}"),
    "blown": EntryKind("Blew the filter out", FILTER, findings="time", caution=f"Never indoors. {UNPLUG} {MASK}"),
    "washed": EntryKind("Washed the filter", FILTER, findings="time", caution="It goes back dry through and through."),
    "replaced": EntryKind("New filter", FILTER, (MONEY,), findings="time", caution=f"{UNPLUG} {MASK}"),
    "bag": EntryKind("New bag", BAG, (MASS, MONEY), findings="time", caution=f"{UNPLUG} {MASK}"),
    "tank": EntryKind("Emptied the vacuum's tank", FILTER, (MASS,), caution=f"{UNPLUG} {MASK}"),
    "worked": EntryKind("Worked", TOOL, (HOURS, COUNT), HOURS),
    "inspected": EntryKind("Looked over", PIECE, findings="state", caution=UNPLUG),
    "renewed": EntryKind("Replaced or mended", PIECE, (MONEY,), caution=UNPLUG),
    "suction": EntryKind("Read the suction", LINE, (SUCTION,), SUCTION),
    "kept": EntryKind("Measured what is kept", LINE, (KEPT,), KEPT),
    "wiped": EntryKind("Graded a wipe or a filter", LINE, (GRADE,), GRADE, caution=UNPLUG),
    "heard": EntryKind("Heard the motor", LINE, (PITCH, QUIET), PITCH),
    "inside": EntryKind("Looked into the bin", BIN, (LEVEL,), LEVEL, caution=UNPLUG),
    "odd": EntryKind("Found something odd", LINE, needs="words"),
    "spent": EntryKind("Spent money", SHOP, (MONEY,), MONEY),
    "changed": EntryKind("Changed the line", LINE),
    "remark": EntryKind("Remark", SHOP, needs="words"),
}
CLEANED = ("tapped", "blown", "washed")  #: the filter goes on with what stays in it


#: (least, most) of each amount, in its own unit; beyond it was mistyped
BOUNDS: dict[str, tuple[float, float]] = {
    LEVEL: (0.0, 3.0),
    VOLUME: (0.0, 3.0),
    MASS: (0.0, 500.0),
    HOURS: (0.0, 1000.0),
    COUNT: (0.0, 100_000.0),
    MONEY: (-1e6, 1e6),
    SUCTION: (0.0, 60_000.0),
    KEPT: (0.0, 1.0),
    GRADE: (0.0, float(len(GRADES) - 1)),
    PITCH: (20.0, 5000.0),
    QUIET: (0.0, 120.0),
}
MOST_WORDS = 2000
#: quantities of the units' table, in which each is shown
QUANTITIES = {
    LEVEL: "bore", VOLUME: "volume", MASS: "heap", HOURS: "number", COUNT: "number", MONEY: "number",
    SUCTION: "suction", KEPT: "share", GRADE: "number", PITCH: "number",
    QUIET: "number",
}  # fmt: skip
