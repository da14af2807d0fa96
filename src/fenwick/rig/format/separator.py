"""Separators in the rig file, one model for each type."""

from __future__ import annotations

from math import pi, sqrt
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.bins import Bin
from fenwick.core.components.separator import square_side
from fenwick.rig.format import fields as f
from fenwick.rig.format.bin import BinPart, PlateKind
from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.making import MakePart
from fenwick.rig.format.prices import price_range
from fenwick.rig.format.problems import refuse
from fenwick.rig.format.stand import StandPart

DISC_SLACK = 0.0005  #: a hung disc may be that much wider than the bin was measured [m]


class ClaimPart(f.Part):
    """What a seller prints about a bought separator, kept apart from what is modelled."""

    flow_m3_s: f.Flow | None = Field(None, title="Claimed airflow")
    suction_pa: f.Suction | None = Field(None, title="Claimed suction")
    efficiency: f.Share | None = Field(None, title="Claimed to keep")
    bolt_circle_d_m: f.Size | None = Field(None, title="Bolt circle")
    bolts: f.Bolts | None = Field(None, title="Bolts")
    bolt_d_m: f.HoleBore | None = Field(None, title="Bolt hole")


class SeparatorPart(f.Part):
    """What every type has: a bin below it, a hose on either side."""

    id: f.Id
    kind: Literal["separator"]
    name: f.Name | None = None
    tilt_deg: f.Tilt = Field(0.0, title="Leans over")
    outlet_d_m: f.Bore = Field(title="Outlet bore")
    outlet_length_m: f.Depth = Field(title="Outlet hangs")
    price: f.Price | None = Field(None, title="Separator price")
    price_to: f.Price | None = Field(None, title="Separator price, up to")
    hoses_swapped: f.Flag = Field(False, title="Hoses swapped")
    claim: ClaimPart | None = None
    body_material: PlateKind | None = Field(None, title="Body bent from")
    body_m: f.Wall | None = Field(None, title="Body's sheet")
    stand: StandPart | None = None
    tool_end: EndPart | None = None
    vacuum_end: EndPart | None = None
    make: MakePart | None = None
    bin: BinPart

    @model_validator(mode="after")
    def _range(self) -> Self:
        price_range("price_to", self.price, self.price_to)
        return self

    @property
    def inlet(self) -> tuple[float, float]:
        """Height and width of the inlet as it is drawn [m]."""
        raise NotImplementedError


def at_most(key: str, value: float, limit: float, rule: str) -> None:
    """Refuse a value above a limit that its neighbours set."""
    if value > limit * (1.0 + 1e-9):
        refuse(key, rule, limit, at_most=True)


def narrower(key: str, value: float, limit: float, rule: str) -> None:
    """Refuse a value that reaches a limit."""
    if value >= limit:
        refuse(key, rule, limit, at_most=True)


class SlotPart(f.Part):
    """A perimeter slot in the disc."""

    width_m: f.Size = Field(title="Slot width")
    arc_deg: f.Turn = Field(title="Slot arc")
    start_deg: f.StartAngle = Field(0.0, title="Slot starts at")


class ChamberPart(SeparatorPart):
    """A flat chamber with a tangential inlet over a slotted disc."""

    chamber_d_m: f.Size = Field(title="Chamber wide")
    chamber_height_m: f.Size = Field(title="Chamber high")
    inlet_bore_m: f.Bore = Field(title="Inlet bore")
    inlet_height_m: f.Size | None = Field(None, title="Inlet high")
    inlet_width_m: f.Size | None = Field(None, title="Inlet wide")
    slots: tuple[SlotPart, ...] = Field(min_length=1, max_length=8)

    @property
    def inlet(self) -> tuple[float, float]:
        """Of a rectangle its sides; round: its bore, twice [m]."""
        if self.inlet_height_m is not None and self.inlet_width_m is not None:
            return self.inlet_height_m, self.inlet_width_m
        return self.inlet_bore_m, self.inlet_bore_m

    @model_validator(mode="after")
    def _fits(self) -> Self:
        radius = self.chamber_d_m / 2.0
        if self.inlet_height_m is not None and self.inlet_width_m is not None:
            at_most("inlet_height_m", self.inlet_height_m, self.chamber_height_m, "must fit the chamber's height")
            at_most("inlet_width_m", self.inlet_width_m, radius, "must not reach past the chamber's centre")
        elif self.inlet_height_m is not None or self.inlet_width_m is not None:
            missing = "inlet_width_m" if self.inlet_width_m is None else "inlet_height_m"
            refuse(missing, "is missing: a rectangular inlet has a height and a width")
        else:
            at_most("inlet_bore_m", self.inlet_bore_m, self.chamber_height_m, "must fit the chamber's height")
            widest = 2.0 * radius / sqrt(pi)  # the square of equal area must not pass the centre
            at_most("inlet_bore_m", self.inlet_bore_m, widest, "must not reach past the chamber's centre")
        narrower("outlet_d_m", self.outlet_d_m, self.chamber_d_m, "must be narrower than the chamber")
        at_most("outlet_length_m", self.outlet_length_m, self.chamber_height_m, "must not reach below the disc")
        for i, slot in enumerate(self.slots):
            narrower(f"slots[{i}].width_m", slot.width_m, radius, "must be less than the chamber's radius")
        if sum(slot.arc_deg for slot in self.slots) > 360.0 + 1e-9:
            refuse(f"slots[{len(self.slots) - 1}].arc_deg", "makes the slots longer than the whole circle of 360°")
        return self


