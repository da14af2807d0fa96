"""Long lists in pages: the newest first, a page at a time."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from flask import request, url_for

from fenwick.web.kit.numbers import whole


@dataclass(frozen=True)
class Paging:
    """Which page of a list is shown."""

    page: int  #: from 1
    of: int
    count: int  #: of all rows
    skip: int  #: rows before this page
    newer: str  #: address of the page before; empty: this is the first
    older: str


def paged(count: int, on_a_page: int, name: str = "page") -> Paging:
    """The page that the address asks for, or the nearest there is.

    Parameters
    ----------
    count : of all rows
    on_a_page : rows
    name : of the page's number in the address
    """
    of = max(1, -(-count // on_a_page))
    page = min(max(request.args.get(name, 1, type=whole), 1), of)
    return Paging(
        page,
        of,
        count,
        (page - 1) * on_a_page,
        _address(name, page - 1) if page > 1 else "",
        _address(name, page + 1) if page < of else "",
    )


def _address(name: str, page: int) -> str:
    asked = {key: value for key, value in request.args.items() if key != name}
    assert request.endpoint is not None
    values: dict[str, Any] = {**(request.view_args or {}), **asked, name: page}
    return url_for(request.endpoint, **values)
