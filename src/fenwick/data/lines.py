"""Lines and their history."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from functools import lru_cache

from sqlmodel import Session, col, delete, select

from fenwick.data.remembered import hold, kept, known, remember, remembered
from fenwick.data.shops import shop_state, the_shop
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
    line = DustLine(shop_id=shop.id, name=rig.name)
    session.add(line)
    session.flush()
    assert line.id is not None
    session.add(Revision(line_id=line.id, number=1, label="As found", document=write_rig(rig).decode()))
    kept(session)
    return line.id


def first_line_id(session: Session) -> int | None:
    """The line to show first; None in an empty shop."""
    return next(iter(all_line_ids(session)), None)


def all_line_ids(session: Session) -> list[int]:
    """Every line still there, in their order."""
    return [line_id for line_id, _, _ in _lines_there(session)]


def line_names(session: Session, line_id: int) -> list[tuple[int, str]]:
    """(id, name) of every line still there in the shop that a line belongs to, in their order.

    Raises
    ------
    NotFoundError
    """
    shop_id = _line(session, line_id).shop_id
    return [(one, name) for one, shop, name in _lines_there(session) if shop == shop_id]


def _lines_there(session: Session) -> list[tuple[int, int, str]]:
    """(id, shop, name) of every line still there, in their order."""
    wanted = select(DustLine.id, DustLine.shop_id, DustLine.name).where(col(DustLine.removed).is_(False))
    order = (col(DustLine.position), col(DustLine.id))
    return remembered(
        session,
        ("lines there",),
        lambda: [(i, s, n) for i, s, n in session.exec(wanted.order_by(*order)).all() if i is not None],
    )


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
    return remembered(session, ("line", line_id), lambda: _line_state(session, line_id))


def _line_state(session: Session, line_id: int) -> LineState:
    line = _line(session, line_id)
    near = select(Revision).where(
        Revision.line_id == line_id, col(Revision.number).between(line.cursor - 1, line.cursor + 1)
    )
    rows = {row.number: row for row in session.exec(near).all()}
    here, before, after = (rows.get(line.cursor + step) for step in (0, -1, +1))
    assert here is not None
    the_shop(session)  # most often the one that the line is of
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
    kept(session)


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
    line, state = _line(session, line_id), known(session, ("line", line_id))
    session.exec(delete(Revision).where(col(Revision.line_id) == line_id, col(Revision.number) > line.cursor))
    line.cursor += 1
    line.name = rig.name
    document = write_rig(rig).decode()
    session.add(line)
    session.add(Revision(line_id=line_id, number=line.cursor, label=label[:300], document=document))
    kept(session)
    if state is not None:  # what stands there now is known without reading it again
        now = replace(state, rig=rig, previous=state.rig, undo_label=label[:300], redo_label=None)
        remember(session, ("line", line_id), now)


def step_line(session: Session, line_id: int, by: int) -> str | None:
    """Undo (−1) or redo (+1); what was taken back or brought back, or None at the end of the history."""
    line = _line(session, line_id)
    target = line.cursor + by
    rows = session.exec(
        select(Revision).where(Revision.line_id == line_id, col(Revision.number).in_((line.cursor, target)))
    ).all()
    found = {row.number: row for row in rows}
    if target not in found:
        return None
    line.cursor, line.name = target, _name(found[target].document)
    session.add(line)
    kept(session)
    moved = found.get(max(target, target - by))
    return moved.label if moved else None


def _name(document: str) -> str:
    """The name in a stored document, whatever else may be wrong with it."""
    return str(json.loads(document).get("name", "Dust line"))


@lru_cache(maxsize=128)
def _rig(document: str) -> Rig:
    """A stored rig, checked once for each text: rigs are immutable, and most requests read the same few."""
    return read_rig(document.encode())


def _line(session: Session, line_id: int) -> DustLine:
    line = session.get(DustLine, line_id)
    if line is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    return hold(session, line)
