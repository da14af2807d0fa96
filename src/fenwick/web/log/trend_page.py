"""The page that says whether it gets worse."""

from __future__ import annotations

from dataclasses import dataclass

from flask import render_template
from markupsafe import Markup

from fenwick.data.shops import the_shop
from fenwick.drawing.trend_chart import render_trend_chart
from fenwick.services.logbook.trend import LineTrend, trends_in
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.trend import fault_link, level_of, plot_of
from fenwick.web.kit.units import unit_system
from fenwick.wording.say import Voice
from fenwick.wording.trend import TITLES, trend_sentence


@dataclass(frozen=True)
class SeriesCard:
    """One figure."""

    title: str
    place: str
    level: str
    sentence: str
    pictures: dict[str, Markup]


@dataclass(frozen=True)
class TrendCard:
    """One line."""

    name: str
    level: str
    sentence: str  #: of the figure that speaks loudest
    series: tuple[SeriesCard, ...]
    faults: str  #: address of the fault finder


def trend_page() -> str:
    """Every line with the figures that the log holds again and again."""
    voice = Voice(unit_system(), {})
    cards = [_card(one, voice) for one in trends_in(session(), shop_clock())]
    return render_template("log/trend.html", cards=cards, shop=the_shop(session()).name)


def _card(trend: LineTrend, voice: Voice) -> TrendCard:
    first = min(float(one.measured.day[0]) for one in trend.series)
    series = []
    for one in trend.series:
        plot = plot_of(one, trend, voice)
        pictures = {size: render_trend_chart(plot, size, since=first) for size in ("wide", "narrow")}
        sentence = trend_sentence(one.kind, one.found, voice)
        series.append(SeriesCard(TITLES[one.kind], one.place, level_of(one), sentence, pictures))
    worst = trend.worst
    level = "none" if worst is None else level_of(worst)
    sentence = "Cannot be told yet." if worst is None else trend_sentence(worst.kind, worst.found, voice)
    return TrendCard(trend.name, level, sentence, tuple(series), fault_link(trend.line))
