"""A vacuum from what its label shows, or from its class, or from nothing."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from fenwick.core.catalogue.vacuums import COMMONEST, VACUUMS, VacuumClass, class_by_power
from fenwick.core.formulas.fan import peak_air_power_share
from fenwick.rig.edits.guesswork import Guesswork, tidy
from fenwick.rig.start.answers import Answers

UNKNOWN_CLASS = (0.6, 1.3)  #: factors on a curve whose class is not even known


@dataclass(frozen=True)
class VacuumGuess:
    """A vacuum that nobody has measured."""

    document: dict[str, Any]  #: as the rig file has it
    marks: tuple[dict[str, Any], ...]  #: of what is guessed
    said: tuple[str, ...]  #: what was concluded, in sentences


def guess_vacuum(answers: Answers) -> VacuumGuess:
    """The vacuum that answers tell of."""
    work = Guesswork("vacuum")
    said: list[str] = []
    power = _power(answers)
    kind, sure = _class(answers, power, said)
    document: dict[str, Any] = {"name": kind.label, "curve": _curve(answers, kind, sure, work)}
    if power is not None and class_by_power(power) is not None:
        document["electrical_power_w"] = tidy(power)
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
    return VacuumGuess(document, tuple(work.marks), tuple(said))


def _power(answers: Answers) -> float | None:
    if answers.electrical_power is not None:
        return answers.electrical_power
    return answers.current * answers.mains if answers.current is not None else None


def _class(answers: Answers, power: float | None, said: list[str]) -> tuple[VacuumClass, bool]:
    """(class to start from, whether it is more than a shot in the dark)."""
    if answers.vacuum is not None:
        return VACUUMS[answers.vacuum], True
    if power is None:
        return VACUUMS[COMMONEST], False
    found = class_by_power(power)
    if found is None:
        said.append("More power than a socket gives is peak power, and says nothing about air: it was not used.")
        return VACUUMS[COMMONEST], False
    said.append(f"By its electrical power it was taken for the class “{found.label.lower()}”: a guess.")
    return found, True


def _curve(answers: Answers, kind: VacuumClass, sure: bool, work: Guesswork) -> dict[str, Any]:
    """The nameplate; what the label leaves open follows from air watts where they are given, else from the class."""
    suction, flow, watts = answers.sealed_suction, answers.open_flow, answers.air_watts
    curve: dict[str, Any] = {"kind": "nameplate"}
    spread = None if sure else UNKNOWN_CLASS
    if watts is not None and suction is not None and flow is not None:
        curve["air_watts"] = watts
    elif kind.exponent != 1.0:
        curve["exponent"] = kind.exponent
    area = watts / float(peak_air_power_share(kind.exponent)) if watts is not None else None
    if suction is None:
        suction = tidy(area / flow) if area is not None and flow is not None else kind.sealed_suction
        work.mark("curve.sealed_suction_pa", suction, spread)
    if flow is None:
        flow = tidy(area / suction) if area is not None else kind.open_flow
        work.mark("curve.open_flow_m3_s", flow, spread)
    return {**curve, "sealed_suction_pa": suction, "open_flow_m3_s": flow}
