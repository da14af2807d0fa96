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


def paged(count: int, on_a_page: int, endpoint: str, **values: Any) -> Paging:
    """The page that the address asks for, or the nearest there is.

    Parameters
    ----------
    count : of all rows
    on_a_page : rows
    endpoint : of the page that shows them
    values : of its address
    """
    of = max(1, -(-count // on_a_page))
    page = min(max(request.args.get("page", 1, type=whole), 1), of)

    def address(number: int) -> str:
        return url_for(endpoint, **values, page=number) if 1 <= number <= of else ""

    return Paging(page, of, count, (page - 1) * on_a_page, address(page - 1), address(page + 1))
