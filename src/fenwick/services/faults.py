"""Hunts for a fault: what every fault would show on a line, remembered for as long as the line stays as it is."""

from __future__ import annotations

from datetime import datetime, timedelta
from functools import lru_cache

from sqlmodel import Session

from fenwick.core.bench.faults.hunt import Case
from fenwick.core.bench.faults.since import WORK
from fenwick.core.tuning.factors import prior_covariance
from fenwick.data.logbook import LogWanted, entries_of
from fenwick.logged.entry import Logged
from fenwick.rig import Rig, build_line


@lru_cache(maxsize=8)
def case_of(rig: Rig) -> Case:
    """A line with every fault it can have."""
    left = rig.tuning.left if rig.tuning and rig.tuning.on else {}
    return Case.of(build_line(rig), prior_covariance(left))


LOOKED_BACK = timedelta(days=120)  #: for the work with which a fault may have begun
MOST_WORK = 6  #: pieces of it that are offered


def work_of(entry: Logged) -> str:
    """What an entry of the log is to a hunt: a key of `WORK`; empty: nothing."""
    key = f"{entry.kind}~{entry.thing}" if entry.kind == "renewed" else entry.kind
    return key if key in WORK else ""


def lately_done(session: Session, line_id: int, now: datetime) -> list[tuple[str, Logged]]:
    """(key of the work, the newest entry of it) that was done on a line lately, the newest first."""
    kinds = tuple(dict.fromkeys(key.split("~")[0] for key in WORK))
    found: dict[str, Logged] = {}
    for entry in entries_of(session, LogWanted(kinds=kinds, line=line_id, since=now - LOOKED_BACK)):
        key = work_of(entry)
        if key and key not in found:
            found[key] = entry
    return list(found.items())[:MOST_WORK]
