"""Everything Fenwick says about a line, in one call."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import Array
from fenwick.core.system.capture import Capture, capture
from fenwick.core.system.check import Check
from fenwick.core.system.checks import checks
from fenwick.core.system.fate import Fate, fate
from fenwick.core.system.kept import kept_by_stage, kept_in_all
from fenwick.core.system.line import Line
from fenwick.core.system.operating import OperatingPoint, operating_point
from fenwick.core.system.passage import bridging_checks, lift_checks
from fenwick.core.system.separation import Separation, separations
from fenwick.core.system.transport import Transport, transport


@dataclass(frozen=True)
class Assessment:
    """A line judged; arrays end in the variant axis."""

    point: OperatingPoint
    carrying: Transport | None  #: None where the dust is not known
    separations: tuple[Separation, ...]
    efficiency: tuple[Array, ...]  #: of each stage, of what enters it, by mass [-]; empty for unknown dust
    captures: tuple[Capture, ...]
    fate: Fate | None
    checks: tuple[Check, ...]

    @property
    def kept(self) -> Array | None:
        """Of what enters the first stage, what all of them keep [-]; None without one, or for unknown dust."""
        return kept_in_all(self.efficiency)


def assess(line: Line) -> Assessment:
    """Solve and judge a line for all its variants."""
    point = operating_point(line)
    stages = separations(line, point)
    captures = capture(line, point)
    carrying = transport(line, point)
    return Assessment(
        point=point,
        carrying=carrying,
        separations=stages,
        efficiency=kept_by_stage(line, stages, captures),
        captures=captures,
        fate=fate(line, captures, stages),
        checks=(
            *checks(line, point, carrying, stages, captures),
            *lift_checks(line, point),
            *bridging_checks(line, point),
        ),
    )