class SlottedDiscPart(ChamberPart):
    """A disc with perimeter slots: a chamber on top of the bin, or hung inside it."""

    type: Literal["slotted-disc"]
    hung: f.Flag = Field(False, title="Disc hung")
    inlet_style: Literal["tangential", "elbow"] = Field("tangential", title="Air comes in")
    outlet_aim: Literal["opposed", "centre"] = Field("centre", title="Outlet aims")
    elbow_reach_m: f.Depth | None = Field(None, title="Elbow reaches down")

    @model_validator(mode="after")
    def _elbows(self) -> Self:
        if self.inlet_style == "tangential" and self.elbow_reach_m is not None:
            refuse("elbow_reach_m", "must be left out: a tangential inlet has no elbow")
        if self.inlet_style == "elbow" and self.inlet_height_m is not None:
            refuse("inlet_style", "must be tangential where the inlet is a rectangle")
        return self

    @model_validator(mode="after")
    def _hangs(self) -> Self:
        if self.hung:
            top = self.bin.profile[-1].height_m
            narrower("chamber_height_m", self.chamber_height_m, top, "must leave the disc above the bin's floor")
            there = self.width_at(top - self.chamber_height_m)
            at_most(
                "chamber_d_m",
                self.chamber_d_m,
                there + DISC_SLACK,
                f"must fit the bin where the disc hangs, {1e3 * self.chamber_height_m:.0f} mm below the rim",
            )
        return self

    def width_at(self, height: float) -> float:
        """Inside width of the bin at a height [m]."""
        return float(_profile(self.bin).narrow_at(height))


class OneBodyPart(ChamberPart):
    """The vacuum's own head on a deck over the chamber; a drop pipe with a side window brings the dust in."""

    type: Literal["one-body"]
    window_area_m2: f.GapArea | None = Field(None, title="Window of the drop pipe")
    deck_leak_m2: f.GapArea = Field(0.0, title="Leak at the deck")
    head_d_m: f.Size | None = Field(None, title="Vacuum's head wide")
    head_height_m: f.Size | None = Field(None, title="Vacuum's head high")


