"""What the page of ageing shows, prepared as plain values."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array, one_value
from fenwick.core.hours.course import Course
from fenwick.core.hours.lives import LONG, one_after_another
from fenwick.core.hours.upkeep import Upkeep, UpkeepWay
from fenwick.core.rules import RuleBook
from fenwick.data.lines import LineState
from fenwick.drawing.ageing_chart import AgeingCurve, render_ageing
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.ports import alone
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services.advice import smaller_vacuums
from fenwick.services.bands import upkeep_bands_of
from fenwick.services.hours import upkeep_of
from fenwick.shop.work import hours_a_week
from fenwick.units import BadNumberError, format_value, parse_value
from fenwick.web.kit.editor import Editor, rig_field
from fenwick.web.kit.fields import Field
from fenwick.wording.rows import VerdictRow
from fenwick.wording.say import Voice
from fenwick.wording.upkeep import Wanted, WayRow, upkeep_bands_words, upkeep_rows, way_rows

WANTED = 10.0  #: hours asked of a filter between cleanings, until others are typed [h]
SHOWN = 1.9  #: of the line's own life, how far the chart goes
FIGURES = {
    "flow": ("Air at the tool", "flow"),
    "suction": ("Suction of the fan", "suction"),
    "speed": ("Slowest run", "speed"),
    "kept": ("Kept in the bin", "share"),
    "exhaust": ("Past the filter", "share"),
}


@dataclass(frozen=True)
class AgeingAsked:
    """What the address asks for."""

    port: str | None = None
    figure: str = "flow"
    wanted: str = ""


@dataclass(frozen=True)
class AgeingView:
    """The page."""

    state: LineState
    rig: Rig
    port: str
    ports: list[tuple[str, str]]
    figure: str
    figures: list[tuple[str, str]]
    title: str
    chart: Markup | None
    unit: str
    rows: list[VerdictRow]
    ways: list[WayRow]
    banded: tuple[str, ...]  #: rows of which a band follows
    wanted: Field
    editor: Editor
    why_not: str


def ageing_editor(rig: Rig, system: str) -> Editor:
    """The fields that the hours and the costs hang on."""
    document = rig.model_dump(mode="json")
    paths = []
    if rig.vacuum.filter is not None:
        paths += [f"vacuum.filter.{key}" for key in ("area_m2", "held_kg", "coated", "price", "price_to")]
    if rig.vacuum.bag is not None:
        paths += [f"vacuum.bag.{key}" for key in ("area_m2", "volume_m3", "held_kg", "price", "price_to")]
    paths.append("vacuum.tank_m3")
    stage = next((part for part in rig.line.elements if isinstance(part, SeparatorPart)), None)
    if stage is not None:
        paths += [f"{path_of(document, stage.id)}.{key}" for key in ("price", "price_to")]
    for way in rig.line.ways:
        paths.append(f"{path_of(document, way[0].id)}.port.dust_rate_kg_s")
    fields = [rig_field(rig, document, path, system) for path in paths]
    several = len(rig.line.ways) > 1
    named = []
    for field in fields:
        port = next((way[0].port for way in rig.line.ways if field.path.startswith(_root(document, way[0].id))), None)
        name = f"{port.name} makes" if port and several else field.label
        named.append(field if port is None else Field(**{**field.__dict__, "label": name}))
    return Editor("ageing", "Filters and costs", "ageing", tuple(named))


def _root(document: dict[str, object], branch: str) -> str:
    return f"{path_of(document, branch)}.port"


def ageing_view(state: LineState, asked: AgeingAsked, system: str, editor: Editor | None = None) -> AgeingView:
    """Follow the line over its hours and prepare the page."""
    whole = state.rig
    ports = [(way[0].id, way[0].port.name) for way in whole.line.ways if way[0].port]
    open_now = [leaf.id for leaf in build_line(whole).leaves if leaf.open]
    port = asked.port if asked.port in [key for key, _ in ports] else (open_now or [ports[0][0]])[0]
    assert port is not None
    rig = alone(whole, port) or whole
    voice, rules = voice_for(rig, system), RuleBook()
    wanted, hours = _wanted(asked.wanted)
    figure = asked.figure if asked.figure in FIGURES else "flow"
    sign = state.owned.money if state.owned else "€"
    at = [key for key, _ in ports].index(port)
    weekly = hours_a_week(state.owned, whole, at, rules)
    found = upkeep_of(rig, at, hours, weekly)
    return AgeingView(
        state=state,
        rig=whole,
        port=port,
        ports=ports,
        figure=figure,
        figures=[(key, words) for key, (words, _) in FIGURES.items()],
        title=f"{FIGURES[figure][0]} over hours of work",
        chart=_chart(found, figure, voice, rules) if found else None,
        unit=_unit(figure, voice),
        rows=upkeep_rows(found, Wanted(hours, weekly, sign, _smaller(state, rig, at)), rules, voice) if found else [],
        ways=way_rows(found, sign, voice) if found else [],
        banded=_banded(found),
        wanted=wanted,
        editor=editor or ageing_editor(whole, system),
        why_not="" if found else "It takes the dust, its amount, the hood, and the filter's area.",
    )


def _banded(found: Upkeep | None) -> tuple[str, ...]:
    if found is None:
        return ()
    known = {"cost": found.with_it.cost, "payback": found.payback}
    return ("life", *(row for row, value in known.items() if value is not None))


def ageing_bands(state: LineState, asked: AgeingAsked) -> dict[str, str]:
    """What is believable of the figures of a line over its hours, by row; nothing where they are not known."""
    whole = state.rig
    ports = [way[0].id for way in whole.line.ways if way[0].port]
    port = asked.port if asked.port in ports else ports[0]
    found = upkeep_bands_of(alone(whole, port) or whole, ports.index(port))
    sign = state.owned.money if state.owned else "€"
    return {} if found is None else upkeep_bands_words(found, sign)


def _smaller(state: LineState, rig: Rig, at: int) -> tuple[str, ...]:
    """Names of the shop's vacuums with a smaller tank that would do as well at a port."""
    names = {one.id: one.name for one in state.owned.vacuums} if state.owned else {}
    return tuple(names[part] for part in smaller_vacuums(rig, state.owned, at))


