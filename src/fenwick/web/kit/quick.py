"""One tap for the usual entries of the log: on Home and on the log's own page the same."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.logbook.entries import BAG, BIN, FILTER
from fenwick.rig import Rig
from fenwick.services.logbook.due import DueItem
from fenwick.services.logbook.holders import Holder, holders_of
from fenwick.shop import ShopFile

#: entries that ask for a figure or a word, in the order one needs them
ASKED = (
    ("worked", "Hours at a tool"),
    ("looked", "Looked into a bin"),
    ("inspected", "Looked over a seal, joint, cord"),
    ("renewed", "Replaced or mended"),
    ("suction", "Read the suction"),
    ("odd", "Found something odd"),
    ("spent", "Spent money"),
    ("remark", "A remark, a photo"),
)
ONE_TAP = {BIN: "emptied", FILTER: "tapped", BAG: "bag"}


@dataclass(frozen=True)
class QuickLog:
    """A button that logs something at once."""

    words: str
    kind: str
    line: int
    due: bool  #: it is what is due


def quick_logs(
    rigs: Sequence[tuple[int, Rig]], at_work: Sequence[int], shop: ShopFile | None, due: Sequence[DueItem]
) -> tuple[QuickLog, ...]:
    """One tap for each bin, filter and bag of the lines at work, in their order, but what is due first."""
    known = dict(rigs)
    used = [(line, known[line]) for line in at_work if line in known] or list(rigs[:1])
    holders = [one for one in holders_of(used, shop) if one.kind in ONE_TAP]
    over = {item.key for item in due if item.overdue}
    several = {kind: sum(one.kind == kind for one in holders) > 1 for kind in ONE_TAP}
    found = [
        QuickLog(_tap_words(one, several[one.kind]), ONE_TAP[one.kind], one.lines[0], one.key in over)
        for one in holders
    ]
    return tuple(sorted(found, key=lambda one: not one.due))


def _tap_words(holder: Holder, several: bool) -> str:
    if holder.kind == BIN:
        return f"Emptied the bin · {holder.name}" if several else "Emptied the bin"
    what = "New bag" if holder.kind == BAG else "Tapped the filter"
    return f"{what} · {holder.name}" if several else what
