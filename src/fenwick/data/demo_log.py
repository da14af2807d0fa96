"""Half a year of the demo shop's log, counted back from the day it is seeded; a seal lets go in month four."""

from __future__ import annotations

import csv
from datetime import datetime, timedelta
from importlib import resources

from sqlmodel import Session

from fenwick.data.logbook import AMOUNTS, begin_log
from fenwick.logged import Logged


def demo_entries(lines: list[int], now: datetime) -> list[Logged]:
    """The log's entries, on the demo's lines.

    Parameters
    ----------
    lines : numbers of the demo's lines, in their order
    now : by the shop's clock
    """
    text = resources.files("fenwick.data").joinpath("demo_log.csv").read_text()
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    return [_entry(row, lines, midnight) for row in csv.DictReader(text.splitlines())]


def seed_log(session: Session, lines: list[int], now: datetime) -> None:
    """Begin the log of a shop with it."""
    begin_log(session, demo_entries(lines, now))


def _entry(row: dict[str, str], lines: list[int], midnight: datetime) -> Logged:
    hour, minute = row["time"].split(":")
    at = midnight - timedelta(days=int(row["days_ago"])) + timedelta(hours=int(hour), minutes=int(minute))
    amounts = {key: float(row[key]) for key in AMOUNTS if row.get(key)}
    words = {key: row[key] for key in ("thing", "job", "finding", "words")}
    line = lines[int(row["line"]) - 1] if row["line"] else None
    return Logged(row["entry"], at, line, **words, **amounts)  # type: ignore[arg-type]