def _unit(figure: str, voice: Voice) -> str:
    return voice.figure(1.0, FIGURES[figure][1]).split(" ", 1)[-1]


def _wanted(text: str) -> tuple[Field, float]:
    """The field of hours asked between cleanings, and the hours."""
    shown = text or f"{WANTED:g}"
    try:
        hours = parse_value(shown, "number", "metric")
        if not 0.0 < hours <= LONG:
            return Field(
                "wanted", "Between cleanings", shown, "h", error=f"must be above 0 and at most {LONG:.0f} h"
            ), WANTED
    except BadNumberError as error:
        return Field("wanted", "Between cleanings", shown, "h", error=str(error)), WANTED
    return Field("wanted", "Between cleanings", format_value(hours, "number", "metric", field=True), "h"), hours


def _chart(found: Upkeep, figure: str, voice: Voice, rules: RuleBook) -> Markup:
    quantity = FIGURES[figure][1]
    life = found.with_it.life
    span = float(np.clip(SHOWN * life, 2.0, 200.0)) if np.isfinite(life) else 200.0
    ways = [("with", "as it is" if found.without else "no separator", found.with_it)]
    if found.without is not None and figure != "kept":
        ways.append(("without", "without separator", found.without))
    if found.other_bag is not None and figure in ("flow", "exhaust"):
        ways.append(("bag", "with a bag" if found.other_bag.bag_area > 0.0 else "bag dropped", found.other_bag))
    curves = [_curve(key, words, way, figure, span) for key, words, way in ways]
    if found.now is not None:
        curves.insert(1, _today(found, found.now, figure))
    limit = one_value(rules["filter.down"]) * found.with_it.flow if figure == "flow" else None
    known = [curve for curve in curves if np.all(np.isfinite(curve.values))]
    return render_ageing(known, span, quantity, limit, found.bin_hours, voice) if known else Markup("")


def _curve(key: str, words: str, way: UpkeepWay, figure: str, span: float) -> AgeingCurve:
    """A way of running the line, one life after the other."""
    hours, values = one_after_another(way.course, getattr(way.course, figure), way.lives, span)
    return AgeingCurve(key, words, hours, values, way.life)


def _today(found: Upkeep, course: Course, figure: str) -> AgeingCurve:
    """From how the filter is today to where it has to be cleaned."""
    left = LONG if found.now_left is None else found.now_left
    inside = course.hours < left
    values: Array = getattr(course, figure)
    hours = np.append(course.hours[inside], min(left, LONG))
    return AgeingCurve("today", "from today", hours, np.interp(hours, course.hours, values[:, 0]))
