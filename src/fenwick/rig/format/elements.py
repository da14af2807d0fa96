"""Elements of a line in the rig file."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fenwick.core.components.dust import DUSTS
from fenwick.rig.format import fields as f
from fenwick.rig.format.dust import known_kind
from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.hood import HoodPart
from fenwick.rig.format.prices import price_range
from fenwick.rig.format.problems import refuse
from fenwick.rig.format.separator import AnySeparatorPart, SeparatorPart, WetStagePart

SEPARATOR_ON_TRUNK = "a separator belongs where all tools have joined (line.elements), not in the branch of one"
MOST_BRANCHES = 24  #: tool ports on one line
MOST_STAGES = 4  #: separators one behind the other

WallKind = Literal["smooth", "light-rib", "wire-helix", "corrugated", "pipe"]


class BendPart(f.Part):
    """A bend within a hose."""

    angle_deg: f.BendAngle = Field(title="Angle")
    radius_m: f.BendRadius = Field(title="Radius of the centre line")


class HosePart(f.Part):
    """A hose or rigid pipe; its length includes its bends."""

    id: f.Id
    kind: Literal["hose"]
    name: f.Name | None = None
    bore_m: f.Bore = Field(title="Bore")
    length_m: f.Length = Field(title="Length")
    wall: WallKind = Field("smooth", title="Wall")
    roughness_m: f.Roughness | None = Field(None, title="Roughness")
    bends: tuple[BendPart, ...] = Field((), max_length=50)
    rise_m: f.Rise = Field(0.0, title="Rises")
    wall_m: f.Wall | None = Field(None, title="Wall thick")
    clear: f.Flag | None = Field(None, title="Clear")
    tool_end: EndPart | None = None
    vacuum_end: EndPart | None = None


class ReducerPart(f.Part):
    """A change of bore."""

    id: f.Id
    kind: Literal["reducer"]
    name: f.Name | None = None
    bore_in_m: f.Bore = Field(title="Bore in")
    bore_out_m: f.Bore = Field(title="Bore out")
    length_m: f.Taper = Field(0.0, title="Taper length")
    tool_end: EndPart | None = None
    vacuum_end: EndPart | None = None


class LossPart(f.Part):
    """A part with a known loss coefficient."""

    id: f.Id
    kind: Literal["loss"]
    name: f.Name | None = None
    bore_m: f.Bore = Field(title="Bore")
    k: f.Coefficient = Field(title="Loss, velocity heads")


class LeakPart(f.Part):
    """A gap to the room at a joint."""

    id: f.Id
    kind: Literal["leak"]
    name: f.Name | None = None
    area_m2: f.GapArea = Field(title="Gap")


class GatePart(f.Part):
    """A blast gate in a run."""

    id: f.Id
    kind: Literal["gate"]
    name: f.Name | None = None
    bore_m: f.Bore = Field(title="Bore")
    opening: f.Share = Field(title="Open")


class ElbowPart(f.Part):
    """A rigid elbow."""

    id: f.Id
    kind: Literal["elbow"]
    name: f.Name | None = None
    bore_m: f.Bore = Field(title="Bore")
    angle_deg: f.BendAngle = Field(90.0, title="Angle")
    style: Literal["long-sweep", "short", "mitre"] = Field(title="Elbow")
    radius_m: f.BendRadius | None = Field(None, title="Sweep radius")
    tool_end: EndPart | None = None
    vacuum_end: EndPart | None = None


class PlateHolePart(f.Part):
    """Holes of one size in a plate."""

    diameter_m: f.HoleBore = Field(title="Hole")
    count: f.Count = Field(title="Number")


class PlatePart(f.Part):
    """A plate drilled with holes, such as a filter's seat."""

    id: f.Id
    kind: Literal["plate"]
    name: f.Name | None = None
    bore_m: f.Bore = Field(title="Bore")
    holes: tuple[PlateHolePart, ...] = Field(min_length=1, max_length=20)


class InlineFilterPart(f.Part):
    """A filter in the run: a sleeve, a mesh, a re-used bag."""

    id: f.Id
    kind: Literal["filter"]
    name: f.Name | None = None
    bore_m: f.Bore = Field(title="Bore")
    medium: Literal["paper", "hepa", "bag"] = Field("bag", title="Medium")
    area_m2: f.FilterArea = Field(title="Area")
    held_kg: f.HeldMass = Field(0.0, title="Dust in it")
    price: f.Price | None = Field(None, title="Price")
    price_to: f.Price | None = Field(None, title="Price, up to")

    @model_validator(mode="after")
    def _range(self) -> Self:
        price_range("price_to", self.price, self.price_to)
        return self


ElementPart = Annotated[
    HosePart
    | ReducerPart
    | LossPart
    | LeakPart
    | GatePart
    | ElbowPart
    | PlatePart
    | InlineFilterPart
    | WetStagePart
    | AnySeparatorPart,
    Field(discriminator="kind"),
]


class BranchGatePart(f.Part):
    """The gate where a branch joins."""

    opening: f.Share = Field(1.0, title="Open")


