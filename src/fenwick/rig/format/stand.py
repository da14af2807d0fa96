"""How a separator stands, in the rig file."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, Strict, model_validator

from fenwick.rig.format import fields as f
from fenwick.rig.format.problems import refuse

Nozzles = Annotated[int, Strict(), Field(ge=0, le=12)]


class StandPart(f.Part):
    """How the whole stands."""

    headroom_m: f.Depth | None = Field(None, title="Room above floor")
    space_m: f.Size | None = Field(None, title="Floor it has")
    base_m: f.Size | None = Field(None, title="Stands on")
    mass_kg: f.Heap | None = Field(None, title="Head weighs")
    wheels: f.Flag = Field(False, title="On wheels")
    tied: f.Flag = Field(False, title="Tied to it or a wall")
    stands_on: Literal["floor", "cart", "shelf", "deck", "vacuum"] = Field("floor", title="Stands on")
    base_height_m: f.Depth | None = Field(None, title="Bin over floor")
    vacuum_height_m: f.Size | None = Field(None, title="Vacuum high")
    vacuum_mass_kg: f.Heap | None = Field(None, title="Vacuum weighs")
    head_lift_m: f.Depth | None = Field(None, title="Room to lift its head")
    fixed: f.Flag = Field(False, title="Fixed to a machine")
    doorway_m: f.Size | None = Field(None, title="Narrowest door")
    step_m: f.Depth | None = Field(None, title="Highest step")
    wheel_d_m: f.Size | None = Field(None, title="Wheels across")
    vacuum_d_m: f.Size | None = Field(None, title="Vacuum wide")
    caster_kg: f.Heap | None = Field(None, title="A caster bears")
    nozzles: Nozzles | None = Field(None, title="Nozzles to hang up")

    @model_validator(mode="after")
    def _stack_has_a_height(self) -> Self:
        if self.stands_on in ("shelf", "deck", "vacuum") and self.base_height_m is None:
            refuse("base_height_m", "is missing: what stands on something else stands at a height")
        if self.stands_on == "shelf" and self.wheels:
            refuse("wheels", "must be off: a shelf hangs at the wall")
        return self
