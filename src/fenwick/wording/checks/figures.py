"""Sentences for checks of strength, standing, lifting, circuits and the motor: figure, limit, reason, remedy."""

from __future__ import annotations

from math import degrees

from fenwick.core.components.bins import Relief
from fenwick.core.judging.check import ACT, OK
from fenwick.core.judging.standing import DUST_ALONE
from fenwick.wording.checks.said import LUNGS, POWER, STANDING, STRENGTH, CheckWords, Said
from fenwick.wording.say import Voice

LICENSED = "Circuits are work for a licensed electrician, to local code."


def relief_words(valve: Relief, voice: Voice) -> str:
    """What valve would save a bin."""
    opens_at, area = voice.figure(float(valve.opens_at), "suction"), voice.figure(float(valve.area), "gap")
    return f"A valve that opens {area} at {opens_at} would save it."


def _ring(said: Said) -> str:
    if said.level == OK:
        return f"The ring carries {said.value}; {said.limit} is wanted with the margin."
    need = "" if not said.notes else f" It takes {said.notes[0]:.0f} N·m² of stiffness: a ring deeper outwards."
    return f"The ring carries {said.value} and {said.limit} is wanted: it would fold with the wall.{need}"


def _relief(said: Said) -> str:
    opens = "" if not said.notes else f" at {said.voice.figure(said.notes[0], 'suction')}"
    if said.level == OK:
        return (
            f"The valve opens {said.value}{opens}; {said.limit} lets all of the fan's air in. Test it with the "
            "hose shut."
        )
    return (
        f"The valve opens {said.value}{opens}; it must open before the bin folds, and by {said.limit}, to save "
        "it. A larger one, "
        "or a second beside it."
    )


def _lid(said: Said) -> str:
    if said.level == OK:
        return f"A blocked hose draws the lid in by {said.value}; up to {said.limit} is fine."
    return (
        f"A blocked hose draws the lid in by {said.value}, and {said.limit} is the most: it leaks or snaps in. "
        "Glue a disc on it."
    )


def _sheet(said: Said) -> str:
    if said.level == OK:
        return f"Bent cold, the sheet stands at {said.value}; it holds {said.limit} for years."
    if said.level == ACT:
        return (
            f"Bent cold, the sheet stands at {said.value}, and holds {said.limit} for years: it cracks or buckles. "
            "Thinner sheet, a wider radius, or bend it warm."
        )
    return (
        f"Bent cold, the sheet stands at {said.value} and holds {said.limit} for years: it may craze. Thinner "
        "sheet is better."
    )


def _land(said: Said) -> str:
    if said.level == ACT:
        return f"Slots leave {said.value} of disc between them: it falls apart. Turn one, or make one of the two."
    return f"Only {said.value} of disc stay between slots; it breaks there. Leave {said.limit}: a shorter arc."


def _plywood(said: Said) -> str:
    if said.level == OK:
        return f"Bent to {said.value} along its face grain, the plywood follows; it takes {said.limit}."
    return (
        f"Bent to {said.value}, the plywood breaks or springs open; along its face grain it takes {said.limit}. "
        "A thinner sheet, two of them glued one over the other, or cuts across its back."
    )


def _headroom(said: Said) -> str:
    tall = "" if not said.notes else said.voice.figure(said.notes[0], "bore")
    if said.level == OK:
        return f"There is {said.value} of height; with its hose it stands {tall} and the lid comes off ({said.limit})."
    if said.level == ACT:
        return (
            f"With its hose it stands {tall} and there is {said.value}: it does not fit. A shorter bin, or beside "
            "the bench."
        )
    return (
        f"It fits, but {said.limit} is wanted to lift the lid off and there is {said.value}. Make it roll out, or "
        "a side door."
    )


def _footprint(said: Said) -> str:
    if said.level == OK:
        return f"It is {said.value} across, and has {said.limit} of floor."
    return f"It is {said.value} across, and has {said.limit} of floor: it does not fit."