class PortPart(f.Part):
    """Where air comes in at a tool."""

    name: f.Name
    bore_m: f.Bore = Field(title="Port bore")
    entry: Literal["plain", "flanged", "tapered", "bellmouth", "crevice", "brush"] = Field("plain", title="Entry")
    machine: (
        Literal[
            "bandsaw",
            "table-saw",
            "planer",
            "router-table",
            "drum-sander",
            "mitre-saw",
            "lathe",
            "hand-held-sander",
            "floor-pick-up",
        ]
        | None
    ) = Field(None, title="Machine")
    hood: HoodPart | None = None
    dust: str | None = Field(None, title="Its own dust", json_schema_extra={"enum": [*DUSTS]})
    outdoors: f.Flag = Field(False, title="Works outdoors")
    tool: f.Name | None = Field(None, title="Part of the tool")
    dust_rate_kg_s: f.DustRate | None = Field(None, title="Dust made")
    end: EndPart | None = None

    @model_validator(mode="after")
    def _known_dust(self) -> Self:
        if self.dust is not None:
            known_kind("dust", self.dust, tuple(DUSTS))
        return self


class BranchPart(f.Part):
    """From a tool port, or from where further branches join, to the next junction; elements run with the air."""

    id: f.Id
    gate: BranchGatePart | None = None
    join_angle_deg: f.JoinAngle = Field(45.0, title="Joins at")
    elements: tuple[ElementPart, ...] = Field((), max_length=60)
    port: PortPart | None = None
    branches: tuple[BranchPart, ...] = Field((), max_length=MOST_BRANCHES)
    junction_bore_m: f.Bore | None = Field(None, title="Junction bore")

    @model_validator(mode="after")
    def _port_or_branches(self) -> Self:
        if self.port is None and not self.branches:
            refuse("port", "is missing: a branch has either a port or branches of its own")
        if self.port is not None and self.branches:
            refuse("branches", "must be left out: a branch has either a port or branches of its own")
        return self

    @property
    def ways(self) -> tuple[tuple[BranchPart, ...], ...]:
        """For every tool port the branches its air passes, the port's own first."""
        if self.port is not None:
            return ((self,),)
        return tuple((*way, self) for branch in self.branches for way in branch.ways)


class CombinationPart(f.Part):
    """Tools that are used at the same time."""

    ports: tuple[f.Id, ...] = Field(min_length=2, max_length=MOST_BRANCHES)


class LinePart(f.Part):
    """Branches, and the elements from where they join to the vacuum."""

    use: Literal["gates", "swap"] = Field("gates", title="Tools share it by")
    earthed: f.Flag = Field(False, title="Hoses earthed")
    combinations: tuple[CombinationPart, ...] = Field((), max_length=40)
    junction_bore_m: f.Bore | None = None
    elements: tuple[ElementPart, ...] = Field((), max_length=60)
    branches: tuple[BranchPart, ...] = Field(min_length=1, max_length=MOST_BRANCHES)

    @model_validator(mode="after")
    def _separator_on_the_trunk(self) -> Self:
        for path, branch in self.walk():
            for e, element in enumerate(branch.elements):
                if isinstance(element, SeparatorPart | WetStagePart):
                    refuse(f"{path}.elements[{e}].kind", SEPARATOR_ON_TRUNK)
        if len(self.ways) > MOST_BRANCHES:
            refuse("branches", f"can hold at most {MOST_BRANCHES} tool ports in all")
        ports = {way[0].id for way in self.ways}
        for c, together in enumerate(self.combinations):
            for p, port in enumerate(together.ports):
                if port not in ports or port in together.ports[:p]:
                    refuse(f"combinations[{c}].ports[{p}]", "must name a tool port of this line, each once")
        stages = [e for e, element in enumerate(self.elements) if isinstance(element, SeparatorPart | WetStagePart)]
        if len(stages) > MOST_STAGES:
            refuse(f"elements[{stages[MOST_STAGES]}].kind", f"is one separator more than the {MOST_STAGES} on a line")
        return self

    def walk(self) -> list[tuple[str, BranchPart]]:
        """Every branch with its path below `line`, in the order of the file."""
        found: list[tuple[str, BranchPart]] = []

        def visit(path: str, branches: tuple[BranchPart, ...]) -> None:
            for b, branch in enumerate(branches):
                here = f"{path}branches[{b}]"
                found.append((here, branch))
                visit(f"{here}.", branch.branches)

        visit("", self.branches)
        return found

    @model_validator(mode="after")
    def _one_rate_for_each_tool(self) -> Self:
        known: set[str] = set()
        for path, branch in self.walk():
            port = branch.port
            if port is None or port.tool is None or port.dust_rate_kg_s is None:
                continue
            if port.tool in known:
                refuse(f"{path}.port.dust_rate_kg_s", f"must be left out: another port of the {port.tool} gives it")
            known.add(port.tool)
        return self

    @property
    def ways(self) -> tuple[tuple[BranchPart, ...], ...]:
        """For every tool port the branches its air passes, the port's own first, in the order of the file."""
        return tuple(way for branch in self.branches for way in branch.ways)
