"""The rig file as a whole."""

from __future__ import annotations

from typing import Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.dust import DUSTS, HELD_BESIDES
from fenwick.core.components.wet import WET_DUSTS
from fenwick.rig.format import fields as f
from fenwick.rig.format.curve import CurvePart
from fenwick.rig.format.dust import DustPart, build_dust, known_kind
from fenwick.rig.format.elements import LinePart
from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.guesses import GuessPart
from fenwick.rig.format.prices import price_range
from fenwick.rig.format.problems import refuse
from fenwick.rig.format.separator import WetStagePart
from fenwick.rig.format.tuning import TuningPart
from fenwick.units.sentence import inside

FORMAT, VERSION = "fenwick-rig", 1
RESERVED_IDS = ("vacuum", "junction")
RESERVED_WORDS = "“vacuum” and “junction” are the line's own"


class SitePart(f.Part):
    """Where the line stands."""

    temperature_c: f.Celsius = Field(20.0, title="Room air")
    altitude_m: f.Altitude = Field(0.0, title="Altitude")
    outdoors: f.Flag = Field(False, title="Stands outdoors")


class FilterPart(f.Part):
    """The vacuum's filter."""

    kind: Literal["paper", "hepa"] = Field("paper", title="Filter")
    area_m2: f.FilterArea = Field(title="Filter area")
    held_kg: f.HeldMass = Field(0.0, title="Dust on it")
    coated: f.Flag = Field(False, title="Coated")
    price: f.Price | None = Field(None, title="Filter price")
    price_to: f.Price | None = Field(None, title="Filter price, up to")

    @model_validator(mode="after")
    def _range(self) -> Self:
        price_range("price_to", self.price, self.price_to)
        return self


class BagPart(f.Part):
    """A bag in the vacuum."""

    area_m2: f.FilterArea | None = Field(None, title="Bag area")
    volume_m3: f.TankVolume | None = Field(None, title="Bag holds")
    held_kg: f.HeldMass = Field(0.0, title="Dust in it")
    price: f.Price | None = Field(None, title="Bag price")
    price_to: f.Price | None = Field(None, title="Bag price, up to")

    @model_validator(mode="after")
    def _range(self) -> Self:
        price_range("price_to", self.price, self.price_to)
        return self


class VacuumPart(f.Part):
    """The shop vacuum."""

    name: f.Name = "Vacuum"
    electrical_power_w: f.Power | None = Field(None, title="Electric")
    current_a: f.Current | None = Field(None, title="Current")
    inlet_bore_m: f.Bore | None = Field(None, title="Inlet bore")
    inlet_end: EndPart | None = None
    tank_m3: f.TankVolume | None = Field(None, title="Tank holds")
    motor_speed: f.SpeedShare | None = Field(None, title="Motor speed")
    exhaust: Literal["indoors", "outdoors"] = Field("indoors", title="Blows out")
    cooling: Literal["own-air", "working-air"] | None = Field(None, title="Motor cooled by")
    takes_water: f.Flag | None = Field(None, title="Takes water")
    wiring: f.Wiring | None = Field(None, title="Wiring")
    loudness_dba: f.Loudness | None = Field(None, title="Loudness read")
    last_held: str | None = Field(None, title="Last held", json_schema_extra={"enum": [*DUSTS, *HELD_BESIDES]})
    emptied: f.Flag = Field(False, title="Emptied and cleaned since")
    of_shop: f.Id | None = Field(None, title="Which of the shop's")
    curve: CurvePart
    filter: FilterPart | None = None
    bag: BagPart | None = None

    @model_validator(mode="after")
    def _known_dust(self) -> Self:
        if self.last_held is not None:
            known_kind("last_held", self.last_held, (*DUSTS, *HELD_BESIDES))
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
    tuning: TuningPart | None = None
    guesses: tuple[GuessPart, ...] = Field((), max_length=200)

    @model_validator(mode="after")
    def _wet_stage_takes_its_dust(self) -> Self:
        for i, element in enumerate(self.line.elements):
            if isinstance(element, WetStagePart) and self.dust and self.dust.kind not in WET_DUSTS:
                refuse(
                    f"line.elements[{i}].kind",
                    f"a wet stage is not for {inside(build_dust(self.dust).label)}: wood swells, clogs and rots in "
                    "water, light metal gives off hydrogen; it takes steel grinding or fibre composite dust alone",
                )
        return self

    @model_validator(mode="after")
    def _ids_are_unique(self) -> Self:
        seen: set[str] = set()
        places = [(f"line.elements[{i}].id", e.id) for i, e in enumerate(self.line.elements)]
        for path, branch in self.line.walk():
            places.append((f"line.{path}.id", branch.id))
            places += [(f"line.{path}.elements[{i}].id", e.id) for i, e in enumerate(branch.elements)]
        for path, name in places:
            if name in seen or name in RESERVED_IDS:
                refuse(path, f"“{name}” is taken: every id in a file must differ, and {RESERVED_WORDS}")
            seen.add(name)
        return self
