"""What a design is to be made from: sheets, tubes, the hand of the swirl; what is not said is a rule of thumb."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import one_value
from fenwick.core.making.parts import Stock
from fenwick.core.rules import RuleBook

RIGHT, LEFT = "right", "left"  #: clockwise, counter-clockwise seen from above
PLATE, CLEAR, CONE, TUBE = "plywood", "polycarbonate", "steel", "pvc"  #: materials, where none is said
BLOCK, PAPER = "pine", "paper"


@dataclass(frozen=True)
class MakingChoices:
    """What the maker has said of it; None: not said."""

    swirl: str | None = None
    plate: str | None = None  #: material of discs, rings and panels
    plate_thickness: float | None = None  #: [m]
    wall: str | None = None  #: material that is rolled
    wall_thickness: float | None = None  #: [m]
    tube: str | None = None  #: material of tubes
    tube_wall: float | None = None  #: [m]
    overlap: float | None = None  #: at the seam of rolled sheet [m]
    groove: float | None = None  #: depth [m]
    stub: float | None = None  #: of tube for a hose's end [m]
    bevel: float = 0.0  #: of a slot's ends from upright [rad]
    sealant: str | None = None
    round_bore: float | None = None  #: of a cyclone's inlet that is round [m]
    bolt_circle: float | None = None  #: of a bought separator [m]
    bolts: int | None = None  #: of a bought separator
    bolt_hole: float | None = None  #: of a bought separator [m]
    bought: bool = False


@dataclass(frozen=True)
class Making:
    """What it is made from, nothing left open; [m]."""

    swirl: str
    plate: Stock
    wall: Stock
    cone: Stock
    tube: Stock
    overlap: float
    groove: float
    stub: float
    bevel: float  #: [rad]
    sealant: str
    chosen: MakingChoices
    rules: RuleBook

    def rule(self, key: str) -> float:
        """Value of a rule `make.*`, in its own unit."""
        return one_value(self.rules[f"make.{key}"])


def making_of(chosen: MakingChoices, rules: RuleBook) -> Making:
    """What the maker has said, and rules of thumb for the rest."""

    def thick(given: float | None, key: str) -> float:
        return one_value(rules[f"make.{key}"]) if given is None else given

    plate = Stock(chosen.plate or PLATE, thick(chosen.plate_thickness, "thickness"))
    return Making(
        swirl=chosen.swirl or RIGHT,
        plate=plate,
        wall=Stock(chosen.wall or CLEAR, thick(chosen.wall_thickness, "wall")),
        cone=Stock(chosen.wall or CONE, thick(chosen.wall_thickness, "cone")),
        tube=Stock(chosen.tube or TUBE, thick(chosen.tube_wall, "tube")),
        overlap=thick(chosen.overlap, "overlap"),
        groove=min(thick(chosen.groove, "groove"), plate.thickness / 2.0),
        stub=thick(chosen.stub, "stub"),
        bevel=chosen.bevel,
        sealant=chosen.sealant or "hybrid",
        chosen=chosen,
        rules=rules,
    )
