"""Jobs of the week as they can be logged: by the board, the cut or the hour, turned into hours at a tool."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from fenwick.core.rules import RuleBook
from fenwick.logged import Logged
from fenwick.rig import Rig
from fenwick.services.logbook.work import HOUR
from fenwick.shop import ShopFile
from fenwick.shop.work import jobs_on_line


@dataclass(frozen=True)
class JobDone:
    """A job, done once."""

    name: str
    line: int
    tool: str  #: name of the port
    hours: float | None  #: each time [h]; None: not known
    times: float  #: a week [-]


def jobs_to_log(shop: ShopFile | None, rigs: Sequence[tuple[int, Rig]]) -> dict[str, JobDone]:
    """The shop's jobs by their names, each on the first of some lines that has its tool."""
    found: dict[str, JobDone] = {}
    for line_id, rig in rigs if shop else ():
        assert shop is not None
        for job in jobs_on_line(shop, rig, RuleBook())[0]:
            port = rig.line.ways[job.port][0].port
            if port is not None:
                hours = None if job.seconds is None else job.seconds / HOUR
                found.setdefault(job.name, JobDone(job.name, line_id, port.name, hours, job.times))
    return found


def usual_week(jobs: Sequence[JobDone], at: datetime) -> list[Logged]:
    """Entries for all that is done in a usual week, as done by a moment."""
    return [
        Logged("worked", at, job.line, job.tool, job.name, hours=job.hours * job.times, count=job.times)
        for job in jobs
        if job.hours is not None and job.times > 0.0
    ]
