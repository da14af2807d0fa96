"""The log as JSON: entries, what it says of today, and what is due."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict
from datetime import datetime
from typing import Any

from sqlmodel import Session

from fenwick.data.lines import readable_lines
from fenwick.data.logbook import LogWanted, entries_of
from fenwick.logged import Logged
from fenwick.services.logbook.due import DueItem, due_in
from fenwick.services.logbook.elsewhere import DoneElsewhere, done_elsewhere
from fenwick.services.logbook.estimate import HolderToday, Likely
from fenwick.services.logbook.today import shop_today
from fenwick.wording.logbook import what_is_due

FORMAT, VERSION = "fenwick-log", 1


def log_document(session: Session, now: datetime, most: int | None = None) -> dict[str, Any]:
    """The log of a shop.

    Parameters
    ----------
    session : of the shop
    now : by the shop's clock
    most : entries, the newest first; None: all of them
    """
    lines = {number: rig.name for number, rig in readable_lines(session)[0]}
    return {
        "format": FORMAT,
        "version": VERSION,
        "today": [_holder(one) for one in shop_today(session, now).holders],
        "due": [_due(one) for one in due_in(session, now)],
        "elsewhere": [_elsewhere(one, lines) for one in done_elsewhere(session)],
        "entries": [entry_document(one, lines) for one in entries_of(session, LogWanted(), most=most)],
    }


def entry_document(entry: Logged, lines: Mapping[int, str]) -> dict[str, Any]:
    """One entry, in SI; what is not said is left out."""
    told = {key: value for key, value in asdict(entry).items() if value not in (None, "")}
    told["at"] = entry.at.isoformat(timespec="minutes")
    if entry.line is not None:
        told["line"] = lines.get(entry.line, f"line {entry.line}")
    return told


def _elsewhere(one: DoneElsewhere, lines: Mapping[int, str]) -> dict[str, Any]:
    """A step of a way or of a build, or a test, that is kept on its own page."""
    at = one.at.isoformat(timespec="minutes") if one.timed else f"{one.at:%Y-%m-%d}"
    return {"at": at, "kind": one.kind, "line": lines.get(one.line, f"line {one.line}"), "words": one.words}


def _holder(one: HolderToday) -> dict[str, Any]:
    return {
        "key": one.holder.key,
        "kind": one.holder.kind,
        "name": one.holder.name,
        "known": one.known,
        "used": _likely(one.used) if one.known else None,
        "days": _likely(one.days) if one.known else None,
        "over_already": one.past_due if one.known else None,
        "life_h": _finite(one.hours),
        "last_life_h": _finite(one.last_hours),
        "last_life_modelled_h": _finite(one.last_modelled),
        "lives_over_model": one.typical,
        "lives_seen": len(one.story.ratios),
    }


def _due(item: DueItem) -> dict[str, Any]:
    return {
        "key": item.key,
        "what": "mend" if item.let_go else item.what,
        "words": what_is_due(item.what, item.name),
        "line": item.line,
        "overdue": item.overdue,
        "days": _likely(item.days),
    }


def _likely(figure: Likely) -> dict[str, float | None]:
    """Its three figures; None where there is none, or none that is followed."""
    return {"likely": _finite(figure.likely), "low": _finite(figure.low), "high": _finite(figure.high)}


def _finite(value: float | None) -> float | None:
    return value if value is not None and math.isfinite(value) else None
