"""All that is due in a shop, the soonest first: what work wears out, and what one looks at by the calendar."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

import numpy as np
from sqlmodel import Session

from fenwick.core.judging.check import ACT
from fenwick.core.logbook.due import due_level
from fenwick.core.logbook.entries import PIECES
from fenwick.core.logbook.looks import SEALS, PieceNow, first_hour, first_look, looks
from fenwick.core.logbook.pace import WEEK
from fenwick.core.rules import RuleBook
from fenwick.data.lines import readable_lines
from fenwick.data.logbook import log_stamp
from fenwick.data.tested import last_tested
from fenwick.logged import Logged
from fenwick.rig import Rig
from fenwick.rig.format.separator import SlottedDiscPart
from fenwick.services.logbook.estimate import HolderToday, Likely
from fenwick.services.logbook.holders import first_separator
from fenwick.services.logbook.today import ShopToday, shop_today
from fenwick.services.logbook.work import LogRead, julian
from fenwick.services.recent import Recent

TEST, FIRST_LOOK = "test", "first-look"


@dataclass(frozen=True)
class DueItem:
    """One thing that is due some day."""

    key: str
    what: str  #: kind of a holder, key of `PIECES`, or TEST
    line: int  #: on which it is looked after
    name: str  #: of the bin, the vacuum or the line
    days: Likely  #: from today; 0 or below: it is due [d]
    holder: HolderToday | None = None
    let_go: bool = False  #: it was seen to have let go, and was not mended since
    lets_go: float | None = None  #: days until it is likely to let go [d]; None: not followed
    lived: float | None = None  #: of the last one, from new until it had let go [d]
    last: float | None = None  #: days since it was last looked after [d]; None: never
    first_hour: bool = False  #: it was made anew, and has to be looked at under load
    pieces: tuple[str, ...] = ()  #: of a first look, what is to be looked at

    @property
    def overdue(self) -> bool:
        """Whether it is due today, or was before."""
        return self.let_go or self.days.likely <= 0.0

    @property
    def level(self) -> int:
        """How pressing it is: OK, WATCH or ACT."""
        return ACT if self.let_go else due_level(self.days.likely, RuleBook())


_DUE: Recent[tuple[DueItem, ...]] = Recent(16)


def due_in(session: Session, now: datetime) -> tuple[DueItem, ...]:
    """All of it, the soonest first; what nobody can date comes last."""
    shop, tested = shop_today(session, now), last_tested(session)
    there = tuple(readable_lines(session, shop.read.spans)[0])
    key = (log_stamp(session), shop.read.today, there, tuple(tested.items()))
    return _DUE.get(key, lambda: _worked_out(shop, dict(there), tested))


def _worked_out(shop: ShopToday, rigs: Mapping[int, Rig], tested: Mapping[int, datetime]) -> tuple[DueItem, ...]:
    days = {line_id: julian(at.replace(tzinfo=None)) for line_id, at in tested.items()}
    found = [_of_holder(one) for one in shop.holders if one.known]
    found += _first_looks(_of_pieces(shop.read, rigs, days))
    return tuple(sorted(found, key=_order))


def _first_looks(items: Sequence[DueItem]) -> list[DueItem]:
    """What the log never spoke of and would be due is one look at each line; the rest as it is."""
    never = [one for one in items if one.last is None and one.overdue and one.what != TEST]
    found, some_day = [one for one in items if one not in never], Likely.of(first_look(RuleBook()))
    for line in dict.fromkeys(one.line for one in never):
        mine = [one for one in never if one.line == line]
        pieces = tuple(one.what for one in mine)
        found.append(DueItem(f"{FIRST_LOOK}:{line}", FIRST_LOOK, line, mine[0].name, some_day, pieces=pieces))
    return found


def _order(item: DueItem) -> tuple[bool, float]:
    unknown = bool(np.isnan(item.days.likely))
    return unknown, -1.0 if item.let_go else (0.0 if unknown else item.days.likely)


def _of_holder(one: HolderToday) -> DueItem:
    return DueItem(one.holder.key, one.holder.kind, one.holder.lines[0], one.holder.name, one.days, one)


@dataclass(frozen=True)
class _Piece:
    """A piece of a line, with what its due date is told by."""

    line: int
    now: PieceNow
    let_go: bool
    last: float | None
    made: float | None  #: day on which it was made anew, and not looked at since [d]


def _of_pieces(read: LogRead, rigs: Mapping[int, Rig], tested: Mapping[int, float]) -> list[DueItem]:
    pieces = [
        _piece(piece, line_id, read, tested.get(line_id))
        for line_id, rig in rigs.items()
        for piece in _pieces_of(rig, line_id, read)
    ]
    if not pieces:
        return []
    rules = RuleBook()
    told = looks([one.now for one in pieces], rules)
    found = []
    for row, one in enumerate(pieces):
        days = Likely.of(told.days, row)
        first = one.now.piece == "joint" and one.made is not None
        if first and one.made is not None:
            days = _first_hour(read, one.line, one.made, rules, days)
        found.append(
            DueItem(
                key=f"{one.now.piece}:{one.line}",
                what=one.now.piece,
                line=one.line,
                name=rigs[one.line].name,
                days=days,
                let_go=one.let_go,
                lets_go=None if np.isnan(told.lets_go.likely[row]) else float(told.lets_go.likely[row]),
                lived=one.now.lives[-1] if one.now.lives else None,
                last=one.last,
                first_hour=first,
            )
        )
    return found


def _pieces_of(rig: Rig, line_id: int, read: LogRead) -> list[str]:
    part = first_separator(rig)
    usual = [] if part is None else ["gasket"]
    if isinstance(part, SlottedDiscPart) and not part.hung:
        usual.append("chamber-seal")
    usual += ["joint", "cord", "whole-line", TEST]
    logged = {event.thing for event in read.events if event.line == line_id and event.thing in PIECES}
    return usual + sorted(logged - set(usual))


def _piece(piece: str, line_id: int, read: LogRead, tested: float | None) -> _Piece:
    begins = read.spans[line_id][0]
    if piece == TEST:
        measured = [julian(event.at) for event in read.events if event.line == line_id and event.kind == "kept"]
        last = max([*measured, *([] if tested is None else [tested])], default=None)
        since = read.today - (begins if last is None else last)
        return _Piece(line_id, PieceNow(TEST, since, None), False, None if last is None else since, None)
    return _followed(piece, line_id, read, begins)


def _followed(piece: str, line_id: int, read: LogRead, begins: float) -> _Piece:
    looked, new, let_go = None, None, None
    lives: list[float] = []
    for event in _about(read.events, piece, line_id):
        day = looked = julian(event.at)
        if event.kind == "renewed":
            new, let_go = day, None
        elif event.finding == "let-go" and let_go is None:
            let_go = day
            if new is not None:
                lives.append(day - new)
    made = new if new is not None and looked == new else None
    since, age = read.today - (begins if looked is None else looked), None if new is None else read.today - new
    told = tuple(lives) if piece in SEALS else ()
    last = None if looked is None else read.today - looked
    return _Piece(line_id, PieceNow(piece, since, age, told), let_go is not None, last, made)


def _about(events: Sequence[Logged], piece: str, line_id: int) -> Iterable[Logged]:
    return (
        event
        for event in events
        if event.line == line_id and event.thing == piece and event.kind in ("inspected", "renewed")
    )


def _first_hour(read: LogRead, line_id: int, made: float, rules: RuleBook, else_by: Likely) -> Likely:
    """When a joint that was made anew is looked at: by the hours at its line, by the calendar where none are logged."""
    weeks = float(rules["log.hours-over"])
    worked = [one for one in read.hours if one.line == line_id]
    since, recent = (
        sum(float(one.hours[one.at >= day].sum()) for one in worked) for day in (made, read.today - weeks * WEEK)
    )
    found = first_hour(since, recent / weeks, rules)
    return else_by if found is None else Likely.of(found)
