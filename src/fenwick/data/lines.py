"""Lines and their history."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import lru_cache

from sqlalchemy import func
from sqlmodel import Session, col, delete, select

from fenwick.data.shops import shop_state
from fenwick.data.tables import DustLine, Revision, Shop
from fenwick.rig import Rig, edit_rig, read_rig, write_rig
from fenwick.shop import ShopFile


class NotFoundError(LookupError):
    """No such line."""


@dataclass(frozen=True)
class LineState:
    """A line as it stands."""

    id: int
    shop: str
    rig: Rig
    undo_label: str | None  #: what undo would take back; None when there is nothing
    redo_label: str | None  #: what redo would bring back
    previous: Rig | None = None  #: before the last change
    owned: ShopFile | None = None  #: what the shop has


def add_line(session: Session, shop: Shop, rig: Rig) -> int:
    """A new line of a shop, at its first revision; its id."""
    assert shop.id is not None
    line = DustLine(shop_id=shop.id)
    session.add(line)
    session.flush()
    assert line.id is not None
    session.add(Revision(line_id=line.id, number=1, label="As found", document=write_rig(rig).decode()))
    session.commit()
    return line.id


def first_line_id(session: Session) -> int | None:
    """The line to show first; None in an empty shop."""
    there = select(DustLine.id).where(col(DustLine.removed).is_(False))
    return session.exec(there.order_by(col(DustLine.position), col(DustLine.id))).first()


def all_line_ids(session: Session) -> list[int]:
    """Every line still there, in their order."""
    there = select(DustLine.id).where(col(DustLine.removed).is_(False))
    found = session.exec(there.order_by(col(DustLine.position), col(DustLine.id))).all()
    return [line_id for line_id in found if line_id is not None]


def line_names(session: Session, line_id: int) -> list[tuple[int, str]]:
    """(id, name) of every line still there in the shop that a line belongs to, in their order.

    Raises
    ------
    NotFoundError
    """
    shop_id = _line(session, line_id).shop_id
    order = (col(DustLine.position), col(DustLine.id))
    there = select(DustLine).where(DustLine.shop_id == shop_id, col(DustLine.removed).is_(False))
    lines = session.exec(there.order_by(*order)).all()
    named = []
    for line in lines:
        here = _revision(session, line, line.cursor)
        if line.id is not None and here is not None:
            named.append((line.id, str(json.loads(here.document).get("name", "Dust line"))))
    return named


def free_name(session: Session, line_id: int, stem: str) -> str:
    """A name that no line of the same shop has yet: the stem, or the stem with a number."""
    taken = {name for _, name in line_names(session, line_id)}
    return next(name for i in range(1, 10_000) if (name := stem if i == 1 else f"{stem} {i}") not in taken)


def line_state(session: Session, line_id: int) -> LineState:
    """A line as it stands.

    Raises
    ------
    NotFoundError
    """
    line = _line(session, line_id)
    here = _revision(session, line, line.cursor)
    assert here is not None
    before, after = (_revision(session, line, line.cursor + step) for step in (-1, +1))
    shop = session.get(Shop, line.shop_id)
    assert shop is not None
    return LineState(
        id=line_id,
        shop=shop.name,
        rig=_rig(here.document),
        undo_label=here.label if line.cursor > 1 else None,
        redo_label=after.label if after else None,
        previous=_rig(before.document) if before else None,
        owned=shop_state(session).file,
    )


def set_removed(session: Session, line_id: int, *, removed: bool) -> None:
    """Take a line away, or bring it back with all its history.

    Raises
    ------
    NotFoundError
    """
    line = _line(session, line_id)
    line.removed = removed
    session.add(line)
    session.commit()


def copy_line(session: Session, line_id: int, name: str) -> int:
    """A variant: a new line of the same shop that starts as this one stands, under a name of its own; its id.

    Raises
    ------
    NotFoundError
    RigError
        When the name is not one a rig may have.
    """
    state = line_state(session, line_id)
    shop = session.get(Shop, _line(session, line_id).shop_id)
    assert shop is not None
    return add_line(session, shop, edit_rig(state.rig, {"name": name}))


def change_line(session: Session, line_id: int, rig: Rig, label: str) -> None:
    """Put a changed rig in force; what had been undone is gone."""
    line = _line(session, line_id)
    session.exec(delete(Revision).where(col(Revision.line_id) == line_id, col(Revision.number) > line.cursor))
    line.cursor += 1
    document = write_rig(rig).decode()
    session.add(line)
    session.add(Revision(line_id=line_id, number=line.cursor, label=label[:300], document=document))
    session.commit()


def step_line(session: Session, line_id: int, by: int) -> str | None:
    """Undo (−1) or redo (+1); what was taken back or brought back, or None at the end of the history."""
    line = _line(session, line_id)
    target = line.cursor + by
    newest = session.exec(select(func.max(Revision.number)).where(Revision.line_id == line_id)).one()
    if not 1 <= target <= newest:
        return None
    moved = _revision(session, line, max(line.cursor, target))
    line.cursor = target
    session.add(line)
    session.commit()
    return moved.label if moved else None


@lru_cache(maxsize=128)
def _rig(document: str) -> Rig:
    """A stored rig, checked once for each text: rigs are immutable, and most requests read the same few."""
    return read_rig(document.encode())


def _line(session: Session, line_id: int) -> DustLine:
    line = session.get(DustLine, line_id)
    if line is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    return line


def _revision(session: Session, line: DustLine, number: int) -> Revision | None:
    return session.exec(select(Revision).where(Revision.line_id == line.id, Revision.number == number)).first()
