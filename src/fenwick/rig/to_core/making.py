"""From the rig file to what a separator is made from."""

from __future__ import annotations

from math import radians

from fenwick.core.making.given import MakingChoices
from fenwick.rig.format.making import MakePart
from fenwick.rig.format.separator import CyclonePart, SeparatorPart, WetStagePart


def build_choices(
    part: SeparatorPart | WetStagePart, *, swirl: str | None = None, bought: bool = False
) -> MakingChoices:
    """What the file says of making a separator; `swirl` and `bought` go before what it says."""
    said = part.make or MakePart()
    wall, wall_m = said.wall, said.wall_m
    if isinstance(part, SeparatorPart):  # what its body is bent from is said there, for its strength
        wall, wall_m = wall or part.body_material, wall_m if wall_m is not None else part.body_m
    claim = part.claim if isinstance(part, SeparatorPart) else None
    return MakingChoices(
        swirl=swirl or said.swirl,
        plate=said.plate,
        plate_thickness=said.plate_m,
        wall=wall,
        wall_thickness=wall_m,
        tube=said.tube,
        tube_wall=said.tube_wall_m,
        overlap=said.overlap_m,
        groove=said.groove_m,
        stub=said.stub_m,
        bevel=radians(said.bevel_deg),
        sealant=said.sealant,
        round_bore=part.inlet_bore_m if isinstance(part, CyclonePart) else None,
        bolt_circle=claim.bolt_circle_d_m if claim else None,
        bolts=claim.bolts if claim else None,
        bolt_hole=claim.bolt_d_m if claim else None,
        bought=bought,
    )
