"""The figures that can show how they come about, and their workings."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from fenwick.core.components.separator import Separator
from fenwick.core.hours.air import DustSource, Room
from fenwick.core.hours.lives import Prices
from fenwick.core.line.line import Line
from fenwick.core.tuning.fit import KEYS, Fit
from fenwick.core.workings.ageing import WITH, WITHOUT, Ageing, payback_step
from fenwick.core.workings.breathing import Breathing
from fenwick.core.workings.factors import factor_step
from fenwick.core.workings.fates import Dusty
from fenwick.core.workings.path import Path
from fenwick.core.workings.sheet import Sheet, WorkedStep, Working
from fenwick.core.workings.strength import collapse_step, lid_step, tipping_step


@dataclass(frozen=True)
class RoomGiven:
    """A room, and which of its keys are given rather than by rule."""

    room: Room
    keys: tuple[str, ...]
    source: DustSource | None  #: that gets into it; None where it is not known
    duration: float  #: of the job [s]


@dataclass(frozen=True)
class FigureAsked:
    """What a working is asked of."""

    line: Line
    port: int = 0  #: place among the leaves
    prices: Prices = field(default_factory=Prices)
    room: RoomGiven | None = None  #: None where it is not known
    fitted: Fit | None = None  #: None without readings


class _Told:
    """Everything that has been written on one sheet so far."""

    def __init__(self, asked: FigureAsked) -> None:
        self.asked, self.sheet = asked, Sheet(asked.line.rules)

    @cached_property
    def path(self) -> Path:
        return Path(self.sheet, self.asked.line, self.asked.port).walk()

    @cached_property
    def dusty(self) -> Dusty:
        return Dusty(self.path)

    @cached_property
    def breathing(self) -> Breathing | None:
        given = self.asked.room
        return None if given is None else Breathing(self.dusty, given.room, given.keys, given.duration)

    def ageing(self, way: str) -> Ageing:
        return Ageing(self.sheet, self.asked.line, self.asked.port, way)

    @property
    def stages(self) -> tuple[Separator, ...]:
        return self.asked.line.separators

    def working(self, figure: str) -> Working | None:
        kind, _, one = figure.partition(":")
        root = KINDS[kind].write(self, one)
        if root is None or not np.all(np.isfinite(root.value)):
            return None
        also = self.path.solved if KINDS[kind].on_air else ()
        return self.sheet.working(figure, root, also)


def _air(told: _Told, _: str) -> WorkedStep | None:
    return told.path.air[told.asked.port]


def _slowest(told: _Told, _: str) -> WorkedStep | None:
    """The slowest hose that carries all the dust on the way of the port."""
    line, stations = told.asked.line, told.path.point.stations
    way = line.leaves[told.asked.port].parts | {part.id for part in line.trunk}
    first = next((i for i, kind in enumerate(stations.kinds) if kind == "separator"), len(stations.ids))
    laden = [
        name
        for i, (name, kind) in enumerate(zip(stations.ids, stations.kinds, strict=True))
        if kind == "hose" and i < first and name in way and name not in line.idle_parts
    ]
    if not laden:
        return None
    speeds = [told.path.ends[name].speed for name in laden]
    law = "v0"
    for i in range(1, len(speeds)):
        law = f"minimum({law}, v{i})"
    parts = {f"v{i}": speed for i, speed in enumerate(speeds)}
    told_as = "Slowest air in a hose that carries all the dust"
    return told.sheet.step("slowest", "v_min", told_as, law, "m/s", **parts)


def _suction(told: _Told, part: str) -> WorkedStep | None:
    end = told.path.ends.get(part)
    return None if end is None else end.static


def _drop(told: _Told, part: str) -> WorkedStep | None:
    return told.path.sheet.steps.get(f"{part}.loss")


def _inlet_speed(told: _Told, part: str) -> WorkedStep | None:
    return told.path.sheet.steps.get(f"{part}.inlet-speed")


def _stage(told: _Told, part: str) -> Separator | None:
    return next((stage for stage in told.stages if stage.id == part), None)


def _cut(told: _Told, part: str) -> WorkedStep | None:
    stage = _stage(told, part)
    return None if stage is None else told.dusty.cut(stage)


def _collapse(told: _Told, part: str) -> WorkedStep | None:
    stage = _stage(told, part)
    return None if stage is None else collapse_step(told.sheet, told.asked.line, stage)


def _lid(told: _Told, part: str) -> WorkedStep | None:
    stage = _stage(told, part)
    return None if stage is None else lid_step(told.sheet, told.asked.line, stage, told.path.point)


def _tipping(told: _Told, part: str) -> WorkedStep | None:
    stage = _stage(told, part)
    return None if stage is None else tipping_step(told.sheet, told.asked.line, stage)


def _fog(told: _Told, _: str) -> WorkedStep | None:
    return None if told.breathing is None else told.breathing.fog()


def _masked(told: _Told, _: str) -> WorkedStep | None:
    given, breathing = told.asked.room, told.breathing
    return None if breathing is None or given is None or given.source is None else breathing.masked(given.source)


def _hours(told: _Told, _: str) -> WorkedStep | None:
    found = told.ageing(WITH)
    return found.first_life() if found.known else None


def _cost(told: _Told, _: str) -> WorkedStep | None:
    found = told.ageing(WITH)
    return found.cost(told.asked.prices) if found.known else None


def _payback(told: _Told, _: str) -> WorkedStep | None:
    price = told.asked.prices.separator
    ways = [told.ageing(way) for way in (WITH, WITHOUT)]
    if price is None or not told.stages or not all(way.known for way in ways):
        return None
    with_it, without = (way.cost(told.asked.prices) for way in ways)
    return None if with_it is None or without is None else payback_step(told.sheet, with_it, without, price)


def _factor(told: _Told, key: str) -> WorkedStep | None:
    fitted = told.asked.fitted
    return None if fitted is None or key not in KEYS else factor_step(told.sheet, fitted, key)


@dataclass(frozen=True)
class Kind:
    """A kind of figure."""

    title: str
    group: str
    write: Callable[[_Told, str], WorkedStep | None]
    on_air: bool = True  #: whether it hangs on the air in the line
    of: str = ""  #: what it is one of: a station, a stage, a factor; empty: there is one
    quantity: str = ""  #: that it is told in; empty: its unit says it


AIR, KEEPS, HOOD, STANDS, OVER_HOURS, BREATHED, READ, ALONG = (
    "Air and suction", "What the separator keeps", "What is caught, and where it goes", "Strength and standing",
    "Over the hours", "The air you breathe", "Tuned by readings", "Suction along the line"
)  # fmt: skip
KINDS: dict[str, Kind] = {
    "air": Kind("Air at the tool", AIR, _air, quantity="flow"),
    "slowest-speed": Kind("Slowest speed", AIR, _slowest, quantity="speed"),
    "drop": Kind("Suction it costs", AIR, _drop, of="stage", quantity="suction"),
    "inlet-speed": Kind("Inlet speed", KEEPS, _inlet_speed, of="stage", quantity="speed"),
    "cut-size": Kind("Cut size", KEEPS, _cut, of="stage", quantity="grain"),
    "stage-kept": Kind(
        "Kept of what enters it", KEEPS, lambda told, part: told.dusty.kept_by(part), of="stage", quantity="share"
    ),
    "kept": Kind("Kept by all stages", KEEPS, lambda told, _: told.dusty.kept(), quantity="share"),
    "caught": Kind("Caught at the tool", HOOD, lambda told, _: told.dusty.caught(told.asked.port), quantity="share"),
    "bin-of-100": Kind("In the bin, of 100 g made", HOOD, lambda told, _: told.dusty.binned()),
    "collapse": Kind("Suction that folds the bin", STANDS, _collapse, on_air=False, of="stage", quantity="suction"),
    "lid": Kind("How far the lid is drawn in", STANDS, _lid, on_air=False, of="stage", quantity="bore"),
    "tipping": Kind("Pull that tips it over, empty", STANDS, _tipping, on_air=False, of="stage", quantity="force"),
    "hours": Kind("Hours until the air is down by a quarter, or the bag full", OVER_HOURS, _hours, on_air=False),
    "cost": Kind("Filters and bags, an hour of work", OVER_HOURS, _cost, on_air=False),
    "payback": Kind("Hours until the separator has paid", OVER_HOURS, _payback, on_air=False),
    "fog": Kind("Fine dust in the room when the tool stops", BREATHED, _fog),
    "masked": Kind("Masked after the tool stops", BREATHED, _masked),
    "suction": Kind("Suction on the wall", ALONG, _suction, of="station", quantity="suction"),
    "factor": Kind("Factor", READ, _factor, on_air=False, of="factor"),
}


def names(asked: FigureAsked) -> list[str]:
    """Every figure that could be asked for: its kind, and after a colon which one."""
    line = asked.line
    which = {
        "station": lambda: list(Path(Sheet(line.rules), line, asked.port).network.ids),
        "stage": lambda: [stage.id for stage in line.separators],
        "factor": lambda: list(KEYS) if asked.fitted is not None else [],
    }
    found = []
    for name, kind in KINDS.items():
        found += [f"{name}:{one}" for one in which[kind.of]()] if kind.of else [name]
    return found


def figures(asked: FigureAsked) -> dict[str, Working]:
    """Every figure that this input allows, with its working."""
    told = _Told(asked)
    found = {}
    for name in names(asked):
        one = told.working(name)
        if one is not None:
            found[name] = one
    return found


def working(asked: FigureAsked, figure: str) -> Working | None:
    """How one figure comes about; None where this input does not allow it.

    Parameters
    ----------
    figure : its kind, and after a colon which one; without it the first
    """
    kind, _, one = figure.partition(":")
    if kind not in KINDS:
        return None
    if KINDS[kind].of and not one:
        figure = next((name for name in names(asked) if name.startswith(f"{kind}:")), figure)
    return _Told(asked).working(figure)