def _tips(said: Said) -> str:
    full, leans = said.voice.figure(said.notes[0], "force"), f"{degrees(said.notes[1]):.0f}°"
    if said.level == OK:
        return (
            f"It takes {said.value} at its inlet to tip it empty, {full} full; a hose pulls about {said.limit}, "
            "or it is tied."
        )
    return (
        f"{said.value} at its inlet tip it over empty, {full} full; a hose pulls about {said.limit}. Leaning "
        f"{leans} it goes by "
        "itself. A wider foot, a weight in it, or tie it to a wall."
    )


def _weight(said: Said) -> str:
    what = "the dust alone" if DUST_ALONE in said.about else "bin and dust"
    if said.level == OK:
        return f"Full to its line you lift {said.value} ({what})."
    if said.level == ACT:
        return (
            f"Full to its line you lift {said.value} ({what}): not alone. Empty it earlier, or use a liner and a lift."
        )
    return (
        f"Full to its line you lift {said.value} ({what}); above {said.limit} with care and a straight back. "
        "Empty it earlier."
    )


def _circuit(said: Said) -> str:
    rated = "" if not said.notes else said.voice.figure(said.notes[0], "current")
    name = said.name
    if said.level == OK:
        return f"{name} and vacuum draw {said.value} together; its circuit stands {said.limit} for long."
    if said.level == ACT:
        return (
            f"{name} and vacuum draw {said.value} together and the breaker is for {rated}: it trips. Two circuits. "
            f"{LICENSED}"
        )
    return (
        f"{name} and vacuum draw {said.value} together, and a breaker for {rated} stands {said.limit} for long: "
        "cables warm up. "
        f"{LICENSED}"
    )


def _switch(said: Said) -> str:
    if said.level == OK:
        return f"{said.name} and vacuum draw {said.value} through a switch for {said.limit}."
    return (
        f"{said.name} and vacuum draw {said.value} through a switch for {said.limit}: it burns. Let a "
        "switch for the "
        f"tool start the vacuum through a contactor. {LICENSED}"
    )


def _start(said: Said) -> str:
    if said.level == OK:
        return (
            f"Starting the vacuum beside {said.name} draws {said.value} for a moment; the breaker stands {said.limit}."
        )
    return (
        f"Starting the vacuum beside {said.name} draws {said.value} for a moment and the breaker "
        f"stands {said.limit}: "
        "start them one after the other, the vacuum first."
    )


def _run_on(said: Said) -> str:
    if said.level == OK:
        return f"The switch lets the vacuum run on for {said.value}; the line clears in {said.limit}."
    return (
        f"The switch lets the vacuum run on for {said.value}, and the line takes {said.limit} to clear. Set it longer."
    )


def _starved(said: Said) -> str:
    seconds = "" if not said.notes else f"{said.notes[0]:.0f}"
    blocked = f"A hose is blocked for a test {seconds} s at most; then let the motor cool."
    if said.level == OK:
        return f"{said.value} of its open flow passes the vacuum; its motor wants {said.limit}. {blocked}"
    return (
        f"Only {said.value} of its open flow passes the vacuum; its motor wants {said.limit} for cooling: a "
        "buried filter or a "
        f"blocked hose burns it out. Clear it first. {blocked}"
    )


def _filter_class(said: Said) -> str:
    if said.level == OK:
        return f"{said.value} of the breathable dust that reaches the vacuum comes out of it; {said.limit} is the mark."
    return (
        f"{said.value} of the breathable dust that reaches the vacuum comes out of it, {said.limit} is the mark. A "
        "finer filter, a "
        "bag before it, or blow it outdoors."
    )


