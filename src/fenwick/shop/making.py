"""What the shop has to make things from and with: bins, sheets, tubes, cutting tools, salvaged parts."""

from __future__ import annotations

from typing import Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.dust import DUSTS, HELD_BESIDES
from fenwick.core.making.shopping import PRICES
from fenwick.rig.format import fields as f
from fenwick.rig.format.bin import ClosureKind, PlateKind
from fenwick.rig.format.making import SheetKind, TubeKind
from fenwick.rig.format.problems import refuse

CuttingKind = Literal["hole-saw", "cutter", "router", "trammel", "jigsaw", "band-saw", "drill", "shears"]
SalvagedKind = Literal["tank", "head", "fan", "filter", "hose", "other"]


class OwnedBin(f.Part):
    """A bin that stands about."""

    id: f.Id
    name: f.Name = Field(title="Bin")
    top_d_m: f.Size = Field(title="Wide at the top")
    bottom_d_m: f.Size = Field(title="Wide at the floor")
    height_m: f.Size = Field(title="High")
    wall_m: f.Wall | None = Field(None, title="Its wall")
    material: PlateKind | None = Field(None, title="Of")
    closure: ClosureKind | None = Field(None, title="Lid closure")


class OwnedSheet(f.Part):
    """A sheet or an off-cut."""

    id: f.Id
    material: SheetKind = Field(title="Sheet of")
    thickness_m: f.Wall = Field(title="Thick")
    width_m: f.Size = Field(title="Wide")
    height_m: f.Size = Field(title="Long")
    price: f.Price | None = Field(None, title="Price")


class OwnedTube(f.Part):
    """A tube or a rest of one."""

    id: f.Id
    material: TubeKind = Field("pvc", title="Tube of")
    bore_m: f.Bore = Field(title="Bore")
    wall_m: f.Wall = Field(0.002, title="Its wall")
    length_m: f.Length = Field(title="Long")


class CuttingTool(f.Part):
    """What cuts holes, edges and grooves."""

    id: f.Id
    kind: CuttingKind = Field(title="Cuts with")
    d_m: f.HoleBore | None = Field(None, title="Across")
    depth_m: f.Wall | None = Field(None, title="Cuts deep")

    @model_validator(mode="after")
    def _has_its_size(self) -> Self:
        if self.kind in ("hole-saw", "cutter") and self.d_m is None:
            refuse("d_m", "is missing: it says which hole or groove it cuts")
        return self


class OwnedPrice(f.Part):
    """What the shop pays for something, where it knows better than a rule of thumb."""

    id: f.Id
    of: str = Field(title="Price of", json_schema_extra={"enum": [*PRICES]})
    price: f.Price = Field(title="Price")

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.of not in PRICES:
            refuse("of", f"must be one of {', '.join(PRICES)}")
        return self


class SalvagedPart(f.Part):
    """Something taken off an old machine; what was looked at before it is trusted."""

    id: f.Id
    name: f.Name = Field(title="Part")
    kind: SalvagedKind = Field(title="Kind")
    cord_fine: f.Flag | None = Field(None, title="Cord and plug whole")
    brushes_fine: f.Flag | None = Field(None, title="Brushes long enough")
    no_cracks: f.Flag | None = Field(None, title="No cracks")
    last_held: str | None = Field(None, title="It last held", json_schema_extra={"enum": [*DUSTS, *HELD_BESIDES]})

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.last_held is not None and self.last_held not in (*DUSTS, *HELD_BESIDES):
            refuse("last_held", f"must be one of {', '.join((*DUSTS, *HELD_BESIDES))}")
        return self
