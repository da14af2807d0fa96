"""A vacuum from what its label shows, or from its class, or from nothing."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.core.components.label import LabelFigures, LabelledFan, fan_of
from fenwick.core.rules import RuleBook
from fenwick.rig.edits.guesswork import Guesswork, tidy
from fenwick.rig.start.answers import Answers
from fenwick.rig.start.conclusion import Conclusion

UNKNOWN_CLASS = (0.6, 1.3)  #: factors on a curve whose class is not even known


@dataclass(frozen=True)
class VacuumGuess:
    """A vacuum that nobody has measured."""

    document: dict[str, Any]  #: as the rig file has it
    marks: tuple[dict[str, Any], ...]  #: of what is guessed
    said: tuple[Conclusion, ...]  #: what was concluded


def guess_vacuum(answers: Answers) -> VacuumGuess:
    """The vacuum that answers tell of."""
    work = Guesswork("vacuum")
    label = LabelFigures(answers.sealed_suction, answers.open_flow, answers.air_watts, _power(answers))
    fan = fan_of(label, VACUUMS[answers.vacuum] if answers.vacuum else None, RuleBook())
    kind = fan.kind
    document: dict[str, Any] = {"name": kind.label, "curve": _curve(answers, fan, work)}
    if fan.power is not None:
        document["electrical_power_w"] = tidy(fan.power)
    if answers.current is not None:
        document["current_a"] = answers.current
    document["inlet_bore_m"] = work.take("inlet_bore_m", None, kind.inlet_bore)
    document["tank_m3"] = work.take("tank_m3", None, kind.tank)
    area = work.take("filter.area_m2", None, kind.filter_area)
    if kind.filter_kind == "bag":
        document["filter"] = {"kind": "paper", "area_m2": area, "held_kg": 0.0}
        document["bag"] = {"area_m2": area, "held_kg": 0.0}
    else:
        document["filter"] = {"kind": kind.filter_kind, "area_m2": area, "held_kg": 0.0}
    dirt = tidy(0.1 * area)
    work.marks.append({"part": "vacuum", "key": "filter.held_kg", "low": 0.0, "high": dirt})
    return VacuumGuess(document, tuple(work.marks), tuple(_concluded(answers, fan)))


def _power(answers: Answers) -> float | None:
    if answers.electrical_power is not None:
        return answers.electrical_power
    return answers.current * answers.mains if answers.current is not None else None


def _curve(answers: Answers, fan: LabelledFan, work: Guesswork) -> dict[str, Any]:
    """The nameplate: what the label says, and marked as a guess what follows from it and the class."""
    given = answers.sealed_suction, answers.open_flow
    curve: dict[str, Any] = {"kind": "nameplate"}
    if answers.air_watts is not None and None not in given:
        curve["air_watts"] = answers.air_watts
    elif fan.kind.exponent != 1.0:
        curve["exponent"] = fan.kind.exponent
    sure = answers.vacuum is not None or fan.power is not None
    for key, answer, value in (
        ("sealed_suction_pa", given[0], fan.sealed_suction),
        ("open_flow_m3_s", given[1], fan.open_flow),
    ):
        curve[key] = tidy(value) if answer is None else answer
        if answer is None:
            work.mark(f"curve.{key}", curve[key], None if sure else UNKNOWN_CLASS)
    return curve


def _concluded(answers: Answers, fan: LabelledFan) -> list[Conclusion]:
    """What the label came to, and what each of its figures moved."""
    said = []
    if fan.peak_power:
        said.append(
            Conclusion("More power than a socket gives is peak power, and says nothing about air: it was not used.")
        )
    if fan.power is not None and answers.vacuum is None:
        words = f"By its {{}} it was taken for something like a {fan.kind.label.lower()}: a guess."
        said.append(Conclusion(words, ((fan.power, "power"),)))
    given = answers.sealed_suction, answers.open_flow
    if None not in given:
        return [*said, *_whole_label(answers, fan)]
    makes = ((fan.sealed_suction, "suction"), (fan.open_flow, "flow"))
    usual = ((fan.usual_suction, "suction"), (fan.usual_flow, "flow"))
    if answers.air_watts is not None:
        said.append(Conclusion("{} of air power come to {} shut and {} open.", ((answers.air_watts, "power"), *makes)))
    elif fan.bounded and fan.power is not None:
        words = "No more than {} and {} can be made of {}: its class makes {} and {}."
        said.append(Conclusion(words, (*makes, (fan.power, "power"), *usual)))
    elif fan.power is not None:
        words = "{} move it to {} shut and {} open; its class makes {} and {}."
        moved = abs(fan.sealed_suction / fan.usual_suction - 1.0) > 0.01 or (
            abs(fan.open_flow / fan.usual_flow - 1.0) > 0.01
        )
        words = words if moved else "{} come to {} shut and {} open."
        said.append(Conclusion(words, ((fan.power, "power"), *makes, *(usual if moved else ()))))
    return said


def _whole_label(answers: Answers, fan: LabelledFan) -> list[Conclusion]:
    """Suction and flow say it all: power tells only whether to believe them."""
    if fan.power is None or fan.air_share is None:
        return []
    figures = ((fan.power, "power"), (fan.air_share, "share"))
    words = "{} move nothing, as suction and flow are both known: {} of it becomes air power, " + (
        "which can be." if fan.believable else "which no fan does: one of the figures is too large."
    )
    return [Conclusion(words, figures)]
