"""What every reading-in of a file does first: once only, and with a copy of the shop beside it."""

from __future__ import annotations

import secrets

from flask import request

from fenwick.data.backups import IMPORT, back_up
from fenwick.data.once import first_time
from fenwick.web.kit.database import session, shop

ONCE = "once"  #: name of the field with a form's name of chance


def once_token() -> str:
    """A name of chance for a form."""
    return secrets.token_hex(12)


def begins_import() -> bool:
    """Whether the file at hand is to be read in now; then a copy of the shop has been written.

    A form that is sent again, since its answer was lost, has done its work already.

    Raises
    ------
    ShopDatabaseError
        When no copy can be written.
    """
    if not first_time(session(), request.form.get(ONCE, "")):
        return False
    back_up(shop(), IMPORT)
    return True
