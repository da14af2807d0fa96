"""The shop's file and its history."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from functools import lru_cache

from sqlmodel import Session, col, select

from fenwick.data.history import OF_SHOPS
from fenwick.data.remembered import kept, remembered
from fenwick.data.tables import Shop
from fenwick.rig import RigError
from fenwick.shop import ShopFile, read_shop, write_shop
from fenwick.shop.read import empty_shop

BEGINNING = "As found"  #: the label of a state that nothing came before


@dataclass(frozen=True)
class ShopState:
    """A shop as it stands."""

    revision: int  #: id of the state that this is; 0: nobody has described it yet
    file: ShopFile
    undo_label: str | None  #: what undo would take back; None when there is nothing
    redo_label: str | None  #: what redo would bring back


def the_shop(session: Session) -> Shop:
    """The shop of this file; opening it makes one where there is none."""
    return remembered(session, ("shop",), lambda: _the_shop(session))


def _the_shop(session: Session) -> Shop:
    found = session.exec(select(Shop).order_by(col(Shop.id))).first()
    if found is None:
        found = Shop(name="My shop")
        session.add(found)
        session.flush()
    return found


def shop_state(session: Session) -> ShopState:
    """The shop of this database; one that nobody has described yet is empty."""
    return remembered(session, ("shop state",), lambda: _shop_state(session))


def readable_shop(session: Session) -> ShopFile | None:
    """What the shop has; None where its file cannot be read: its own page says what is wrong with it."""
    try:
        return shop_state(session).file
    except RigError:
        return None


def _shop_state(session: Session) -> ShopState:
    shop = the_shop(session)
    assert shop.id is not None
    near = OF_SHOPS.near(session, shop.id, shop.cursor)
    here, after = near.here, near.after
    return ShopState(
        revision=here.id or 0 if here else 0,
        file=_file(here.document) if here else empty_shop(shop.name),
        undo_label=here.label if here and here.label != BEGINNING else None,
        redo_label=after.label if after else None,
    )


def shop_as_of(session: Session, revision: int | None) -> ShopState:
    """The shop as it stood at one of its states, as a page has shown it; as it stands where that is not known."""
    shop, now = the_shop(session), shop_state(session)
    assert shop.id is not None
    if revision == 0 and now.revision:  # before anybody had described it
        return ShopState(0, empty_shop(shop.name), None, None)
    row = OF_SHOPS.at(session, shop.id, revision) if revision is not None else None
    return now if row is None or row.id == now.revision else ShopState(row.id or 0, _file(row.document), None, None)


def change_shop(session: Session, file: ShopFile, label: str) -> None:
    """Put a changed shop in force; what had been undone stands behind no step any more."""
    shop = the_shop(session)
    assert shop.id is not None
    row = OF_SHOPS.add(session, shop.id, shop.cursor, label, write_shop(file).decode())
    shop.cursor, shop.name = row.number, file.name
    session.add(shop)
    kept(session)


def step_shop(session: Session, by: int) -> None:
    """Undo (−1) or redo (+1); nothing happens at the end of the history. The first revision stays."""
    shop = the_shop(session)
    assert shop.id is not None
    near, target = OF_SHOPS.near(session, shop.id, shop.cursor), shop.cursor + by
    to = near.before if by < 0 else near.after
    if (to is None and target != 0) or (by < 0 and near.here is not None and near.here.label == BEGINNING):
        return
    shop.cursor = target
    if to is not None:
        with suppress(RigError):  # the page of the shop says what is wrong with it
            shop.name = _file(to.document).name
    session.add(shop)
    kept(session)


def begin_shop(session: Session, shop: Shop, file: ShopFile) -> None:
    """Give a new shop its file; this is where its history begins."""
    assert shop.id is not None
    shop.cursor = OF_SHOPS.add(session, shop.id, 0, BEGINNING, write_shop(file).decode()).number
    session.add(shop)
    kept(session)


@lru_cache(maxsize=32)
def _file(document: str) -> ShopFile:
    """A stored shop, checked once for each text."""
    return read_shop(document.encode())
