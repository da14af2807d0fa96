"""When a design changes: which finished parts still serve, which do after a cut, which are scrap."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.making.as_cut import is_opening
from fenwick.core.making.parts import MadePart, Stock

SERVES, AFTER_CUT, SCRAP, NOT_NEEDED = "serves", "after-cut", "scrap", "not-needed"
ALIKE = 0.5e-3  #: lengths that differ by no more are alike [m]
SIZES = ("d_m", "length_m", "width_m", "height_m", "wrap_m")  #: outer sizes, which a cut makes smaller
#: what follows from the rest, or is only told
TOLD = ("slot_area_m2", "gap_m", "rim_m", "tangent_m", "stub_m", "overlap_m", "slot_radius_m", "clear_m")


@dataclass(frozen=True)
class PartFate:
    """What has become of a part that was made for an earlier design."""

    part: str
    fate: str  #: SERVES, AFTER_CUT, SCRAP or NOT_NEEDED
    dim: str = ""  #: the dimension that decides; empty: its sheet, or none
    was: float = 0.0  #: [m]
    now: float = 0.0  #: [m]


def fate_of(name: str, then: Mapping[str, float], stock: Stock, now: MadePart | None) -> PartFate:
    """What becomes of a part.

    Parameters
    ----------
    name : its id
    then : its dimensions when it was made [m]
    stock : what it was made of
    now : the part as it is wanted; None: no longer
    """
    if now is None:
        return PartFate(name, NOT_NEEDED)
    thinner = abs(stock.thickness - now.stock.thickness) > ALIKE
    if stock.material != now.stock.material or thinner:
        return PartFate(name, SCRAP, "", stock.thickness, now.stock.thickness)
    found = PartFate(name, SERVES)
    for dim, wanted in now.dims.items():
        if dim not in then or dim in TOLD or not dim.endswith("_m") or abs(wanted - then[dim]) <= ALIKE:
            continue
        change = PartFate(name, _fate(dim, then[dim], wanted), dim, then[dim], wanted)
        if change.fate == SCRAP:
            return change
        found = change
    return found


def _fate(dim: str, was: float, wanted: float) -> str:
    """A hole grows and an edge shrinks; a groove stays where it is."""
    if is_opening(dim):
        return AFTER_CUT if wanted > was else SCRAP
    return AFTER_CUT if dim in SIZES and wanted < was else SCRAP
