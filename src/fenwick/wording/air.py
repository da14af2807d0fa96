"""The room's air in words: how long to stay masked, and what would shorten it."""

from __future__ import annotations

from math import ceil

from fenwick.core.arrays import one_value
from fenwick.core.hours.air import A_DAY, DustSource, Session, mask_level
from fenwick.core.hours.bands import AirBands
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.rules import RuleBook
from fenwick.wording.rows import VerdictRow, split
from fenwick.wording.say import Voice

MINUTE, HOUR = 60.0, 3600.0  #: [s]
UNTIL_AIRED, NOT_AT_ALL = "until it is aired", "not at all"

CAUTIONS = (
    "An estimate for comparing, from a well-mixed room: near the tool the air is worse. It is no measurement and says "
    "nothing about limits or compliance.",
    "An optical monitor sees some sizes of some dusts: hardly any above 10 µm, none below about 0.3 µm, and it is "
    "calibrated with another dust than yours. Trust its ups and downs before its figures.",
)


def minutes(seconds: float) -> str:
    """A time in whole minutes, or hours where it is long; air that takes days does not clear by itself."""
    if not seconds < A_DAY:
        return UNTIL_AIRED
    if seconds == 0.0:
        return NOT_AT_ALL
    if seconds < 2.0 * HOUR:
        return f"{ceil(seconds / MINUTE - 1e-9)} min"
    return f"{seconds / HOUR:.1f} h"


def mask_row(now: Session, source: DustSource, rules: RuleBook, voice: Voice) -> VerdictRow:
    """How long to stay masked after the tool stops."""
    level = LEVEL_WORDS[mask_level(now.clears, rules)]
    by_itself = now.clears < A_DAY
    number, unit = split(minutes(now.clears)) if by_itself else (UNTIL_AIRED, "")
    peak, clear = voice.figure(now.peak, "fog"), voice.figure(now.level, "fog")
    through = float(source.through_filter[0])
    filtered = f" {100.0 * through:.0f} % of it came through a filter." if through > 0.005 else ""
    deep = source.deep_share
    finest = f", {100.0 * deep:.0f} % of it below 4 µm" if deep >= 0.005 else ""
    if now.clears == 0.0:
        return VerdictRow(
            "mask", "Stay masked after the cut", NOT_AT_ALL, "", level, None, None,
            f"The air stays below {clear} of what is breathed; at its worst about {peak}{finest}. At the tool it is "
            f"worse: wear the mask there.{filtered}",
        )  # fmt: skip
    worst = f"Until it is below {clear}; at its worst" if by_itself else "It does not clear by itself; at its worst"
    sentence = f"{worst} about {peak} below 10 µm{finest}.{filtered}"
    return VerdictRow("mask", "Stay masked after the cut", number, unit, level, None, None, sentence)


def dose_row(now: Session, rules: RuleBook, voice: Voice) -> VerdictRow:
    """What one would breathe in without a mask, over the job and until the dust has gone."""
    mass = now.dose * one_value(rules["room.breathing"])
    number, unit = split(milligrams(mass))
    breath = voice.figure(one_value(rules["room.breathing"]), "flow")
    sentence = f"Over the job and until the dust has gone, at {breath} of breath."
    return VerdictRow("dose", "Breathed in without a mask", number, unit, "", None, None, sentence)


def milligrams(mass: float) -> str:
    """A mass of dust that is breathed [kg]."""
    return f"{1e6 * mass:.1f} mg" if mass < 1e-5 else f"{1e6 * mass:.0f} mg"


def air_bands_words(bands: AirBands, rules: RuleBook, voice: Voice) -> dict[str, str]:
    """What is believable of each figure of the room's air, by its row, to be put behind its sentence."""
    breath = one_value(rules["room.breathing"])
    low, high = voice.figure(bands.peak.low, "fog", unit=False), voice.figure(bands.peak.high, "fog")
    first, last = minutes(bands.clears.low), minutes(bands.clears.high)
    least, most = milligrams(breath * bands.dose.low), milligrams(breath * bands.dose.high)
    return {
        "mask": f" {first} to {last} is believable, and {low}–{high}.",
        "dose": f" {least} to {most} is believable.",
    }


def airing_words(key: str, now: Session, then: Session) -> str:
    """What another way of airing changes."""
    less = 1.0 - then.peak / now.peak if now.peak > 0.0 else 0.0
    peak = f"peak {100.0 * less:.0f} % lower" if less >= 0.005 else "the same peak"
    if less <= -0.005:
        peak = f"peak {-100.0 * less:.0f} % higher"
    return f"mask {minutes(then.clears)} instead of {minutes(now.clears)}, {peak}"
