"""How a line ages, in words and rows."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.hours.bands import Believed, UpkeepBands
from fenwick.core.hours.lives import BAG_FULL, LONG
from fenwick.core.hours.upkeep import Upkeep, UpkeepWay, cake_level, life_level
from fenwick.core.judging.check import LEVEL_WORDS, OK
from fenwick.core.rules import RuleBook
from fenwick.wording.rows import VerdictRow, bar
from fenwick.wording.say import Voice

CAKE = (  #: by level: what to do, and why
    ("Leave the cake on", "It costs little and catches better than a clean filter."),
    ("Clean it soon", "It still catches better than a clean one."),
    ("Clean it now", "The cake costs more air than it is worth."),
)
WAYS = {"with": "As it is", "without": "Without the separator"}


@dataclass(frozen=True)
class WayRow:
    """One way to run the line, in a table."""

    name: str
    flow: str
    life: str
    tank: str
    lasts: str
    exhaust: str
    cost: str
    here: bool


def hours(value: float) -> str:
    """Hours of work: in minutes where there are few, and no further than they were followed."""
    if value >= LONG:
        return f"over {value:.0f} h" if np.isfinite(value) else f"over {LONG:.0f} h"
    if value < 1.0:
        return f"{60.0 * value:.0f} min"
    return f"{value:.1f} h" if value < 19.95 else f"{value:.0f} h"


def money(value: float, sign: str) -> str:
    """An amount of the shop's money."""
    return f"{value:.0f} {sign}" if value >= 9.95 else f"{value:.2f} {sign}"


def way_rows(found: Upkeep, sign: str, voice: Voice) -> list[WayRow]:
    """The ways side by side: as it is, without the separator, with a bag or without."""
    ways = [found.with_it, *(way for way in (found.other_bag, found.without) if way is not None)]
    return [_way_row(way, found, sign, voice) for way in ways]


def _way_row(way: UpkeepWay, found: Upkeep, sign: str, voice: Voice) -> WayRow:
    name = WAYS.get(way.id) or ("With a bag" if way.bag_area > 0.0 else "With the bag dropped")
    if way.id == "with" and found.without is None:
        name = "As it is, no separator"
    return WayRow(
        name=name,
        flow=voice.figure(way.flow, "flow"),
        life=hours(way.life) + (", bag full" if way.lives.ends[0] == BAG_FULL else ""),
        tank="the bag takes it" if way.bag_area > 0.0 else hours(way.tank_full),
        lasts=_lasts(way),
        exhaust=exhaust_words(way.exhaust),
        cost="price not given" if way.cost is None else money(way.cost, sign),
        here=way.id == "with",
    )


def _lasts(way: UpkeepWay) -> str:
    """How long a filter or bag lasts, and what is done to it until then."""
    if way.bag_area > 0.0:
        return "a new bag each time"
    total, count = float(way.lives.total[0]), int(way.lives.cleanings[0])
    if total <= 0.0:
        return "no time"
    times = {1: "once", 2: "twice"}.get(count, f"{count} times")
    return f"{hours(total)}, cleaned {times}" if count else hours(total)


def exhaust_words(share: float) -> str:
    """What passes the filter, of 100 g made."""
    grams = 100.0 * share
    if grams >= 0.095:
        return f"{grams:.1f} g"
    return f"{1000.0 * grams:.2g} mg" if grams >= 1e-5 else "under 0.01 mg"


@dataclass(frozen=True)
class Wanted:
    """What is asked of a line over its hours."""

    hours: float  #: that a filter should last between cleanings [h]
    weekly: float | None  #: hours of work a week [h]; None: not known
    sign: str  #: of the shop's money
    smaller: tuple[str, ...] = ()  #: vacuums of the shop with a smaller tank that would do as well


def upkeep_rows(found: Upkeep, wanted: Wanted, rules: RuleBook, voice: Voice) -> list[VerdictRow]:
    """The verdict.

    Parameters
    ----------
    found, rules : of the line
    wanted : of it
    voice : words and units
    """
    rows = [_life(found, wanted.hours, rules)]
    if found.now is not None:
        rows.append(_today(found, rules))
    rows.append(_bin(found, wanted.weekly))
    rows.append(_cost(found, wanted.sign))
    if found.without is not None:
        rows.append(_payback(found, wanted.weekly))
    rows.append(_smallest(found, wanted.hours, voice))
    if found.with_it.bag_area == 0.0:
        rows.append(_tank(found, wanted.smaller))
    return rows


def upkeep_bands_words(bands: UpkeepBands, sign: str) -> dict[str, str]:
    """What is believable of each figure that has a band, by its row, to be put behind its sentence.

    Parameters
    ----------
    sign : of the shop's money
    """
    found = {"life": f" {_between(bands.life)} is believable."}
    if bands.cost is not None:
        found["cost"] = f" {bands.cost.low:.2f}–{bands.cost.high:.2f} {sign} is believable."
    if bands.payback is not None:
        found["payback"] = f" {_between(bands.payback)} is believable."
    return found


