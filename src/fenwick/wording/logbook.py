"""What is due in words: when, how surely, and why."""

from __future__ import annotations

import math
from datetime import datetime, timedelta

from fenwick.wording.upkeep import hours

WEEK, MONTH, YEAR = 7.0, 30.4, 365.25  #: [d]
DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
MONTHS = (
    "January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November",
    "December",
)  # fmt: skip
WHAT = {
    "bin": "{name}: bin to its line",
    "filter": "{name}: clean the filter",
    "bag": "{name}: new bag",
    "tank": "{name}: empty its tank",
    "gasket": "{name}: look at the bin's gasket",
    "latch": "{name}: look at the latches",
    "joint": "{name}: look at the joints",
    "chamber-seal": "{name}: look at the chamber's seal",
    "cord": "{name}: look at the cord",
    "brushes": "{name}: look at the motor's brushes",
    "hose": "{name}: look at the hose",
    "whole-line": "{name}: look it over, parts off",
    "test": "{name}: test again what is kept",
    "first-look": "{name}: a first look",
}
LOOK = {
    "gasket": "A lamp in the dark bin shows what is not tight; pick at the bead with a fingernail.",
    "latch": "They hold as they did, and pull the lid down all round?",
    "joint": "By hand, and by ear with the vacuum running; a finger of flour shows where air goes in.",
    "chamber-seal": "A lamp inside in the dark; then by ear with the hose shut by hand for three seconds.",
    "cord": "Unplugged: along its whole length, and where it goes into plug and vacuum.",
    "brushes": "By who may open the motor: worn short, they spoil its collector.",
    "hose": "Bend it along its length: folds that have cracked, cuffs that turn.",
    "whole-line": "Take it apart: ledges of dust, worn bends, cracked cuffs, seals that stay flat.",
    "test": "The same heap, weighed: the only way to see that it has slowly become worse.",
}


def in_days(days: float) -> str:
    """How far off something is: today, in 3 days, in 5 weeks, 2 weeks ago.

    Parameters
    ----------
    days : from today; below 0 it is past [d]
    """
    if math.isnan(days):
        return "nobody can say when"
    if math.isinf(days) or days > 2.0 * YEAR:
        return "not within two years"
    if abs(days) < 0.5:
        return "today"
    if abs(days) < 1.5:
        return "tomorrow" if days > 0.0 else "yesterday"
    return f"in {span(days)}" if days > 0.0 else f"{span(-days)} ago"


def span(days: float) -> str:
    """A length of time as one says it: 6 days, 3 weeks, 5 months.

    Parameters
    ----------
    days : [d]
    """
    for unit, word, least in ((YEAR, "year", 2.0 * YEAR), (MONTH, "month", 10.0 * WEEK), (WEEK, "week", 13.5)):
        if days >= least:
            return f"{days / unit:.0f} {word}s"
    whole = round(days)
    return f"{whole} day{'' if whole == 1 else 's'}"


def between_days(low: float, high: float) -> str:
    """Between when and when something is due.

    Parameters
    ----------
    low, high : from today [d]
    """
    if math.isnan(low):
        return in_days(low)
    if low <= 0.5 and high <= 0.5:
        return "it is due"
    if math.isinf(low):
        return "not within two years"
    if math.isinf(high):
        return "now, or much later" if low <= 0.5 else f"in {span(low)} at the soonest"
    late = span(max(high, 0.0))
    if low <= 0.5:
        return f"now, or within {late}"
    if span(low) == late:
        return f"in {late}"
    early = span(low)
    number, unit = early.split(" ", 1)
    same = late.split(" ", 1)[1].rstrip("s") == unit.rstrip("s")
    return f"in {number if same else early} to {late}"


def day_name(days: float, now: datetime) -> str:
    """The day so far from today: a weekday within the week, else its date.

    Parameters
    ----------
    days : from today [d]
    now : today, by the shop's clock
    """
    if not math.isfinite(days):
        return ""
    day = now + timedelta(days=days)
    away = (day.date() - now.date()).days
    if away == 0:
        return "today"
    if 0 < away < 7:
        return DAYS[day.weekday()]
    year = f" {day.year}" if day.year != now.year else ""
    return f"{day.day} {MONTHS[day.month - 1]}{year}"


def what_is_due(what: str, name: str) -> str:
    """What is to be done.

    Parameters
    ----------
    what : key of `WHAT`
    name : of the bin, the vacuum or the line
    """
    return WHAT[what].format(name=name)


def life_words(last: float | None, modelled: float | None) -> str:
    """How long the last one lasted against the model: “the last lasted 9 h, not 24”.

    Parameters
    ----------
    last : hours of work [h]; None: not known
    modelled : [h]; None: not known
    """
    if last is None or modelled is None:
        return ""
    if abs(last / modelled - 1.0) < 0.1:
        return f"the last lasted {hours(last)}, as the model says"
    return f"the last lasted {hours(last)}, not {hours(modelled)}"


def forecast_steps(
    *, modelled: float | None, lives: int, typical: float, begun: float, seen: float, work: float,
    used: float, low: float, high: float,
) -> tuple[str, ...]:  # fmt: skip
    """How the estimate of something that fills comes about, a sentence a step.

    Parameters
    ----------
    modelled : hours that the model gives it at the work logged [h]; None: not known
    lives : past ones that the log saw to their end
    typical : how long its lives last here, over the model's [-]
    begun : how long ago it was emptied, cleaned or looked at [d]
    seen : of its life that was over then [-]
    work : logged since, in lives of the model [-]
    used, low, high : of its life by now, likely and between what it is believed to lie [-]
    """
    learned = (
        "no life was seen to its end here yet, so the model is taken as it is, with a wide band"
        if not lives
        else f"from {'one life' if lives == 1 else f'{lives} lives'} that this log saw to the end, "
        f"they last {typical:.2f} times what the model says here"
    )
    at_first = f", {100 * seen:.0f} % over by then" if seen > 0.005 else ""
    return (
        "" if modelled is None else f"The model gives it {hours(modelled)} at the work that is logged.",
        f"{learned[0].upper()}{learned[1:]}.",
        f"Counted from {in_days(-begun)}{at_first}; since then {100 * work:.0f} % of a modelled life of work.",
        f"So {100 * used:.0f} % is used by now; nine in ten: {100 * low:.0f} to {100 * high:.0f} %.",
        "The weeks to come are taken to be like those that are logged; where none is, like the shop's jobs.",
    )


def times_left(name: str, times: float, unit: str) -> str:
    """How much of a job can still be done: 7 cuts of “Resaw backs and sides”, 3 h of “Finish sanding”.

    Parameters
    ----------
    name : of the job
    times : hours, boards or cuts [-]
    unit : hour, board or cut
    """
    if unit == "hour":
        return f"{hours(times)} of “{name}”"
    whole = int(times)
    return f"{whole or 'no'} more {unit}{'' if whole == 1 else 's'} of “{name}”"


SHORT = {
    "gasket": "the bin's gasket",
    "latch": "the latches",
    "joint": "the joints",
    "chamber-seal": "the chamber's seal",
    "cord": "cord and plug",
    "brushes": "the motor's brushes",
    "hose": "the hose",
    "whole-line": "the whole line, parts off",
}


def pieces_words(pieces: tuple[str, ...]) -> str:
    """Several pieces in one breath: the joints, the bin's gasket and the cord."""
    words = [SHORT[one] for one in pieces]
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"