class CyclonePart(SeparatorPart):
    """A conical cyclone on the lid of a bin; its inlet a rectangle, or a round hose."""

    type: Literal["cyclone"]
    body_d_m: f.Size = Field(title="Body wide")
    inlet_height_m: f.Size | None = Field(None, title="Inlet high")
    inlet_width_m: f.Size | None = Field(None, title="Inlet wide")
    inlet_bore_m: f.Bore | None = Field(None, title="Round inlet")
    cylinder_height_m: f.Size = Field(title="Cylinder high")
    total_height_m: f.Size = Field(title="Cyclone high")
    dust_outlet_d_m: f.Bore = Field(title="Dust outlet")
    finish: Literal["smooth", "shop-built"] = Field("shop-built", title="Finish")

    @property
    def inlet(self) -> tuple[float, float]:
        """Height and width; a round inlet counts as the square of equal area [m]."""
        if self.inlet_bore_m is not None:
            side = float(square_side(self.inlet_bore_m))
            return side, side
        assert self.inlet_height_m is not None
        assert self.inlet_width_m is not None
        return self.inlet_height_m, self.inlet_width_m

    @model_validator(mode="after")
    def _fits(self) -> Self:
        self._one_inlet()
        height, width = self.inlet
        round_one = self.inlet_bore_m is not None
        key = "inlet_bore_m" if round_one else "inlet_width_m"
        widest = self.body_d_m / 2.0 / (sqrt(pi) / 2.0 if round_one else 1.0)
        at_most(key, self.inlet_bore_m or width, widest, "must not reach past the body's centre, where the outlet is")
        tall = self.cylinder_height_m / (sqrt(pi) / 2.0 if round_one else 1.0)
        key = "inlet_bore_m" if round_one else "inlet_height_m"
        at_most(key, self.inlet_bore_m or height, tall, "must fit the cylinder's height")
        narrower("outlet_d_m", self.outlet_d_m, self.body_d_m, "must be narrower than the body")
        at_most("dust_outlet_d_m", self.dust_outlet_d_m, self.body_d_m, "must not be wider than the body")
        at_most("cylinder_height_m", self.cylinder_height_m, self.total_height_m, "must not be above the whole height")
        narrower(
            "outlet_length_m", self.outlet_length_m, self.total_height_m, "must be shorter than the cyclone is high"
        )
        return self

    @model_validator(mode="after")
    def _bolts_clear_the_hole(self) -> Self:
        circle = self.claim.bolt_circle_d_m if self.claim else None
        if circle is not None and circle <= self.dust_outlet_d_m:
            refuse("claim.bolt_circle_d_m", "must be wider than the dust outlet it goes round")
        return self

    def _one_inlet(self) -> None:
        rectangle = (self.inlet_height_m, self.inlet_width_m)
        if self.inlet_bore_m is not None:
            if rectangle != (None, None):
                refuse("inlet_bore_m", "must be left out where the inlet's height and width are given, or the reverse")
        elif self.inlet_width_m is None:
            refuse("inlet_width_m", "is missing: an inlet has a height and a width, or a round bore")
        elif self.inlet_height_m is None:
            refuse("inlet_height_m", "is missing: an inlet has a height and a width, or a round bore")


class OpenBinPart(SeparatorPart):
    """An inlet and an outlet over a bin without a disc."""

    inlet_bore_m: f.Bore = Field(title="Inlet bore")

    @property
    def inlet(self) -> tuple[float, float]:
        """Round: its bore, twice [m]."""
        return self.inlet_bore_m, self.inlet_bore_m

    @model_validator(mode="after")
    def _fits(self) -> Self:
        top = self.bin.profile[-1]
        at_most("inlet_bore_m", self.inlet_bore_m, top.across_m / sqrt(pi), "must not reach past the bin's centre")
        at_most("inlet_bore_m", self.inlet_bore_m, top.height_m, "must fit the bin's height")
        narrower("outlet_d_m", self.outlet_d_m, top.across_m, "must be narrower than the bin")
        narrower("outlet_length_m", self.outlet_length_m, top.height_m, "must end above the bin's floor")
        return self


class ElbowLidPart(OpenBinPart):
    """Two elbows through a lid, without a disc."""

    type: Literal["elbow-lid"]
    outlet_aim: Literal["opposed", "centre"] = Field("centre", title="Outlet aims")


class RimInletPart(OpenBinPart):
    """A tall bin with a tangential inlet at its rim, without a disc."""

    type: Literal["rim-inlet"]


AnySeparatorPart = Annotated[
    CyclonePart | SlottedDiscPart | ElbowLidPart | RimInletPart | OneBodyPart, Field(discriminator="type")
]


class WetStagePart(f.Part):
    """Air forced through water, behind a dry stage; for steel and fibre dust alone."""

    id: f.Id
    kind: Literal["wet-stage"]
    name: f.Name | None = None
    throat_d_m: f.Bore = Field(title="Throat")
    immersion_m: f.Depth = Field(title="Dips")
    vessel_d_m: f.Size = Field(title="Vessel wide")
    water_kg: f.Water = Field(title="Water")
    outlet_height_m: f.Size | None = Field(None, title="Outlet over floor")
    make: MakePart | None = None

    @model_validator(mode="after")
    def _fits(self) -> Self:
        narrower("throat_d_m", self.throat_d_m, self.vessel_d_m, "must be narrower than the vessel")
        return self


def _profile(part: BinPart) -> Bin:
    return Bin(tuple(point.height_m for point in part.profile), tuple(point.across_m for point in part.profile))
