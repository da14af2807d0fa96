"""The shop at a glance: every line with what is worst on it, how full its bin is, and what its vacuum last held."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlmodel import Session

from fenwick.core.arrays import one_value
from fenwick.core.components.dust import DUSTS
from fenwick.core.errors import CoreError
from fenwick.core.judging.check import Check
from fenwick.core.logbook.entries import BAG, FILTER
from fenwick.data.lines import LineState, line_names, line_state
from fenwick.data.tested import last_tested
from fenwick.rig import Rig, RigError
from fenwick.services.checks import Checked, Tally, checked, tally
from fenwick.services.logbook.holders import bin_on, emptied, first_separator, vacuum_key
from fenwick.services.logbook.today import ShopToday
from fenwick.services.solving import solve

MOST_LINES = 12


@dataclass(frozen=True)
class HomeLine:
    """One line."""

    id: int
    state: LineState
    tally: Tally
    worst: Check | None  #: of those that are open; None: all is in order
    kept: float | None  #: of what enters its separators [-]
    at: str | None  #: the tool at which that is
    fill: float | None  #: of its bin's height [-]
    mark: float | None  #: up to which it may fill, likewise [-]
    cake: float | None  #: of its filter's life that is used, by the log [-]; None: the log does not say
    tested: datetime | None
    tuned: bool


@dataclass(frozen=True)
class LastHeld:
    """What a vacuum took in last."""

    vacuum: str
    dust: str  #: key of DUSTS
    at: datetime
    tool: str


def home_lines(session: Session, lines: Sequence[int], today: ShopToday) -> tuple[list[HomeLine], list[str]]:
    """(lines, names of those that cannot be shown), in their order, at most `MOST_LINES`."""
    tested, found, left = last_tested(session), [], []
    for line_id in list(lines)[:MOST_LINES]:
        try:
            found.append(_line(session, line_state(session, line_id), today, tested))
        except (CoreError, RigError):  # its own page says why
            left.append(dict(line_names(session, line_id)).get(line_id, f"line {line_id}"))
    return found, left


def _line(session: Session, state: LineState, today: ShopToday, tested: Mapping[int, datetime]) -> HomeLine:
    solved, checks = solve(state.rig), checked(session, state)
    kept = solved.found.kept
    leaf = solved.line.leaves[solved.first_open] if any(leaf.open for leaf in solved.line.leaves) else None
    filters = [one for one in today.of_line(state.id) if one.holder.kind in (FILTER, BAG) and one.known]
    return HomeLine(
        state.id,
        state,
        tally(checks),
        _worst(checks),
        None if kept is None else one_value(kept),
        None if leaf is None or leaf.port is None else leaf.port.name,
        _fill(state.rig),
        _mark(state.rig),
        filters[0].used.likely if filters else None,
        tested.get(state.id),
        state.rig.tuning is not None and state.rig.tuning.on,
    )


def _worst(checks: Sequence[Checked]) -> Check | None:
    still = [one for one in checks if one.open]
    return max(still, key=lambda one: one.level).check if still else None


def _fill(rig: Rig) -> float | None:
    """Share of the first bin's height that is full, as the line shows it."""
    part = first_separator(rig)
    return None if part is None else part.bin.fill_height_m / part.bin.profile[-1].height_m


def _mark(rig: Rig) -> float | None:
    there, part = bin_on(emptied(rig)), first_separator(rig)
    return None if there is None or part is None else there.mark / part.bin.profile[-1].height_m


def last_held(states: Sequence[LineState], today: ShopToday) -> list[LastHeld]:
    """What each vacuum of the lines took in last, by the hours that were logged: the newest first."""
    found: dict[str, LastHeld] = {}
    by_line = {state.id: state for state in states}
    worked = [one for one in today.read.hours if one.line in by_line]
    for one in sorted(worked, key=lambda hours: float(hours.at[-1]), reverse=True):
        assert one.line is not None
        state = by_line[one.line]
        dust = _dust_at(state.rig, one.tool)
        key = vacuum_key(state.rig, state.owned)
        if dust in DUSTS and key not in found:
            days = float(one.at[-1]) - today.read.today
            found[key] = LastHeld(state.rig.vacuum.name, dust, today.read.moment(days), one.tool)
    return list(found.values())


def _dust_at(rig: Rig, tool: str) -> str:
    ports = (way[0].port for way in rig.line.ways)
    own = next((port.dust for port in ports if port is not None and port.name == tool), None)
    return own or (rig.dust.kind if rig.dust is not None else "")
