"""A working as lines of text."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

import numpy as np

from fenwick.core.workings.arithmetic import Number
from fenwick.core.workings.sheet import WorkedStep, Working

KIND_WORDS: Mapping[str, str] = {
    "published": "published",
    "rule": "our rule",
    "given": "given",
    "measured": "measured",
    "guessed": "a guess",
    "catalogue": "catalogue",
    "solved": "solved for",
}
RAISED = str.maketrans("-0123456789", "⁻⁰¹²³⁴⁵⁶⁷⁸⁹")


def figure_of(value: Number) -> str:
    """A value in four figures; of many the least and the most.

    Parameters
    ----------
    value : one, or a list; any unit
    """
    if isinstance(value, np.ndarray):
        return f"{value.size} values, {_four(float(np.min(value)))} … {_four(float(np.max(value)))}"
    return _four(value)


def _four(value: float) -> str:
    if value == 0.0:
        return "0"
    size = abs(value)
    if size >= 1e4 and size < 1e6:
        return f"{value:,.0f}".replace(",", "\u202f")
    if 1e-3 <= size < 1e4:
        return f"{value:.4g}"
    mantissa, power = f"{value:.3e}".split("e")
    return f"{float(mantissa):g}·10{str(int(power)).translate(RAISED)}"


def unit_of(step: WorkedStep) -> str:
    """Its unit, nothing for a plain number."""
    return "" if step.unit in {"-", ""} else f" {step.unit}"


def range_of(step: WorkedStep) -> str:
    """Between what a rule or a guess may lie; nothing where that is not told."""
    if step.low is None or step.high is None:
        return ""
    return f"{_four(step.low)} … {_four(step.high)}"


def lines_of(found: Working, names: Mapping[str, str]) -> Iterator[str]:
    """A working, one step to a line, those of a part together; the figure last.

    Parameters
    ----------
    names : what each part is called
    """
    known = {step.id: step for step in found.steps}
    section = None
    for step in found.steps:
        if step.section != section and step is not found.root:
            section = step.section
            yield ""
            yield named(section, names) or "Figure"
        if step is found.root:
            yield ""
        yield f"  {step.symbol} = {_right(step, known)}{figure_of(step.value)}{unit_of(step)}"
        yield f"      {_told(step)}"


def named(section: str, names: Mapping[str, str]) -> str:
    """What a section is called: after its part, where it is one.

    Parameters
    ----------
    names : what each part is called
    """
    words, _, change = section.rpartition(" ")
    if ">" in change:
        return f"{words} ahead of {names.get(change.rpartition('>')[2].split(':')[0], change)}"
    part, colon, rest = section.partition(": ")
    return f"{names.get(part, part)}{colon}{rest}"


def _right(step: WorkedStep, known: Mapping[str, WorkedStep]) -> str:
    if step.is_leaf:
        return ""
    law = step.expression if step.expression is not None else f"solve 0 = {step.residual}"
    inputs = []
    for name, one in step.inputs.items():
        if isinstance(one, str):
            inputs.append(f"{name}: {known[one].symbol} = {figure_of(known[one].value)}")
        elif step.expression is not None or name != "value":
            inputs.append(f"{name}: {figure_of(one)}")
    return f"{law}   [{'; '.join(inputs)}]  = "


def _told(step: WorkedStep) -> str:
    words = [step.meaning, KIND_WORDS[step.kind]]
    if range_of(step):
        words[-1] += f" {range_of(step)}"
    if step.source and step.source not in words:
        words.append(step.source)
    if step.key:
        words.append(step.key)
    return " · ".join(words)
