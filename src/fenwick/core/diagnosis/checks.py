"""Everything that could be checked on a line: suctions, air, a mass test, looks."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.components.elements import Hose
from fenwick.core.components.separator import Separator
from fenwick.core.diagnosis.faults import LOOKS
from fenwick.core.diagnosis.hunt import LOOK, LOOK_SD
from fenwick.core.system.line import Line
from fenwick.core.tuning.readings import BLOCKED, FLOW, KEPT, SEALED, SUCTION, Reading

#: standard uncertainty of a quick check; SI
QUICK = {SUCTION: 60.0, BLOCKED: 100.0, SEALED: 100.0, FLOW: 1e-3, KEPT: 0.01}


def checks_of(line: Line, taken: Sequence[Reading] = ()) -> list[Reading]:
    """Every check that has not been made; its value is nothing yet."""
    leaf = next((leaf for leaf in line.leaves if leaf.open), line.leaves[0])
    parts = [part for branch in leaf.way for part in branch.elements] + list(line.trunk)
    places = [part.id for part in parts if isinstance(part, Hose | Separator)]
    found = [Reading(SUCTION, 0.0, QUICK[SUCTION], leaf.id, place) for place in places]
    if places:
        found.append(Reading(BLOCKED, 0.0, QUICK[BLOCKED], leaf.id, places[-1]))
    found += [Reading(SEALED, 0.0, QUICK[SEALED]), Reading(FLOW, 0.0, QUICK[FLOW], leaf.id)]
    if line.separators and line.dust is not None:
        found.append(Reading(KEPT, 0.0, QUICK[KEPT], leaf.id))
    found += [Reading(LOOK, 0.0, LOOK_SD, "", fault) for fault in LOOKS]
    done = {(one.kind, one.station) for one in taken}
    return [one for one in found if (one.kind, one.station) not in done]
