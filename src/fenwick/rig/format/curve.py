"""A fan's curve in the rig file: from its label, from measured points, from a hole-plate test."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.vacuum import Curve, MeasuredCurve, Nameplate
from fenwick.core.errors import OutsideDomainError
from fenwick.core.formulas.air import REFERENCE_DENSITY
from fenwick.core.formulas.fan import exponent_from_air_power, hole_plate_flow, misplaced_point
from fenwick.rig.format import fields as f
from fenwick.rig.format.problems import refuse

ROW_WORD = {"points": "point", "rows": "row"}  #: what an entry of a measured curve is called


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


def build_curve(part: NameplatePart | PointsPart | HolesPart, density: float) -> Curve:
    """The core's curve; `density` of the room's air, for a hole-plate test in it [kg/m^3]."""
    match part:
        case PointsPart():
            return MeasuredCurve.through([(point.flow_m3_s, point.suction_pa) for point in part.points])
        case HolesPart():
            return MeasuredCurve.through(part.points(density))
        case NameplatePart():
            exponent = 1.0 if part.exponent is None else part.exponent
            if part.air_watts is not None:
                exponent = exponent_from_air_power(part.air_watts, part.sealed_suction_pa, part.open_flow_m3_s)
            return Nameplate(part.sealed_suction_pa, part.open_flow_m3_s, exponent)
