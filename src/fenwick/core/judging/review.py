"""Every reason not to switch on yet: the checks of the line at work, and those of how it is made, stands and is fed."""

from __future__ import annotations

from fenwick.core.components.separator import Separator
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import Check
from fenwick.core.judging.hazards import hazard_checks, job_checks
from fenwick.core.judging.motor import motor_checks
from fenwick.core.judging.plastics import plastic_checks
from fenwick.core.judging.standing import standing_checks
from fenwick.core.judging.strength import strength_checks
from fenwick.core.judging.supply import Supply, supply_checks
from fenwick.core.line.line import Line


def review(
    line: Line, found: Assessment, supplies: tuple[Supply, ...] = (), jobs: tuple[tuple[str, str], ...] = ()
) -> tuple[Check, ...]:
    """All checks that the description allows, for a single variant; what cannot be judged is left out.

    Parameters
    ----------
    line, found : with its assessment
    supplies : what its tools and its vacuum hang on
    jobs : done on it, by name, with the kind of dust of their tool
    """
    checks = [*hazard_checks(line, found), *job_checks(line, jobs), *found.checks, *motor_checks(line, found)]
    checks += plastic_checks(line, found.point)
    for stage in line.stages:
        if isinstance(stage, Separator):
            checks += strength_checks(stage, line, found.point)
            checks += standing_checks(stage, line)
    return (*checks, *supply_checks(supplies, line.rules))
