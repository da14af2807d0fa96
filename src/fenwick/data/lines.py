"""Lines and their history."""

from __future__ import annotations

import json
from collections.abc import Callable, Collection
from dataclasses import dataclass, replace
from functools import lru_cache

from sqlmodel import Session, col, select

from fenwick.data.history import OF_LINES
from fenwick.data.remembered import hold, kept, known, remember, remembered
from fenwick.data.shops import BEGINNING, readable_shop, the_shop
from fenwick.data.tables import DustLine, Revision, Shop
from fenwick.rig import Rig, RigError, edit_rig, read_rig, write_rig
from fenwick.shop import ShopFile


class NotFoundError(LookupError):
    """No such line."""


@dataclass(frozen=True)
class LineState:
    """A line as it stands."""

    id: int
    revision: int  #: id of the state that this is
    shop: str
    rig: Rig
    undo_label: str | None  #: what undo would take back; None when there is nothing
    redo_label: str | None  #: what redo would bring back
    previous: Rig | None = None  #: before the last change
    owned: ShopFile | None = None  #: what the shop has


#: a line's rig as pages show it, from its number and as it is stored
ShownRig = Callable[[Session, int, Rig], Rig]
_SHOWN = "lines are shown by"


def show_lines_by(session: Session, shown: ShownRig) -> None:
    """Show every line of a session that is shown by the log as a function makes it of what is stored."""
    session.info[_SHOWN] = shown


def _shown(session: Session, line: DustLine, rig: Rig) -> Rig:
    shown: ShownRig | None = session.info.get(_SHOWN)
    return rig if shown is None or not line.by_log or line.id is None else shown(session, line.id, rig)


def add_line(session: Session, shop: Shop, rig: Rig) -> int:
    """A new line of a shop, at its first revision; its id."""
    assert shop.id is not None
    line = DustLine(shop_id=shop.id, name=rig.name)
    session.add(line)
    session.flush()
    assert line.id is not None
    OF_LINES.add(session, line.id, 0, BEGINNING, write_rig(rig).decode())
    kept(session)
    return line.id


def first_line_id(session: Session) -> int | None:
    """The line to show first; None in an empty shop."""
    return next(iter(all_line_ids(session)), None)


def all_line_ids(session: Session) -> list[int]:
    """Every line still there, in their order."""
    return [line_id for line_id, _, _ in _lines_there(session)]


def all_names(session: Session) -> set[str]:
    """The name of every line still there."""
    return {name for _, _, name in _lines_there(session)}


def line_names(session: Session, line_id: int) -> list[tuple[int, str]]:
    """(id, name) of every line still there in the shop that a line belongs to, in their order.

    Raises
    ------
    NotFoundError
    """
    shop_id = line_row(session, line_id).shop_id
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
    line = line_row(session, line_id)
    near = OF_LINES.near(session, line_id, line.cursor)
    here, before, after = near.here, near.before, near.after
    if here is None:
        raise NotFoundError(f"Nothing is left of line number {line_id}: put a copy of the shop back.")
    return replace(
        _as_of(session, line, here),
        undo_label=here.label if line.cursor > 1 else None,
        redo_label=after.label if after else None,
        previous=_previous(session, line, before.document) if before else None,
    )


def _previous(session: Session, line: DustLine, document: str) -> Rig | None:
    rig = _readable(document)
    return None if rig is None else _shown(session, line, rig)


@dataclass(frozen=True)
class Standing:
    """Where a line stands in its history, whether or not what stands there can be read."""

    revision: int  #: id of the state in force
    undo_label: str | None
    redo_label: str | None


def line_standing(session: Session, line_id: int) -> Standing:
    """Where a line stands.

    Raises
    ------
    NotFoundError
        Also where nothing stands there.
    """
    line = line_row(session, line_id)
    near = OF_LINES.near(session, line_id, line.cursor)
    if near.here is None or near.here.id is None:
        raise NotFoundError(f"Nothing is left of line number {line_id}: put a copy of the shop back.")
    undo = near.here.label if near.before else None
    return Standing(near.here.id, undo, near.after.label if near.after else None)


def stored_document(session: Session, line_id: int) -> str:
    """What is stored of a line as it stands, as it is, whatever may be wrong with it.

    Raises
    ------
    NotFoundError
    """
    row = OF_LINES.at(session, line_id, line_standing(session, line_id).revision)
    assert row is not None
    return row.document


