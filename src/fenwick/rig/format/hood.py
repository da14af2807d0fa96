"""The hood at a tool port in the rig file."""

from __future__ import annotations

from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from fenwick.core.catalogue.tools import ToolClass
from fenwick.core.components.hood import Enclosure, ExtraFan, FloorNozzle, Hood, OpenHood, Opening, SlotHood
from fenwick.core.components.vacuum import FilterMedium
from fenwick.rig.format import fields as f
from fenwick.rig.format.box import BoxPart
from fenwick.rig.format.curve import CurvePart, build_curve
from fenwick.rig.format.problems import refuse

Release = Literal["still", "slow", "active", "fast"]


class ExtraFanPart(f.Part):
    """A fan of its own at the hood, which blows through its own filter back into the room."""

    flow_m3_s: f.Flow | None = Field(None, title="Extra fan moves")
    curve: CurvePart | None = None
    bore_m: f.Bore | None = Field(None, title="Fan duct")
    medium: Literal["paper", "hepa", "bag"] | None = Field(None, title="Its filter")
    area_m2: f.FilterArea = Field(0.5, title="Its filter area")
    current_a: f.Current | None = Field(None, title="Its current")
    motor: Literal["in-the-air", "outside"] | None = Field(None, title="Its motor")
    wiring: f.Wiring | None = Field(None, title="Its wiring")

    @model_validator(mode="after")
    def _moves_air(self) -> Self:
        if self.flow_m3_s is None and self.curve is None:
            refuse("flow_m3_s", "is missing: an extra fan has its flow, or a curve")
        if self.flow_m3_s is not None and self.curve is not None:
            refuse("flow_m3_s", "must be left out where the fan has a curve: its flow follows")
        return self


class AnyHood(f.Part):
    """What every hood has."""

    release: Release = Field(title="Dust leaves")
    thrown_share: f.Share = Field(title="Thrown at port")
    thrown_bore_m: f.Bore | None = Field(None, title="Thrown at a mouth of")
    rebound: f.Flag = Field(False, title="Plate behind the tool")
    extra_fan: ExtraFanPart | None = None


class OpenHoodPart(AnyHood):
    """A plain or flanged opening that faces the dust."""

    kind: Literal["opening"]
    distance_m: f.Distance = Field(title="Dust distance")


class BuiltInPart(AnyHood):
    """A port built into the machine, whose casing is its flange."""

    kind: Literal["built-in"]
    distance_m: f.Distance = Field(title="Dust distance")


class SlotHoodPart(AnyHood):
    """A long narrow slot beside the dust."""

    kind: Literal["slot"]
    distance_m: f.Distance = Field(title="Dust distance")
    length_m: f.Size = Field(title="Slot long")
    width_m: f.Size = Field(title="Slot wide")
    flanged: f.Flag = Field(False, title="Flange along it")


class OpeningPart(f.Part):
    """What a box is open by, in one way of working."""

    name: f.Name = Field(title="Way of working")
    area_m2: f.OpenArea = Field(title="Open area")
    share: f.Often = Field(1.0, title="How often")


class EnclosurePart(AnyHood):
    """A box around the tool, open where the work goes through."""

    kind: Literal["enclosure"]
    openings: tuple[OpeningPart, ...] = Field((), max_length=8)
    box: BoxPart | None = None

    @property
    def ways(self) -> tuple[Opening, ...]:
        """What it is open by, as it was said or as its sizes have it."""
        if self.box is not None:
            return self.box.ways()
        return tuple(Opening(one.name, one.area_m2, one.share) for one in self.openings)

    @model_validator(mode="after")
    def _opens(self) -> Self:
        if self.box is not None:
            if self.openings:
                refuse("openings", "must be left out where the box has sizes: they follow from its passages and doors")
            return self
        if not self.openings:
            refuse("openings", "must hold at least one: a box with no opening draws no air")
        if not any(way.share > 0.0 for way in self.openings):
            refuse("openings[0].share", "must be above 0 in at least one way of working")
        return self


