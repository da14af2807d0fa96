"""The checks of a line with what was acknowledged, and how many are open."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from sqlmodel import Session

from fenwick.core.judging.check import ACT, OK, WATCH, Check
from fenwick.core.judging.hazards import job_checks
from fenwick.core.judging.review import review
from fenwick.core.judging.supply import supply_checks
from fenwick.core.making.review import joint_checks
from fenwick.data.acknowledgements import Acknowledged, acknowledged
from fenwick.data.lines import LineState
from fenwick.rig import Rig
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.services.making import BuildAsked, build_pack
from fenwick.services.solving import solve
from fenwick.shop import ShopFile
from fenwick.shop.floor_checks import checks_of_floor
from fenwick.shop.supply import supplies_of
from fenwick.shop.work import dust_of_jobs


@dataclass(frozen=True)
class Checked:
    """A check, and why somebody lives with it."""

    check: Check
    seen: Acknowledged | None = None

    @property
    def level(self) -> int:
        """How bad it is."""
        return int(self.check.level[0])

    @property
    def open(self) -> bool:
        """Whether it asks for something."""
        return self.level > OK and self.seen is None


@dataclass(frozen=True)
class Tally:
    """How many checks are open."""

    act: int
    watch: int

    @property
    def level(self) -> str:
        """The worst of them, as a word."""
        return "act" if self.act else "watch" if self.watch else "ok"

    @property
    def words(self) -> str:
        """For the header."""
        if self.act:
            return f"{self.act} to act on"
        return f"{self.watch} to watch" if self.watch else "in order"


@lru_cache(maxsize=64)
def reviewed(rig: Rig, shop: ShopFile | None) -> tuple[Check, ...]:
    """Every check of a rig in its shop; both are immutable, and every page asks for the same few."""
    solved = solve(rig)
    return (*review(solved.line, solved.found), *of_the_shop(rig, shop))


@lru_cache(maxsize=64)
def of_the_shop(rig: Rig, shop: ShopFile | None) -> tuple[Check, ...]:
    """The checks that no air tells: of circuits, jobs against a wet stage, the floor plan, joints as they are made."""
    line = solve(rig).line
    jobs = () if shop is None else dust_of_jobs(shop, rig)
    supplied = supply_checks(supplies_of(shop, rig, line), line.rules)
    return (*job_checks(line, jobs), *supplied, *checks_of_floor(shop, rig), *_of_making(rig))


def _of_making(rig: Rig) -> list[Check]:
    """Of the separators whose making is described."""
    described = (e for e in rig.line.elements if isinstance(e, SeparatorPart | WetStagePart) and e.make is not None)
    return [check for e in described for check in joint_checks(e.id, build_pack(rig, BuildAsked(e.id)).joints)]


def checked(session: Session, state: LineState) -> list[Checked]:
    """Every check of a line in the order of the review, with what was acknowledged."""
    seen = acknowledged(session, state.id)
    found = []
    for check in reviewed(state.rig, state.owned):
        level = int(check.level[0])
        known = next((ack for ack in seen if ack.covers(check.id, check.part or "", level)), None)
        found.append(Checked(check, known if level > OK else None))
    return found


def acts_of(rig: Rig, shop: ShopFile | None) -> int:
    """Checks of a rig in its shop that are to act on, lived with or not [-]."""
    return sum(int(check.level[0]) == ACT for check in reviewed(rig, shop))


def tally(found: list[Checked]) -> Tally:
    """How many are open."""
    levels = [one.level for one in found if one.open]
    return Tally(levels.count(ACT), levels.count(WATCH))
