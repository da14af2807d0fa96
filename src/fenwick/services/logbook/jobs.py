"""Jobs of the week as they can be logged: by the board, the cut or the hour, turned into hours at a tool."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from fenwick.core.rules import RuleBook
from fenwick.logged import Logged
from fenwick.rig import Rig
from fenwick.services.logbook.work import JobDone, jobs_done
from fenwick.shop import ShopFile


def jobs_to_log(shop: ShopFile | None, rigs: Sequence[tuple[int, Rig]]) -> dict[str, JobDone]:
    """The shop's jobs by their names, each on the first of some lines that has its tool."""
    taken: set[str] = set()
    jobs = [job for line_id, rig in rigs for job in jobs_done(shop, line_id, rig, RuleBook(), taken)]
    return {job.name: job for job in reversed(jobs)}


def usual_week(jobs: Sequence[JobDone], at: datetime) -> list[Logged]:
    """Entries for all that is done in a usual week, as done by a moment."""
    return [
        Logged("worked", at, job.line, job.tool, job.name, hours=job.hours * job.times, count=job.times)
        for job in jobs
        if job.times > 0.0
    ]
