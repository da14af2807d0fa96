"""Two changes of one document, made without knowing of each other, put together; where they clash is told.

Things of a list are known by their ids, so that what was changed is found again wherever the other change has moved it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

SETS = ("guesses", "combinations")  #: lists whose order says nothing
KINDS = ("kind", "type")  #: keys that say which other keys a thing has


class _Nothing:
    """What stands where nothing is."""

    def __repr__(self) -> str:
        return "nothing"


NOTHING = _Nothing()


@dataclass(frozen=True)
class Clash:
    """One place that both have changed, each to something else."""

    path: str  #: in the document that was changed here; where it is gone from there, in the other
    part: str  #: id of the thing it belongs to; empty: the whole
    was: Any  #: before either; NOTHING: was not there
    mine: Any
    theirs: Any


@dataclass(frozen=True)
class Merged:
    """Both changes together; where they clash, one of them."""

    document: Any
    clashes: tuple[Clash, ...]


def merge(base: Any, mine: Any, theirs: Any, *, prefer_mine: bool = False) -> Merged:
    """Put two changes of a document together.

    Parameters
    ----------
    base : what both began with
    mine : changed here
    theirs : changed meanwhile by somebody else
    prefer_mine : whether mine goes where both have changed the same
    """
    clashes: list[Clash] = []
    document = _Merging(clashes, prefer_mine).values(base, mine, theirs, "", "")
    return Merged(document, tuple(clashes))


@dataclass(frozen=True)
class _Merging:
    clashes: list[Clash]
    prefer_mine: bool

    def values(self, base: Any, mine: Any, theirs: Any, path: str, part: str) -> Any:
        if mine == theirs or theirs == base:
            return mine
        if mine == base:
            return theirs
        if all(isinstance(one, dict) for one in (base, mine, theirs)) and _one_kind(base, mine, theirs):
            return self._keys(base, mine, theirs, path, part)
        if all(isinstance(one, list) for one in (base, mine, theirs)):
            return self._items(base, mine, theirs, path, part)
        return self._clash(base, mine, theirs, path, part)

    def _clash(self, base: Any, mine: Any, theirs: Any, path: str, part: str) -> Any:
        self.clashes.append(Clash(path, part, base, mine, theirs))
        return mine if self.prefer_mine else theirs

    def _keys(
        self, base: Mapping[str, Any], mine: Mapping[str, Any], theirs: Mapping[str, Any], path: str, part: str
    ) -> Any:
        part = str(mine.get("id", part))
        found = {}
        for key in dict.fromkeys((*theirs, *mine)):
            before, here, there = (one.get(key, NOTHING) for one in (base, mine, theirs))
            value = self.values(before, here, there, f"{path}.{key}" if path else key, part)
            if value is not NOTHING:
                found[key] = value
        return found

    def _items(self, base: list[Any], mine: list[Any], theirs: list[Any], path: str, part: str) -> Any:
        if path.rpartition(".")[2] in SETS:
            return [one for one in theirs if one not in base or one in mine] + [
                one for one in mine if one not in base and one not in theirs
            ]
        before, here, there = (_by_id(one) for one in (base, mine, theirs))
        if before is not None and here is not None and there is not None:
            return self._things(before, here, there, path)
        if len(base) == len(mine) == len(theirs):
            return [
                self.values(*three, f"{path}[{i}]", part)
                for i, three in enumerate(zip(base, mine, theirs, strict=True))
            ]
        return self._clash(base, mine, theirs, path, part)

    def _things(self, base: dict[str, Any], mine: dict[str, Any], theirs: dict[str, Any], path: str) -> list[Any]:
        found: dict[str, Any] = {}
        for name in _order(list(base), list(mine), list(theirs)):
            before, here, there = (one.get(name, NOTHING) for one in (base, mine, theirs))
            at = list(mine if name in mine else theirs).index(name)
            value = self.values(before, here, there, f"{path}[{at}]", name)
            if value is not NOTHING:
                found[name] = value
        return list(found.values())


def _one_kind(*things: Mapping[str, Any]) -> bool:
    """Whether they have the same keys: half a cyclone in half a disc would be neither."""
    return all(len({str(thing.get(key)) for thing in things}) == 1 for key in KINDS)


def _by_id(items: Sequence[Any]) -> dict[str, Any] | None:
    """Things by their ids; None where one has none."""
    if not all(isinstance(one, dict) and isinstance(one.get("id"), str) for one in items):
        return None
    return {one["id"]: one for one in items}


def _order(base: list[str], mine: list[str], theirs: list[str]) -> list[str]:
    """Every id of either in the order of the one who moved something, what only the other has behind its neighbour."""
    common = [name for name in base if name in mine and name in theirs]
    moved_here = [name for name in mine if name in common] != common
    first, second = (mine, theirs) if moved_here else (theirs, mine)
    order = list(first)
    for i, name in enumerate(second):
        if name not in order:
            before = next((one for one in reversed(second[:i]) if one in order), None)
            order.insert(order.index(before) + 1 if before is not None else 0, name)
    return order
