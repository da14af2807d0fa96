"""The shop file."""

from __future__ import annotations

from typing import Annotated, Any, Literal, Self

from pydantic import Field, Strict, model_validator

from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.components.dust import DUSTS
from fenwick.rig.format import fields as f
from fenwick.rig.format.elements import PortPart, WallKind
from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.model import SitePart, VacuumPart
from fenwick.rig.format.problems import refuse
from fenwick.shop.making import CuttingTool, OwnedBin, OwnedPrice, OwnedSheet, OwnedTube, SalvagedPart

FORMAT, VERSION = "fenwick-shop", 1
MONEY = "€"  #: until the shop says another
Metres = Annotated[float, Strict(), Field(ge=0, le=50.0), f.Measure("length")]
RoomLength = Annotated[float, Strict(), Field(gt=0.2, le=50.0), f.Measure("length")]
CordLength = Annotated[float, Strict(), Field(ge=0, le=50.0), f.Measure("length")]
Volts = Annotated[float, Strict(), Field(ge=50, le=480.0), f.Measure("voltage")]
Hours = Annotated[float, Strict(), Field(ge=0, le=168.0), f.Measure("number")]
Seconds = Annotated[float, Strict(), Field(ge=0, le=600.0), f.Measure("seconds")]
Times = Annotated[float, Strict(), Field(gt=0, le=10000.0), f.Measure("number")]
Turns = Annotated[float, Strict(), Field(ge=0, le=100.0), f.Measure("number")]


class PlacePart(f.Part):
    """Where something stands: its middle, from the room's corner at the lower left."""

    x_m: Metres = Field(title="From the left")
    y_m: Metres = Field(title="From the front")


class RoomPart(f.Part):
    """The room, a rectangle."""

    width_m: RoomLength = Field(4.5, title="Room wide")
    depth_m: RoomLength = Field(4.0, title="Room deep")
    height_m: RoomLength = Field(2.4, title="Room high")
    air_changes_per_h: Turns | None = Field(None, title="Air changes an hour")
    filter_flow_m3_s: f.FlowFromZero | None = Field(None, title="Room filter cleans")

    @property
    def volume(self) -> float:
        """[m^3]"""
        return self.width_m * self.depth_m * self.height_m


class CircuitPart(f.Part):
    """A circuit and the outlet it ends in."""

    id: f.Id
    name: f.Name = Field(title="Circuit")
    rating_a: f.Current = Field(title="Breaker")
    switch_a: f.Current | None = Field(None, title="Switch or outlet")
    run_on_s: Seconds | None = Field(None, title="Runs on")
    voltage_v: Volts = Field(230.0, title="Voltage")
    place: PlacePart | None = None


class OwnedVacuum(VacuumPart):
    """A vacuum of the shop."""

    id: f.Id
    cord_m: CordLength | None = Field(None, title="Cord")
    circuit: f.Id | None = Field(None, title="Circuit")
    place: PlacePart | None = None


class OwnedTool(f.Part):
    """A tool with its ports."""

    id: f.Id
    kind: str | None = Field(None, title="Kind", json_schema_extra={"enum": [*TOOLS]})
    dust: str = Field("saw", title="Dust", json_schema_extra={"enum": [*DUSTS]})
    current_a: f.Current | None = Field(None, title="Current")
    circuit: f.Id | None = Field(None, title="Circuit")
    port_height_m: Metres = Field(0.8, title="Port above floor")
    travel_m: Metres = Field(0.0, title="Head travels")
    swing_m: Metres = Field(0.0, title="Head swings out")
    faces: Literal["front", "back", "left", "right"] = Field("front", title="It faces the")
    place: PlacePart | None = None
    ports: tuple[PortPart, ...] = Field(min_length=1, max_length=4)

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.dust not in DUSTS:
            refuse("dust", f"must be one of {', '.join(DUSTS)}")
        if self.kind is not None and self.kind not in TOOLS:
            refuse("kind", f"must be one of {', '.join(TOOLS)}")
        return self


class OwnedHose(f.Part):
    """A hose in the drawer."""

    id: f.Id
    name: f.Name = Field(title="Hose")
    bore_m: f.Bore = Field(title="Bore")
    length_m: f.Length = Field(title="Length")
    wall: WallKind = Field("wire-helix", title="Wall")
    one_end: EndPart | None = None
    other_end: EndPart | None = None


class OwnedFitting(f.Part):
    """An adapter in the drawer, either way round."""

    id: f.Id
    name: f.Name = Field(title="Fitting")
    one_bore_m: f.Bore = Field(title="One bore")
    other_bore_m: f.Bore = Field(title="Other bore")
    length_m: f.Taper = Field(0.0, title="Taper length")


