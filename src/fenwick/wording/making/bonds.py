"""What holds on what, in words."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.making.joints import GluedJoint
from fenwick.wording.making.names import MATERIALS, SEALANTS, part_name
from fenwick.wording.making.troubles import instead_words

HOLDS = {
    "holds": ("holds", "ok"),
    "sanded": ("holds when sanded", "watch"),
    "light": ("light loads only", "watch"),
    "unknown": ("not known", "none"),
    "fails": ("lets go", "act"),
}
BECAUSE = {
    "fatty": "nothing sticks to {on}: its surface is waxy",
    "peels": "it peels off {on} in one piece",
    "crazes": "its solvent crazes {on}, weeks later too",
    "smooth": "{on} must be sanded dull first, or it creeps off",
    "creeps": "it creeps under load and warmth and lets go in the cold, below 5 °C",
    "cold": "it lets go in the cold, below 5 °C",
    "board": "the paper tears before the bead does",
    "no-pores": "it needs pores on both sides; {on} has none",
    "no-plastic": "it dissolves plastic; {on} is none",
    "not-alike": "it joins like to like alone",
    "unknown": "nobody here has tried it on {on}",
}
BOND_TEST = (
    "Clean a strip of each off-cut, lay a bead of 4 mm between them, let it cure in full.",
    "Pull by hand, or with a spring scale along the bead, until something gives.",
    "Torn within the bead, both sides still covered: cohesive, it passes.",
    "Come off one side clean: adhesive, it fails. Take what the table says instead.",
)


def joint_title(joint: GluedJoint) -> str:
    """The two parts that are joined."""
    one, other = part_name(joint.one), part_name(joint.other).lower()
    return f"{one}, its seam" if joint.is_seam else f"{one} to {other}"


def joint_materials(joint: GluedJoint) -> str:
    """The two materials."""
    one, other = (MATERIALS[name] for name in joint.materials)
    return one if one == other else f"{one} on {other}"


def joint_sentence(joint: GluedJoint) -> str:
    """Whether it holds, why not, and what would."""
    bond = joint.bond
    return bond_sentence(joint.sealant, bond.on, bond.because, bond.instead)


def bond_sentence(sealant: str, on: str, because: str, instead: Sequence[str]) -> str:
    """Whether a sealant holds, why not on one of the two, and what would."""
    if not because:
        return f"{SEALANTS[sealant].capitalize()} holds on both."
    why = BECAUSE[because].format(on=MATERIALS.get(on, on))
    return f"{SEALANTS[sealant].capitalize()}: {why}. Instead: {instead_words(instead)}."
