"""How separators do on a line: for one tool, or for all of them by the dust they make."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, take_variants
from fenwick.core.components.separator import Separator
from fenwick.core.dust.cakes import settled_point
from fenwick.core.dust.capture import capture
from fenwick.core.dust.caught import arriving
from fenwick.core.dust.separation import Separation, separations
from fenwick.core.dust.stream import walk_through
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.line.line import Line
from fenwick.core.line.operating import CHUNK, OperatingPoint
from fenwick.core.line.ports import line_alone
from fenwick.core.search.effects import with_stage
from fenwick.core.search.work import PortWork


@dataclass(frozen=True)
class OnTheLine:
    """How variants of a separator do on their line; arrays of shape (n,)."""

    kept: Array  #: [-]
    air: Array  #: at the tool [m^3/s]
    suction: Array  #: it costs [Pa]
    cut_size: Array  #: [m]
    carries: Array  #: least of the speeds at its inlet and in its outlet, over that at which the dust settles [-]
    worst: Array  #: of what enters from the tool of whose dust it keeps least [-]
    worst_port: npt.NDArray[np.intp]  #: that tool's place among the leaves


def evaluate(line: Line, stage: Separator, port: int, works: Sequence[PortWork] = ()) -> OnTheLine:
    """How every variant of a separator does on a line.

    Every variant has its own operating point and all models that describe it; worked off in chunks. Over several
    tools, each at work alone, what is kept and the air are means by the dust they make, suction and cut size the worst.

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    works : of the tools that it is judged for; empty: the line as it stands, at that port
    """
    if not works:
        return _at_port(line, stage, port)
    each = [_at_port(line_alone(line, work.port), stage, work.port) for work in works]
    shares = np.array([work.mass for work in works]) / sum(work.mass for work in works)
    kept = np.array([one.kept for one in each])
    return OnTheLine(
        kept=shares @ kept,
        air=shares @ np.array([one.air for one in each]),
        suction=np.max([one.suction for one in each], axis=0),
        cut_size=np.max([one.cut_size for one in each], axis=0),
        carries=np.min([one.carries for one in each], axis=0),
        worst=kept.min(axis=0),
        worst_port=np.array([work.port for work in works])[kept.argmin(axis=0)],
    )


def _at_port(line: Line, stage: Separator, port: int) -> OnTheLine:
    n = with_stage(line, stage).variants
    parts = []
    for at in range(0, n, CHUNK):
        chunk = take_variants(stage, slice(at, at + CHUNK))
        whole = with_stage(line, chunk)
        point = settled_point(whole)
        arrives = arriving(whole, capture(whole, point))
        stages = separations(whole, point, arrives)
        mine = next(one for one in stages if one.id == stage.id)
        walked = walk_through(whole, arrives, stages)
        size = min(CHUNK, n - at)
        assert walked is not None, "the dust is known"
        kept = walked.in_all
        assert kept is not None, "there is a separator"
        assert mine.grades is not None
        row = (
            kept,
            point.port_flow[port],
            mine.pressure_drop,
            mine.grades.cut_size,
            _carries(whole, chunk, point, mine),
        )
        parts.append([np.broadcast_to(values, (size,)) for values in row])
    kept_, air, suction, cut, carries = (np.concatenate(values) for values in zip(*parts, strict=True))
    return OnTheLine(kept_, air, suction, cut, carries, kept_, np.full(n, port, dtype=np.intp))


def _carries(line: Line, stage: Separator, point: OperatingPoint, found: Separation) -> Array:
    """The slower of the air at its inlet and in its outlet, over the speed at which the dust settles [-]."""
    assert line.dust is not None, "the dust is known"
    flow = point.stations.flow[point.stations.index(stage.id)]
    return np.asarray(np.minimum(found.inlet_velocity, flow / bore_area(stage.outlet_bore)) / line.dust.conveying[0])