class JobPart(f.Part):
    """Work that comes back every week."""

    id: f.Id
    name: f.Name = Field(title="Job")
    tool: f.Id = Field(title="Tool")
    work: Literal["time", "planed", "cuts"] = Field("time", title="Counted by")
    hours_a_week: Hours | None = Field(None, title="Hours a week")
    times_a_week: Times | None = Field(None, title="Times a week")
    width_m: f.Size | None = Field(None, title="Wide, or kerf")
    depth_m: f.Size | None = Field(None, title="Taken off, or thick")
    length_m: f.Length | None = Field(None, title="Long")
    wood_kg_m3: f.Density | None = Field(None, title="Wood")

    @model_validator(mode="after")
    def _whole(self) -> Self:
        needed = ("hours_a_week",) if self.work == "time" else ("times_a_week", "width_m", "depth_m", "length_m")
        for key in needed:
            if getattr(self, key) is None:
                refuse(key, "is missing: it says how much dust this job makes")
        return self


class FurniturePart(f.Part):
    """Something hoses go round; or, as a walkway, floor that people cross."""

    id: f.Id
    name: f.Name = Field(title="Furniture")
    width_m: RoomLength = Field(1.5, title="Wide")
    depth_m: RoomLength = Field(0.6, title="Deep")
    walked: f.Flag = Field(False, title="A walkway")
    wheels: f.Flag = Field(False, title="On wheels")
    place: PlacePart


class ShopFile(f.Part):
    """One shop: `format` fenwick-shop, version 1."""

    format: Literal["fenwick-shop"]
    version: Literal[1]
    name: f.Name = Field("My shop", title="Shop")
    money: Annotated[str, Strict(), Field(max_length=4)] = Field(MONEY, title="Money")
    site: SitePart = Field(default_factory=SitePart)
    room: RoomPart = Field(default_factory=RoomPart)
    separator_place: PlacePart | None = None
    circuits: tuple[CircuitPart, ...] = Field((), max_length=30)
    vacuums: tuple[OwnedVacuum, ...] = Field((), max_length=30)
    tools: tuple[OwnedTool, ...] = Field((), max_length=60)
    hoses: tuple[OwnedHose, ...] = Field((), max_length=100)
    fittings: tuple[OwnedFitting, ...] = Field((), max_length=200)
    furniture: tuple[FurniturePart, ...] = Field((), max_length=60)
    jobs: tuple[JobPart, ...] = Field((), max_length=60)
    bins: tuple[OwnedBin, ...] = Field((), max_length=60)
    sheets: tuple[OwnedSheet, ...] = Field((), max_length=100)
    tubes: tuple[OwnedTube, ...] = Field((), max_length=100)
    cutting: tuple[CuttingTool, ...] = Field((), max_length=100)
    salvaged: tuple[SalvagedPart, ...] = Field((), max_length=60)
    prices: tuple[OwnedPrice, ...] = Field((), max_length=60)

    @model_validator(mode="after")
    def _fits_together(self) -> Self:
        seen: set[str] = set()
        for group in GROUPS:
            for i, item in enumerate(getattr(self, group)):
                if item.id in seen:
                    refuse(f"{group}[{i}].id", f"“{item.id}” is taken: every id in a shop must differ")
                seen.add(item.id)
        circuits, tools = {c.id for c in self.circuits}, {t.id for t in self.tools}
        for group, key, known in (
            ("vacuums", "circuit", circuits),
            ("tools", "circuit", circuits),
            ("jobs", "tool", tools),
        ):
            for i, item in enumerate(getattr(self, group)):
                if getattr(item, key) is not None and getattr(item, key) not in known:
                    refuse(f"{group}[{i}].{key}", f"names no {key} of this shop")
        for path, place in places(self):
            if place.x_m > self.room.width_m:
                refuse(f"{path}.x_m", "must be within the room", self.room.width_m, at_most=True)
            if place.y_m > self.room.depth_m:
                refuse(f"{path}.y_m", "must be within the room", self.room.depth_m, at_most=True)
        return self


def money_sign(shop: ShopFile | None) -> str:
    """The sign of a shop's money; the usual one where the shop cannot be read."""
    return MONEY if shop is None else shop.money


GROUPS = (
    "circuits", "vacuums", "tools", "hoses", "fittings", "furniture", "jobs", "bins", "sheets", "tubes", "cutting",
    "salvaged", "prices",
)  # fmt: skip


def places(shop: ShopFile) -> list[tuple[str, PlacePart]]:
    """(path, place) of everything that stands somewhere."""
    found: list[tuple[str, Any]] = [("separator_place", shop.separator_place)]
    for group in ("circuits", "vacuums", "tools", "furniture"):
        found += [(f"{group}[{i}].place", item.place) for i, item in enumerate(getattr(shop, group))]
    return [(path, place) for path, place in found if place is not None]
