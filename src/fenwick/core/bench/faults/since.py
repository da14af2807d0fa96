"""Since when it has been so: what was handled then may have been left wrong, what was renewed then hardly is.

Rules of thumb: hands that were at a lid leave a lid that leaks, and a bag that was changed is not full.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.bench.faults.kinds import FAULTS
from fenwick.core.rules import rule


@dataclass(frozen=True)
class Handled:
    """What a piece of work in the log means for the faults of a line."""

    handled: tuple[str, ...] = ()  #: faults that such work leaves behind
    renewed: tuple[str, ...] = ()  #: faults that it mends


_FILTER = Handled(("leak-link",), ("caked-filter",))
_LID = Handled((), ("leak-lid",))
_JOINT = Handled(("swapped-hoses",), ("leak-hose", "leak-link"))
#: by the kind of entry, with the piece where it is about one
WORK: Mapping[str, Handled] = {
    "emptied": Handled(("leak-lid", "tilted", "swapped-hoses"), ("overfull-bin",)),
    "tapped": _FILTER,
    "blown": _FILTER,
    "washed": _FILTER,
    "replaced": _FILTER,
    "bag": Handled(("leak-link",), ("full-bag",)),
    "tank": Handled(("leak-link",), ()),
    "renewed~gasket": _LID,
    "renewed~latch": _LID,
    "renewed~chamber-seal": _LID,
    "renewed~joint": _JOINT,
    "renewed~hose": Handled(("swapped-hoses", "leak-hose", "leak-link"), ("blocked-hose",)),
    "renewed~brushes": Handled((), ("worn-motor",)),
    "renewed~whole-line": Handled(("swapped-hoses", "leak-lid", "leak-link", "leak-hose", "tilted"), ()),
    "changed": Handled(("swapped-hoses", "leak-lid", "leak-link", "leak-hose", "tilted", "gate-open"), ()),
}


def since_factor(fault: str, since: str) -> float:
    """How much likelier a fault is for having come with some work [-]; 1 where that says nothing of it.

    Parameters
    ----------
    fault : key of it
    since : key of `WORK`; another one, or empty: nothing is known
    """
    work = WORK.get(since, Handled())
    if fault in work.handled:
        return rule("fault.handled").value
    return rule("fault.renewed").value if fault in work.renewed else 1.0


assert all(key in FAULTS for work in WORK.values() for key in (*work.handled, *work.renewed))
