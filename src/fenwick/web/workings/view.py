"""What a sheet of workings shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.hours.air import USUAL_JOB
from fenwick.core.tuning.readings import Reading
from fenwick.core.workings.figures import KINDS
from fenwick.core.workings.sheet import WorkedStep, Working
from fenwick.data.lines import LineState
from fenwick.drawing.formula import render_formula, render_symbol
from fenwick.drawing.trend import render_trend
from fenwick.rig import Rig
from fenwick.rig.edits.ports import alone
from fenwick.rig.voice import part_names, voice_for
from fenwick.services.workings import all_explained, asked_of, explained_on_page
from fenwick.units import BadNumberError, parse_value
from fenwick.wording.say import Voice
from fenwick.wording.working import KIND_WORDS, figure_of, named, range_of, unit_of

MOST_MINUTES = 600.0


@dataclass(frozen=True)
class WorkingAsked:
    """What the address asks for."""

    port: str | None
    alone: bool  #: with that port open alone, as some pages look at it
    minutes: str  #: of the job in the room, as typed
    readings: tuple[Reading, ...]

    @property
    def duration(self) -> float:
        """Of the job [s]; the usual one where nothing that can be read was typed."""
        try:
            minutes = parse_value(self.minutes, "number", "metric") if self.minutes else USUAL_JOB / 60.0
        except BadNumberError:
            return USUAL_JOB
        return 60.0 * minutes if 0.0 < minutes <= MOST_MINUTES else USUAL_JOB


@dataclass(frozen=True)
class InputChip:
    """One value that went into a step."""

    symbol: Markup
    value: str
    to: str  #: id of the step that holds it; empty for a plain number


@dataclass(frozen=True)
class WorkedRow:
    """One step."""

    id: str
    symbol: Markup
    meaning: str
    formula: Markup | None  #: None for what is only given
    balance: bool  #: whether the formula is what a solved value keeps at nothing
    value: str
    unit: str
    inputs: list[InputChip]
    kind: str
    kind_word: str
    range: str
    source: str
    key: str
    trend: Markup | None  #: of a list


@dataclass(frozen=True)
class Section:
    """Steps that belong together."""

    id: str
    title: str
    given: list[WorkedRow]
    steps: list[WorkedRow]
    aside: list[WorkedRow]  #: densities along the way, which few want to read


@dataclass(frozen=True)
class KindCount:
    """How many steps of a kind there are."""

    kind: str
    word: str
    count: int


@dataclass(frozen=True)
class SheetView:
    """The page of one figure."""

    state: LineState
    rig: Rig
    figure: str
    title: str
    shown: str  #: in the user's units
    port: str
    query: dict[str, str]
    root: WorkedRow | None
    sections: list[Section]
    count: int
    kinds: list[KindCount]


@dataclass(frozen=True)
class ToldFigure:
    """A figure in the list."""

    figure: str
    title: str
    of: str
    value: str
    steps: int


@dataclass(frozen=True)
class ListView:
    """The page of all figures."""

    state: LineState
    rig: Rig
    port: str
    ports: list[tuple[str, str]]
    query: dict[str, str]
    groups: list[tuple[str, list[ToldFigure]]]


def _looked_at(state: LineState, asked: WorkingAsked) -> tuple[Rig, str]:
    """(the rig as the page that leads here looks at it, its port)."""
    ports = [way[0].id for way in state.rig.line.ways if way[0].port is not None]
    shut = {way[0].id for way in state.rig.line.ways if any(b.gate and b.gate.opening == 0.0 for b in way)}
    usual = next((name for name in ports if name not in shut), ports[0])
    port = asked.port if asked.port in ports else usual
    lone = alone(state.rig, port) if asked.alone else None
    return lone or state.rig, port


def found_working(state: LineState, asked: WorkingAsked, figure: str) -> Working | None:
    """The working of a figure; None where this line does not allow it.

    Parameters
    ----------
    figure : its kind, and after a colon which one
    """
    rig, port = _looked_at(state, asked)
    return explained_on_page(rig, port, state.owned, asked.readings, asked.duration, figure)


def _query(asked: WorkingAsked, port: str) -> dict[str, str]:
    found = {"port": port}
    if asked.alone:
        found["alone"] = "1"
    if asked.minutes:
        found["minutes"] = asked.minutes
    return found


def sheet_view(state: LineState, asked: WorkingAsked, figure: str, system: str) -> SheetView:
    """Prepare the sheet of one figure; one that is not told has no sections."""
    rig, port = _looked_at(state, asked)
    found, voice = found_working(state, asked, figure), voice_for(rig, system)
    kind, _, of = figure.partition(":")
    title = KINDS[kind].title if kind in KINDS else "This figure"
    words = part_names(rig)
    if of and len(words) > 0 and kind in KINDS:
        title = f"{title}: {place_name(of, words)}"
    if found is None:
        return SheetView(state, rig, figure, title, "not known", port, _query(asked, port), None, [], 0, [])
    known = {step.id: step for step in found.steps}
    rows = {step.id: _row(step, known) for step in found.steps}
    told = [step for step in found.steps if step is not found.root]
    counts = [KindCount(one, word, sum(step.kind == one for step in found.steps)) for one, word in KIND_WORDS.items()]
    return SheetView(
        state=state,
        rig=rig,
        figure=figure,
        title=title,
        shown=shown_as(found.root, kind, voice, _money(state)),
        port=port,
        query=_query(asked, port),
        root=rows[found.root.id],
        sections=_sections(told, rows, words),
        count=len(found.steps),
        kinds=[one for one in counts if one.count],
    )


def _money(state: LineState) -> str:
    return state.owned.money if state.owned else "€"


def place_name(of: str, names: Mapping[str, str]) -> str:
    """What a station, a stage or a factor is called.

    Parameters
    ----------
    of : its id
    names : what each part is called
    """
    if ">" in of:
        return f"ahead of {names.get(of.rpartition('>')[2].split(':')[0], of)}"
    part, _, place = of.partition(":")
    name = names.get(part, part.replace("-", " ").capitalize())
    return f"{name}, {place}" if place else name


def shown_as(root: WorkedStep, kind: str, voice: Voice, money: str) -> str:
    """The figure as its page tells it.

    Parameters
    ----------
    kind : of the figure
    money : sign of the shop's
    """
    quantity = KINDS[kind].quantity
    if "money" in root.unit:
        return f"{root.value:.2f} {root.unit.replace('money', money).replace('/h', ' an hour')}"
    if not quantity or isinstance(root.value, np.ndarray):
        return f"{figure_of(root.value)}{unit_of(root)}"
    return voice.figure(root.value, quantity)


def figure_list(state: LineState, asked: WorkingAsked, system: str) -> ListView:
    """Prepare the list of all figures."""
    rig, port = _looked_at(state, asked)
    voice, words = voice_for(rig, system), part_names(rig)
    found = all_explained(rig, asked_of(rig, port, state.owned, asked.readings, asked.duration))
    groups: dict[str, list[ToldFigure]] = {}
    for name, working in found.items():
        kind, _, of = name.partition(":")
        row = ToldFigure(
            figure=name,
            title=KINDS[kind].title,
            of=place_name(of, words) if of else "",
            value=shown_as(working.root, kind, voice, _money(state)),
            steps=len(working.steps),
        )
        groups.setdefault(KINDS[kind].group, []).append(row)
    ports = [(way[0].id, way[0].port.name) for way in state.rig.line.ways if way[0].port is not None]
    return ListView(state, rig, port, ports, _query(asked, port), list(groups.items()))


def _sections(steps: list[WorkedStep], rows: Mapping[str, WorkedRow], names: Mapping[str, str]) -> list[Section]:
    """Steps of one part together, in the order in which they are first met."""
    found: dict[str, list[WorkedStep]] = {}
    for step in steps:
        found.setdefault(step.section, []).append(step)
    sections = []
    for i, (section, own) in enumerate(found.items()):
        title = named(section, names) or "Besides"
        aside = [step for step in own if not step.is_leaf and _is_aside(step)]
        sections.append(
            Section(
                id=f"s{i + 1}",
                title=title,
                given=[rows[step.id] for step in own if step.is_leaf],
                steps=[rows[step.id] for step in own if not step.is_leaf and step not in aside],
                aside=[rows[step.id] for step in aside],
            )
        )
    return sections


def _is_aside(step: WorkedStep) -> bool:
    return step.id != "room.density" and step.id.endswith((".density", ".head"))


def _row(step: WorkedStep, known: Mapping[str, WorkedStep]) -> WorkedRow:
    symbols = _symbols(step, known)
    law = step.expression if step.expression is not None else step.residual
    chips = [
        InputChip(render_symbol(symbols[name]), _chip_value(one, known), one if isinstance(one, str) else "")
        for name, one in step.inputs.items()
        if not (step.is_leaf or (step.expression is None and name == "value"))
    ]
    return WorkedRow(
        id=step.id,
        symbol=render_symbol(step.symbol),
        meaning=step.meaning,
        formula=None if step.is_leaf or law is None else render_formula(law, symbols),
        balance=step.expression is None,
        value=figure_of(step.value),
        unit=unit_of(step).strip(),
        inputs=chips,
        kind=step.kind,
        kind_word=KIND_WORDS[step.kind],
        range=range_of(step),
        source=step.source,
        key=step.key,
        trend=render_trend(step.value) if isinstance(step.value, np.ndarray) else None,
    )


def _chip_value(one: object, known: Mapping[str, WorkedStep]) -> str:
    if isinstance(one, str):
        return f"{figure_of(known[one].value)}{unit_of(known[one])}"
    assert isinstance(one, float | np.ndarray)
    return figure_of(one)


def _symbols(step: WorkedStep, known: Mapping[str, WorkedStep]) -> dict[str, str]:
    """Symbol of every name in a formula; those that would look alike get strokes."""
    found: dict[str, str] = {}
    for name, one in step.inputs.items():
        symbol = known[one].symbol if isinstance(one, str) else step.symbol if name == "value" else name
        base, mark, below = symbol.partition("_")
        while symbol in found.values():
            base += "′"
            symbol = f"{base}{mark}{below}"
        found[name] = symbol
    return found
