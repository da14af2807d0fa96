"""What Home shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from flask import url_for
from markupsafe import Markup
from sqlmodel import Session

from fenwick.core.components.dust import DUSTS
from fenwick.core.judging.check import Check
from fenwick.data.builds import builds_of
from fenwick.data.lines import LineState, all_line_ids
from fenwick.data.shops import readable_shop, the_shop
from fenwick.drawing.labels import FAULT_WORDS
from fenwick.drawing.small_line import BIN, HOSE, STAGE, TOOL, VACUUM, SmallLine, body_of, render_small_line
from fenwick.drawing.tools import symbol_of
from fenwick.drawing.trend_chart import render_trend_chart
from fenwick.rig import Rig
from fenwick.rig.edits.kinds import kind_of
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.rig.voice import voice_for
from fenwick.services.advice import advice_for
from fenwick.services.builds import curing
from fenwick.services.home import HomeLine, home_lines, last_held
from fenwick.services.logbook.due import due_in
from fenwick.services.logbook.money import money_today
from fenwick.services.logbook.today import ShopToday, shop_today
from fenwick.services.logbook.trend import trends_in
from fenwick.services.making_files import step_name
from fenwick.services.solving import solve
from fenwick.units.sentence import inside
from fenwick.web.kit.due import DueRow, due_rows, on_strip, strip_of
from fenwick.web.kit.quick import QuickLog, quick_logs
from fenwick.web.kit.trend import fault_link, level_of, plot_of
from fenwick.wording.causes import PortFound, cause_words
from fenwick.wording.checks import CHECKS
from fenwick.wording.logbook import in_days
from fenwick.wording.making.facts import duration
from fenwick.wording.money import about, paid_words
from fenwick.wording.say import Voice
from fenwick.wording.trend import TITLES, trend_sentence
from fenwick.wording.upkeep import money
from fenwick.wording.whatif import Suggestion, suggestion

DUE_SHOWN, FIRST_THINGS, MOST_HELD = 6, 2, 3
IN_SHORT = {"settling": "dust settles", "sealed": "suction too weak"}  #: of checks that the drawing tells otherwise


@dataclass(frozen=True)
class LineCard:
    """One line in small."""

    id: int
    name: str
    level: str
    badge: str
    words: str
    tested: str  #: when it was last tested
    picture: Markup


@dataclass(frozen=True)
class HeldCard:
    """What a vacuum last held, or what cures."""

    title: str
    words: str


@dataclass(frozen=True)
class TrendInSmall:
    """The figure over the months that speaks loudest."""

    what: str
    picture: Markup
    sentence: str
    level: str
    faults: str  #: address of the fault finder


@dataclass(frozen=True)
class MoneyInSmall:
    """Filters and bags since the log begins."""

    since: str
    booked: str
    without: str
    words: str


@dataclass(frozen=True)
class HomeView:
    """The page."""

    shop: str
    sub: str
    cards: tuple[LineCard, ...]
    more: int  #: lines beyond the cards
    unreadable: tuple[str, ...]
    first: tuple[DueRow, ...]  #: of what is due
    strip: dict[str, Markup]
    due: int  #: on the strip
    quick: tuple[QuickLog, ...]
    cures: tuple[HeldCard, ...]
    held: tuple[HeldCard, ...]
    logged: bool  #: whether anything is
    trend: TrendInSmall | None


def home_view(session: Session, now: datetime, system: str) -> HomeView:
    """Prepare the page."""
    today, shop = shop_today(session, now), readable_shop(session)
    order = _order(session, today)
    lines, unreadable = home_lines(session, order, today)
    due = due_in(session, now)
    rows = due_rows(due, now)
    soon = on_strip(rows)
    rigs = [(line.id, line.state.rig) for line in lines]
    held = last_held([line.state for line in lines], today)
    return HomeView(
        shop=the_shop(session).name,
        sub=_sub(today, order),
        cards=tuple(_card(line, voice_for(line.state.rig, system), now) for line in lines),
        more=max(len(order) - len(lines) - len(unreadable), 0),
        unreadable=tuple(unreadable),
        first=tuple(soon[:FIRST_THINGS]),
        strip=strip_of(soon[:DUE_SHOWN]),
        due=len(soon[:DUE_SHOWN]),
        quick=quick_logs(rigs, today.read.latest_first, shop, due),
        cures=_cures(session, lines),
        held=tuple(
            HeldCard(
                f"Last held: {inside(DUSTS[one.dust].label)}",
                f"{one.vacuum}, {in_days((one.at - now) / timedelta(days=1))}, at the {inside(one.tool)}. "
                "Empty it and wipe it before anything that sparks or glows.",
            )
            for one in held[:MOST_HELD]
        ),
        logged=bool(today.read.spans),
        trend=_trend(session, now, system),
    )


def _cures(session: Session, lines: Sequence[HomeLine]) -> tuple[HeldCard, ...]:
    """What must not be loaded yet, the soonest first."""
    now, rigs = datetime.now(UTC), {line.id: line.state.rig for line in lines}
    builds = builds_of(session, list(rigs))
    found = [(one, rigs[line].name) for line, file in builds for one in curing(rigs[line], file, now)]
    return tuple(
        HeldCard(
            f"Cures: {inside(step_name(one.step))}",
            f"{name}: not to be loaded for another {duration((one.until - now).total_seconds())}.",
        )
        for one, name in sorted(found, key=lambda pair: pair[0].until)
    )


def _trend(session: Session, now: datetime, system: str) -> TrendInSmall | None:
    voice = Voice(system, {})
    for one in trends_in(session, now):
        worst = one.worst
        if worst is not None:
            return TrendInSmall(
                f"{inside(TITLES[worst.kind])}, {inside(one.name)}",
                render_trend_chart(plot_of(worst, one, voice), "card"),
                trend_sentence(worst.kind, worst.found, voice),
                level_of(worst),
                fault_link(one.line),
            )
    return None


def money_card(session: Session, now: datetime) -> MoneyInSmall | None:
    """What filters and bags cost; None where no sum was logged."""
    found = money_today(session, now)
    if not found.lines or found.since is None:
        return None
    without, paid = found.without, found.paid_after
    words = "" if paid is None else paid_words(paid.likely, paid.low, paid.high, found.days)
    told = "" if without is None else about(without.likely, found.sign)
    return MoneyInSmall(f"{found.since:%B}", money(found.upkeep, found.sign), told, words)


def _order(session: Session, today: ShopToday) -> list[int]:
    """Lines at work first, the one that was logged last at their head."""
    there = all_line_ids(session)
    at_work = [line for line in today.read.latest_first if line in there]
    return at_work + [line for line in there if line not in at_work]


def _sub(today: ShopToday, there: Sequence[int]) -> str:
    at_work = len([line for line in there if line in today.read.spans])
    if not at_work:
        return "nothing logged yet"
    last = max(last for _, last in today.read.spans.values())
    lines = "one line at work" if at_work == 1 else f"{at_work} lines at work"
    return f"{lines} · last entry {in_days(min(last - today.read.today, 0.0))}"


def _card(line: HomeLine, voice: Voice, now: datetime) -> LineCard:
    level = line.tally.level
    picture = render_small_line(_small(line, level))
    away = None if line.tested is None else (line.tested.replace(tzinfo=None) - now) / timedelta(days=1)
    tested = "never tested" if away is None else f"tested {in_days(min(away, 0.0))}"
    return LineCard(line.id, line.state.rig.name, level, line.tally.words, _words(line, voice), tested, picture)


def _words(line: HomeLine, voice: Voice) -> str:
    found = []
    if line.worst is not None and line.tally.act:
        found.append(
            IN_SHORT.get(line.worst.id) or FAULT_WORDS.get(line.worst.id) or inside(CHECKS[line.worst.id].title)
        )
    if line.kept is not None:
        where = "" if line.at is None else f" at the {inside(line.at)}"
        found.append(f"{voice.figure(line.kept, 'share')} kept{where}")
    if line.tuned:
        found.append("tuned")
    return " · ".join(found)


def _small(line: HomeLine, level: str) -> SmallLine:
    rig = line.state.rig
    ports = [way[0].port for way in rig.line.ways if way[0].port is not None]
    stage = next((part for part in rig.line.elements if isinstance(part, SeparatorPart | WetStagePart)), None)
    kind = None if stage is None else kind_of(stage) if isinstance(stage, SeparatorPart) else "wet-stage"
    return SmallLine(
        rig.name,
        symbol_of(ports[0]) if ports else "bench",
        len(ports),
        None if kind is None else body_of(kind),
        line.fill,
        line.mark,
        line.cake,
        None if line.worst is None else _amiss(line.worst, rig),
        level,
    )


def _amiss(check: Check, rig: Rig) -> str | None:
    """Where on the drawing in small a check is; None where it is of the line as a whole."""
    if check.id.startswith("bin-"):
        return BIN
    part = check.part or ""
    if any(part == element.id for element in rig.line.elements if isinstance(element, SeparatorPart | WetStagePart)):
        return STAGE
    if any(part == branch.id for _, branch in rig.line.walk()):
        return TOOL
    if not part:
        return None
    return VACUUM if part == "vacuum" else HOSE


@dataclass(frozen=True)
class NextChange:
    """What would help most, on the line that needs it most."""

    line: str
    words: Suggestion
    link: str


def best_change(session: Session, now: datetime, system: str) -> NextChange | None:
    """The best single change of the line with the most to act on, of those at work first; None where none helps."""
    today = shop_today(session, now)
    lines, _ = home_lines(session, _order(session, today), today)
    for line in _worst_first(lines, today):
        found = _change_of(line.state, voice_for(line.state.rig, system))
        if found is not None:
            return found
    return None


def _worst_first(lines: Sequence[HomeLine], today: ShopToday) -> list[HomeLine]:
    at_work = [line for line in lines if line.id in today.read.spans] or list(lines)
    return sorted(at_work, key=lambda line: line.tally.act, reverse=True)


def _change_of(state: LineState, voice: Voice) -> NextChange | None:
    solved = solve(state.rig)
    at = solved.first_open
    outcomes = advice_for(state.rig, state.owned, at, 1).outcomes
    if not outcomes:
        return None
    here = PortFound(solved.line, solved.found, at, voice)
    words = suggestion(outcomes[0], voice, cause_words(outcomes[0], here))
    return NextChange(state.rig.name, words, url_for("line.show", line_id=state.id))
