"""The rig file as a whole."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.dust import DUSTS, HELD_BESIDES
from fenwick.core.components.wet import WET_DUSTS
from fenwick.core.errors import OutsideDomainError
from fenwick.core.formulas.air import REFERENCE_DENSITY
from fenwick.core.formulas.fan import exponent_from_air_power, hole_plate_flow, misplaced_point
from fenwick.rig.format import fields as f
from fenwick.rig.format.dust import DustPart, build_dust, known_kind
from fenwick.rig.format.elements import LinePart
from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.guesses import GuessPart
from fenwick.rig.format.problems import refuse
from fenwick.rig.format.separator import WetStagePart
from fenwick.rig.format.tuning import TuningPart

FORMAT, VERSION = "fenwick-rig", 1
RESERVED_IDS = ("vacuum", "junction")
ROW_WORD = {"points": "point", "rows": "row"}  #: what an entry of a measured curve is called
RESERVED_WORDS = "“vacuum” and “junction” are the line's own"


class SitePart(f.Part):
    """Where the line stands."""

    temperature_c: f.Celsius = Field(20.0, title="Room air")
    altitude_m: f.Altitude = Field(0.0, title="Altitude")
    outdoors: f.Flag = Field(False, title="Stands outdoors")


class NameplatePart(f.Part):
    """A fan curve from the label."""

    kind: Literal["nameplate"]
    sealed_suction_pa: f.Suction = Field(title="Sealed")
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


class CurvePointPart(f.Part):
    """A measured point of the fan curve, at reference density."""

    flow_m3_s: f.FlowFromZero = Field(title="Flow")
    suction_pa: f.SuctionFromZero = Field(title="Suction")


class PointsPart(f.Part):
    """A fan curve from three or more measured points."""

    kind: Literal["points"]
    points: tuple[CurvePointPart, ...] = Field(min_length=3, max_length=500)

    @model_validator(mode="after")
    def _falls(self) -> Self:
        _refuse_bad_curve("points", [(point.flow_m3_s, point.suction_pa) for point in self.points])
        return self


class HoleRowPart(f.Part):
    """A reading of the hole-plate test: a plate of sharp holes over the wide inlet."""

    hole_diameter_m: f.HoleBore = Field(title="Hole")
    holes: f.Count = Field(title="Number")
    suction_pa: f.Suction = Field(title="Suction read")


class HolesPart(f.Part):
    """A fan curve from a hole-plate test in the line's own room."""

    kind: Literal["holes"]
    rows: tuple[HoleRowPart, ...] = Field(min_length=3, max_length=100)

    def points(self, density: float) -> list[tuple[float, float]]:
        """(flow [m^3/s], suction [Pa] at reference density) of every row, in room air of `density` [kg/m^3]."""
        flows = [float(hole_plate_flow(r.hole_diameter_m, r.holes, r.suction_pa, density)) for r in self.rows]
        return [(q, r.suction_pa * REFERENCE_DENSITY / density) for q, r in zip(flows, self.rows, strict=True)]

    @model_validator(mode="after")
    def _falls(self) -> Self:
        _refuse_bad_curve("rows", self.points(REFERENCE_DENSITY))
        return self


def _refuse_bad_curve(key: str, points: list[tuple[float, float]]) -> None:
    clash = misplaced_point(points)
    if clash is not None:
        refuse(f"{key}[{clash.at}].suction_pa", f"{clash.rule} {ROW_WORD[key]} {clash.against + 1}")


CurvePart = Annotated[NameplatePart | PointsPart | HolesPart, Field(discriminator="kind")]


class FilterPart(f.Part):
    """The vacuum's filter."""

    kind: Literal["paper", "hepa"] = Field("paper", title="Filter")
    area_m2: f.FilterArea = Field(title="Filter area")
    held_kg: f.HeldMass = Field(0.0, title="Dust on it")
    price: f.Price | None = Field(None, title="Filter price")


class BagPart(f.Part):
    """A bag in the vacuum."""

    area_m2: f.FilterArea = Field(title="Bag area")
    held_kg: f.HeldMass = Field(0.0, title="Dust in it")
    price: f.Price | None = Field(None, title="Bag price")


class VacuumPart(f.Part):
    """The shop vacuum."""

    name: f.Name = "Vacuum"
    electrical_power_w: f.Power | None = Field(None, title="Electric")
    current_a: f.Current | None = Field(None, title="Current")
    inlet_bore_m: f.Bore | None = Field(None, title="Inlet bore")
    inlet_end: EndPart | None = None
    motor_speed: f.SpeedShare | None = Field(None, title="Motor speed")
    exhaust: Literal["indoors", "outdoors"] = Field("indoors", title="Blows out")
    cooling: Literal["own-air", "working-air"] | None = Field(None, title="Motor cooled by")
    takes_water: f.Flag | None = Field(None, title="Takes water")
    last_held: str | None = Field(None, title="Last held", json_schema_extra={"enum": [*DUSTS, *HELD_BESIDES]})
    emptied: f.Flag = Field(False, title="Emptied and cleaned since")
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
                    f"a wet stage is not for {build_dust(self.dust).label.lower()}: wood swells, clogs and rots in "
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