def _hose_flat(said: Said) -> str:
    if said.level == OK:
        return f"A blocked line pulls {said.limit}; the plain wall of {said.name} goes flat at {said.value}."
    if said.level == ACT:
        return (
            f"A blocked line pulls {said.limit}, and the plain wall of {said.name} goes flat at {said.value}: it shuts "
            "itself. A hose with a helix in its wall."
        )
    return (
        f"A blocked line pulls {said.limit}, and the plain wall of {said.name} goes flat at {said.value}: little is "
        "left, less where it is bent or warm. A hose with a helix in its wall."
    )


def _brittle(said: Said) -> str:
    if said.level == OK:
        return f"At {said.value} its plastic is tough; below {said.limit} it turns brittle."
    return (
        f"At {said.value} plastic is brittle: below {said.limit} a knock or a blocked hose cracks the bin. Keep it "
        "where it is warm."
    )


def _legs(said: Said) -> str:
    vacuum = said.voice.figure(said.notes[0], "bore")
    if said.level == OK:
        return f"It stands {said.value} high over the vacuum; {said.limit} lets the vacuum's head be lifted under it."
    if said.level == ACT:
        return f"It stands {said.value} high, and the vacuum under it {vacuum}: raise it to {said.limit}."
    return f"It stands {said.value} high: the vacuum fits under it, its head is not lifted. Raise it to {said.limit}."


def _casters(said: Said) -> str:
    if said.level == OK:
        return f"Full, {said.value} may rest on one caster of four; each bears {said.limit}."
    wanted = "a stronger one" if said.level == ACT else "one that bears half as much again, for sills and knocks"
    return (
        f"Full, {said.value} may rest on one caster of four, since three of them stand; each bears {said.limit}: "
        f"{wanted}."
    )


def _doorway(said: Said) -> str:
    if said.level == OK:
        return f"It is {said.value} across, and passes a doorway of {said.limit}."
    return f"It is {said.value} across, and the narrowest doorway {said.limit}: it does not pass. A narrower foot."


def _step(said: Said) -> str:
    if said.level == OK:
        return f"Its wheels climb {said.limit}; the highest step is {said.value}."
    return f"The highest step is {said.value}, and its wheels climb {said.limit}: larger wheels, or a ramp."


#: every check of this subject: heading, what it is called, what it says
FIGURES: dict[str, CheckWords] = {
    "ring-stiff": CheckWords(STRENGTH, "Ring round the bin", _ring),
    "relief": CheckWords(STRENGTH, "Relief valve", _relief),
    "lid-bends": CheckWords(STRENGTH, "Lid drawn in", _lid),
    "sheet-bends": CheckWords(STRENGTH, "Sheet bent cold", _sheet),
    "slot-land": CheckWords(STRENGTH, "Disc left between slots", _land),
    "sheet-radius": CheckWords(STRENGTH, "Plywood bent round", _plywood),
    "headroom": CheckWords(STANDING, "Height where it stands", _headroom),
    "footprint": CheckWords(STANDING, "Floor where it stands", _footprint),
    "hose-flat": CheckWords(STRENGTH, "Hose that goes flat", _hose_flat),
    "brittle": CheckWords(STRENGTH, "Plastic in the cold", _brittle),
    "legs": CheckWords(STANDING, "Height over the vacuum", _legs),
    "casters": CheckWords(STANDING, "Casters", _casters),
    "doorway": CheckWords(STANDING, "Through the door", _doorway),
    "step": CheckWords(STANDING, "Over the step", _step),
    "tips": CheckWords(STANDING, "Tipping over", _tips),
    "full-weight": CheckWords(STANDING, "Lifting the full bin", _weight),
    "circuit": CheckWords(POWER, "Circuit", _circuit),
    "switch": CheckWords(POWER, "Switch", _switch),
    "start-up": CheckWords(POWER, "Starting", _start),
    "run-on": CheckWords(POWER, "Running on", _run_on),
    "motor-starved": CheckWords(POWER, "Air for the motor", _starved),
    "filter-class": CheckWords(LUNGS, "What the filter lets past", _filter_class),
}