def _between(band: Believed) -> str:
    """A band in hours; its upper end may be beyond all that is followed."""
    low = hours(band.low)
    if not np.isfinite(band.high):
        return f"{low} or more"
    high = hours(band.high) if band.high < LONG else f"{band.high:.0f} h"
    number, _, unit = low.rpartition(" ")
    return f"{number}–{high}" if high.endswith(f" {unit}") else f"{low}–{high}"


def _parts(text: str) -> tuple[str, str]:
    number, _, unit = text.rpartition(" ")
    return (number, unit) if number else (text, "")


def _life(found: Upkeep, wanted: float, rules: RuleBook) -> VerdictRow:
    life = found.with_it.life
    level = LEVEL_WORDS[life_level(life, wanted, rules)]
    without = f" Without the separator: {hours(found.without.life)}." if found.without is not None else ""
    new = "From an empty bag" if found.with_it.bag_area > 0.0 else "From a clean filter"
    sentence = f"{new}, at the dust this tool makes.{without}"
    title = "Until the bag is full" if found.with_it.lives.ends[0] == BAG_FULL else "Until the air is down ¼"
    return VerdictRow("life", title, *_parts(hours(life)), level, *bar(life, wanted), sentence)


def _today(found: Upkeep, rules: RuleBook) -> VerdictRow:
    share = found.today
    judged = cake_level(share, rules)
    left = "" if found.now_left is None else f" In {hours(found.now_left)} it is down by a quarter."
    fine = (
        f" Its cake lets {exhaust_words(found.exhaust_today)} of 100 g made through; cleaned it would "
        f"let {exhaust_words(found.exhaust_clean)}."
    )
    title, what = CAKE[judged]
    caution = " Outdoors and masked; never blow it out indoors." if judged > OK else ""
    down = float(rules["filter.down"])
    return VerdictRow(
        "cake",
        title,
        f"{100.0 * share:.0f}",
        "% of the air",
        LEVEL_WORDS[judged],
        share,
        down,
        f"{what}{fine}{left}{caution}",
    )


def _bin(found: Upkeep, weekly: float | None) -> VerdictRow:
    title = "Bin to be emptied every"
    if found.bin_hours is None:
        why = "There is no bin, or how the dust lies is not known."
        return VerdictRow("bin-hours", title, "not known", "", "", None, None, why)
    weeks = "" if found.bin_weeks is None else f", every {found.bin_weeks:.1f} weeks at {weekly:.1f} h a week"
    sentence = f"From its floor to the line{weeks}. Past the line the air stirs it up, and all goes to the filter."
    return VerdictRow("bin-hours", title, *_parts(hours(found.bin_hours)), "", None, None, sentence)


def _cost(found: Upkeep, sign: str) -> VerdictRow:
    title, cost = "Filters and bags", found.with_it.cost
    if cost is None:
        what = "bag" if found.with_it.bag_area > 0.0 else "filter"
        return VerdictRow("cost", title, "not known", "", "", None, None, f"Give the price of a {what}, below.")
    before = None if found.without is None else found.without.cost
    sentence = "For an hour of work, the filter cleaned until that is no longer worth it."
    if before is not None:
        sentence += f" Without the separator: {money(before, sign)}."
    return VerdictRow("cost", title, f"{cost:.2f}", f"{sign} an hour", "", None, None, sentence)


def _payback(found: Upkeep, weekly: float | None) -> VerdictRow:
    title, pays = "The separator has paid after", found.payback
    if pays is None:
        why = "Give what the separator and a filter cost, below."
        return VerdictRow("payback", title, "not known", "", "", None, None, why)
    if np.isinf(pays):
        why = "It saves no filters here; what it saves is air."
        return VerdictRow("payback", title, "never", "", "", None, None, why)
    told = found.payback_weeks
    weeks = "" if told is None else f" About {told:.0f} weeks at {weekly:.1f} h a week."
    return VerdictRow("payback", title, *_parts(hours(pays)), "", None, None, f"In filters and bags alone.{weeks}")


def _tank(found: Upkeep, smaller: Sequence[str]) -> VerdictRow:
    """What the vacuum's own tank is still good for."""
    used = float(found.with_it.lives.tank_used[0])
    full = found.with_it.tank_full
    until = f" It is full after {hours(full)}." if np.isfinite(full) else ""
    less = ""
    if smaller:
        less = f" {' or '.join(smaller)} does as well here, with a smaller tank."
    sentence = f"When the filter first wants cleaning.{until}{less}"
    return VerdictRow("tank", "Of the vacuum's tank in use", f"{100.0 * used:.0f}", "%", "", used, None, sentence)


def _smallest(found: Upkeep, wanted: float, voice: Voice) -> VerdictRow:
    title = "Smallest filter that would do"
    if found.smallest is None:
        why = f"None that fits a shop vacuum lasts {hours(wanted)} here: keep more in the bin first."
        return VerdictRow("smallest", title, "none", "", "", None, None, why)
    area = voice.figure(found.smallest, "area")
    sentence = f"To last {hours(wanted)} between cleanings; life grows with the square of its area."
    return VerdictRow("smallest", title, *_parts(area), "", None, None, sentence)
