"""Which parts of a design are joined, with what, and whether that holds."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.making.bonds import FAILS, UNKNOWN, WOOD, Bond, bond
from fenwick.core.making.given import Making
from fenwick.core.making.parts import MadePart, Trouble

SEAM, GLUED = "seam", "glued"
#: pairs of parts that are sealed to each other; a part with itself at its own seam
PAIRS: tuple[tuple[str, str], ...] = (
    ("wall", "wall"), ("barrel", "barrel"), ("cone", "cone"), ("barrel", "cone"), ("roof", "wall"), ("roof", "barrel"),
    ("deck", "wall"), ("slotted-disc", "wall"), ("roof", "outlet-tube"), ("lid", "outlet-tube"), ("lid", "throat"),
    ("deck", "drop-pipe"), ("inlet-block", "wall"), ("inlet-block", "barrel"), ("inlet-block", "bin"),
    ("inlet-tube", "inlet-block"), ("inlet-plate", "wall"), ("inlet-plate", "barrel"), ("flange", "cone"),
    ("seat-ring", "slotted-disc"), ("stiffener", "lid"), ("splash-plate", "throat"),
)  # fmt: skip


#: pairs that touch only where some other part is not there
UNLESS: dict[tuple[str, str], tuple[str, ...]] = {
    ("inlet-block", "bin"): ("wall", "barrel"),
    ("lid", "outlet-tube"): ("roof",),
}


@dataclass(frozen=True)
class GluedJoint:
    """Two parts that are joined."""

    one: str
    other: str
    materials: tuple[str, str]
    sealant: str
    bond: Bond

    @property
    def is_seam(self) -> bool:
        """Whether it is a part's own seam."""
        return self.one == self.other


def joints_of(parts: Sequence[MadePart], bin_material: str | None, making: Making) -> tuple[GluedJoint, ...]:
    """Every joint of a design with its sealant.

    Parameters
    ----------
    bin_material : None: not known
    """
    by_id = {part.id: part for part in parts}
    found = []
    for one, other in PAIRS:
        if one not in by_id or other not in by_id or any(name in by_id for name in UNLESS.get((one, other), ())):
            continue
        materials = (_material(by_id[one], bin_material), _material(by_id[other], bin_material))
        if "" in materials:
            continue
        sealant = "pva" if all(m in WOOD for m in materials) else making.sealant
        found.append(GluedJoint(one, other, materials, sealant, bond(*materials, sealant)))
    return tuple(found)


def _material(part: MadePart, bin_material: str | None) -> str:
    return (bin_material or "") if part.id == "bin" else part.stock.material


def joint_troubles(joints: Sequence[GluedJoint]) -> list[Trouble]:
    """What does not hold, or is not known to."""
    keys = {FAILS: "no-bond", UNKNOWN: "bond-unknown"}
    return [
        Trouble(keys[joint.bond.holds], joint.one, detail=_told(joint)) for joint in joints if joint.bond.holds in keys
    ]


def _told(joint: GluedJoint) -> str:
    return "|".join((joint.other, joint.bond.on, joint.sealant, ",".join(joint.bond.instead)))
