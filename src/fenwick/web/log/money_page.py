"""The page of the shop's money: booked against modelled, with and without the separator; a job that comes once."""

from __future__ import annotations

from dataclasses import dataclass

from flask import render_template, request

from fenwick.core.logbook.entries import BOUNDS, HOURS, SPENT_ON
from fenwick.data.lines import readable_lines
from fenwick.data.shops import the_shop
from fenwick.rig import Rig
from fenwick.services.logbook.money import MoneyToday, money_today, one_off_on
from fenwick.services.logbook.today import shop_today
from fenwick.units import BadNumberError, format_value, parse_plain
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.units import unit_system
from fenwick.web.log.form import APART, tools_of
from fenwick.wording.money import about, one_off_words, paid_words
from fenwick.wording.upkeep import money

MOST_HOURS = BOUNDS[HOURS][1]  #: of a job that comes once [h]


@dataclass(frozen=True)
class OneOffView:
    """A job that comes once, as it was asked for."""

    tools: tuple[tuple[str, str], ...]  #: (line and tool, words)
    picked: str
    hours: str
    error: str
    words: str


@dataclass(frozen=True)
class MoneyView:
    """The page."""

    shop: str
    since: str
    rows: tuple[tuple[str, str], ...]  #: (what, booked)
    total: str
    modelled: str
    without: str
    paid: str
    rates: tuple[tuple[str, str], ...]  #: (of what, upkeep for one of it)
    one_off: OneOffView


def money_page() -> str:
    """Prepare the page and render it."""
    found = money_today(session(), shop_clock())
    rigs, _ = readable_lines(session())
    return render_template("log/money.html", view=_view(found, _one_off(rigs)))


def _view(found: MoneyToday, asked: OneOffView) -> MoneyView:
    sign, without, paid = found.sign, found.without, found.paid_after
    sums = (("an hour of work", found.an_hour), ("a kilogram kept in bins", found.a_kilogram))
    rates = [(of, money(value, sign)) for of, value in sums if value is not None]
    told = (
        ""
        if without is None
        else f"{about(without.likely, sign)}, within {about(without.low, sign)} to {about(without.high, sign)}"
    )
    return MoneyView(
        the_shop(session()).name,
        "" if found.since is None else f"{found.since.day} {found.since:%B %Y}",
        tuple((f"{SPENT_ON[one.what]} ({one.times})", money(one.booked, sign)) for one in found.lines),
        money(sum(one.booked for one in found.lines), sign),
        "" if found.modelled is None else about(found.modelled, sign),
        told,
        "" if paid is None else paid_words(paid.likely, paid.low, paid.high, found.days),
        tuple(rates),
        asked,
    )


def _one_off(rigs: list[tuple[int, Rig]]) -> OneOffView:
    tools = tuple((f"{number}{APART}{name}", f"{name} · {rig.name}") for number, rig in rigs for name in tools_of(rig))
    picked, typed = request.args.get("tool", ""), request.args.get("hours", "").strip()[:40]
    if not picked or not typed:
        return OneOffView(tools, picked, typed, "", "")
    number, _, tool = picked.partition(APART)
    rig = {str(line): one for line, one in rigs}.get(number)
    try:
        hours = parse_plain(typed)
    except BadNumberError as error:
        return OneOffView(tools, picked, typed, str(error), "")
    if not 0.0 < hours <= MOST_HOURS:
        return OneOffView(tools, picked, typed, f"Between 0 and {MOST_HOURS:.0f} hours.", "")
    if rig is None:
        return OneOffView(tools, "", typed, "There is no such tool any more.", "")
    holders = shop_today(session(), shop_clock()).of_line(int(number))
    found = one_off_on(rig, tool, hours, holders)
    if found is None:
        return OneOffView(tools, picked, typed, "", "What this tool makes in an hour is not known: say it at its port.")
    litres = "" if found.volume is None else format_value(found.volume, "volume", unit_system(), unit=True)
    return OneOffView(tools, picked, typed, "", one_off_words(found.emptyings, litres, found.cleanings))
