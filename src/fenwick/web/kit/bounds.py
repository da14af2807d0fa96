"""How much a request may bring, by where it goes: known before anything of it is kept."""

from __future__ import annotations

import re

from flask import Flask, request

FORM, TABLE, PHOTO, PHONE, SHOP = 1_000_000, 12_000_000, 25_000_000, 90_000_000, 500_000_000  #: [bytes]
LARGER = (
    (
        re.compile(r"/lines/[0-9]+/(?:air|vacuum/csv)|/tests/[0-9]+/runs\.csv|/log/read"),
        TABLE,
        "a table is at most 12 MB",
    ),
    (
        re.compile(r"/runs/[0-9]+/photos|/lines/[0-9]+/build/photos|/log/[0-9]+/photos"),
        PHOTO,
        "a photo is at most 25 MB",
    ),
    (re.compile(r"/lines/[0-9]+/phone/[a-z]+"), PHONE, "photos and recordings are at most 90 MB together"),
    # their reader says by their name what is too large
    (re.compile(r"/lines/[0-9]+/rig|/shop/file"), 3 * FORM, "a rig file or a shop file is at most 1 MB"),
    (re.compile(r"/backups/(?:bring|whole)"), SHOP, "a copy of a shop is at most 500 MB"),
)
ROOM = 20_000  #: for the fields beside a file [bytes]


def bound_of(path: str) -> int:
    """How much a request to an address may bring [bytes]."""
    return _bound(path)[0] + ROOM


def too_large(path: str) -> str:
    """What is said of a request that brings more."""
    return f"That is too large: {_bound(path)[1]}. Nothing was changed."


def _bound(path: str) -> tuple[int, str]:
    found = ((most, words) for pattern, most, words in LARGER if pattern.fullmatch(path))
    return next(found, (FORM, "a form is at most 1 MB"))


def init_app(app: Flask) -> None:
    """Hold every request to its bound."""
    app.config.update(MAX_CONTENT_LENGTH=SHOP + ROOM, MAX_FORM_MEMORY_SIZE=FORM + ROOM)
    app.before_request(_hold)
    app.jinja_env.globals["most_bytes"] = {"form": FORM, "table": TABLE, "photo": PHOTO, "phone": PHONE, "shop": SHOP}


def _hold() -> None:
    request.max_content_length = bound_of(request.path)
