"""The figures by which a line as it stands is compared with another."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.dust.by_port import in_bin_by_port
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import ACT, Check
from fenwick.core.judging.checks import carrying_check
from fenwick.core.line.line import Line


@dataclass(frozen=True)
class PortFigures:
    """One port of a line as it stands; a single variant."""

    id: str
    flow: float  #: [m^3/s]
    caught: float | None  #: of the dust made at its tool, by all its ports [-]; None: not known, or shut
    in_bin: float | None  #: of the dust made at its tool, by way of this port [-]


@dataclass(frozen=True)
class LineFigures:
    """A line as it stands; a single variant, None where a figure is not known."""

    ports: tuple[PortFigures, ...]
    slowest: float | None  #: of its dust-laden hoses [m/s]
    kept: float | None  #: of what enters the separator [-]
    collapse: float | None  #: folding over blocked suction [-]
    acts: int  #: checks at level act


def line_figures(line: Line, found: Assessment, checks: Sequence[Check]) -> LineFigures:
    """The figures of a single variant.

    Parameters
    ----------
    checks : of the whole review
    """
    in_bin = in_bin_by_port(line, found.captures, found.arriving, found.fate)
    caught = {one.id: one.tool_total for one in found.captures}
    ports = tuple(
        PortFigures(leaf.id, float(found.point.port_flow[i, 0]), _one(caught.get(leaf.id)), _one(in_bin.get(leaf.id)))
        for i, leaf in enumerate(line.leaves)
    )
    slow = carrying_check(found.carrying) if found.carrying else []
    collapse = None if found.collapse is None else found.collapse.ratio
    acts = sum(int(check.level[0]) == ACT for check in checks)
    return LineFigures(ports, _one(slow[0].value if slow else None), _one(found.kept), _one(collapse), acts)


def _one(values: object) -> float | None:
    if values is None:
        return None
    value = float(np.ravel(np.asarray(values))[0])
    return value if np.isfinite(value) else None
