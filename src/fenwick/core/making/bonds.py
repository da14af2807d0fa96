"""What holds on what: for each pair of materials and each sealant, whether it bonds, and what does instead."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

HOLDS, SANDED, LIGHT, FAILS, UNKNOWN = "holds", "sanded", "light", "fails", "unknown"
WORSE = {HOLDS: 0, SANDED: 1, LIGHT: 2, UNKNOWN: 3, FAILS: 4}
MECHANICAL = "mechanical"

WOOD = ("plywood", "mdf", "chipboard", "pine")
FATTY = ("hdpe", "pp")  #: nothing sticks to them
CRAZING = ("polycarbonate", "acrylic")


@dataclass(frozen=True)
class Grip:
    """How a sealant holds on one material, and why it does not."""

    holds: str  #: HOLDS, SANDED, LIGHT or FAILS
    because: str = ""  #: key of the reason


def _on(holds: str, materials: tuple[str, ...], because: str = "") -> dict[str, Grip]:
    return dict.fromkeys(materials, Grip(holds, because))


FATTY_FAILS = _on(FAILS, FATTY, "fatty")
#: by sealant, by material; what is not in here is not known
GRIPS: Mapping[str, Mapping[str, Grip]] = {
    "silicone": {
        **_on(HOLDS, (*WOOD, "steel")), **FATTY_FAILS, **_on(FAILS, CRAZING, "peels"),
        **_on(LIGHT, ("board",), "board"),
    },
    "hybrid": {
        **_on(HOLDS, (*WOOD, "steel", "polycarbonate", "abs", "pvc", "board")), **FATTY_FAILS,
    },
    "epoxy-fast": {
        **_on(HOLDS, (*WOOD, "steel")), **FATTY_FAILS, **_on(SANDED, ("pvc", "abs", "polycarbonate"), "smooth"),
    },
    "epoxy-slow": {
        **_on(HOLDS, (*WOOD, "steel")), **FATTY_FAILS, **_on(SANDED, ("pvc", "abs", "polycarbonate"), "smooth"),
    },
    "hot-melt": {
        **_on(LIGHT, (*WOOD, "board", "pvc", "abs"), "creeps"), **FATTY_FAILS, **_on(LIGHT, ("steel",), "cold"),
    },
    "construction": {
        **_on(HOLDS, (*WOOD, "steel", "board")), **FATTY_FAILS, **_on(FAILS, CRAZING, "crazes"),
    },
    "pva": {
        **_on(HOLDS, (*WOOD, "board")), **_on(FAILS, ("steel", *FATTY, *CRAZING, "abs", "pvc", "petg"), "no-pores"),
    },
    "cement": {
        **_on(FAILS, (*WOOD, "steel", "board"), "no-plastic"), **FATTY_FAILS, **_on(HOLDS, ("pvc", "abs")),
        **_on(FAILS, CRAZING, "crazes"),
    },
}  # fmt: skip
SEALANTS = (*GRIPS,)
#: materials that something is known of
MATERIALS = (*WOOD, "board", "steel", "hdpe", "pp", "abs", "pvc", "petg", *CRAZING)


@dataclass(frozen=True)
class Bond:
    """A joint of two materials with one sealant."""

    holds: str  #: HOLDS, SANDED, LIGHT, FAILS or UNKNOWN
    because: str  #: key of the reason; empty where it holds
    on: str  #: material that it is about; empty where it holds
    instead: tuple[str, ...]  #: sealants that hold on both; MECHANICAL where none does


def bond(one: str, other: str, sealant: str) -> Bond:
    """Whether a sealant joins two materials."""
    found = _bond(one, other, sealant)
    if found.holds == HOLDS:
        return found
    instead = tuple(key for key in SEALANTS if key != sealant and _bond(one, other, key).holds == HOLDS)
    return Bond(found.holds, found.because, found.on, instead or (MECHANICAL,))


def _bond(one: str, other: str, sealant: str) -> Bond:
    if sealant == "cement" and one != other:
        return Bond(FAILS, "not-alike", other, ())
    grips = [(material, GRIPS[sealant].get(material, Grip(UNKNOWN, "unknown"))) for material in (one, other)]
    material, worst = max(grips, key=lambda pair: WORSE[pair[1].holds])
    return Bond(worst.holds, worst.because, "" if worst.holds == HOLDS else material, ())
