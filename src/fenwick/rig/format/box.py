"""A box round a tool in the rig file; what it is open by follows from its passages and doors."""

from __future__ import annotations

from typing import Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.box import SIDES, BoxDoor, HoodBox, Passage
from fenwick.core.components.hood import Opening
from fenwick.core.rules import rule
from fenwick.rig.format import fields as f
from fenwick.rig.format.problems import refuse

BoxSide = Literal["front", "back", "left", "right", "top"]
assert BoxSide.__args__ == SIDES  # type: ignore[attr-defined]


class PassagePart(f.Part):
    """What the work goes through; it stays open."""

    side: BoxSide = Field("front", title="Passage in")
    width_m: f.Size = Field(title="Passage wide")
    height_m: f.Size = Field(title="Passage high")


class DoorPart(f.Part):
    """A door."""

    name: f.Name = Field("Door open", title="Way of working")
    side: BoxSide = Field("front", title="Door in")
    width_m: f.Size = Field(title="Door wide")
    height_m: f.Size = Field(title="Door high")
    share: f.Often = Field(0.0, title="Stands open")


class BoxPart(f.Part):
    """The sizes of a box, inside."""

    width_m: f.Size = Field(title="Box wide")
    depth_m: f.Size = Field(title="Box deep")
    height_m: f.Size = Field(title="Box high")
    gap_m: f.Depth | None = Field(None, title="Gap round a door")
    passages: tuple[PassagePart, ...] = Field((), max_length=6)
    doors: tuple[DoorPart, ...] = Field((), max_length=6)

    @model_validator(mode="after")
    def _fits(self) -> Self:
        box = self.build()
        for group in ("passages", "doors"):
            for i, one in enumerate(getattr(self, group)):
                wide, high = box.face(one.side)
                if one.width_m > wide:
                    refuse(f"{group}[{i}].width_m", "must fit the side it is in", wide, at_most=True)
                if one.height_m > high:
                    refuse(f"{group}[{i}].height_m", "must fit the side it is in", high, at_most=True)
        if not any(way.area > 0.0 for way in box.ways()):
            refuse("passages", "must hold at least one, or a door: a box with no opening draws no air")
        return self

    def build(self) -> HoodBox:
        """The core's box."""
        return HoodBox(
            self.width_m,
            self.depth_m,
            self.height_m,
            tuple(Passage(one.side, one.width_m, one.height_m) for one in self.passages),
            tuple(BoxDoor(one.name, one.side, one.width_m, one.height_m, one.share) for one in self.doors),
            rule("make.door-gap").value if self.gap_m is None else self.gap_m,
        )

    def ways(self) -> tuple[Opening, ...]:
        """Its ways of working with what each is open by."""
        return self.build().ways()
