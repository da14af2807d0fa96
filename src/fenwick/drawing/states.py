"""The worst state of each part, from the checks that name it."""

from __future__ import annotations

from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.line.transport import SETTLES

CARRYING_LEVELS = ("act", "watch", "ok")


def part_levels(found: Assessment) -> dict[str, str]:
    """Level word of every judged part; dust-laden hoses by how they carry, the others by their checks."""
    worst: dict[str, int] = {}
    for check in found.checks:
        if check.part is not None:
            worst[check.part] = max(worst.get(check.part, 0), int(check.level[0]))
    levels = {part: LEVEL_WORDS[level] for part, level in worst.items()}
    if found.carrying is not None:
        for name, laden, state in zip(
            found.carrying.ids, found.carrying.laden, found.carrying.carrying[:, 0], strict=True
        ):
            if laden:
                levels[name] = CARRYING_LEVELS[int(state) - SETTLES]
    return levels


def worst_part(found: Assessment) -> str | None:
    """The part to look at first: a settling hose, then whatever else is to act on, then to watch."""
    levels = part_levels(found)
    laden = found.carrying.ids if found.carrying else ()
    for level in ("act", "watch"):
        bad = [part for part, word in levels.items() if word == level and "containment" not in _checks_of(found, part)]
        if bad:
            return next((part for part in laden if part in bad), bad[0])
    return None


def _checks_of(found: Assessment, part: str) -> set[str]:
    return {check.id for check in found.checks if check.part == part and int(check.level[0]) > 0}


def free_at_watch(found: Assessment) -> dict[str, float]:
    """Free height from which the check on a full bin warns, by separator [m]."""
    return {str(check.part): float(check.limit[0]) for check in found.checks if check.id == "bin-full"}
