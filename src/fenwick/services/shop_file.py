"""The shop's own file: changed, and put together with what was changed meanwhile."""

from __future__ import annotations

from sqlmodel import Session

from fenwick.data.shops import change_shop, shop_as_of, shop_state, step_shop
from fenwick.services.together import MadeFrom, MovedOnError, put_together
from fenwick.shop import ShopFile
from fenwick.shop.read import check_shop


def store_shop(session: Session, file: ShopFile, label: str, made_from: MadeFrom | None = None) -> None:
    """Put a changed shop in force.

    Parameters
    ----------
    session : opened to write
    file : as it is to be
    label : what was done
    made_from : the state that the change was made to; None: the one that stands

    Raises
    ------
    ClashError
        When it does not go with what was changed since.
    """
    now = shop_state(session)
    if made_from is not None and made_from.shown != now.revision:
        base = shop_as_of(session, made_from.shown).file
        if base != now.file:
            last = (now.revision, now.undo_label or "")
            file = put_together(base, file, now.file, made_from, last, check_shop)
    if file != now.file:  # somebody else may have done the same
        change_shop(session, file, label)


def step_shop_file(session: Session, by: int, made_from: MadeFrom | None = None) -> None:
    """Take the last change back (−1), or bring it again (+1), if it is still the one that was shown.

    Raises
    ------
    MovedOnError
    """
    if made_from is not None:
        now = shop_state(session)
        if made_from.shown != now.revision:
            raise MovedOnError(now.undo_label or "")
    step_shop(session, by)
