"""How much a request may bring, by where it goes: known before anything of it is kept."""

from __future__ import annotations

import re

from flask import Flask, request

FORM, TABLE, PHOTO, SHOP = 1_000_000, 12_000_000, 25_000_000, 500_000_000  #: [bytes]
LARGER = (
    (re.compile(r"/lines/[0-9]+/(?:air|vacuum/csv)|/tests/[0-9]+/runs\.csv"), TABLE, "a table"),
    (re.compile(r"/runs/[0-9]+/photos"), PHOTO, "a photo"),
    (
        re.compile(r"/lines/[0-9]+/rig|/shop/file"),
        3 * FORM,
        "a rig file or a shop file",
    ),  # its reader says it by its name
    (re.compile(r"/backups/bring"), SHOP, "a copy of a shop"),
)
ROOM = 20_000  #: for the fields beside a file [bytes]


def bound_of(path: str) -> tuple[int, str]:
    """(most bytes that a request to an address may bring, what it brings in words)."""
    for pattern, most, what in LARGER:
        if pattern.fullmatch(path):
            return most + ROOM, what
    return FORM + ROOM, "a form"


def too_large(path: str) -> str:
    """What is said of a request that brings more."""
    most, what = bound_of(path)
    return f"That is too large: {what} is at most {(most - ROOM) // 1_000_000} MB. Nothing was changed."


def init_app(app: Flask) -> None:
    """Hold every request to its bound."""
    app.config.update(MAX_CONTENT_LENGTH=SHOP + ROOM, MAX_FORM_MEMORY_SIZE=FORM + ROOM)
    app.before_request(_bound)


def _bound() -> None:
    request.max_content_length = bound_of(request.path)[0]
