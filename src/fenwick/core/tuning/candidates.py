"""What could be read of a line, and how surely: for the next reading worth taking, and the next check of a hunt."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.line.line import Line
from fenwick.core.tuning.readings import BLOCKED, FLOW, KEPT, SEALED, SUCTION, Reading

#: standard uncertainty of a reading by its kind; SI
QUICK = {SUCTION: 60.0, BLOCKED: 100.0, SEALED: 100.0, FLOW: 1e-3, KEPT: 0.01}
#: kinds of dust worth feeding besides the line's own: a fine one fixes the cut, a coarse one what the bin gives back
FED = ("", "sanding-p240", "saw")
#: kinds of parts behind which suction can be read
READ_AT = ("hose", "separator", "reducer", "elbow", "wet-stage", "plate", "inline-filter", "gate")


def readable(line: Line, places: Sequence[str], dusts: Sequence[str] = ("",)) -> list[Reading]:
    """Every reading that could be taken, its value nothing yet.

    Parameters
    ----------
    line : with a port open, else its first one counts
    places : where suction can be read, in the order of the air
    dusts : kinds that could be fed; empty: that of the line
    """
    port = next((leaf.id for leaf in line.leaves if leaf.open), line.leaves[0].id)
    found = [Reading(SUCTION, 0.0, QUICK[SUCTION], port, place) for place in places]
    if places:
        found.append(Reading(BLOCKED, 0.0, QUICK[BLOCKED], port, places[-1]))
    found += [Reading(SEALED, 0.0, QUICK[SEALED]), Reading(FLOW, 0.0, QUICK[FLOW], port)]
    if line.separators and line.dust is not None:
        found += [Reading(KEPT, 0.0, QUICK[KEPT], port, dust=dust) for dust in dusts]
    return found
