"""What of making a design belongs among the checks of its line: joints that do not hold."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.judging.check import ACT, OK, WATCH, Check, fact
from fenwick.core.making.bonds import FAILS, HOLDS, WORSE
from fenwick.core.making.joints import GluedJoint


def joint_checks(stage: str, joints: Sequence[GluedJoint]) -> list[Check]:
    """The worst of a separator's joints as one check; none where nothing is glued or sealed.

    Parameters
    ----------
    stage : id of the separator
    """
    if not joints:
        return []
    worst = max(joints, key=lambda joint: WORSE[joint.bond.holds])
    level = ACT if worst.bond.holds == FAILS else OK if worst.bond.holds == HOLDS else WATCH
    told = (worst.one, worst.other, worst.sealant, worst.bond.on, worst.bond.because, *worst.bond.instead)
    return [fact("bond", level, stage, told)]
