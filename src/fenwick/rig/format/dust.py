"""The dust in the rig file: a generic kind, a mixture of them, or one's own."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.dust import DUSTS, GLOWING, REFUSED_DUSTS, Dust, Mode, mixed
from fenwick.rig.format import fields as f
from fenwick.rig.format.problems import refuse
from fenwick.units.sentence import inside

MIXTURE, OWN = "mixture", "own"
OWN_KEYS = ("name", "modes", "particle_density_kg_m3", "settles_below_m_s", "carries_above_m_s")


class PartOfMixture(f.Part):
    """One generic kind in a mixture."""

    kind: str = Field(title="Kind", json_schema_extra={"enum": [*DUSTS]})
    parts: f.Parts = Field(title="Parts by mass")


class ModePart(f.Part):
    """One log-normal mode by mass."""

    median_m: f.Grain = Field(title="Median")
    geometric_sd: f.GeometricSpread = Field(title="Spread")
    parts: f.Parts = Field(title="Parts by mass")


class DustPart(f.Part):
    """The dust the tools make."""

    kind: str = Field(title="Dust", json_schema_extra={"enum": [*DUSTS, MIXTURE, OWN]})
    kinds: tuple[PartOfMixture, ...] | None = Field(None, max_length=12)
    species: Literal["softwood", "hardwood", "beech-oak", "tropical", "resinous"] | None = Field(None, title="Wood")
    name: f.Name | None = Field(None, title="Called")
    modes: tuple[ModePart, ...] | None = Field(None, max_length=6)
    particle_density_kg_m3: f.Density | None = Field(None, title="Grains")
    bulk_density_kg_m3: f.Density | None = Field(None, title="As it lies")
    longest_chip_m: f.ChipLength | None = Field(None, title="Longest chip")
    settles_below_m_s: f.Speed | None = Field(None, title="Settles below")
    carries_above_m_s: f.Speed | None = Field(None, title="Carries above")

    @model_validator(mode="after")
    def _known(self) -> Self:
        known_kind("kind", self.kind, (*DUSTS, MIXTURE, OWN))
        if (self.kind == MIXTURE) != bool(self.kinds):
            rule = "is missing: a mixture has kinds" if self.kind == MIXTURE else "must be left out: it is no mixture"
            refuse("kinds", rule)
        if self.kind == OWN:
            self._whole()
        elif any(getattr(self, key) is not None for key in OWN_KEYS):
            key = next(key for key in OWN_KEYS if getattr(self, key) is not None)
            refuse(key, "must be left out: a generic kind has its own")
        return self

    def _whole(self) -> None:
        for key in OWN_KEYS:
            if not getattr(self, key):
                refuse(key, "is missing: a dust of one's own is described whole")
        assert self.settles_below_m_s is not None
        assert self.carries_above_m_s is not None
        if self.carries_above_m_s < self.settles_below_m_s:
            refuse("carries_above_m_s", "must not be below the speed at which it settles")

    @model_validator(mode="after")
    def _mixes(self) -> Self:
        kinds = [part.kind for part in self.kinds or ()]
        for i, kind in enumerate(kinds):
            known_kind(f"kinds[{i}].kind", kind, tuple(DUSTS))
        sparks = [i for i, kind in enumerate(kinds) if kind in GLOWING]
        if sparks and len(sparks) < len(kinds):
            refuse(
                f"kinds[{sparks[0]}].kind",
                "must not go with other dust: sparks and hot metal set it on fire; use a separate, emptied vacuum",
            )
        return self


def known_kind(key: str, kind: str, known: tuple[str, ...]) -> None:
    """Refuse, beside its key, a dust that must not be taken up or that nobody knows."""
    if kind in REFUSED_DUSTS:
        name, why = REFUSED_DUSTS[kind]
        refuse(key, f"{inside(name)} is not for this equipment: {why}")
    if kind not in known:
        refuse(key, f"must be one of {', '.join(known)}")


def build_dust(part: DustPart) -> Dust:
    """The core's dust."""
    if part.kinds:
        return replace(mixed([(DUSTS[one.kind], one.parts) for one in part.kinds]), species=part.species)
    if part.kind != OWN:
        return DUSTS[part.kind] if part.species is None else replace(DUSTS[part.kind], species=part.species)
    modes = part.modes or ()
    total = sum(mode.parts for mode in modes)
    assert part.name is not None
    assert part.particle_density_kg_m3 is not None
    assert part.settles_below_m_s is not None
    assert part.carries_above_m_s is not None
    return Dust(
        OWN,
        part.name,
        tuple(Mode(mode.median_m, mode.geometric_sd, mode.parts / total) for mode in modes),
        part.particle_density_kg_m3,
        (part.settles_below_m_s, part.carries_above_m_s),
        part.longest_chip_m,
        part.bulk_density_kg_m3,
        part.species,
    )


def own_from(dust: Dust) -> dict[str, Any]:
    """A dust as one's own, to be changed."""
    return {
        "kind": OWN,
        "name": f"{dust.label}, own",
        "modes": [
            {
                "median_m": float(f"{mode.median:.4g}"),
                "geometric_sd": mode.geometric_sd,
                "parts": round(float(mode.share), 4),
            }
            for mode in dust.modes
        ],
        "particle_density_kg_m3": round(dust.particle_density, 1),
        "bulk_density_kg_m3": None if dust.bulk_density is None else round(dust.bulk_density, 1),
        "longest_chip_m": dust.longest_chip,
        "settles_below_m_s": dust.conveying[0],
        "carries_above_m_s": dust.conveying[1],
    }


def begun(kind: str, now: DustPart | None) -> dict[str, Any]:
    """What a change of kind begins as: a mixture with what was there and sawdust, or one's own like what was there."""
    if kind == OWN:
        return own_from(build_dust(now) if now else DUSTS["saw"])
    if kind == MIXTURE:
        first = now.kind if now and now.kind in DUSTS and now.kind not in GLOWING else "sanding-p120"
        second = "saw" if first != "saw" else "sanding-p120"
        return {"kind": MIXTURE, "kinds": [{"kind": first, "parts": 1.0}, {"kind": second, "parts": 1.0}]}
    return {"kind": kind}
