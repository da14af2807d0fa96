"""Which browser asks: a name of chance that it keeps in its cookie."""

from __future__ import annotations

import secrets

from flask import session as cookie

KEY = "browser"


def this_browser() -> str:
    """The name of the browser that asks; it gets one where it has none."""
    if KEY not in cookie:
        cookie[KEY] = secrets.token_hex(8)
    return str(cookie[KEY])
