"""A working: the steps from what is given to one figure, each with all that is needed to do it again."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.errors import OutsideDomainError
from fenwick.core.rules import RuleBook, rule
from fenwick.core.workings.arithmetic import Number, evaluate

PUBLISHED, RULE, GIVEN, MEASURED, GUESSED, CATALOGUE, SOLVED = KINDS = (
    *("published", "rule", "given", "measured", "guessed", "catalogue", "solved"),
)
ITSELF = "value"  #: the one input of a step that only holds a value, and what a solved one calls itself
FIGURE = "figure"  #: the last step, where the figure is on the way to others
RESIDUAL = 1e-4  #: of its scale, within which what is solved has to be right [-]


@dataclass(frozen=True)
class WorkedStep:
    """One step of a working."""

    id: str
    symbol: str  #: an underscore begins what is set lower
    meaning: str
    inputs: Mapping[str, Number | str]  #: name to number, list, or the id of an earlier step
    expression: str | None  #: None for what is solved
    residual: str | None  #: of what is solved, over its own scale: 0 at its value
    value: Number
    unit: str
    source: str
    kind: str
    key: str = ""  #: of the rig or of the table of rules
    low: float | None = None  #: of a rule, or of a guess
    high: float | None = None
    section: str = ""  #: what it belongs to, for the reader

    @property
    def is_leaf(self) -> bool:
        """Whether it only holds a value."""
        return self.expression == ITSELF

    @property
    def is_list(self) -> bool:
        """Whether it holds many values: over sizes, over hours."""
        return isinstance(self.value, np.ndarray)


Input: TypeAlias = WorkedStep | Values


@dataclass(frozen=True)
class Working:
    """A figure and the steps that lead to it; the last is the figure."""

    figure: str
    steps: tuple[WorkedStep, ...]

    @property
    def root(self) -> WorkedStep:
        """The figure itself."""
        return self.steps[-1]


class Sheet:
    """Steps as they are written down; every one is worked out from its own inputs at once."""

    def __init__(self, rules: RuleBook) -> None:
        self.rules = rules
        self.steps: dict[str, WorkedStep] = {}
        self._section = ""

    @contextmanager
    def section(self, title: str) -> Iterator[None]:
        """Steps written inside belong together."""
        before, self._section = self._section, title
        try:
            yield
        finally:
            self._section = before

    def step(
        self,
        name: str,
        symbol: str,
        meaning: str,
        expression: str,
        unit: str = "",
        source: str = "",
        kind: str = PUBLISHED,
        /,
        **inputs: Input,
    ) -> WorkedStep:
        """A step that is worked out by an expression over its inputs; one of that name that is there already stays.

        Parameters
        ----------
        name : its id
        expression : in the language of `arithmetic`
        inputs : by the names that the expression uses; any unit
        """
        if name in self.steps:
            return self.steps[name]
        told, known = self._told(inputs)
        value = evaluate(expression, known)
        return self._write(WorkedStep(name, symbol, meaning, told, expression, None, value, unit, source, kind))

    def solved(
        self,
        name: str,
        symbol: str,
        meaning: str,
        value: Values,
        residual: str,
        unit: str,
        source: str,
        **inputs: Input,
    ) -> WorkedStep:
        """A step whose value was solved for; in its residual it is called `value`.

        Parameters
        ----------
        name : its id
        value : as solved; any unit
        residual : over its own scale, 0 at the value
        inputs : by the names that the residual uses; any unit

        Raises
        ------
        OutsideDomainError
            When the value does not fit what it is solved from.
        """
        if name in self.steps:
            return self.steps[name]
        found = _number(value)
        told, known = self._told({ITSELF: found, **inputs})
        left = float(np.max(np.abs(evaluate(residual, known))))
        if not left <= RESIDUAL:
            raise OutsideDomainError(name, f"does not fit what it is solved from, by {left:.1e}")
        return self._write(WorkedStep(name, symbol, meaning, told, None, residual, found, unit, source, SOLVED))

    def given(
        self, key: str, symbol: str, meaning: str, value: Values, unit: str = "", kind: str = GIVEN, source: str = ""
    ) -> WorkedStep:
        """A value of the rig, by its key.

        Parameters
        ----------
        key : in the rig, after the id of its part
        value : of it; any unit
        """
        return self._leaf(WorkedStep(key, symbol, meaning, {}, ITSELF, None, _number(value), unit, source, kind, key))

    def angle(self, key: str, symbol: str, meaning: str, radians: Values) -> WorkedStep:
        """An angle of the rig, which holds it in degrees.

        Parameters
        ----------
        key : in the rig, after the id of its part
        radians : its value [rad]
        """
        given = self.given(key, symbol, meaning, np.degrees(radians), "°")
        return self.step(f"{key}.rad", symbol, f"{meaning}, in radians", "a * pi / 180", "rad", a=given)

    def published(self, name: str, symbol: str, meaning: str, value: Values, unit: str, source: str) -> WorkedStep:
        """A published constant.

        Parameters
        ----------
        name : its id
        value : of it; any unit
        """
        return self._leaf(WorkedStep(name, symbol, meaning, {}, ITSELF, None, _number(value), unit, source, PUBLISHED))

    def rule(self, key: str, symbol: str) -> WorkedStep:
        """A row of the table of rules, as it holds for this line."""
        row, value = rule(key), _number(self.rules[key])
        kind = RULE if np.array_equal(value, row.value) else MEASURED
        unit = row.unit or SI_UNITS.get(row.quantity, "")
        step = WorkedStep(key, symbol, row.meaning, {}, ITSELF, None, value, unit, row.source, kind, key)
        return self._leaf(replace(step, low=row.low, high=row.high))

    def working(self, figure: str, root: WorkedStep, also: Sequence[WorkedStep] = ()) -> Working:
        """What leads to a step, and nothing else.

        Parameters
        ----------
        also : steps that are told besides: what was solved stands as a number in the steps that lead up to it
        """
        wanted: set[str] = set()
        ahead = [root.id, *(step.id for step in also)]
        while ahead:
            name = ahead.pop()
            if name not in wanted:
                wanted.add(name)
                ahead += [one for one in self.steps[name].inputs.values() if isinstance(one, str)]
        kept = [step for name, step in self.steps.items() if name in wanted and name != root.id]
        if any(isinstance(one, str) and one == root.id for step in kept for one in step.inputs.values()):
            # the figure stands on the way to what was solved: there it stays, and is told once more at the end
            kept = [step for name, step in self.steps.items() if name in wanted]
            root = replace(root, id=FIGURE, inputs={"x": root.id}, expression="x", residual=None, section="")
        return Working(figure, (*kept, replace(root, section="")))

    def _leaf(self, step: WorkedStep) -> WorkedStep:
        return self.steps.get(step.id) or self._write(replace(step, inputs={ITSELF: step.value}))

    def _write(self, step: WorkedStep) -> WorkedStep:
        written = replace(step, section=self._section)
        self.steps[step.id] = written
        return written

    def _told(self, inputs: Mapping[str, Input]) -> tuple[dict[str, Number | str], dict[str, Number]]:
        """(what is written down for each input, its value)."""
        told: dict[str, Number | str] = {}
        known: dict[str, Number] = {}
        for name, one in inputs.items():
            if isinstance(one, WorkedStep):
                told[name], known[name] = one.id, one.value
            else:
                told[name] = known[name] = _number(one)
        return told, known


def _number(value: Values) -> Number:
    """One number, or a list of them; a single variant has one."""
    flat: Array = np.ravel(np.asarray(value, dtype=float))
    return float(flat[0]) if flat.size == 1 else flat


#: what a rule's value is told in, by its quantity
SI_UNITS = {
    **dict.fromkeys(("length", "bore", "roughness", "grain"), "m"),
    "gap": "m²",
    "volume": "m³",
    "flow": "m³/s",
    "speed": "m/s",
    "suction": "Pa",
    "stress": "Pa",
    "share": "-",
    "seconds": "s",
    "density": "kg/m³",
    "fog": "kg/m³",
    "force": "N",
    "heap": "kg",
    "mass": "kg",
}
