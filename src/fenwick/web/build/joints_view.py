"""What is joined with what, whether it holds, and how long it waits."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import one_value
from fenwick.core.components.bins import CLOSURES
from fenwick.core.making.bonds import GRIPS, bond
from fenwick.core.making.bonds import MATERIALS as BONDED
from fenwick.core.making.given import Making
from fenwick.core.making.joints import GluedJoint
from fenwick.core.making.steps import cure_time
from fenwick.rig.voice import voice_for
from fenwick.web.build.hand import InHand
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.bonds import BOND_TEST, HOLDS, joint_materials, joint_sentence, joint_title
from fenwick.wording.making.facts import duration
from fenwick.wording.making.names import MATERIALS, SEALANTS
from fenwick.wording.say import Voice

FORMED = ("pvc", "abs", "pp", "hdpe", "acrylic", "petg", "polycarbonate")
KNOWN_ON = ("plywood", "steel", "hdpe", "abs", "pvc", "polycarbonate", "acrylic", "board")  #: columns of the table


@dataclass(frozen=True)
class GluedRow:
    """One joint of the design."""

    title: str
    materials: str
    holds: str
    level: str
    sentence: str
    waits: str


@dataclass(frozen=True)
class GripRow:
    """How one sealant holds on each material."""

    sealant: str
    waits: str
    cells: tuple[tuple[str, str], ...]  #: (word, level)


@dataclass(frozen=True)
class JointsView:
    """All that the page says."""

    rows: tuple[GluedRow, ...]
    materials: tuple[str, ...]
    table: tuple[GripRow, ...]
    screws: tuple[str, ...]
    closures: tuple[tuple[str, str], ...]  #: (closure, leak that it starts from)
    forming: tuple[tuple[str, str], ...]  #: (plastic, temperature)
    bond_test: tuple[str, ...]
    pair: tuple[str, str]  #: two materials that are asked about
    choices: tuple[tuple[str, str], ...]
    pair_rows: tuple[GluedRow, ...]  #: every sealant on them


def joints_view(hand: InHand, one: str, other: str) -> JointsView:
    """The page of what is in hand."""
    pair = (one if one in BONDED else "plywood", other if other in BONDED else "polycarbonate")
    voice, making = voice_for(hand.state.rig, unit_system()), hand.found.pack.making
    rows = tuple(
        GluedRow(
            joint_title(joint), joint_materials(joint), *HOLDS[joint.bond.holds], joint_sentence(joint),
            duration(cure_time(joint.sealant, making)),
        )
        for joint in hand.found.pack.joints
    )  # fmt: skip
    table = tuple(
        GripRow(SEALANTS[key], duration(cure_time(key, making)), tuple(_cell(key, one) for one in KNOWN_ON))
        for key in GRIPS
    )
    return JointsView(
        rows, tuple(MATERIALS[one] for one in KNOWN_ON), table, _screws(hand, voice),
        tuple((words, _rule(making, f"closure.{key}", "gap", voice)) for key, words in CLOSURES.items()),
        tuple((MATERIALS[one], _rule(making, f"form.{one}", "temperature", voice)) for one in FORMED),
        BOND_TEST, pair, tuple((key, name) for key, name in MATERIALS.items() if key in BONDED),
        tuple(_pair_row(*pair, key, making) for key in GRIPS),
    )  # fmt: skip


def _pair_row(one: str, other: str, sealant: str, making: Making) -> GluedRow:
    joint = GluedJoint("", "", (one, other), sealant, bond(one, other, sealant))
    waits = duration(cure_time(sealant, making))
    return GluedRow(SEALANTS[sealant], "", *HOLDS[joint.bond.holds], joint_sentence(joint), waits)


def _cell(sealant: str, material: str) -> tuple[str, str]:
    grip = GRIPS[sealant].get(material)
    word, level = HOLDS["unknown" if grip is None else grip.holds]
    return word, level


def _rule(making: Making, key: str, quantity: str, voice: Voice) -> str:
    return voice.figure(one_value(making.rules[key]), quantity)


def _screws(hand: InHand, voice: Voice) -> tuple[str, ...]:
    making = hand.found.pack.making
    bolt, pitch, gasket = (making.rule(key) for key in ("bolt", "bolt-pitch", "gasket"))
    brittle, wood = making.rule("pilot-brittle") * bolt, making.rule("pilot-wood") * bolt
    edge = making.rule("edge-brittle")
    return (
        f"Screws that press a gasket stand no further apart than {voice.cut(pitch)}; tighten crosswise, a little each.",
        f"A gasket of {voice.cut(gasket)} is pressed to half. Nothing is taped over it.",
        f"For a bolt of {voice.cut(bolt)}: {voice.cut(brittle)} through acrylic and polycarbonate, blunt bit, no "
        f"pressure, {edge:g} hole widths from any edge; {voice.cut(wood)} as a pilot in wood.",
    )
