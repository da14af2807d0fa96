"""The shop's file and its history."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from sqlalchemy import func
from sqlmodel import Session, col, delete, select

from fenwick.data.remembered import kept, remembered
from fenwick.data.tables import Shop, ShopRevision
from fenwick.shop import ShopFile, read_shop, write_shop
from fenwick.shop.read import empty_shop

BEGINNING = "As found"  #: the label of a state that nothing came before


@dataclass(frozen=True)
class ShopState:
    """A shop as it stands."""

    file: ShopFile
    undo_label: str | None  #: what undo would take back; None when there is nothing
    redo_label: str | None  #: what redo would bring back


def add_shop(session: Session, name: str) -> Shop:
    """A new shop."""
    shop = Shop(name=name)
    session.add(shop)
    kept(session)
    return shop


def the_shop(session: Session) -> Shop:
    """The shop of this file, made where there is none yet."""
    found = remembered(session, ("shop",), lambda: session.exec(select(Shop).order_by(col(Shop.id))).first())
    return found or add_shop(session, "My shop")


def shop_state(session: Session) -> ShopState:
    """The shop of this database; one that nobody has described yet is empty."""
    return remembered(session, ("shop state",), lambda: _shop_state(session))


def _shop_state(session: Session) -> ShopState:
    shop = the_shop(session)
    near = select(ShopRevision).where(
        ShopRevision.shop_id == shop.id, col(ShopRevision.number).in_((shop.cursor, shop.cursor + 1))
    )
    rows = {row.number: row for row in session.exec(near).all()}
    here, after = rows.get(shop.cursor), rows.get(shop.cursor + 1)
    return ShopState(
        file=_file(here.document) if here else empty_shop(shop.name),
        undo_label=here.label if here and here.label != BEGINNING else None,
        redo_label=after.label if after else None,
    )


def change_shop(session: Session, file: ShopFile, label: str) -> None:
    """Put a changed shop in force; what had been undone is gone."""
    shop = the_shop(session)
    session.exec(
        delete(ShopRevision).where(col(ShopRevision.shop_id) == shop.id, col(ShopRevision.number) > shop.cursor)
    )
    shop.cursor += 1
    shop.name = file.name
    assert shop.id is not None
    document = write_shop(file).decode()
    session.add(shop)
    session.add(ShopRevision(shop_id=shop.id, number=shop.cursor, label=label[:300], document=document))
    kept(session)


def step_shop(session: Session, by: int) -> None:
    """Undo (−1) or redo (+1); nothing happens at the end of the history. The first revision stays."""
    shop = the_shop(session)
    target = shop.cursor + by
    newest = session.exec(select(func.max(ShopRevision.number)).where(ShopRevision.shop_id == shop.id)).one() or 0
    here = _revision(session, shop, shop.cursor)
    if not 0 <= target <= newest or (by < 0 and here is not None and here.label == BEGINNING):
        return
    shop.cursor = target
    here = _revision(session, shop, target)
    if here is not None:
        shop.name = _file(here.document).name
    session.add(shop)
    kept(session)


def begin_shop(session: Session, shop: Shop, file: ShopFile) -> None:
    """Give a new shop its file; this is where its history begins."""
    assert shop.id is not None
    session.add(ShopRevision(shop_id=shop.id, number=1, label=BEGINNING, document=write_shop(file).decode()))
    shop.cursor = 1
    session.add(shop)
    kept(session)


@lru_cache(maxsize=32)
def _file(document: str) -> ShopFile:
    """A stored shop, checked once for each text."""
    return read_shop(document.encode())


def _revision(session: Session, shop: Shop, number: int) -> ShopRevision | None:
    wanted = select(ShopRevision).where(ShopRevision.shop_id == shop.id, ShopRevision.number == number)
    return session.exec(wanted).first()
