"""Readings of a line as it stands, and what the model says each should be.

A reading names its kind, where it was taken and how the line stood then; readings under the same condition share one
solution of the line.
"""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Branch
from fenwick.core.doubt.uncertainty import Draws as ModelsDrawn
from fenwick.core.doubt.uncertainty import by_models
from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.line import Line
from fenwick.core.line.ports import with_openings
from fenwick.core.tuning.filling import at_every_fill, fills_of, followed

SUCTION, BLOCKED, SEALED, FLOW, KEPT = "suction", "blocked", "sealed", "flow", "kept"
#: kind to the quantity it is read in
KINDS = {SUCTION: "suction", BLOCKED: "suction", SEALED: "suction", FLOW: "flow", KEPT: "share"}
#: standard uncertainty of a reading where none is given, by its quantity: (least, share of the value); SI; our estimate
USUAL: dict[str, tuple[float, float]] = {"suction": (60.0, 0.01), "flow": (3e-4, 0.04), "share": (0.01, 0.0)}
#: most that can be read, by quantity; SI
MOST = {"suction": 60e3, "flow": 2.0, "share": 1.0}
TIGHT = 1e-9  #: what a hand over a hose still lets in [m^2]


@dataclass(frozen=True)
class Reading:
    """One reading."""

    kind: str  #: of KINDS: on the wall, with the hose blocked, vacuum alone, air at a tool, kept of what enters
    value: float  #: SI
    sd: float  #: its standard uncertainty, SI
    port: str = ""  #: id of the tool port that stood open alone; empty: the line as it stands
    station: str = ""  #: where the suction was read: id of the part, behind it
    dust: str = ""  #: kind of dust fed; empty: that of the line
    fed: float = 0.0  #: mass fed in the run whose share was kept [kg]; 0: the line as it stands, its bin no fuller
    level: float | None = None  #: share of the bin's height at which such a run began [-]; None: as the line stands


def usual_sd(kind: str, value: float) -> float:
    """Standard uncertainty of a reading where none is given, in its own SI unit.

    Parameters
    ----------
    value : as read; SI of its kind
    """
    least, share = USUAL[KINDS[kind]]
    return max(least, share * value)


def can_be(kind: str, value: float) -> bool:
    """Whether a value is within what can be read at all; SI.

    Parameters
    ----------
    value : as read; SI of its kind
    """
    return 0.0 <= value <= MOST[KINDS[kind]]


def standing(line: Line, reading: Reading) -> Line:
    """The line as it stood for a reading."""
    if reading.port:
        way = next((leaf.way for leaf in line.leaves if leaf.id == reading.port), ())
        on = {branch.id for branch in way}
        line = with_openings(line, {b.id: float(b.id in on) for leaf in line.leaves for b in leaf.way})
    # fed with its own dust, its dust is what it is taken to be, in every draw
    if reading.dust and (line.dust is None or line.dust.kind != reading.dust):
        line = replace(line, dust=DUSTS[reading.dust])
    return _blocked(line) if reading.kind == BLOCKED else line


def _blocked(line: Line) -> Line:
    """Every tool's hose shut by hand: only leaks let air in."""

    def shut(branch: Branch) -> Branch:
        gate = 0.0 if branch.port is not None else branch.gate_opening
        return replace(branch, gate_opening=gate, branches=tuple(shut(one) for one in branch.branches))

    rules = line.rules.with_values({"gate.leak": TIGHT})
    return replace(line, branches=tuple(shut(branch) for branch in line.branches), rules=rules)


def expected(line: Line, readings: Sequence[Reading], models: ModelsDrawn | None = None) -> Array:
    """What the model says each reading should be, shape (readings, n); nan where it cannot say.

    Parameters
    ----------
    line : one or many variants
    readings : of it
    models : which published model counts in each variant, 0 the headline, shape (n,) [-]; None: the headline
    """
    # what is read again and again at one place is worked out once
    places = {place: i for i, place in enumerate(dict.fromkeys(replace(one, value=0.0, sd=1.0) for one in readings))}
    said = _expected_at_places(line, tuple(places), models)
    return said[[places[replace(one, value=0.0, sd=1.0)] for one in readings]]


def _expected_at_places(line: Line, places: Sequence[Reading], models: ModelsDrawn | None) -> Array:
    n = line.variants if models is None else max(line.variants, models.size)
    said = np.full((len(places), n), np.nan)
    solved: dict[Hashable, Assessment | None] = {}  #: by how the line stood
    for i, reading in enumerate(places):
        if reading.kind == SEALED:
            said[i] = line.vacuum.curve.sealed_in_room(line.site.density)
            continue
        if reading.fed > 0.0:
            said[i] = _kept_of_run(line, reading, models, n)
            continue
        key = (reading.port, reading.dust, reading.kind == BLOCKED)
        if key not in solved:
            solved[key] = _assessed(standing(line, reading), models)
        found = solved[key]
        value = None if found is None else _value(line, found, reading)
        if value is not None:
            said[i] = np.broadcast_to(value, (n,))
    return said


def _assessed(line: Line, models: ModelsDrawn | None) -> Assessment | None:
    try:
        return assess(line, None if models is None else partial(by_models, models=models))
    except CoreError:
        return None


def _kept_of_run(line: Line, reading: Reading, models: ModelsDrawn | None, n: int) -> Array:
    """Kept of what is fed in a run, while the bin fills, shape (n,); nan where the model cannot say."""
    stood = standing(line, reading)
    bulk_density = None if stood.dust is None else stood.dust.bulk_density
    filling = fills_of(stood, reading.level, reading.fed / bulk_density) if bulk_density else None
    if filling is None or not bulk_density:
        found = _assessed(stood, models)
        return np.full(n, np.nan) if found is None or found.kept is None else np.broadcast_to(found.kept, (n,))
    wide = at_every_fill(stood, filling, n)
    found = _assessed(wide, None if models is None else np.repeat(models, filling.heights.size))
    if found is None or found.kept is None:
        return np.full(n, np.nan)
    kept = np.broadcast_to(found.kept, (n * filling.heights.size,)).reshape(n, -1)
    return followed(kept, filling, reading.fed / bulk_density)


def _value(line: Line, found: Assessment, reading: Reading) -> Array | None:
    match reading.kind:
        case "suction" | "blocked":
            stations = found.point.stations
            if reading.station not in stations.ids:
                return None
            return np.asarray(stations.static_suction[stations.index(reading.station)])
        case "flow":
            ids = [leaf.id for leaf in line.leaves]
            return found.point.port_flow[ids.index(reading.port)] if reading.port in ids else None
        case "kept":
            return found.kept
    return None
