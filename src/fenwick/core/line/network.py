"""A line laid out as rows of resistance, joined by nodes, ready for the solver.

Each row loses Δp = (k0 + k1·f)·½ρv² on its reference area. A segment is a run of rows with one mass flow; a node is
where segments and leaks join. Whatever is upstream is listed first; the last segment ends at the fan.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, Values

#: resistance of a row that is not a plain K, from its mass flow and mean density and the mass flows of all rows
#: [kg/s, kg/m^3, kg/s of shape (rows, n)]: Δp/ṁ² [Pa s^2/kg^2]
SpecialLaw = Callable[[Array, Array, Array], Array]


@dataclass(frozen=True)
class Row:
    """One resistance, before stacking."""

    id: str
    kind: str
    area_in: Values  #: where the air enters [m^2]
    area_out: Values  #: where it leaves [m^2]
    area_ref: Values  #: that K refers to [m^2]
    k0: Values = 0.0  #: fixed part of K [-]
    k1: Values = 0.0  #: part of K per friction factor [-]
    bore: Values = 1.0  #: of the friction law [m]
    relative_roughness: Values = 0.0  #: [-]
    law: SpecialLaw | None = None


@dataclass(frozen=True)
class Node:
    """Where segments and leaks meet; holds one static suction."""

    children: tuple[int, ...]  #: segments that arrive
    cosines: tuple[Values, ...]  #: of their angles to the trunk [-]
    leaks: tuple[tuple[str, Values], ...] = ()  #: (id, area [m^2])


@dataclass(frozen=True)
class Segment:
    """Rows start … stop − 1, fed by a node, or by the room when there is none."""

    start: int
    stop: int
    node: Node | None
    area_start: Values  #: [m^2]
    area_end: Values  #: [m^2]


@dataclass(frozen=True)
class Network:
    """Stacked rows; every array has shape (rows, n)."""

    ids: tuple[str, ...]
    kinds: tuple[str, ...]
    segments: tuple[Segment, ...]
    area_in: Array
    area_out: Array
    area_ref: Array
    k0: Array
    k1: Array
    bore: Array
    relative_roughness: Array
    laws: tuple[tuple[int, SpecialLaw], ...]
    frictional: npt.NDArray[np.intp]  #: rows with k1 > 0

    @property
    def variants(self) -> int:
        """Number of variants n."""
        return int(self.area_in.shape[1])


def stack_rows(rows: list[Row], segments: list[Segment], variants: int) -> Network:
    """Put rows of mixed shared and per-variant values into arrays of shape (rows, n).

    Parameters
    ----------
    variants : n [-]
    """

    def stacked(name: str) -> Array:
        out = np.empty((len(rows), variants))
        for i, row in enumerate(rows):
            out[i] = getattr(row, name)
        return out

    k1 = stacked("k1")
    return Network(
        ids=tuple(row.id for row in rows),
        kinds=tuple(row.kind for row in rows),
        segments=tuple(segments),
        area_in=stacked("area_in"),
        area_out=stacked("area_out"),
        area_ref=stacked("area_ref"),
        k0=stacked("k0"),
        k1=k1,
        bore=stacked("bore"),
        relative_roughness=stacked("relative_roughness"),
        laws=tuple((i, row.law) for i, row in enumerate(rows) if row.law is not None),
        frictional=np.flatnonzero(np.any(k1 > 0.0, axis=1)),
    )
