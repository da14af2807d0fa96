"""The search for ways against looking at every one: small cases, so that every one can be looked at."""

from __future__ import annotations

import json
import random
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations

from fenwick.core.line.line import Line
from fenwick.core.search.way.count import Counter, combination
from fenwick.core.search.way.options import WayLimits, excluded
from fenwick.core.search.way.search import search_way
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import Rig, RigError, build_line, check_rig
from fenwick.rig.format.read import write_rig
from fenwick.services.moves import Move, with_moves
from fenwick.services.moves.at_ports import port_moves
from fenwick.services.moves.hoses import hose_moves
from fenwick.services.moves.move import MoveGround
from fenwick.services.moves.singles import single_moves
from fenwick.services.moves.stages import bin_moves, vacuum_moves
from fenwick.services.way import works_of

OPTIONS, CHANGES = 12, 3


@dataclass(frozen=True)
class SmallCase:
    """A line, some of the moves that there are on it, and what may be spent."""

    rig: Rig
    moves: tuple[Move, ...]
    limits: WayLimits


def small_cases(count: int, seed: int = 1) -> Iterator[SmallCase]:
    """Lines unlike one another.

    Parameters
    ----------
    count : of cases [-]
    seed : the same gives the same cases [-]
    """
    dice = random.Random(seed)
    found = 0
    while found < count:
        try:
            rig = _line(dice)
        except RigError:
            continue
        found += 1
        ports = dice.sample(range(len(rig.line.ways)), min(2, len(rig.line.ways)))
        ground = MoveGround.of(rig, demo_shop(), ports)
        every = [*vacuum_moves(ground), *bin_moves(ground), *port_moves(ground), *hose_moves(ground)]
        every += single_moves(ground)
        moves = sorted(dice.sample(every, min(OPTIONS, len(every))), key=lambda move: not move.option.apart)
        spend = dice.choice([0.0, 10.0, 30.0, None])
        yield SmallCase(rig, tuple(moves), WayLimits(spend, dice.choice([1.0, 3.0, None]), CHANGES))


def _line(dice: random.Random) -> Rig:
    """A demo line with other hoses, another bin's fill and leak."""
    document = json.loads(write_rig(demo_rig(dice.choice(["demo_line", "demo_bench", "demo_cyclone"]))))
    runs = [branch["elements"] for branch in document["line"]["branches"]] + [document["line"]["elements"]]
    for element in (element for run in runs for element in run):
        if element["kind"] == "hose":
            element["bore_m"] = dice.choice([0.027, 0.035, 0.038, 0.05, 0.076])
            element["length_m"] = round(dice.uniform(0.5, 5.0), 2)
        elif "bin" in element:
            element["bin"]["leak_area_m2"] = dice.choice([0.0, 2e-6, 2e-5])
            element["bin"]["fill_height_m"] = round(dice.uniform(0.0, 0.2), 3)
    return check_rig(document)


def finds_the_best(case: SmallCase) -> bool:
    """Whether the search finds what looking at every combination finds."""

    def line_with(chosen: tuple[int, ...]) -> Line | None:
        changed = with_moves(case.rig, [case.moves[i] for i in chosen])
        return None if changed is None else build_line(changed)

    options = [move.option for move in case.moves]
    works = works_of(case.rig, demo_shop(), build_line(case.rig))
    counter = Counter(line_with, options, works)
    *_, found = search_way(counter, [case.limits])
    shut = excluded(options)
    every = [
        combination(chosen)
        for size in range(CHANGES + 1)
        for chosen in combinations(range(len(options)), size)
        if all(not shut[one] >> other & 1 for one, other in combinations(chosen, 2))
    ]
    counts = [count for count in counter.count(every) if count is not None]
    best = min(count.rank for count in counts if case.limits.allows(count.cost, count.hours))
    return found.best[0][0].count.rank == best


def compared(count: int, seed: int = 1) -> tuple[int, int]:
    """(cases in which the best was found, cases).

    Parameters
    ----------
    count : of cases [-]
    seed : the same gives the same cases [-]
    """
    same = [finds_the_best(case) for case in small_cases(count, seed)]
    return sum(same), len(same)
