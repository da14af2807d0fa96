"""Sentences for checks of strength, standing, lifting, circuits and the motor: figure, limit, reason, remedy."""

from __future__ import annotations

from collections.abc import Callable
from math import degrees

from fenwick.core.components.bins import Relief
from fenwick.core.judging.check import ACT, OK, Check
from fenwick.core.judging.standing import DUST_ALONE
from fenwick.wording.say import Voice

LICENSED = "Circuits are work for a licensed electrician, to local code."


def _level(check: Check) -> int:
    return int(check.level[0])


def _ring(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return f"The ring carries {value}; {limit} is wanted with the margin."
    need = "" if not check.notes else f" It takes {check.notes[0]:.0f} N·m² of stiffness: a ring deeper outwards."
    return f"The ring carries {value} and {limit} is wanted: it would fold with the wall.{need}"


def _relief(check: Check, value: str, limit: str, voice: Voice) -> str:
    opens = "" if not check.notes else f" at {voice.figure(check.notes[0], 'suction')}"
    if _level(check) == OK:
        return f"The valve opens {value}{opens}; {limit} lets all of the fan's air in. Test it with the hose shut."
    return (
        f"The valve opens {value}{opens}; it must open before the bin folds, and by {limit}, to save it. A larger one, "
        "or a second beside it."
    )


def relief_words(valve: Relief, voice: Voice) -> str:
    """What valve would save a bin."""
    opens_at, area = voice.figure(float(valve.opens_at), "suction"), voice.figure(float(valve.area), "gap")
    return f"A valve that opens {area} at {opens_at} would save it."


def _lid(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return f"A blocked hose draws the lid in by {value}; up to {limit} is fine."
    return (
        f"A blocked hose draws the lid in by {value}, and {limit} is the most: it leaks or snaps in. Glue a disc on it."
    )


def _sheet(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return f"Bent cold, the sheet stands at {value}; it holds {limit} for years."
    if _level(check) == ACT:
        return f"Bent cold, the sheet stands at {value}: it cracks. Thinner sheet, a wider radius, or bend it warm."
    return f"Bent cold, the sheet stands at {value} and holds {limit} for years: it may craze. Thinner sheet is better."


def _headroom(check: Check, value: str, limit: str, voice: Voice) -> str:
    tall = "" if not check.notes else voice.figure(check.notes[0], "bore")
    if _level(check) == OK:
        return f"There is {value} of height; with its hose it stands {tall} and the lid comes off ({limit})."
    if _level(check) == ACT:
        return (
            f"With its hose it stands {tall} and there is {value}: it does not fit. A shorter bin, or beside the bench."
        )
    return f"It fits, but {limit} is wanted to lift the lid off and there is {value}. Make it roll out, or a side door."


def _footprint(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return f"It is {value} across, and has {limit} of floor."
    return f"It is {value} across, and has {limit} of floor: it does not fit."


def _tips(check: Check, value: str, limit: str, voice: Voice) -> str:
    full, leans = voice.figure(check.notes[0], "force"), f"{degrees(check.notes[1]):.0f}°"
    if _level(check) == OK:
        return f"It takes {value} at its inlet to tip it empty, {full} full; a hose pulls about {limit}, or it is tied."
    return (
        f"{value} at its inlet tip it over empty, {full} full; a hose pulls about {limit}. Leaning {leans} it goes by "
        "itself. A wider foot, a weight in it, or tie it to a wall."
    )


def _weight(check: Check, value: str, limit: str, voice: Voice) -> str:
    what = "the dust alone" if DUST_ALONE in check.about else "bin and dust"
    if _level(check) == OK:
        return f"Full to its line you lift {value} ({what})."
    if _level(check) == ACT:
        return f"Full to its line you lift {value} ({what}): not alone. Empty it earlier, or use a liner and a lift."
    return f"Full to its line you lift {value} ({what}); above {limit} with care and a straight back. Empty it earlier."


def _circuit(check: Check, value: str, limit: str, voice: Voice) -> str:
    rated = "" if not check.notes else voice.figure(check.notes[0], "current")
    name = voice.name(check.part)
    if _level(check) == OK:
        return f"{name} and vacuum draw {value} together; its circuit stands {limit} for long."
    if _level(check) == ACT:
        return (
            f"{name} and vacuum draw {value} together and the breaker is for {rated}: it trips. Two circuits. "
            f"{LICENSED}"
        )
    return (
        f"{name} and vacuum draw {value} together, and a breaker for {rated} stands {limit} for long: cables warm up. "
        f"{LICENSED}"
    )


def _switch(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return f"{voice.name(check.part)} and vacuum draw {value} through a switch for {limit}."
    return (
        f"{voice.name(check.part)} and vacuum draw {value} through a switch for {limit}: it burns. Let a "
        "switch for the "
        f"tool start the vacuum through a contactor. {LICENSED}"
    )


def _start(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return (
            f"Starting the vacuum beside {voice.name(check.part)} draws {value} for a moment; the breaker stands "
            f"{limit}."
        )
    return (
        f"Starting the vacuum beside {voice.name(check.part)} draws {value} for a moment and the breaker "
        f"stands {limit}: "
        "start them one after the other, the vacuum first."
    )


def _run_on(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return f"The switch lets the vacuum run on for {value}; the line clears in {limit}."
    return f"The switch lets the vacuum run on for {value}, and the line takes {limit} to clear. Set it longer."


def _starved(check: Check, value: str, limit: str, voice: Voice) -> str:
    seconds = "" if not check.notes else f"{check.notes[0]:.0f}"
    blocked = f"A hose is blocked for a test {seconds} s at most; then let the motor cool."
    if _level(check) == OK:
        return f"{value} of its open flow passes the vacuum; its motor wants {limit}. {blocked}"
    return (
        f"Only {value} of its open flow passes the vacuum; its motor wants {limit} for cooling: a buried filter or a "
        f"blocked hose burns it out. Clear it first. {blocked}"
    )


def _filter_class(check: Check, value: str, limit: str, voice: Voice) -> str:
    if _level(check) == OK:
        return f"{value} of the breathable dust that reaches the vacuum comes out of it; {limit} is the mark."
    return (
        f"{value} of the breathable dust that reaches the vacuum comes out of it, {limit} is the mark. A "
        "finer filter, a "
        "bag before it, or blow it outdoors."
    )


FIGURES: dict[str, Callable[[Check, str, str, Voice], str]] = {
    "ring-stiff": _ring,
    "relief": _relief,
    "lid-bends": _lid,
    "sheet-bends": _sheet,
    "headroom": _headroom,
    "footprint": _footprint,
    "tips": _tips,
    "full-weight": _weight,
    "circuit": _circuit,
    "switch": _switch,
    "start-up": _start,
    "run-on": _run_on,
    "motor-starved": _starved,
    "filter-class": _filter_class,
}
