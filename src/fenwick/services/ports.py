"""Every tool port of a line, alone and together, with what would help each most; worked out once for each line."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone, line_together
from fenwick.core.search.changes import candidates
from fenwick.core.search.figures import figures_at
from fenwick.core.search.whatif import ChangeOutcome, try_all
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.hood_options import HoodOption, hood_options
from fenwick.rig.edits.ports import alone
from fenwick.shop import ShopFile
from fenwick.shop.into_line import with_other_vacuums


@dataclass(frozen=True)
class PortStudy:
    """One port open alone, as far as there are gates to shut."""

    port: int  #: place among the leaves
    line: Line
    found: Assessment
    best: ChangeOutcome | None  #: the single change that would help it most
    hood: HoodOption | None  #: what would help most at its hood, where no change of the line would


@dataclass(frozen=True)
class TogetherStudy:
    """Some ports open at once."""

    ports: tuple[str, ...]
    line: Line
    found: Assessment


def port_studies(rig: Rig, shop: ShopFile | None) -> tuple[PortStudy, ...]:
    """Every port of a rig, alone; the vacuums of its shop are among what would help."""
    return tuple(port_study(rig, shop, leaf.id) for leaf in build_line(rig).leaves)


@lru_cache(maxsize=128)
def port_study(rig: Rig, shop: ShopFile | None, name: str) -> PortStudy:
    """One port of a rig, alone; the vacuums of its shop are among what would help."""
    whole, others = _with_others(rig, shop)
    port = [leaf.id for leaf in whole.leaves].index(name)
    line = line_alone(whole, port)
    exchanged = {key: line_alone(other, port) for key, other in others.items()}
    found = assess(line)
    changes = try_all(line, port, candidates(line, port), figures_at(line, found, port), exchanged)
    best = next(iter(changes), None)
    return PortStudy(port, line, found, best, None if best else _at_hood(rig, name, found))


@lru_cache(maxsize=32)
def _with_others(rig: Rig, shop: ShopFile | None) -> tuple[Line, dict[str, Line]]:
    return build_line(rig), with_other_vacuums(rig, shop)


def _at_hood(rig: Rig, port: str, found: Assessment) -> HoodOption | None:
    lone = alone(rig, port)
    options = [] if lone is None else hood_options(lone, port, found)
    return next((option for option in options if option.id != "outdoors"), None)


@lru_cache(maxsize=32)
def together_studies(rig: Rig) -> tuple[TogetherStudy, ...]:
    """The combinations of tools that a rig says are used at once."""
    line = build_line(rig)
    lines = [(one.ports, line_together(line, one.ports)) for one in rig.line.combinations]
    return tuple(TogetherStudy(tuple(ports), opened, assess(opened)) for ports, opened in lines)
