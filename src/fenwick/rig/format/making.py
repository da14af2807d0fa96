"""What a separator is to be made from, in the rig file; what is left out is a rule of thumb."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, Strict

from fenwick.rig.format import fields as f

Hand = Literal["right", "left"]
SheetKind = Literal[
    "plywood",
    "mdf",
    "chipboard",
    "steel",
    "hdpe",
    "pp",
    "abs",
    "pvc",
    "polycarbonate",
    "acrylic",
    "petg",
    "board",
    "fibre-drum",
]
TubeKind = Literal["pvc", "abs", "pp", "hdpe", "steel", "polycarbonate", "acrylic"]
SealantKind = Literal["hybrid", "silicone", "epoxy-fast", "epoxy-slow", "hot-melt", "construction", "pva", "cement"]
Bevel = Annotated[float, Strict(), Field(ge=0, le=60.0), f.Measure("angle")]


class MakePart(f.Part):
    """What it is made from, and which way round."""

    swirl: Hand | None = Field(None, title="Air turns")
    plate: SheetKind | None = Field(None, title="Discs and rings of")
    plate_m: f.Wall | None = Field(None, title="Their sheet")
    wall: SheetKind | None = Field(None, title="Wall rolled from")
    wall_m: f.Wall | None = Field(None, title="Its sheet")
    tube: TubeKind | None = Field(None, title="Tubes of")
    tube_wall_m: f.Wall | None = Field(None, title="Their wall")
    overlap_m: f.Size | None = Field(None, title="Overlap at the seam")
    groove_m: f.Wall | None = Field(None, title="Groove deep")
    stub_m: f.Size | None = Field(None, title="Stub for a hose")
    bevel_deg: Bevel = Field(0.0, title="Slot ends bevelled")
    sealant: SealantKind | None = Field(None, title="Sealed with")
