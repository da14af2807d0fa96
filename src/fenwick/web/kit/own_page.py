"""The way back to the page that a form was sent from."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import url_for


def own_page(address: str) -> str:
    """The page the user came from, when it is one of ours."""
    parts = urlsplit(address)
    ours = address.startswith("/") and not address.startswith("//") and not parts.netloc and "\\" not in address
    return address if ours else url_for("line.start")