class FloorNozzlePart(AnyHood):
    """A nozzle pushed over the floor."""

    kind: Literal["floor"]
    width_m: f.Size = Field(title="Nozzle wide")
    gap_m: f.Bore = Field(title="Gap over the floor")


HoodPart = Annotated[
    OpenHoodPart | BuiltInPart | SlotHoodPart | EnclosurePart | FloorNozzlePart, Field(discriminator="kind")
]
HOOD_KINDS = ("built-in", "opening", "slot", "enclosure", "floor")


def build_hood(part: AnyHood, density: float) -> Hood:
    """The core's hood; `density` of the room's air [kg/m^3]."""
    common: dict[str, Any] = {
        "release": part.release,
        "thrown_share": part.thrown_share,
        "thrown_bore": part.thrown_bore_m,
        "rebound": part.rebound,
        "extra_fan": _extra_fan(part.extra_fan, density) if part.extra_fan else None,
    }
    match part:
        case OpenHoodPart():
            return OpenHood(distance=part.distance_m, **common)
        case BuiltInPart():
            return OpenHood(distance=part.distance_m, built_in=True, **common)
        case SlotHoodPart():
            return SlotHood(
                distance=part.distance_m, length=part.length_m, width=part.width_m, flanged=part.flanged, **common
            )
        case EnclosurePart():
            return Enclosure(ways=part.ways, **common)
        case FloorNozzlePart():
            return FloorNozzle(width=part.width_m, gap=part.gap_m, **common)
    raise TypeError(f"no such hood: {type(part).__name__}")


def _extra_fan(part: ExtraFanPart, density: float) -> ExtraFan:
    return ExtraFan(
        part.flow_m3_s,
        FilterMedium(part.medium, part.area_m2) if part.medium else None,
        build_curve(part.curve, density) if part.curve else None,
        part.bore_m,
        part.current_a,
        None if part.motor is None else part.motor == "in-the-air",
        part.wiring,
    )


BOXED = 3.0  #: open area that a box begins with, in squares of the port's bore [-]


def boxed_area(bore: float) -> float:
    """Open area that a box begins with [m^2]; `bore` of the port [m]."""
    return round(BOXED * bore**2, 5)


def begun_hood(kind: str, now: AnyHood | None, bore: float) -> dict[str, Any] | None:
    """What a change of kind begins as, with all that the old hood had in common; None takes the hood away."""
    if kind not in HOOD_KINDS:
        return None
    common: dict[str, Any] = {"release": "active", "thrown_share": 0.5} if now is None else _common(now)
    distance = getattr(now, "distance_m", None) or 0.05
    own: dict[str, dict[str, Any]] = {
        "opening": {"distance_m": distance},
        "built-in": {"distance_m": distance},
        "slot": {"distance_m": distance, "length_m": 0.3, "width_m": 0.02},
        "enclosure": {"openings": [{"name": "In use", "area_m2": boxed_area(bore), "share": 1.0}]},
        "floor": {"width_m": 0.25, "gap_m": 0.005},
    }
    return {"kind": kind} | common | own[kind]


def generic_hood(tool: ToolClass) -> dict[str, Any]:
    """The hood that a kind of tool comes with."""
    own: dict[str, dict[str, Any]] = {
        "opening": {"distance_m": tool.distance},
        "built-in": {"distance_m": tool.distance},
        "enclosure": {"openings": [{"name": "In use", "area_m2": tool.open_area, "share": 1.0}]},
        "floor": {"width_m": 0.25, "gap_m": 0.005},
    }
    thrown = {"thrown_share": tool.thrown_share, "thrown_bore_m": tool.port_bore}
    return {"kind": tool.hood, "release": tool.release} | thrown | own[tool.hood]


def _common(hood: AnyHood) -> dict[str, Any]:
    return {key: value for key, value in hood.model_dump(mode="json").items() if key in AnyHood.model_fields}