def readable_lines(session: Session, only: Collection[int] | None = None) -> tuple[list[tuple[int, Rig]], list[str]]:
    """((id, rig) of lines still there as they are stored, in their order; the names of those that cannot be read).

    Parameters
    ----------
    session : of the shop
    only : ids of the lines that are wanted; None: every one
    """
    wanted = None if only is None else frozenset(only)
    return remembered(session, ("readable lines", wanted), lambda: _readable_lines(session, wanted))


def _readable_lines(session: Session, only: frozenset[int] | None) -> tuple[list[tuple[int, Rig]], list[str]]:
    here = (col(Revision.line_id) == DustLine.id) & (col(Revision.number) == DustLine.cursor)
    asked = select(Revision.line_id, Revision.document).join(DustLine, here)
    if only is not None:
        asked = asked.where(col(Revision.line_id).in_(only))
    documents = dict(session.exec(asked).all()) if only is None or only else {}
    rigs, names = [], []
    for line_id, _, name in _lines_there(session):
        rig = _readable(documents.get(line_id, ""))
        if only is not None and line_id not in only:
            continue
        if rig is None:
            names.append(name)
        else:
            rigs.append((line_id, rig))
    return rigs, names


def line_as_of(session: Session, line_id: int, revision: int | None) -> LineState:
    """A line as it stood at one of its states, as a page has shown it; as it stands where that is not known.

    Raises
    ------
    NotFoundError
    """
    row = OF_LINES.at(session, line_id, revision) if revision is not None else None
    now = line_state(session, line_id)
    return now if row is None or row.id == now.revision else _as_of(session, line_row(session, line_id), row)


def _as_of(session: Session, line: DustLine, row: Revision) -> LineState:
    the_shop(session)  # most often the one that the line is of
    shop = session.get(Shop, line.shop_id)
    assert shop is not None
    assert line.id is not None
    assert row.id is not None
    rig = _shown(session, line, _rig(row.document))
    return LineState(line.id, row.id, shop.name, rig, None, None, owned=readable_shop(session))


def _readable(document: str) -> Rig | None:
    try:
        return _rig(document)
    except RigError:  # what stood before is only compared with
        return None


def set_removed(session: Session, line_id: int, *, removed: bool) -> None:
    """Take a line away, or bring it back with all its history.

    Raises
    ------
    NotFoundError
    """
    line = line_row(session, line_id)
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
    shop = session.get(Shop, line_row(session, line_id).shop_id)
    assert shop is not None
    return add_line(session, shop, edit_rig(state.rig, {"name": name}))


def change_line(session: Session, line_id: int, rig: Rig, label: str) -> None:
    """Put a changed rig in force; what had been undone stands behind no step any more.

    Parameters
    ----------
    session, line_id : of the line
    rig : as it is to be stored
    label : what was done
    """
    line, state = line_row(session, line_id), known(session, ("line", line_id))
    row = OF_LINES.add(session, line_id, line.cursor, label, write_rig(rig).decode())
    line.cursor, line.name = row.number, rig.name
    session.add(line)
    kept(session)
    if state is not None:  # what stands there now is known without reading it again
        assert row.id is not None
        shown = _shown(session, line, rig)
        now = replace(state, revision=row.id, rig=shown, previous=state.rig, undo_label=row.label, redo_label=None)
        remember(session, ("line", line_id), now)


def step_line(session: Session, line_id: int, by: int) -> str | None:
    """Undo (−1) or redo (+1); what was taken back or brought back, or None at the end of the history."""
    line = line_row(session, line_id)
    near = OF_LINES.near(session, line_id, line.cursor)
    target = near.before if by < 0 else near.after
    if target is None:
        return None
    line.cursor, line.name = target.number, _name(target.document)
    session.add(line)
    kept(session)
    moved = near.here if by < 0 else target
    return moved.label if moved else None


def _name(document: str) -> str:
    """The name in a stored document, whatever else may be wrong with it."""
    return str(json.loads(document).get("name", "Dust line"))


@lru_cache(maxsize=1024)
def _rig(document: str) -> Rig:
    """A stored rig, checked once for each text: rigs are immutable, and most requests read the same few."""
    return read_rig(document.encode())


def line_row(session: Session, line_id: int) -> DustLine:
    """The row of a line, taken away or not.

    Raises
    ------
    NotFoundError
    """
    line = session.get(DustLine, line_id)
    if line is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    return hold(session, line)
