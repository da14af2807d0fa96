"""Two schools in words: what one gains over the other, or that the model cannot tell."""

from __future__ import annotations

from fenwick.core.search.contrast import Shift
from fenwick.wording.rows import times
from fenwick.wording.say import Voice

TITLES = {
    "kept": "Kept in the bin",
    "air": "Air at the tool",
    "exhaust": "Blown back out",
    "folding": "Bin against collapse",
}
WORDS = {
    "kept": "keeps more",
    "air": "more air",
    "exhaust": "less blown back into the room",
    "folding": "a stronger bin",
}


#: of what the model does not see at all
UNTOLD = "The model does not see where slots begin, nor how many they are: a test on your line tells it."


def shift_figure(shift: Shift, value: float, voice: Voice) -> str:
    """One side's figure."""
    if shift.figure == "air":
        return voice.figure(value, "flow")
    if shift.figure == "folding":
        return times(value)
    if shift.figure == "exhaust":
        return f"{100.0 * value:.2f} %"
    return voice.figure(value, "share")


def difference(shift: Shift, voice: Voice) -> str:
    """The difference with its band."""
    if shift.figure == "air":
        low, middle, high = (
            _signed(voice.figure(abs(v), "flow", unit=False), v) for v in (shift.low, shift.middle, shift.high)
        )
        return f"{middle} {voice.figure(0.0, 'flow').split(' ')[1]} ({low} to {high})"
    unit = "×" if shift.figure == "folding" else "points"
    size = 1.0 if shift.figure == "folding" else 100.0
    digits = 2 if shift.figure == "exhaust" else 1
    low, middle, high = (_signed(f"{abs(size * v):.{digits}f}", v) for v in (shift.low, shift.middle, shift.high))
    return f"{middle} {unit} ({low} to {high})"


def _signed(text: str, value: float) -> str:
    if not any(c in "123456789" for c in text):
        return "0"
    return f"{'−' if value < 0.0 else '+'}{text}"


def judgement(shifts: tuple[Shift, ...], first: str, second: str) -> str:
    """Which way gains what, in one sentence."""
    told = [shift for shift in shifts if shift.told]
    if not told:
        return "On this line the model cannot tell them apart: let habit, room or a test decide."
    gains: dict[str, list[str]] = {first: [], second: []}
    for shift in told:
        better_if_more = shift.figure != "exhaust"
        winner = second if (shift.middle > 0.0) == better_if_more else first
        gains[winner].append(WORDS[shift.figure])
    said = [f"{name[:1].upper()}{name[1:]}: {' and '.join(words)}" for name, words in gains.items() if words]
    return f"{'. '.join(said)}."


WORDS = {
    "kept": "keeps more",
    "air": "more air",
    "exhaust": "less blown back into the room",
    "folding": "a stronger bin",
}
