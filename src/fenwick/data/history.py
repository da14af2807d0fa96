"""States of a document, one after the other: a step of the cursor is an undo, and nothing that was kept is thrown away.

The states of one owner are numbered from 1 without a hole. What had been undone when something else was changed stands
behind no step any more; it keeps its row, under a number below nothing, for the pages that were made from it.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from sqlalchemy import func
from sqlmodel import Session, col, select, update

from fenwick.data.tables import BuildRevision, LineWayRevision, Revision, ShopRevision

State = TypeVar("State", Revision, ShopRevision, BuildRevision, LineWayRevision)


@dataclass(frozen=True)
class Near(Generic[State]):
    """The states around a cursor."""

    here: State | None
    before: State | None
    after: State | None


@dataclass(frozen=True)
class Numbering:
    """The numbers of somebody's states."""

    count: int
    lowest: int
    highest: int

    @property
    def whole(self) -> bool:
        """Whether they run from 1 without a hole."""
        return (self.lowest, self.highest) == (1, self.count)


@dataclass(frozen=True)
class History(Generic[State]):
    """Where the states of one kind of document stand."""

    table: type[State]
    owner: str  #: column that says whose they are

    def near(self, session: Session, owner: int, cursor: int) -> Near[State]:
        """The state at a cursor, and its neighbours."""
        numbers = (cursor, cursor - 1, cursor + 1)
        mine = select(self.table).where(self._owned(owner), col(self.table.number).in_(numbers))
        found = {row.number: row for row in session.exec(mine).all()}
        return Near(*(found.get(number) for number in numbers))

    def step(self, session: Session, row: Any, by: int) -> str | None:
        """Undo (−1) or redo (+1) for the owner in a row with its cursor; its label, None at the end of the history."""
        near = self.near(session, row.id, row.cursor)
        target = near.here if by < 0 else near.after
        if target is None:
            return None
        row.cursor += by
        session.add(row)
        return target.label

    def at(self, session: Session, owner: int, revision: int) -> State | None:
        """A state by the id of its row, one that had been undone too."""
        row = session.get(self.table, revision)
        return row if row is not None and getattr(row, self.owner) == owner else None

    def add(self, session: Session, owner: int, cursor: int, label: str, document: str) -> State:
        """A state behind the one at a cursor; what had been undone is left behind."""
        undone = (self._owned(owner), col(self.table.number) > cursor)
        session.exec(update(self.table).where(*undone).values(number=-self._id()))
        values: dict[str, Any] = {self.owner: owner, "number": cursor + 1, "label": label[:300], "document": document}
        row = self.table(**values)
        session.add(row)
        session.flush()
        return row

    def newest(self, session: Session, owner: int) -> int:
        """Number of the last state; 0 where there is none."""
        return session.exec(select(func.max(self.table.number)).where(self._owned(owner))).one() or 0

    def spans(self, session: Session) -> dict[int, Numbering]:
        """What is there of every owner that has any states."""
        owner, number = getattr(self.table, self.owner), col(self.table.number)
        each = select(owner, func.count(), func.min(number), func.max(number)).where(number > 0).group_by(owner)
        return {mine: Numbering(count, low, high) for mine, count, low, high in session.exec(each).all()}

    def numbers(self, session: Session, owner: int) -> list[int]:
        """Numbers of the states that steps lead to, in order."""
        mine = select(self.table.number).where(self._owned(owner), col(self.table.number) > 0)
        return sorted(session.exec(mine).all())

    def renumber(self, session: Session, owner: int, numbers: Sequence[int]) -> None:
        """Number the states from 1, given what they are numbered by now, in order."""
        for new, old in enumerate(numbers, start=1):  # each moves down to a number that is free
            session.exec(update(self.table).where(self._owned(owner), col(self.table.number) == old).values(number=new))

    def in_force(self, session: Session, owners: Any, lines: Collection[int]) -> list[tuple[int, str]]:
        """(line, document in force) of every owner on some lines, in the order they were begun.

        Parameters
        ----------
        session : of the shop
        owners : table of what has these states, on a line each
        lines : ids
        """
        state: Any = self.table
        here = (getattr(state, self.owner) == owners.id) & (state.number == owners.cursor)
        asked = select(owners.line_id, state.document).join(state, here).where(owners.line_id.in_(lines))
        return [(line, document) for line, document in session.exec(asked.order_by(owners.id)).all()]

    def _owned(self, owner: int) -> Any:
        return getattr(self.table, self.owner) == owner

    def _id(self) -> Any:
        return col(self.table.id)


OF_LINES = History(Revision, "line_id")
OF_SHOPS = History(ShopRevision, "shop_id")
OF_BUILDS = History(BuildRevision, "build_id")
OF_WAYS = History(LineWayRevision, "way_id")
