"""A way solved whole: what it comes to over the week's work, and the order its steps are gone in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from fenwick.core.arrays import Array, one_value
from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, Check
from fenwick.core.judging.line_figures import LineFigures, PortFigures, line_figures
from fenwick.core.judging.review import review
from fenwick.core.line.ports import line_alone
from fenwick.core.search.figures import figures_at
from fenwick.core.search.way.count import WayCount
from fenwick.core.search.work import PortWork
from fenwick.rig import Rig, RigError, build_line
from fenwick.services.checks import of_the_shop
from fenwick.services.moves import Move, with_moves
from fenwick.services.solving import solve
from fenwick.shop import ShopFile

LOWERS = 1e-6  #: of the dust made, what a step must change to be told as lowering the count [-]


@dataclass(frozen=True)
class WholeCount:
    """A line solved whole, port by port, over the week's work."""

    count: WayCount
    ports: tuple[PortFigures, ...]  #: each worked at alone
    acting: tuple[Check, ...]  #: checks to act on, each once
    watching: tuple[Check, ...]


@dataclass(frozen=True)
class WayStep:
    """One step of a way."""

    move: Move
    rig: Rig  #: after it
    figures: LineFigures  #: of the line as it stands, after it
    count: WayCount  #: after it, over the week's work
    prepares: str | None = None  #: key of the later step that it prepares, where it lowers nothing by itself


@lru_cache(maxsize=256)
def whole_count(rig: Rig, works: tuple[PortWork, ...], shop: ShopFile | None) -> WholeCount | None:
    """What a line comes to in its shop, every port worked at alone; None where it does not settle or cannot be."""
    try:
        line = build_line(rig)
        found: dict[tuple[str, str | None], Check] = {}
        lost, past, known, ports = 0.0, 0.0, True, list[PortFigures]()
        for work in works:
            lone = line_alone(line, work.port)
            assessed = assess(lone)
            for check in (*review(lone, assessed), *of_the_shop(rig, shop)):
                worst = found.setdefault((check.id, check.part), check)
                if int(check.level[0]) > int(worst.level[0]):
                    found[check.id, check.part] = check
            at = figures_at(lone, assessed, work.port)
            ports.append(PortFigures(line.leaves[work.port].id, one_value(at.flow), _one(at.caught), _one(at.in_bin)))
            lost += work.mass * (0.0 if at.lost is None else one_value(at.lost))
            known = known and at.lost is not None
            if at.lost is not None and at.in_bin is not None:
                past += work.mass * max(0.0, 1.0 - one_value(at.in_bin) - one_value(at.lost))
    except (CoreError, RigError):
        return None
    acting = tuple(check for check in found.values() if int(check.level[0]) == ACT)
    watching = tuple(check for check in found.values() if 0 < int(check.level[0]) < ACT)
    count = WayCount(len(acting), lost, past, 0.0, 0.0, sum(work.mass for work in works), known)
    return WholeCount(count, tuple(ports), acting, watching)


def _one(values: Array | None) -> float | None:
    return None if values is None else one_value(values)


def as_it_stands(rig: Rig) -> LineFigures:
    """The figures of a line with its gates as they are."""
    solved = solve(rig)
    return line_figures(solved.line, solved.found, review(solved.line, solved.found))


def steps_of(
    rig: Rig, moves: Sequence[Move], works: tuple[PortWork, ...], shop: ShopFile | None
) -> tuple[WayStep, ...]:
    """Steps in a given order, each with the line after it; one that lowers nothing says what it prepares."""
    stops: list[tuple[Move, Rig, WayCount, bool]] = []
    before = whole_count(rig, works, shop)
    for i, move in enumerate(moves):
        after = with_moves(rig, moves[: i + 1])
        whole = None if after is None else whole_count(after, works, shop)
        if after is not None and whole is not None:
            stops.append((move, after, whole.count, before is not None and _lowers(before.count, whole.count)))
            before = whole
    found = []
    for i, (move, after, count, lowers) in enumerate(stops):
        later = next((one.option.key for one, _, _, helps in stops[i + 1 :] if helps), None)
        found.append(WayStep(move, after, as_it_stands(after), count, None if lowers else later))
    return tuple(found)


def _lowers(before: WayCount, after: WayCount) -> bool:
    """In the first thing that counts and differs."""
    if after.acts != before.acts:
        return after.acts < before.acts
    step = LOWERS * before.made
    if abs(after.lost - before.lost) > step:
        return after.lost < before.lost
    return after.past < before.past - step
