"""Tuning in words: what the readings fixed, what they could not, and which reading to take next."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.components.dust import DUSTS
from fenwick.core.tuning.candidates import READ_AT
from fenwick.core.tuning.factors import FACTORS
from fenwick.core.tuning.fit import Fit, FittedFactor, Worth
from fenwick.core.tuning.readings import BLOCKED, FLOW, KEPT, KINDS, SEALED, SUCTION, Reading
from fenwick.units.sentence import inside
from fenwick.wording.say import Voice

READING_WORDS = {
    SUCTION: "Suction on the wall",
    BLOCKED: "Suction with the hose shut by hand",
    SEALED: "Suction of the vacuum alone, sealed",
    FLOW: "Air at the tool",
    KEPT: "Kept, by mass",
}
HOW = {
    SUCTION: "Tube of water on a small hole in the wall, the tool's port open.",
    BLOCKED: "The same with a hand over the tool's port: seconds only, then let the motor cool; clear of the bin.",
    SEALED: "Tube of water at the vacuum's inlet, everything else taped: seconds only, then let the motor cool.",
    FLOW: "A hole plate over the port, or an anemometer.",
    KEPT: "Weigh what goes in, what the bin gains, and what the filter gains.",
}
#: what separates factors that readings have not told apart
SEPARATES = {
    "fan": "suction of the vacuum alone, sealed",
    "roughness": "suction at both ends of a hose",
    "entry": "suction right behind the tool",
    "leak": "suction with the hose shut by hand",
    "cake": "suction at the vacuum's inlet, with the filter in and out",
    "cut": "a mass test with a fine dust",
    "exchange": "a mass test with the bin nearly full, and a blocked hose to tell it from a leak",
}


@dataclass(frozen=True)
class FactorRow:
    """One factor before and after."""

    key: str
    title: str
    value: str
    interval: str
    sentence: str
    fixed: bool


def reading_words(reading: Reading, voice: Voice) -> str:
    """What was read, and where."""
    where = ""
    if reading.station:
        where = f" behind {voice.name(reading.station)}"
    elif reading.kind == FLOW and reading.port:
        where = f", {inside(voice.name(reading.port))}"
    dust = f", {DUSTS[reading.dust].label}" if reading.dust else ""
    dust += f", of {voice.figure(reading.fed, 'weighed')} fed" if reading.fed else ""
    at = f" ({inside(voice.name(reading.port))} open)" if reading.port and reading.kind != FLOW else ""
    return f"{READING_WORDS[reading.kind]}{where}{dust}{at}"


def reading_figure(reading: Reading, value: float, voice: Voice, *, unit: bool = True) -> str:
    """A value of that kind of reading."""
    return voice.figure(value, KINDS[reading.kind], unit=unit)


def factor_rows(fitted: Fit, voice: Voice) -> list[FactorRow]:
    """Every factor, those that the readings fixed first."""
    rows = [_factor(one, fitted, voice) for one in fitted.fitted()]
    return sorted(rows, key=lambda row: not row.fixed)


def _factor(one: FittedFactor, fitted: Fit, voice: Voice) -> FactorRow:
    value = f"× {one.value:.2f}"
    interval = f"{one.low:.2f}–{one.high:.2f}, believed before {one.prior_low:.2f}–{one.prior_high:.2f}"
    if one.fixed:
        told = [reading_words(fitted.readings[i], voice) for i, share in one.by[:2] if share > 0.1]
        sentence = f"Fixed by: {'; '.join(told)}." if told else "Fixed by all of them together."
    else:
        sentence = f"Not fixed by these readings. What would: {SEPARATES[one.key]}."
    return FactorRow(one.key, FACTORS[one.key].title, value, interval, sentence, one.fixed)


def next_words(worth: Worth, voice: Voice) -> tuple[str, str]:
    """(reading to take, what it would do to the figure asked for)."""
    told = reading_figure(worth.reading, worth.reading.value, voice)
    narrower = f"its band narrows to {100.0 * worth.after / worth.before:.0f} % of what it is"
    return reading_words(worth.reading, voice), f"{narrower}; expect {told}"


def doubt_words(fitted: Fit, voice: Voice) -> str:
    """What to say of readings that no tuning explains; empty where all are explained."""
    if not fitted.doubted:
        return ""
    named = "; ".join(reading_words(fitted.readings[i], voice) for i in fitted.doubted[:3])
    return (
        f"No factors explain these readings: {named}. Until something does, the line is not tuned to them. What would: "
        "a leak that is not drawn, a vacuum whose curve is of another kind, a unit that was misread. Take them again, "
        "or keep them apart."
    )


def stations(kinds: Mapping[str, str], voice: Voice) -> tuple[tuple[str, str], ...]:
    """(id, words) of the parts behind which suction can be read; `kinds` is the kind of each station."""
    return tuple((name, f"behind {voice.name(name)}") for name, kind in kinds.items() if kind in READ_AT)
