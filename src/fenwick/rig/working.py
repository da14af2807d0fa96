"""The contract of a working: what `fenwick explain` prints. Its leaves say where in the rig they stand."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from fenwick.core.workings.arithmetic import Number
from fenwick.core.workings.sheet import GIVEN, GUESSED, MEASURED, WorkedStep, Working
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import document_value, path_of

FORMAT, LIST_FORMAT, VERSION = "fenwick-working", "fenwick-figures", 1
CLOSE = 1e-9  #: of each other, that are the same value [-]


def traced_to(rig: Rig, found: Working) -> Working:
    """The working with every value of the rig said to be given, guessed, or changed on its way by tuning or speed."""
    document = rig.model_dump(mode="json")
    guesses = {f"{guess['part']}.{guess['key']}": guess for guess in document["guesses"]}
    return replace(found, steps=tuple(_traced(step, document, guesses) for step in found.steps))


def _traced(step: WorkedStep, document: dict[str, Any], guesses: dict[str, Any]) -> WorkedStep:
    if step.kind != GIVEN:
        return step
    guess = guesses.get(step.key)
    if guess is not None:
        return replace(step, kind=GUESSED, low=guess["low"], high=guess["high"], source="a guess, until it is measured")
    part, _, key = step.key.partition(".")
    try:
        stands = document_value(document, f"{path_of(document, part)}.{key}")
    except KeyError:
        return step
    if not isinstance(stands, int | float) or not isinstance(step.value, float):
        return replace(step, source="by default") if stands is None else step
    if abs(stands - step.value) > CLOSE * max(abs(stands), 1e-30):
        told = f"{stands:g} in the file; changed by readings, or by the motor's speed"
        return replace(step, kind=MEASURED, source=told)
    return step


def working_document(found: Working) -> dict[str, Any]:
    """A working as plain Python values, in SI."""
    root = found.root
    return {
        "format": FORMAT,
        "version": VERSION,
        "figure": found.figure,
        "value": _plain(root.value),
        "unit": root.unit,
        "steps": [_step(step) for step in found.steps],
    }


def _step(step: WorkedStep) -> dict[str, Any]:
    told: dict[str, Any] = {
        "id": step.id,
        "symbol": step.symbol,
        "meaning": step.meaning,
        "section": step.section,
        "inputs": {name: one if isinstance(one, str) else _plain(one) for name, one in step.inputs.items()},
        "expression": step.expression,
    }
    if step.residual is not None:
        told["residual"] = step.residual
    told |= {"value": _plain(step.value), "unit": step.unit, "source": step.source, "kind": step.kind}
    if step.key:
        told["key"] = step.key
    if step.low is not None or step.high is not None:
        told |= {"low": step.low, "high": step.high}
    return told


def _plain(value: Number) -> float | list[float]:
    return [float(one) for one in value] if isinstance(value, np.ndarray) else float(value)


def figures_document(found: dict[str, Working], titles: dict[str, str]) -> dict[str, Any]:
    """The figures that an input allows, as plain Python values."""
    rows = [
        {"figure": name, "title": titles[name], "value": _plain(one.root.value), "unit": one.root.unit}
        for name, one in found.items()
    ]
    return {"format": LIST_FORMAT, "version": VERSION, "figures": rows}
