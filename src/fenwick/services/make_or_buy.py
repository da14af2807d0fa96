"""Made against bought, kind by kind: money, hours, waiting, tools, what each keeps on this line."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from fenwick.core.arrays import one_value
from fenwick.core.errors import CoreError
from fenwick.core.making.schedule import NEVER, Window, schedule
from fenwick.core.making.shopping import sum_of
from fenwick.core.making.tools import missing_tools
from fenwick.core.search.designs import BOUGHT, MADE
from fenwick.core.search.way.options import EVENING, WEEKEND
from fenwick.rig import Rig, RigError
from fenwick.rig.edits.kinds import KINDS, change_kind, kind_of
from fenwick.rig.format.separator import SeparatorPart
from fenwick.services.making import BuildAsked, build_pack
from fenwick.services.solving import solve

HOUR = 3600.0
#: how long a maker has, hands on [h]
TIMES = {"20-minutes": 1.0 / 3.0, "evening": EVENING, "weekend": WEEKEND}


@dataclass(frozen=True)
class MakeOrBuy:
    """One kind of separator, made or bought."""

    kind: str
    how: str  #: MADE or BOUGHT
    here: bool  #: whether it is the one on the line
    money: float  #: that has to be paid for what is not there, in the shop's money
    hours: float  #: hands-on [h]
    ready: float  #: until it runs, working without a break [s]
    missing: tuple[str, ...]  #: tools that are not there
    kept: float | None  #: of what enters it [-]; None: nothing is known of the dust

    def within(self, time: str | None, *, tools: bool) -> bool:
        """Whether it can be done in some time, and with the tools at hand."""
        return (time is None or self.hours <= TIMES[time] + 1e-9) and not (tools and self.missing)


@lru_cache(maxsize=32)
def make_or_buy_of(rig: Rig, what: str, asked: BuildAsked) -> tuple[MakeOrBuy, ...]:
    """Every kind that the line takes, both ways; those it does not take are left out."""
    own = next((e for e in rig.line.elements if e.id == what), None)
    if not isinstance(own, SeparatorPart):
        return ()
    found = []
    for kind in KINDS:
        here = kind == kind_of(own)
        try:
            changed = rig if here else change_kind(rig, what, kind)
            kept = solve(changed).found.kept
            share = None if kept is None else one_value(kept)
            found += [_way(changed, what, kind, how, asked, share, here=here) for how in (MADE, BOUGHT)]
        except (RigError, CoreError):  # the bin does not take that kind
            continue
    return tuple(found)


def _way(rig: Rig, what: str, kind: str, how: str, asked: BuildAsked, kept: float | None, *, here: bool) -> MakeOrBuy:
    pack = build_pack(rig, replace(asked, what=what, bought=how == BOUGHT))
    ready = max(slot.end for slot in schedule(pack.steps, [Window(0.0, NEVER)]))
    money = sum_of(pack.to_buy)
    return MakeOrBuy(kind, how, here, money, pack.hours, ready, missing_tools(pack.steps, asked.workshop), kept)
