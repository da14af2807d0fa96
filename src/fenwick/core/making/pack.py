"""From a separator to its parts, whatever its type."""

from __future__ import annotations

from fenwick.core.components.chambers import OneBody, OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.making.bought import bought_parts
from fenwick.core.making.chamber import chamber_parts
from fenwick.core.making.cyclone import cyclone_parts
from fenwick.core.making.given import Making
from fenwick.core.making.in_bin import hung_parts, open_parts
from fenwick.core.making.one_body import one_body_parts
from fenwick.core.making.parts import MadeParts
from fenwick.core.making.wet import wet_parts


def parts_of(stage: Separator | WetStage, making: Making) -> MadeParts:
    """Everything that a separator is made of, or mounted with where it is bought."""
    if isinstance(stage, WetStage):
        return wet_parts(stage, making)
    if making.chosen.bought:
        return bought_parts(stage, making)
    if isinstance(stage, Cyclone):
        return cyclone_parts(stage, making)
    if isinstance(stage, OpenBin):
        return open_parts(stage, making)
    if isinstance(stage, OneBody):
        return one_body_parts(stage, making)
    assert isinstance(stage, SlottedDisc)
    return hung_parts(stage, making) if stage.hung else chamber_parts(stage, making)
