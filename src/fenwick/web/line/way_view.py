"""What the page of the way shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from flask import url_for

from fenwick.core.judging.line_figures import PortFigures
from fenwick.core.search.way.count import WayCount
from fenwick.data.lines import LineState
from fenwick.rig.voice import voice_for
from fenwick.services.way import FoundWay, FoundWays, WayAsked, asked_limits
from fenwick.services.way_kept import ResumedWay, moves_of
from fenwick.services.way_steps import WayStep, whole_count
from fenwick.units import BadNumberError, parse_value
from fenwick.way_kept.model import KeptStep, KeptWay
from fenwick.web.kit.fields import Field
from fenwick.wording.say import Voice
from fenwick.wording.way import left_sentences, moved_words, takes_words, way_title

MOST_SPEND, MOST_HOURS = 1e9, 1e5  #: [money], [h]


@dataclass(frozen=True)
class WayStepRow:
    """One step."""

    key: str
    number: int
    words: str
    takes: str
    moves: list[str]  #: what it moves
    worse: bool  #: whether what it moves is not for the better by itself
    prepares: int | None  #: number of the step that it prepares
    done: str | None = None  #: the day it was done


@dataclass(frozen=True)
class WayPortRow:
    """One port before and after, worked at alone."""

    name: str
    air: tuple[str, str]
    caught: tuple[str, str]
    in_bin: tuple[str, str]


@dataclass(frozen=True)
class WayCard:
    """A way, found or taken up."""

    title: str
    takes: str
    moves: list[str]
    rows: list[WayStepRow]
    ports: list[WayPortRow]
    keys: list[str]


@dataclass(frozen=True)
class FoundView:
    """What a search found."""

    cards: list[WayCard]
    left: list[str]
    tried: str
    possible: int


@dataclass(frozen=True)
class KeptView:
    """The way that the line is on."""

    card: WayCard | None  #: what is to do
    gone: list[WayStepRow]  #: steps that the line does not take any more
    done: list[WayStepRow]
    struck: list[tuple[str, str]]  #: (key, words)


@dataclass(frozen=True)
class QuestionView:
    """What may be spent, as typed and as read."""

    fields: tuple[Field, ...]
    asked: WayAsked | None  #: None where something could not be read


def read_question(form: dict[str, str], kept: KeptWay, money: str) -> QuestionView:
    """Read money and time; empty is no limit."""
    fields, values = [], []
    for name, label, unit, most in (("spend", "Money at hand", money, MOST_SPEND), ("hours", "Time", "h", MOST_HOURS)):
        usual = getattr(kept, name)
        text = form.get(name, "" if usual is None else f"{usual:g}").strip()
        field = Field(name, label, text, unit)
        try:
            value = None if not text else parse_value(text, "number", "metric")
            if value is not None and not 0.0 <= value <= most:
                raise BadNumberError(text, f"Must be between 0 and {most:,.0f}.")
            values.append(value)
        except BadNumberError as error:
            field = replace(field, error=str(error))
        fields.append(field)
    whole = len(values) == len(fields)
    return QuestionView(tuple(fields), WayAsked(values[0], values[1], kept.struck) if whole else None)


def asked_titles(asked: WayAsked, money: str) -> list[str]:
    """What is looked for."""
    return [way_title(limits, money) for limits in asked_limits(asked)]


def found_view(state: LineState, found: FoundWays, voice: Voice, money: str) -> FoundView:
    """Prepare what was found."""
    today = whole_count(state.rig, found.works, state.owned)
    cards = []
    for way in found.ways:
        then = whole_count(way.rig, found.works, state.owned)
        assert today is not None
        assert then is not None
        ports = _ports(today.ports, then.ports, voice)
        cards.append(_card(way_title(way.limits, money), way, found.count, ports, voice, money))
    left = left_sentences(found.left, found.notices, found.lacking, voice)
    return FoundView(cards, left, f"{found.tried:,}", found.possible)


def _card(
    title: str, way: FoundWay, today: WayCount, ports: list[WayPortRow], voice: Voice, money: str
) -> WayCard:  # fmt: skip
    rows = step_rows(way.steps, today, voice, money)
    takes = takes_words(way.cost, way.hours, money)
    return WayCard(title, takes, moved_words(today, way.count), rows, ports, [row.key for row in rows])


def step_rows(steps: Sequence[WayStep], today: WayCount, voice: Voice, money: str) -> list[WayStepRow]:
    """Steps with what each moves, over the one before it."""
    keys = [step.move.option.key for step in steps]
    before, rows = today, []
    for number, step in enumerate(steps, start=1):
        option = step.move.option
        prepares = None if step.prepares is None else keys.index(step.prepares) + 1
        worse = not step.count.figures < before.figures
        takes = takes_words(option.cost, option.hours, money)
        moves = moved_words(before, step.count)
        rows.append(WayStepRow(option.key, number, step.move.tell(voice), takes, moves, worse, prepares))
        before = step.count
    return rows


def kept_view(state: LineState, way: KeptWay, found: ResumedWay, voice: Voice, money: str) -> KeptView:
    """Prepare the way that the line is on."""
    card = None
    if found.steps:
        rows = step_rows(found.steps, found.count, voice, money)
        cost, hours = (sum(getattr(step.move.option, key) for step in found.steps) for key in ("cost", "hours"))
        moves = moved_words(found.count, found.steps[-1].count)
        card = WayCard("To do", takes_words(cost, hours, money), moves, rows, [], [row.key for row in rows])
    told = {step.key: step for step in way.steps}
    gone = [_told(told[key], number, money) for number, key in enumerate(found.gone, start=1) if key in told]
    done = [_told(step, number, money) for number, step in enumerate(way.done, start=1)]
    return KeptView(card, gone, done, struck_words(state, way, voice))


def _told(step: KeptStep, number: int, money: str) -> WayStepRow:
    """As it read when it was taken up."""
    return WayStepRow(
        step.key, number, step.words, takes_words(step.cost, step.hours, money), [], False, None, step.done
    )  # fmt: skip


def struck_words(state: LineState, way: KeptWay, voice: Voice) -> list[tuple[str, str]]:
    """(key, words) of what is out of the question."""
    if not way.struck:
        return []
    known = moves_of(state.rig, state.owned)
    return [(key, known[key].tell(voice) if key in known else key.partition("~")[0]) for key in way.struck]


def _ports(today: Sequence[PortFigures], then: Sequence[PortFigures], voice: Voice) -> list[WayPortRow]:
    def pair(one: float | None, other: float | None, quantity: str) -> tuple[str, str]:
        was, now = ("not known" if value is None else voice.figure(value, quantity) for value in (one, other))
        return was, now

    return [
        WayPortRow(
            voice.name(was.id),
            pair(was.flow, now.flow, "flow"),
            pair(was.caught, now.caught, "share"),
            pair(was.in_bin, now.in_bin, "share"),
        )
        for was, now in zip(today, then, strict=True)
    ]


def try_address(line_id: int, keys: Sequence[str]) -> str:
    """Where some steps are looked at on the drawing."""
    return url_for("line.try_way", line_id=line_id, step=list(keys))


def voice_here(state: LineState, system: str) -> Voice:
    """Names and units."""
    return voice_for(state.rig, system)
