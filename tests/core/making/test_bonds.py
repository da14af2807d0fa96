"""What holds on what: the table, its remedies, and the joints of real designs."""

from __future__ import annotations

import pytest

from fenwick.core.making.bonds import (
    FAILS,
    FATTY,
    GRIPS,
    HOLDS,
    LIGHT,
    MECHANICAL,
    SANDED,
    SEALANTS,
    UNKNOWN,
    WOOD,
    bond,
)
from fenwick.core.making.given import MakingChoices, making_of
from fenwick.core.making.joints import PAIRS, joint_troubles, joints_of
from fenwick.core.making.pack import parts_of
from fenwick.core.rules import RuleBook
from tests.core.making.test_geometry import chamber, cyclone

MATERIALS = ("plywood", "mdf", "pine", "steel", "hdpe", "pp", "abs", "pvc", "polycarbonate", "acrylic", "petg", "board")


@pytest.mark.parametrize(
    ("one", "other", "sealant", "holds"),
    [
        ("plywood", "steel", "silicone", HOLDS),
        ("plywood", "polycarbonate", "silicone", FAILS),
        ("acrylic", "acrylic", "silicone", FAILS),
        ("polycarbonate", "plywood", "hybrid", HOLDS),
        ("abs", "pvc", "hybrid", HOLDS),
        ("steel", "plywood", "epoxy-slow", HOLDS),
        ("pvc", "plywood", "epoxy-fast", SANDED),
        ("polycarbonate", "steel", "epoxy-slow", SANDED),
        ("plywood", "pvc", "hot-melt", LIGHT),
        ("polycarbonate", "plywood", "construction", FAILS),
        ("plywood", "pine", "pva", HOLDS),
        ("plywood", "steel", "pva", FAILS),
        ("pvc", "pvc", "cement", HOLDS),
        ("abs", "abs", "cement", HOLDS),
        ("pvc", "abs", "cement", FAILS),
        ("petg", "petg", "hybrid", UNKNOWN),
    ],
)
def test_the_table(one: str, other: str, sealant: str, holds: str) -> None:
    assert bond(one, other, sealant).holds == holds
    assert bond(other, one, sealant).holds == holds


@pytest.mark.parametrize("fatty", FATTY)
@pytest.mark.parametrize("sealant", SEALANTS)
def test_nothing_holds_on_waxy_plastic_and_bolts_are_the_remedy(fatty: str, sealant: str) -> None:
    found = bond(fatty, "plywood", sealant)
    assert found.holds == FAILS
    assert found.instead == (MECHANICAL,)


@pytest.mark.parametrize("sealant", SEALANTS)
@pytest.mark.parametrize("one", MATERIALS)
def test_what_is_offered_instead_really_holds(one: str, sealant: str) -> None:
    for other in MATERIALS:
        found = bond(one, other, sealant)
        if found.holds == HOLDS:
            assert found.because == ""
            assert found.on == ""
            continue
        assert found.because
        assert found.on in (one, other)
        assert found.instead
        for better in found.instead:
            assert better == MECHANICAL or bond(one, other, better).holds == HOLDS


def test_every_sealant_says_something_of_wood() -> None:
    assert all(set(WOOD) <= set(grips) for grips in GRIPS.values())


class TestJoints:
    MAKING = making_of(MakingChoices(), RuleBook())

    def test_a_chamber_is_joined_where_its_parts_touch(self) -> None:
        found = joints_of(parts_of(chamber(), self.MAKING).parts, "hdpe", self.MAKING)
        pairs = {(joint.one, joint.other) for joint in found}
        assert pairs == {
            ("wall", "wall"), ("roof", "wall"), ("slotted-disc", "wall"), ("roof", "outlet-tube"),
            ("inlet-block", "wall"), ("inlet-tube", "inlet-block"), ("seat-ring", "slotted-disc"),
        }  # fmt: skip
        assert pairs <= set(PAIRS)
        assert joint_troubles(found) == []

    def test_wood_on_wood_is_glued_and_the_rest_sealed(self) -> None:
        found = joints_of(parts_of(chamber(), self.MAKING).parts, "hdpe", self.MAKING)
        sealants = {joint.one: joint.sealant for joint in found if joint.one in ("seat-ring", "roof")}
        assert sealants == {"seat-ring": "pva", "roof": "hybrid"}

    def test_a_block_on_a_bin_of_hdpe_is_told_to_be_bolted(self) -> None:
        hung = chamber(hung=True, chamber_diameter=0.35)
        found = joints_of(parts_of(hung, self.MAKING).parts, "hdpe", self.MAKING)
        assert [(one.key, one.part) for one in joint_troubles(found)] == [("no-bond", "inlet-block")]
        steel = joints_of(parts_of(hung, self.MAKING).parts, "steel", self.MAKING)
        assert joint_troubles(steel) == []

    def test_a_bin_of_an_unknown_material_is_not_judged(self) -> None:
        hung = chamber(hung=True, chamber_diameter=0.35)
        found = joints_of(parts_of(hung, self.MAKING).parts, None, self.MAKING)
        assert ("inlet-block", "bin") not in {(joint.one, joint.other) for joint in found}

    def test_a_cyclone_has_its_seams(self) -> None:
        found = joints_of(parts_of(cyclone(), self.MAKING).parts, "hdpe", self.MAKING)
        assert {joint.one for joint in found if joint.is_seam} == {"barrel", "cone"}
