"""Everything that could be checked on a line: suctions, air, a mass test, looks."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.bench.faults.hunt import LOOK, LOOK_SD
from fenwick.core.bench.faults.kinds import LOOKS
from fenwick.core.components.elements import Hose
from fenwick.core.components.separator import Separator
from fenwick.core.line.line import Line
from fenwick.core.tuning.candidates import readable
from fenwick.core.tuning.readings import Reading


def checks_of(line: Line, taken: Sequence[Reading] = ()) -> list[Reading]:
    """Every check that has not been made; its value is nothing yet."""
    leaf = next((leaf for leaf in line.leaves if leaf.open), line.leaves[0])
    parts = [part for branch in leaf.way for part in branch.elements] + list(line.trunk)
    places = [part.id for part in parts if isinstance(part, Hose | Separator)]
    found = readable(line, places)
    found += [Reading(LOOK, 0.0, LOOK_SD, "", fault) for fault in LOOKS]
    done = {(one.kind, one.station) for one in taken}
    return [one for one in found if (one.kind, one.station) not in done]
