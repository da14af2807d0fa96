"""The line that a test is made on, and what its page needs of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.components.bins import Bin
from fenwick.core.components.dust import DUSTS
from fenwick.core.errors import CoreError
from fenwick.core.system.line import Line
from fenwick.core.testing.expect import expected_outcome
from fenwick.core.testing.plan import Plan
from fenwick.core.tuning.candidates import READ_AT
from fenwick.data.lines import LineState
from fenwick.rig import build_line
from fenwick.rig.result import voice_for
from fenwick.web.test.view import station_kinds
from fenwick.wording.say import Voice


@dataclass(frozen=True)
class Workbench:
    """A line with its words and the places on it."""

    line: Line
    voice: Voice
    kinds: Mapping[str, str]  #: of every station

    @property
    def places(self) -> list[str]:
        """Where suction can be read, in the order of the air."""
        return [name for name, kind in self.kinds.items() if kind in READ_AT]

    @property
    def box(self) -> Bin | None:
        """The first separator's bin."""
        stage = next(iter(self.line.separators), None)
        return None if stage is None else stage.bin

    def bulk_density(self, plan: Plan) -> float | None:
        """Of the dust fed, as it lies [kg/m^3]; None: not known."""
        dust = DUSTS[plan.dust] if plan.dust else self.line.dust
        return None if dust is None else dust.bulk_density

    def expects(self, plan: Plan) -> float | None:
        """What the model expects of a plan; None where it cannot say."""
        try:
            return expected_outcome(self.line, plan, self.places)
        except CoreError:
            return None


def workbench(state: LineState, system: str) -> Workbench:
    """The line as it predicts now, tuned where it is tuned."""
    line = build_line(state.rig)
    return Workbench(line, voice_for(state.rig, system), station_kinds(line))
