"""Separators and bins in the rig file."""

from __future__ import annotations

from itertools import pairwise
from math import pi, sqrt
from typing import Literal, Self

from pydantic import Field, model_validator

from fenwick.rig import fields as f
from fenwick.rig.ends import EndPart
from fenwick.rig.problems import refuse

MaterialKind = Literal["hdpe", "pp", "abs", "polycarbonate", "acrylic", "steel", "plywood", "mdf", "fibre-drum"]
ClosureKind = Literal["screwed-gasket", "clamp-ring", "foam-strip", "snap-on", "latch-gasket", "loose"]


class ProfilePart(f.Part):
    """An inside diameter of the bin at a height."""

    height_m: f.Depth = Field(title="Height")
    d_m: f.Size = Field(title="Diameter")


class LedgePart(f.Part):
    """A step in the bin's wall."""

    height_m: f.Depth = Field(title="Height")
    depth_m: f.Depth = Field(title="Depth")


class StiffenerPart(f.Part):
    """A ring round the bin."""

    height_m: f.Depth = Field(title="Height")


class BinPart(f.Part):
    """The bin under a separator."""

    profile: tuple[ProfilePart, ...] = Field(min_length=2, max_length=20)
    ledges: tuple[LedgePart, ...] = Field((), max_length=20)
    wall_m: f.Wall | None = Field(None, title="Bin wall")
    material: MaterialKind | None = Field(None, title="Bin material")
    closure: ClosureKind = Field("clamp-ring", title="Lid closure")
    fill_height_m: f.Depth = Field(0.0, title="Dust height")
    leak_area_m2: f.GapArea | None = Field(None, title="Bin leak")
    stiffeners: tuple[StiffenerPart, ...] = Field((), max_length=20)
    nested: f.Flag = Field(False, title="Second bucket inside")

    @model_validator(mode="after")
    def _geometry(self) -> Self:
        if self.profile[0].height_m != 0.0:
            refuse("profile[0].height_m", "must be 0 m: the profile starts at the floor")
        for i, (low, high) in enumerate(pairwise(self.profile), start=1):
            if high.height_m <= low.height_m:
                refuse(
                    f"profile[{i}].height_m", "must be above the height before it: list the profile from the floor up"
                )
        top = self.profile[-1].height_m
        if self.fill_height_m > top:
            refuse("fill_height_m", "must not be above the bin's rim", top, at_most=True)
        marks = [(f"ledges[{i}].height_m", ledge.height_m) for i, ledge in enumerate(self.ledges)]
        marks += [(f"stiffeners[{i}].height_m", ring.height_m) for i, ring in enumerate(self.stiffeners)]
        for key, height in marks:
            if height > top:
                refuse(key, "must not be above the bin's rim", top, at_most=True)
        return self


class SlotPart(f.Part):
    """A perimeter slot in the disc."""

    width_m: f.Size = Field(title="Slot width")
    arc_deg: f.Turn = Field(title="Slot arc")
    start_deg: f.StartAngle = Field(0.0, title="Slot starts at")


class SlottedDiscPart(f.Part):
    """A flat chamber with a tangential inlet over a slotted disc, over a bin."""

    id: f.Id
    kind: Literal["separator"]
    name: f.Name | None = None
    type: Literal["slotted-disc"]
    chamber_d_m: f.Size = Field(title="Chamber wide")
    chamber_height_m: f.Size = Field(title="Chamber high")
    inlet_bore_m: f.Bore = Field(title="Inlet bore")
    outlet_d_m: f.Bore = Field(title="Outlet bore")
    outlet_length_m: f.Depth = Field(title="Outlet hangs")
    slots: tuple[SlotPart, ...] = Field(min_length=1, max_length=8)
    tilt_deg: f.Tilt = Field(0.0, title="Leans over")
    tool_end: EndPart | None = None
    vacuum_end: EndPart | None = None
    bin: BinPart

    @model_validator(mode="after")
    def _fits(self) -> Self:
        radius = self.chamber_d_m / 2.0
        if self.inlet_bore_m > self.chamber_height_m:
            refuse("inlet_bore_m", "must fit the chamber's height", self.chamber_height_m, at_most=True)
        widest = 2.0 * radius / sqrt(pi)  # the square of equal area must not pass the centre
        if self.inlet_bore_m > widest:
            refuse("inlet_bore_m", "must not reach past the chamber's centre", widest, at_most=True)
        if self.outlet_d_m >= self.chamber_d_m:
            refuse("outlet_d_m", "must be narrower than the chamber", self.chamber_d_m, at_most=True)
        if self.outlet_length_m > self.chamber_height_m:
            refuse("outlet_length_m", "must not reach below the disc", self.chamber_height_m, at_most=True)
        for i, slot in enumerate(self.slots):
            if slot.width_m >= radius:
                refuse(f"slots[{i}].width_m", "must be less than the chamber's radius", radius, at_most=True)
        if sum(slot.arc_deg for slot in self.slots) > 360.0 + 1e-9:
            refuse(f"slots[{len(self.slots) - 1}].arc_deg", "makes the slots longer than the whole circle of 360°")
        return self
