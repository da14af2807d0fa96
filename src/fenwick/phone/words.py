"""Measuring with a telephone, in words."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.phone.reading import DEPTH, GREY, PITCH, SQUARES, TUBE, WATER_MM, PhoneReading
from fenwick.units import format_value


@dataclass(frozen=True)
class PhoneMeans:
    """One way of measuring."""

    title: str
    question: str
    steps: tuple[str, ...]
    several: str  #: what several files together are
    sound: bool = False


MEANS = {
    GREY: PhoneMeans(
        "Grey of a filter",
        "How dirty is it, and is it more than last time?",
        (
            "Print the card, and cut its window out.",
            "Lay it flat on the filter, or on the cloth after a wipe: its window shows what is graded.",
            "Photograph all of the card from straight above, in daylight, no shadow on it, no flash.",
        ),
        "three photos are repeats: the band gets narrower, and is honest",
    ),
    SQUARES: PhoneMeans(
        "Sheet of squares",
        "How much does the hood let fly past?",
        (
            "Print the sheet, and lay it where the dust falls, always at the same place.",
            "Make the same cut each time, then photograph the whole sheet from above.",
            "Shake it out, change the hood, and do it again.",
        ),
        "two photos are before and after",
    ),
    DEPTH: PhoneMeans(
        "Depth of the dust",
        "How full is the bin?",
        (
            "Cut the strip out and stick it on the clear wall, its lower edge level with the floor of the bin. "
            "Without a clear wall: push a rod down to the floor, pull it out, and lay it beside the strip.",
            "Knock, so that the dust lies level.",
            "Photograph the whole strip and a hand's width on either side, from level with the dust.",
        ),
        "several photos are repeats",
    ),
    TUBE: PhoneMeans(
        "U of water",
        "How strong is the suction here?",
        (
            "Bend a clear tube to a U, half full of water with a drop of ink; one end into a small hole in the hose.",
            "Stand the strip between its legs, each within 20 mm of it.",
            "Photograph the whole strip with both legs, while the vacuum runs. Shut hoses for seconds only.",
        ),
        "several photos are repeats",
    ),
    PITCH: PhoneMeans(
        "Pitch of the motor",
        "Does it starve for air?",
        (
            "Put the telephone a metre from the motor, always at the same place; nothing else runs.",
            "Record five seconds each: the hose open, the hose shut by hand, the line as it stands.",
            "Shut it for seconds only, then let the motor cool.",
        ),
        "three recordings are open, shut, and as it stands: they say what share of its open flow it moves",
        sound=True,
    ),
}


def value_words(found: PhoneReading, system: str) -> str:
    """What was read."""
    assert found.value is not None
    if found.kind == GREY:
        return f"Grade {found.value:.1f} of 5"
    if found.kind == SQUARES:
        return f"{found.value:.0f} of {found.seen['of']} squares"
    if found.kind == PITCH:
        return f"{found.value:.1f} Hz"
    if found.kind == TUBE:
        return _suction(found.value, system)
    return format_value(1e-3 * found.value, "bore", system, unit=True)


def band_words(found: PhoneReading, system: str) -> str:
    """Between what it is believed to lie."""
    assert found.low is not None
    assert found.high is not None
    if found.kind == GREY:
        return f"{found.low:.1f} to {found.high:.1f}"
    if found.kind == SQUARES:
        same = round(found.low) == round(found.high)
        return "none of them in doubt" if same else f"{found.low:.0f} to {found.high:.0f}, the rest in doubt"
    if found.kind == PITCH:
        return f"{found.low:.1f} to {found.high:.1f} Hz"
    if found.kind == TUBE:
        return f"{_suction(found.low, system)} to {_suction(found.high, system)}"
    low, high = (format_value(1e-3 * one, "bore", system) for one in (found.low, found.high))
    return f"{low} to {format_value(1e-3 * found.high, 'bore', system, unit=True)}" if low != high else f"about {high}"


def _suction(millimetres: float, system: str) -> str:
    return format_value(WATER_MM * millimetres, "suction", system, unit=True)


def fact_words(found: PhoneReading, system: str) -> list[str]:
    """What else is seen, a sentence each."""
    seen, told = found.seen, []
    if found.kind == GREY:
        told.append(f"Lightness L* {seen['L']:.1f}, {seen['L_low']:.1f} to {seen['L_high']:.1f}, against this card.")
    if found.kind == SQUARES:
        told.append(f"{100 * seen['share_hit']:.0f} % of the squares; dust covers {100 * seen['share_of_area']:.1f} %.")
        if "more" in seen:
            told.append(f"Before it were {seen['before']:.0f}: {seen['more']:+.0f}.".replace("-", "−"))
    if found.kind == TUBE:
        told.append(
            f"{found.value:.0f} mm of water: {seen['left_mm']:.0f} mm on the left, {seen['right_mm']:.0f} on the right."
        )
    if "litres" in seen:
        volume = format_value(1e-3 * seen["litres"], "volume", system, unit=True)
        told.append(f"In the first bin of this line that is {volume}{_mass(found, system)}.")
    if found.kind == PITCH:
        told += _pitch_facts(found)
    if "repeats_within" in seen:
        told.append(f"{len(seen['values'])} of them, which scatter by {seen['repeats_within']:.2g}.")
    return told


def _mass(found: PhoneReading, system: str) -> str:
    seen = found.seen
    if "kg" not in seen:
        return ""
    low, high = (format_value(seen[key], "heap", system) for key in ("kg_low", "kg_high"))
    return f", {format_value(seen['kg'], 'heap', system, unit=True)} ({low} to {high})"


def _pitch_facts(found: PhoneReading) -> list[str]:
    seen, told = found.seen, []
    if "share_of_open_flow" in seen:
        share, low, high = (100 * seen[key] for key in ("share_of_open_flow", "share_low", "share_high"))
        told.append(f"Roughly {share:.0f} % of its open flow, {low:.0f} to {high:.0f} %.")
    if "open_hz" in seen:
        told.append(f"Open {seen['open_hz']:.1f} Hz, shut {seen['shut_hz']:.1f} Hz: {seen['ratio']:.2f} times.")
    elif "ratio" in seen:
        told.append(
            f"It changes at {seen['changed_s']:.1f} s from {seen['first_hz']:.1f} to {seen['then_hz']:.1f} Hz: "
            f"{seen['ratio']:.2f} times."
        )
    told.append(f"{seen['seconds']:.0f} s, the tone {seen['tone_db']:.0f} dB over the noise.")
    told.append(
        f"Loudness {-seen['loudness_db']:.0f} dB below full: to be compared on this telephone alone, at the same place."
    )
    return told


def words_for_log(found: PhoneReading, system: str) -> str:
    """All of it in one line, for an entry of the log."""
    first = f"{value_words(found, system)} ({band_words(found, system)}), by telephone."
    return " ".join([first, *fact_words(found, system)])
