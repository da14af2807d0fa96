"""What an emptying takes: its steps for this closure and stand, with minutes, room and weight. The first variant."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator
from fenwick.core.judging.standing import stands_tall, weight_to_lift
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook

WITHOUT_TOOLS = "cam-tray"  #: the closure that takes least
SETTLE, HEAD, UNTIE, HOSES, OPEN, LAY, SLIDE, CARRY, SEAL, CLOSE, NOTE = (
    "settle", "head", "untie", "hoses", "open", "lay", "slide", "carry", "seal", "close", "note",
)  # fmt: skip
HELD_BY, FEWEST = {"latch-gasket": "handle.latch-gap", "screwed-gasket": "handle.screw-gap"}, 3
LEAST_DAYS, YEAR = 30.0, 365.25  #: of a log that says how often, and of a year [d]
FLAT, ROLLS, HANGS = "flat", "rolls", "hangs"  #: how what comes off the bin can be laid down


@dataclass(frozen=True)
class EmptyingStep:
    """One step."""

    key: str
    minutes: float  #: that it takes [min]


@dataclass(frozen=True)
class Handling:
    """An emptying."""

    steps: tuple[EmptyingStep, ...]
    saves: float  #: minutes that a closure without tools would save each time [min]
    hoses: int  #: to undo
    cables: int  #: to unplug or move
    closure: str  #: of the bin, a key of CLOSURES
    holds: int  #: latches or screws round its lid, about; 0 where there are none
    lies: str  #: FLAT, ROLLS or HANGS: what comes off the bin
    above: float | None  #: free height wanted over the floor [m]; None: nothing is lifted off
    front: float  #: room wanted in front [m]
    weight: float | None  #: to lift, full to the mark [kg]; None: not known
    heavy: bool  #: more than one lifts with care
    sight: str | None  #: how the fill is seen, a key of SIGHTS; None: not said

    @property
    def minutes(self) -> float:
        """Of the whole emptying [min]."""
        return sum(step.minutes for step in self.steps)


def handling_of(stage: Separator, line: Line) -> Handling:
    """What it takes to empty the bin under a stage."""
    rules, steps = line.rules, _steps(stage, stage.bin.closure, line.rules)
    tool_less = _steps(stage, WITHOUT_TOOLS, rules)
    slides, stand = stage.bin.closure == WITHOUT_TOOLS, stage.stand
    weight = weight_to_lift(stage, line)
    head = isinstance(stage, OneBody) or (stand is not None and stand.stacked)
    return Handling(
        steps,
        max(sum(step.minutes for step in steps) - sum(step.minutes for step in tool_less), 0.0),
        0 if slides else 1 if isinstance(stage, OneBody) else 2,
        1 if head else 0,
        stage.bin.closure,
        _holds(stage, rules),
        HANGS if slides else ROLLS if isinstance(stage, Cyclone) else FLAT,
        None if slides else stands_tall(stage, line) + one_value(rules["stand.lift"]),
        one_value(rules["handle.front"]) + stage.bin.widest,
        weight,
        weight is not None and weight > one_value(rules["stand.heavy"]),
        stage.bin.sight,
    )


def _holds(stage: Separator, rules: RuleBook) -> int:
    gap = HELD_BY.get(stage.bin.closure)
    return 0 if gap is None else max(round(pi * stage.bin.widest / one_value(rules[gap])), FEWEST)


def _steps(stage: Separator, closure: str, rules: RuleBook) -> tuple[EmptyingStep, ...]:
    def taking(key: str, rule: str, times: float = 1.0) -> EmptyingStep:
        return EmptyingStep(key, times * one_value(rules[f"handle.{rule}"]))

    stand, slides = stage.stand, closure == WITHOUT_TOOLS
    head = isinstance(stage, OneBody) or (stand is not None and stand.stacked)
    found = [taking(SETTLE, "settle")]
    if stand is not None and stand.tied:
        found.append(taking(UNTIE, "untie"))
    if head and not slides:
        found.append(taking(HEAD, "head"))
    if slides:
        found.append(taking(SLIDE, closure))
    else:
        found.append(taking(HOSES, "hose", 1.0 if isinstance(stage, OneBody) else 2.0))
        found += [taking(OPEN, closure, 0.5), EmptyingStep(LAY, 0.0)]
    found += [taking(CARRY, "carry"), taking(SEAL, "seal")]
    if not slides:
        found.append(taking(CLOSE, closure, 0.5))
    return (*found, EmptyingStep(NOTE, 0.0))


def hours_a_year(emptyings: int, days: float, minutes: float) -> float | None:
    """Hours a year that emptying takes, by how often it was done [h]; None in the first month of a log.

    Parameters
    ----------
    emptyings : that were logged [-]
    days : that the log covers [d]
    minutes : of one emptying [min]
    """
    return None if days < LEAST_DAYS else emptyings * YEAR / days * minutes / 60.0
