"""The bin under a separator in the rig file."""

from __future__ import annotations

from itertools import pairwise
from typing import Literal, Self

from pydantic import Field, model_validator

from fenwick.rig.format import fields as f
from fenwick.rig.format.problems import refuse

MaterialKind = Literal[
    "hdpe", "pp", "abs", "polycarbonate", "acrylic", "steel", "plywood", "mdf", "fibre-drum", "other"
]
PlateKind = Literal["hdpe", "pp", "abs", "polycarbonate", "acrylic", "steel", "plywood", "mdf", "fibre-drum"]
ClosureKind = Literal["screwed-gasket", "clamp-ring", "foam-strip", "snap-on", "latch-gasket", "cam-tray", "loose"]


class ProfilePart(f.Part):
    """The inside of the bin at a height: its diameter, or the two sides of a rectangle."""

    height_m: f.Depth = Field(title="Height")
    d_m: f.Size | None = Field(None, title="Diameter")
    width_m: f.Size | None = Field(None, title="Width")
    depth_m: f.Size | None = Field(None, title="Depth")

    @model_validator(mode="after")
    def _round_or_not(self) -> Self:
        if self.d_m is not None:
            for key in ("width_m", "depth_m"):
                if getattr(self, key) is not None:
                    refuse(key, "must be left out where the bin has a diameter, or the reverse")
        elif self.width_m is None and self.depth_m is None:
            refuse("d_m", "is missing: a bin has a diameter, or a width and a depth")
        elif self.width_m is None or self.depth_m is None:
            missing = "width_m" if self.width_m is None else "depth_m"
            refuse(missing, "is missing: a rectangular bin has a width and a depth")
        return self

    @property
    def across_m(self) -> float:
        """Its diameter, or its narrow side: what a round lid or disc has to fit [m]."""
        if self.d_m is not None:
            return self.d_m
        assert self.width_m is not None
        assert self.depth_m is not None
        return min(self.width_m, self.depth_m)

    @property
    def seen_m(self) -> float:
        """As wide as it is seen from the side [m]."""
        return self.d_m if self.d_m is not None else self.width_m or 0.0


class LedgePart(f.Part):
    """A step in the bin's wall."""

    height_m: f.Depth = Field(title="Height")
    depth_m: f.Depth = Field(title="Depth")


class StiffenerPart(f.Part):
    """A ring round the bin; its section, where it is known, says whether it is stiff enough."""

    height_m: f.Depth = Field(title="Height")
    material: PlateKind | None = Field(None, title="Ring of")
    outwards_m: f.Wall | None = Field(None, title="Ring wide")
    tall_m: f.Wall | None = Field(None, title="Ring tall")


class LidPart(f.Part):
    """A flat round lid."""

    material: PlateKind = Field(title="Lid of")
    thickness_m: f.Wall = Field(title="Lid thick")
    rim_held: f.Flag = Field(False, title="Rim held all round")
    stiffener_material: PlateKind | None = Field(None, title="Disc glued on")
    stiffener_m: f.Wall | None = Field(None, title="Disc thick")

    @model_validator(mode="after")
    def _whole(self) -> Self:
        if self.stiffener_material is not None and self.stiffener_m is None:
            refuse("stiffener_m", "is missing: it says how stiff the disc is")
        return self


class ReliefPart(f.Part):
    """A valve that lets air in before the bin folds."""

    opens_at_pa: f.Suction = Field(title="Valve opens at")
    area_m2: f.OpenArea = Field(title="Valve opening")


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
    nested: f.Flag = Field(False, title="Nested bucket")
    youngs_modulus_pa: f.Modulus | None = Field(None, title="Wall's E")
    poisson_ratio: f.Poisson | None = Field(None, title="Wall's ν")
    mass_kg: f.Heap | None = Field(None, title="Bin weighs")
    lid: LidPart | None = None
    relief: ReliefPart | None = None
    ribs: Literal["none", "rings", "upright"] = Field("none", title="Ribs")
    sight: Literal["clear", "window", "lamp", "opaque"] | None = Field(None, title="Fill seen by")
    of_shop: f.Id | None = Field(None, title="Which of the shop's")

    @property
    def is_round(self) -> bool:
        """Whether its walls are round."""
        return self.profile[0].d_m is not None

    @model_validator(mode="after")
    def _one_kind_of_wall(self) -> Self:
        for i, point in enumerate(self.profile):
            if (point.d_m is not None) != self.is_round:
                missing = "d_m" if self.is_round else "width_m"
                what = "a diameter" if self.is_round else "a width and a depth"
                refuse(f"profile[{i}].{missing}", f"is missing: at its floor this bin has {what}")
        return self

    @model_validator(mode="after")
    def _material_has_data(self) -> Self:
        for key in ("youngs_modulus_pa", "poisson_ratio"):
            if self.material == "other" and getattr(self, key) is None:
                refuse(key, "is missing: without it nobody can say when a bin of this material folds")
        return self

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
