"""Everything Fenwick says about a line, in one call."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from fenwick.core.arrays import Array
from fenwick.core.dust.cakes import settled_point
from fenwick.core.dust.capture import Capture, capture
from fenwick.core.dust.caught import Arriving, arriving
from fenwick.core.dust.fate import Fate, fate
from fenwick.core.dust.separation import Separation, separations
from fenwick.core.dust.stream import Walk, walk_through
from fenwick.core.judging.check import Check
from fenwick.core.judging.checks import checks
from fenwick.core.judging.passage import bed_checks, bridging_checks, lift_checks
from fenwick.core.judging.strength import Collapse, weakest_bin
from fenwick.core.line.beds import Beds, beds
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.line.transport import Transport, transport


@dataclass(frozen=True)
class Assessment:
    """A line judged; arrays end in the variant axis."""

    point: OperatingPoint
    carrying: Transport | None  #: None where the dust is not known
    beds: Beds | None  #: what settles in its runs; None where the dust is not known
    separations: tuple[Separation, ...]
    walk: Walk | None  #: of the dust through the stages; None where it is not known
    captures: tuple[Capture, ...]
    arriving: Arriving | None  #: what the ports catch, where the branches join; None where the dust is not known
    fate: Fate | None
    collapse: Collapse | None  #: of the bin that folds first; None where no wall is known
    checks: tuple[Check, ...]

    @property
    def efficiency(self) -> tuple[Array, ...]:
        """Of each stage, of what enters it, by mass [-]; empty for unknown dust."""
        return () if self.walk is None else self.walk.by_stage

    @property
    def kept(self) -> Array | None:
        """Of what enters the first stage, what all of them keep [-]; None without one, or for unknown dust."""
        return None if self.walk is None else self.walk.in_all


Separated = tuple[Separation, ...]


def assess(line: Line, choose: Callable[[Separated], Separated] | None = None) -> Assessment:
    """Solve and judge a line for all its variants.

    Parameters
    ----------
    choose : which of the published models counts in each variant; None: the headline
    """
    point = settled_point(line)
    captures = capture(line, point)
    arrives = arriving(line, captures)
    stages = separations(line, point, arrives)
    stages = stages if choose is None else choose(stages)
    walked = walk_through(line, arrives, stages)
    carrying = transport(line, point)
    settled = beds(line, point, carrying)
    return Assessment(
        point=point,
        carrying=carrying,
        beds=settled,
        separations=stages,
        walk=walked,
        captures=captures,
        arriving=arrives,
        fate=fate(line, arrives, walked, stages),
        collapse=weakest_bin(line, point),
        checks=(
            *checks(line, point, carrying, stages, captures, None if walked is None else walked.in_all),
            *lift_checks(line, point),
            *bridging_checks(line, point),
            *bed_checks(line, settled),
        ),
    )
