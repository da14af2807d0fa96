"""What settles in the runs that do not carry: a bed grows in each until the air over it is fast enough for the rest."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.dust import Dust
from fenwick.core.components.elements import Element, Hose
from fenwick.core.formulas.bed import bed_share, bore_left, height_left
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.friction import friction_factor_colebrook
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.line.rows import hose_row
from fenwick.core.line.transport import Transport


@dataclass(frozen=True)
class Beds:
    """The beds of every dust-laden hose; arrays of shape (hoses, n). They stand beside the clean line, not in it."""

    ids: tuple[str, ...]
    share: Array  #: of the bore filled [-]
    volume: Array  #: [m^3]
    suction: Array  #: that they cost at the air of the clean line [Pa]
    passage: Array  #: height left over the bed [m]
    least: Array  #: height below which the run plugs [m]

    def index(self, name: str) -> int | None:
        """Row of a hose; None where it carries no dust."""
        return self.ids.index(name) if name in self.ids else None

    def litres_along(self, names: frozenset[str]) -> Array:
        """What lies in some hoses together [m^3], shape (n,)."""
        rows = [i for i, name in enumerate(self.ids) if name in names]
        return np.asarray(np.sum(self.volume[rows], axis=0))

    def mass(self, dust: Dust) -> Values | None:
        """Of all of them [kg], shape (n,); None where it is not known how the dust lies."""
        return dust.heap_mass(np.sum(self.volume, axis=0))


def beds(line: Line, point: OperatingPoint, carrying: Transport | None) -> Beds | None:
    """Every bed at the air of the line without beds; None where the dust is not known.

    Worked once, by the speed in the empty bore: a bed that followed its own air would have a false second point near no
    flow.

    Parameters
    ----------
    line, point : solved
    carrying : of its hoses
    """
    if line.dust is None or carrying is None:
        return None
    laden = {name: i for i, name in enumerate(carrying.ids) if carrying.laden[i]}
    hoses = [part for part in _parts(line) if isinstance(part, Hose) and part.id in laden]
    if not hoses:
        return None
    rows = [_bed(hose, line, point, carrying.velocity[laden[hose.id]], line.dust) for hose in hoses]
    return Beds(tuple(hose.id for hose in hoses), *(np.stack(column) for column in zip(*rows, strict=True)))


def _bed(hose: Hose, line: Line, point: OperatingPoint, velocity: Array, dust: Dust) -> tuple[Array, ...]:
    rules, shape = line.rules, velocity.shape
    lies = np.maximum(np.asarray(hose.length) - hose.rise, 0.0)  # a rise holds none
    share = bed_share(velocity, dust.conveying[0], rules["bed.most"]) * (lies > 0.0)
    volume = lies * bore_area(hose.bore) * share
    chip = 0.0 if dust.longest_chip is None else dust.longest_chip
    least = np.maximum(chip, np.asarray(hose.bore) * (1.0 - rules["bed.plugs"]))
    figures = (share, volume, _suction(hose, lies, share, line, point), height_left(hose.bore, share), least)
    return tuple(np.broadcast_to(np.asarray(values, dtype=float), shape) for values in figures)


def _suction(hose: Hose, lies: Values, share: Array, line: Line, point: OperatingPoint) -> Array:
    """What the bed costs: the loss of the bore it leaves, less that of the empty one, over what lies level [Pa]."""
    if not np.any(share):
        return np.zeros_like(share)
    row = point.stations.index(hose.id)
    mass, density = point.stations.mass_flow[row], point.stations.density_mean[row]
    level = replace(hose, length=np.asarray(lies))

    def loss(bore: Values) -> Array:
        narrowed = hose_row(replace(level, bore=bore), line.rules)
        reynolds = mass * np.asarray(narrowed.bore) / (narrowed.area_ref * line.site.viscosity)
        k = narrowed.k0 + narrowed.k1 * friction_factor_colebrook(reynolds, narrowed.relative_roughness)
        return np.asarray(k * np.square(mass / np.asarray(narrowed.area_ref)) / (2.0 * density))

    # where nothing of it rises, the empty bore costs what its station says
    empty = loss(hose.bore) if np.any(np.asarray(hose.rise) > 0.0) else point.stations.loss[row]
    return np.asarray(np.where(share > 0.0, loss(bore_left(hose.bore, share)) - empty, 0.0))


def _parts(line: Line) -> list[Element]:
    found = {part.id: part for leaf in line.leaves for branch in leaf.way for part in branch.elements}
    return [*found.values(), *line.trunk]
