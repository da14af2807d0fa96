"""What is done to make each type of separator, and what must come before what."""

from __future__ import annotations

from fenwick.core.components.chambers import OneBody, OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.making.given import Making
from fenwick.core.making.parts import MadeParts
from fenwick.core.making.steps import WorkStep, ordered, timed, without_missing
from fenwick.core.making.work.besides import hood, stand, wet
from fenwick.core.making.work.chambers import chamber, one_body
from fenwick.core.making.work.common import closing_steps
from fenwick.core.making.work.cyclones import cyclone, mounting
from fenwick.core.making.work.in_bin import hung, open_bin
from fenwick.core.making.work.rings import with_joined_rings


def work_of(stage: Separator | WetStage, parts: MadeParts, making: Making, hours: float) -> tuple[WorkStep, ...]:
    """The steps that make a separator, in an order that keeps every need.

    Parameters
    ----------
    hours : hands-on time of the whole [h]
    """
    return _timed([*_steps(stage, making), *closing_steps()], parts, making, hours)


def stand_work(parts: MadeParts, making: Making, hours: float) -> tuple[WorkStep, ...]:
    """The steps that make a stand.

    Parameters
    ----------
    hours : hands-on time of the whole [h]
    """
    return _timed(stand(making), parts, making, hours)


def hood_work(parts: MadeParts, making: Making, hours: float) -> tuple[WorkStep, ...]:
    """The steps that make a box round a tool.

    Parameters
    ----------
    hours : hands-on time of the whole [h]
    """
    return _timed(hood(making), parts, making, hours)


def _timed(steps: list[WorkStep], parts: MadeParts, making: Making, hours: float) -> tuple[WorkStep, ...]:
    there = without_missing(steps, [part.id for part in parts.parts])
    return timed(ordered(with_joined_rings(there, parts.parts, making)), hours)


def _steps(stage: Separator | WetStage, making: Making) -> list[WorkStep]:
    if isinstance(stage, WetStage):
        return wet(making)
    if making.chosen.bought:
        return mounting()
    if isinstance(stage, Cyclone):
        return cyclone(making)
    if isinstance(stage, OneBody):
        return one_body(making)
    if isinstance(stage, OpenBin):
        return open_bin(making)
    assert isinstance(stage, SlottedDisc)
    return hung(making) if stage.hung else chamber(making)
