"""The few figures by which variants of a line are told apart at one tool port."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, batches
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.judging.checks import carrying_check, caught_level, kept_level
from fenwick.core.judging.strength import collapse_level
from fenwick.core.line.line import Line

_ACT = LEVEL_WORDS.index("act")
JUDGED = ("flow", "caught", "speed", "kept", "folding")  #: figures of a verdict that may be to act on


@dataclass(frozen=True)
class Figures:
    """How a port does; arrays of shape (n,), None where the description does not allow the figure."""

    flow: Array  #: air at the tool [m^3/s]
    speed: Array | None  #: of the slowest dust-laden hose [m/s]
    kept: Array | None  #: of what enters the separator [-]
    in_bin: Array | None  #: of the dust made [-]
    folding: Array | None  #: folding over blocked suction [-]
    caught: Array | None  #: of the dust made at the tool, by all its open ports [-]
    escapes: Array | None  #: of the dust made, into the air one breathes: past the ports, and out of filters [-]
    lost: Array | None  #: of the dust made, into the air, on the floor or left in a hood [-]
    acting: Mapping[str, npt.NDArray[np.bool_]]  #: whether each of `JUDGED` is to act on, shape (n,) or shared

    @property
    def acts(self) -> npt.NDArray[np.intp]:
        """How many of them are to act on, shape (n,)."""
        total = sum((one.astype(np.intp) for one in self.acting.values()), start=np.zeros(self.flow.shape, np.intp))
        return np.asarray(total)

    def to_act_on(self) -> frozenset[str]:
        """Those of the first variant that are to act on."""
        return frozenset(name for name, one in self.acting.items() if bool(np.ravel(one)[0]))

    def variant(self, i: int) -> Figures:
        """One variant of them, arrays of shape (1,); all alike where no variant differs.

        Parameters
        ----------
        i : its place in the batch [-]
        """
        if self.flow.shape[0] == 1:
            return self

        def one(values: Array | None) -> Array | None:
            return None if values is None else values[i : i + 1]

        return Figures(
            self.flow[i : i + 1],
            one(self.speed),
            one(self.kept),
            one(self.in_bin),
            one(self.folding),
            one(self.caught),
            one(self.escapes),
            one(self.lost),
            {name: values[i : i + 1] for name, values in self.acting.items()},
        )


def figures_at(line: Line, found: Assessment, port: int) -> Figures:
    """The figures of every variant for the port at a place among the leaves.

    Parameters
    ----------
    line : one or many variants
    found : its assessment
    port : place among the leaves [-]
    """
    strengths = 1 if found.collapse is None else np.size(found.collapse.ratio)  # a ring changes nothing but these
    n = max(line.variants, found.point.mass_flow.shape[0], strengths)

    def per_variant(values: npt.NDArray[np.float64]) -> Array:
        return np.broadcast_to(np.asarray(values, dtype=float), (n,))

    way = line.leaves[port].parts | {part.id for part in line.trunk}
    slow = carrying_check(found.carrying, way) if found.carrying else []
    own = next((one for one in found.captures if one.id == line.leaves[port].id), None)
    levels = {
        "speed": slow[0].level if slow else None,
        "kept": None if found.kept is None else kept_level(found.kept, line),
        "folding": None if found.collapse is None else collapse_level(found.collapse, line),
        "caught": None if own is None else caught_level(own, line),
        "flow": _air_level(found, line.leaves[port].id),
    }
    kept = found.kept
    acting = {name: np.broadcast_to(level == _ACT, (n,)) for name, level in levels.items() if level is not None}
    return Figures(
        flow=per_variant(found.point.port_flow[port]),
        speed=per_variant(slow[0].value) if slow else None,
        kept=None if kept is None else per_variant(kept),
        in_bin=per_variant(found.fate.bin) if found.fate else None,
        folding=None if found.collapse is None else per_variant(found.collapse.ratio),
        caught=None if own is None else per_variant(own.tool_total),
        escapes=per_variant(found.fate.escapes) if found.fate else None,
        lost=per_variant(found.fate.escapes + found.fate.floor + found.fate.hood) if found.fate else None,
        acting=acting,
    )


def _air_level(found: Assessment, leaf: str) -> npt.NDArray[np.intp] | None:
    """Level of the air at a tool: whether there is any, and whether it contains fine dust; None where not judged."""
    judged = ("air-at-tool", "containment")
    levels = [check.level for check in found.checks if check.part == leaf and check.id in judged]
    return np.asarray(np.maximum.reduce(np.broadcast_arrays(*levels))) if levels else None


def figures_of_each(lines: Sequence[Line], port: int) -> list[Figures]:
    """The figures of single lines that may differ in anything; those alike but for numbers share one batch.

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    """
    solved: dict[int, Figures] = {}
    for batch in batches(lines):
        found = figures_at(batch.together, assess(batch.together), port)
        solved |= {place: found.variant(i) for i, place in enumerate(batch.places)}
    return [solved[i] for i in range(len(lines))]


Span = tuple[float, float]


@dataclass(frozen=True)
class Spread:
    """Between what the figures of a port lie over some variants; None where a figure is not known in all of them."""

    flow: Span  #: [m^3/s]
    speed: Span | None  #: [m/s]
    kept: Span | None  #: [-]
    in_bin: Span | None  #: [-]
    folding: Span | None  #: [-]
    acts: tuple[int, int]  #: figures to act on, fewest and most

    @property
    def swing(self) -> tuple[int, float]:
        """How much hangs on it: figures that change sides, then the largest relative move of a figure [-]."""
        moves = (self.flow, self.speed, self.in_bin, self.kept, self.folding)
        return self.acts[1] - self.acts[0], max(_move(span) for span in moves)


def spread(figures: Sequence[Figures]) -> Spread:
    """The spread over single variants."""
    acts = [int(f.acts[0]) for f in figures]
    flow = _span([f.flow for f in figures])
    assert flow is not None
    return Spread(
        flow=flow,
        speed=_span([f.speed for f in figures]),
        kept=_span([f.kept for f in figures]),
        in_bin=_span([f.in_bin for f in figures]),
        folding=_span([f.folding for f in figures]),
        acts=(min(acts), max(acts)),
    )


def _span(values: list[Array | None]) -> Span | None:
    known = [float(value[0]) for value in values if value is not None]
    return (min(known), max(known)) if len(known) == len(values) else None


def _move(span: Span | None) -> float:
    return (span[1] - span[0]) / span[1] if span is not None and span[1] > 0.0 else 0.0
