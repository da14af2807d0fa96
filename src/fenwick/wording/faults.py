"""The fault finder in words: what was noticed, what it may be, why, what to do, and what to check next."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.bench.faults.hunt import LOOK, Case, NextCheck, Suspect
from fenwick.core.bench.faults.practice import LEVELS
from fenwick.core.bench.faults.since import since_factor
from fenwick.core.logbook.entries import KINDS, PIECES
from fenwick.core.tuning.readings import Reading
from fenwick.units.sentence import inside
from fenwick.wording.say import Voice
from fenwick.wording.tuning import HOW, reading_figure, reading_words

SYMPTOM_WORDS = {
    "weak": "The suction is weak",
    "pitch-high": "The vacuum sounds higher than usual",
    "dust-in-vacuum": "There is dust in the vacuum that should be in the bin",
    "filter-grey-soon": "The filter greys sooner than it did",
    "whistle": "It whistles or hisses somewhere",
    "dust-at-tool": "More dust stays at the tool",
    "hose-lies-full": "Dust lies in a hose",
    "bin-moves": "The bin's wall moves or creaks",
}
#: fault to (what it is, what to do)
FAULT_WORDS = {
    "healthy": ("Nothing is wrong that would show", "Take the readings again, or give a symptom."),
    "caked-filter": ("The filter is caked", "Clean it outdoors, masked; never blow it out indoors."),
    "full-bag": ("The bag is full", "Put in a new one, outdoors and masked."),
    "blocked-hose": (
        "Something sits in the hose",
        "Unplug, take the hose off, push a rod through; no fingers at a blade.",
    ),
    "blocked-port": ("The tool's port is blocked", "Unplug the tool before reaching in, and clear it."),
    "overfull-bin": ("The bin is too full", "Empty it to the line, outdoors and masked."),
    "slot-bridged": ("Chips lie over the slot", "Take the chamber off and clear it; a wider slot passes them."),
    "leak-lid": ("The bin's lid or seam leaks", "Seat the lid, mend the gasket, tape the seam."),
    "leak-link": ("The link to the vacuum leaks", "Push it home, tape or clamp it."),
    "leak-hose": ("The hose to the tool leaks", "Feel along it with a wet hand; tape the split, or cut it off."),
    "swapped-hoses": ("The hoses are on each other's ports", "The vacuum belongs on the centre, the tool on the side."),
    "gate-open": ("Another gate stands open", "Shut it."),
    "worn-motor": (
        "The motor is tired",
        "Clean its cooling slots; worn brushes are a repair for someone who does them.",
    ),
    "folded-bin": (
        "The bin is drawn in",
        "Switch off, hands off, let air in slowly; stiffen it, or fit a relief valve.",
    ),
    "tilted": ("The separator leans", "Set it upright."),
}
#: what to look at, by the fault that it shows
LOOK_WORDS = {
    "overfull-bin": "Lift the lid: does the dust stand above the line to empty it by?",
    "slot-bridged": "Look into the chamber: do chips lie over the slot?",
    "swapped-hoses": "Is the tool's hose on the centre port?",
    "gate-open": "Walk along the line: does another gate stand open?",
    "folded-bin": "Switched off: is the bin's wall drawn in anywhere?",
    "tilted": "Does the separator lean?",
    "full-bag": "Feel the bag: is it full?",
}


def work_words(work: str, day: str) -> str:
    """What was done, by a key of `WORK`, and on which day."""
    kind, _, piece = work.partition("~")
    what = KINDS[kind].label
    return f"{what}: {inside(PIECES[piece])}, {day}" if piece else f"{what}, {day}"


def since_words(fault: str, since: str) -> list[str]:
    """What it says of a suspect that it began with some work; nothing where it says nothing."""
    factor = since_factor(fault, since)
    if factor == 1.0:
        return []
    if factor > 1.0:
        return [f"It was handled then: {factor:g} times as likely for that."]
    return [f"It was renewed then: {factor:g} times as likely for that."]


#: how hard a hunt for practice is
LEVEL_TITLES = {"easy": "A gross one", "usual": "As it happens", "two": "Two at once"}
assert set(LEVEL_TITLES) == set(LEVELS)
LIKELY, SURE = 0.5, 0.85  #: of belief [-]


def belief_words(share: float) -> str:
    """How sure one may be of a suspect."""
    return "most likely" if share >= SURE else "likely" if share >= LIKELY else "possible"


def reason(suspect: Suspect, case: Case, readings: Sequence[Reading], voice: Voice) -> list[str]:
    """Reading by reading: what it should be with the fault, and without."""
    if not readings:
        return ["By what was noticed alone; a reading would tell more."]
    healthy = case.said(readings)[0]
    said = []
    for i, reading in enumerate(readings):
        if reading.kind == LOOK:
            saw = "seen" if reading.value > 0.5 else "not seen"
            said.append(f"{FAULT_WORDS[reading.station][0]}: {saw}.")
            continue
        with_it, without = (reading_figure(reading, float(row[i]), voice) for row in (suspect.expected, healthy))
        read = reading_figure(reading, reading.value, voice)
        said.append(f"{reading_words(reading, voice)}: read {read}; with this fault {with_it}, sound {without}.")
    return said


def check_words(check: NextCheck, voice: Voice) -> tuple[str, str]:
    """(what to check next, what the two make it that it parts best)."""
    if check.reading.kind == LOOK:
        return LOOK_WORDS[check.reading.station], f"{check.minutes:.0f} min"
    first, second = (reading_figure(check.reading, value, voice) for value in (check.first, check.second))
    how = HOW[check.reading.kind]
    one, other = (inside(FAULT_WORDS[key][0]) for key in (check.leading, check.other))
    told = f"{first} if {one}, {second} if {other}"
    return reading_words(check.reading, voice), f"{check.minutes:.0f} min · {told}. {how}"
