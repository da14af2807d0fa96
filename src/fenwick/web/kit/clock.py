"""The clock of the shop: what the log's dates are by."""

from __future__ import annotations

from datetime import datetime

from flask import current_app

CLOCK = "CLOCK"  #: in the application's settings: another clock, for tests and pictures


def shop_clock() -> datetime:
    """The date and the time on the shop's wall, without a zone."""
    found: datetime = current_app.config.get(CLOCK, datetime.now)()
    return found
