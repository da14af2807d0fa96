"""The room's air in words: how long to stay masked, and what would shorten it."""

from __future__ import annotations

from math import ceil

from fenwick.core.hours.air import A_DAY, DustSource, Session, mask_level
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.rules import RuleBook
from fenwick.wording.say import Voice
from fenwick.wording.verdict import VerdictRow, split

MINUTE, HOUR = 60.0, 3600.0  #: [s]
UNTIL_AIRED = "until it is aired"

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
    if seconds < 2.0 * HOUR:
        return f"{ceil(seconds / MINUTE - 1e-9)} min"
    return f"{seconds / HOUR:.1f} h"


def mask_row(now: Session, source: DustSource, rules: RuleBook, voice: Voice) -> VerdictRow:
    """How long to stay masked after the tool stops."""
    level = LEVEL_WORDS[mask_level(now.clears, rules)]
    by_itself = now.clears < A_DAY
    number, unit = split(minutes(now.clears)) if by_itself else (UNTIL_AIRED, "")
    peak = voice.figure(now.peak, "fog")
    through = float(source.through_filter[0])
    filtered = f" {100.0 * through:.0f} % of it came through the vacuum's filter." if through > 0.005 else ""
    deep = float(source.deep[0] / max(float(source.breathed[0]), 1e-300))
    finest = f", {100.0 * deep:.0f} % of it below 4 µm" if deep >= 0.005 else ""
    worst = (
        "Until the air is down to a tenth of its worst," if by_itself else "It does not clear by itself; at its worst"
    )
    sentence = f"{worst} about {peak} below 10 µm{finest}.{filtered}"
    return VerdictRow("mask", "Stay masked after the cut", number, unit, level, None, None, sentence)


def airing_words(key: str, now: Session, then: Session) -> str:
    """What another way of airing changes."""
    less = 1.0 - then.peak / now.peak if now.peak > 0.0 else 0.0
    peak = f"peak {100.0 * less:.0f} % lower" if less >= 0.005 else "the same peak"
    if less <= -0.005:
        peak = f"peak {-100.0 * less:.0f} % higher"
    return f"mask {minutes(then.clears)} instead of {minutes(now.clears)}, {peak}"
