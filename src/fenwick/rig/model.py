"""The rig file as a whole."""

from __future__ import annotations

from typing import Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.dust import DUSTS, REFUSED_DUSTS
from fenwick.core.errors import OutsideDomainError
from fenwick.core.formulas.fan import exponent_from_air_power
from fenwick.rig import fields as f
from fenwick.rig.elements import LinePart
from fenwick.rig.problems import refuse

FORMAT, VERSION = "fenwick-rig", 1


class SitePart(f.Part):
    """Where the line stands."""

    temperature_c: f.Celsius = Field(20.0, title="Room air")
    altitude_m: f.Altitude = Field(0.0, title="Altitude")


class NameplatePart(f.Part):
    """A fan curve from the label."""

    kind: Literal["nameplate"]
    sealed_suction_pa: f.Suction = Field(title="Sealed suction")
    open_flow_m3_s: f.Flow = Field(title="Open flow")
    air_watts: f.Power | None = Field(None, title="Air watts")
    exponent: f.Exponent | None = Field(None, title="Curve exponent")

    @model_validator(mode="after")
    def _figures_agree(self) -> Self:
        if self.air_watts is not None:
            if self.exponent is not None:
                refuse("exponent", "must be left out when air_watts is given: one follows from the other")
            try:
                exponent_from_air_power(self.air_watts, self.sealed_suction_pa, self.open_flow_m3_s)
            except OutsideDomainError as error:
                refuse("air_watts", error.rule)
        return self


class FilterPart(f.Part):
    """The vacuum's filter."""

    kind: Literal["paper", "hepa"] = Field("paper", title="Filter")
    area_m2: f.FilterArea = Field(title="Filter area")
    held_kg: f.HeldMass = Field(0.0, title="Dust on it")


class BagPart(f.Part):
    """A bag in the vacuum."""

    area_m2: f.FilterArea = Field(title="Bag area")
    held_kg: f.HeldMass = Field(0.0, title="Dust in it")


class VacuumPart(f.Part):
    """The shop vacuum."""

    name: f.Name = "Vacuum"
    electrical_power_w: f.Power | None = Field(None, title="Electrical power")
    current_a: f.Current | None = Field(None, title="Current")
    inlet_bore_m: f.Bore | None = Field(None, title="Inlet bore")
    curve: NameplatePart
    filter: FilterPart | None = None
    bag: BagPart | None = None


class DustPart(f.Part):
    """The dust the tools make."""

    kind: str = Field(title="Dust", json_schema_extra={"enum": [*DUSTS]})

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.kind in REFUSED_DUSTS:
            refuse(
                "kind",
                f"{REFUSED_DUSTS[self.kind].lower()} is not for this equipment: it takes licensed work and certified "
                "extraction",
            )
        if self.kind not in DUSTS:
            refuse("kind", f"must be one of {', '.join(DUSTS)}")
        return self


class Rig(f.Part):
    """One dust line: `format` fenwick-rig, version 1."""

    format: Literal["fenwick-rig"]
    version: Literal[1]
    name: f.Name = "Dust line"
    site: SitePart = Field(default_factory=SitePart)
    vacuum: VacuumPart
    dust: DustPart | None = None
    line: LinePart

    @model_validator(mode="after")
    def _ids_are_unique(self) -> Self:
        seen: set[str] = set()
        places = [(f"line.elements[{i}].id", e.id) for i, e in enumerate(self.line.elements)]
        for b, branch in enumerate(self.line.branches):
            places.append((f"line.branches[{b}].id", branch.id))
            places += [(f"line.branches[{b}].elements[{i}].id", e.id) for i, e in enumerate(branch.elements)]
        for path, name in places:
            if name in seen or name == "vacuum":
                refuse(path, f"“{name}” is taken: every id in a file must differ, and “vacuum” is the vacuum's")
            seen.add(name)
        return self
