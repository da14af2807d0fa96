"""What plastic does: hoses that suction flattens, bins brittle in the cold, solvents, windows that charge up.

The first variant.
"""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.elements import Hose
from fenwick.core.components.separator import Separator
from fenwick.core.formulas.air import ZERO_CELSIUS
from fenwick.core.formulas.shell import long_tube_collapse
from fenwick.core.judging.check import OK, WATCH, Check, fact, figure
from fenwick.core.judging.hazards import burns, kinds_made
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint

PLASTICS = ("hdpe", "pp", "abs", "polycarbonate", "acrylic")
CRAZES = ("polycarbonate", "acrylic", "abs")  #: what solvents and solvent adhesives craze
PLAIN_WALLS = ("smooth", "light-rib")  #: hoses whose wall has no helix to hold it round
SOFT = 0.45  #: Poisson's ratio of a soft hose's plastic [-]
SEEN_THROUGH = ("clear", "window")


def plastic_checks(line: Line, point: OperatingPoint) -> list[Check]:
    """Hoses and bins of plastic; what is not described is said not to be judged."""
    found = hose_checks(line, point)
    for stage in line.separators:
        found += _bin(stage, line)
    return found


def hose_checks(line: Line, point: OperatingPoint) -> list[Check]:
    """The plain hose that a blocked line flattens first; that of a wall nobody knows is not judged."""
    hoses = [part for part in _hoses(line) if part.wall in PLAIN_WALLS]
    known = [hose for hose in hoses if hose.wall_thickness is not None]
    found = []
    if known:
        flat, hose = min((_flattens(hose, line), hose.id) for hose in known)
        pulls, margin = float(point.sealed_suction[0]), one_value(line.rules["verdict.collapse-margin"])
        found.append(figure("hose-flat", flat < pulls, flat < margin * pulls, flat, pulls, "suction", hose))
    if len(known) < len(hoses):
        unknown = next(hose.id for hose in hoses if hose.wall_thickness is None)
        found.append(fact("hose-not-judged", OK, unknown))
    return found


def _flattens(hose: Hose, line: Line) -> float:
    """Suction that flattens a plain hose [Pa]."""
    stiff = one_value(line.rules["hose.modulus"])
    whole = long_tube_collapse(hose.bore, np.asarray(hose.wall_thickness), stiff, SOFT)
    return float(np.ravel(whole)[0]) * one_value(line.rules["shell.knock-down"])


def _hoses(line: Line) -> list[Hose]:
    parts = [*(part for leaf in line.leaves for branch in leaf.way for part in branch.elements), *line.trunk]
    return list({part.id: part for part in parts if isinstance(part, Hose)}.values())


def _bin(stage: Separator, line: Line) -> list[Check]:
    """Cautions for a bin of plastic."""
    found, material = [], stage.bin.material
    if material in PLASTICS:
        here, brittle = one_value(line.site.temperature) - ZERO_CELSIUS, one_value(line.rules["site.brittle"])
        found.append(figure("brittle", False, here < brittle, here, brittle, "temperature", stage.id))
        if material in CRAZES:
            found.append(fact("solvent", OK, stage.id, (material,)))
    if stage.bin.sight in SEEN_THROUGH and any(burns(dust.kind) for dust in kinds_made(line)):
        found.append(fact("window-static", OK if line.earthed else WATCH, stage.id))
    if stage.bin.sight is not None:
        found.append(fact("fill-seen", WATCH if stage.bin.sight == "opaque" else OK, stage.id, (stage.bin.sight,)))
    return found
