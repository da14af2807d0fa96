"""A page asks the database for each thing once, however many of it there are."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

import pytest
from flask import Flask
from flask.testing import FlaskClient
from sqlalchemy import event

from fenwick.data import Database
from fenwick.data.demo import demo_rig
from fenwick.data.shops import the_shop
from fenwick.rig import edit_rig
from fenwick.services import lines

MOST_OF_A_PAGE, MOST_OF_AN_EDIT, MOST_OF_THE_SHOP = 15, 12, 20
LENGTH = "line.branches[0].elements[2].length_m"
PAGES = (
    "/lines/1",
    "/lines/2",
    "/lines/1/late",
    "/lines/1/separator",
    "/lines/1/separator/schools",
    "/lines/1/separator/find",
    "/lines/2/ports",
    "/lines/1/ports/drum-sander/hood",
    "/lines/1/dust",
    "/lines/1/ageing",
    "/lines/1/joints",
    "/lines/1/drawer",
    "/lines/1/vacuum",
    "/lines/1/compare/3",
    "/lines/1/checks",
    "/lines/1/tests",
    "/lines/1/tests/plan",
    "/tests/1",
    "/tests/1/sheet",
    "/lines/1/test",
    "/lines/1/test/fault?s=weak",
    "/lines/1/practice?seed=3",
    "/lines/1/air",
    "/shop",
    "/assumptions",
    "/start",
    "/log/due",
    "/log/trend",
)
OF_THE_SHOP = ("/", "/log")  #: of several lines, or of entries by the page


@contextmanager
def counted(shop: Database) -> Iterator[list[str]]:
    """The statements that reach the database meanwhile."""
    seen: list[str] = []

    def note(_connection: object, _cursor: object, statement: str, *_rest: object) -> None:
        if not statement.startswith("BEGIN"):
            seen.append(statement)

    event.listen(shop.engine, "before_cursor_execute", note)
    try:
        yield seen
    finally:
        event.remove(shop.engine, "before_cursor_execute", note)


@pytest.mark.parametrize("address", PAGES)
def test_a_page_takes_few_queries(address: str, client: FlaskClient, shop: Database) -> None:
    client.get("/start")  # the log is read once for each of its states
    with counted(shop) as seen:
        answer = client.get(address, follow_redirects=True)
    assert answer.status_code == 200
    assert len(seen) <= MOST_OF_A_PAGE, seen


@pytest.mark.parametrize("address", OF_THE_SHOP)
def test_a_page_of_the_shop_takes_few_queries(address: str, client: FlaskClient, shop: Database) -> None:
    client.get(address)
    with counted(shop) as seen:
        client.get(address)
    assert len(seen) <= MOST_OF_THE_SHOP, seen


def test_an_edit_takes_few_queries(client: FlaskClient, shop: Database) -> None:
    with counted(shop) as seen:
        answer = client.post("/lines/1/parts/hose-b", data={LENGTH: "2.5"}, headers={"HX-Request": "true"})
    assert answer.status_code == 200
    assert len(seen) <= MOST_OF_AN_EDIT, seen
    assert [statement.split()[0] for statement in seen].count("INSERT") == 1


def test_more_lines_and_more_history_are_no_more_queries(app: Flask, client: FlaskClient, shop: Database) -> None:
    client.get("/lines/1")  # the log is read once for each of its states
    with counted(shop) as few:
        client.get("/lines/1")
    with shop.session() as session:
        rig = demo_rig()
        for i in range(20):
            lines.add(session, the_shop(session), edit_rig(rig, {"name": f"Line {i}"}))
            lines.store(session, 1, edit_rig(rig, {"line.elements[1].length_m": 1.0 + 0.01 * i}), f"change {i}")
    with counted(shop) as many:
        page = client.get("/lines/1")
    assert len(many) == len(few)
    assert "Line 19" in page.text  # named without its document being read
    assert sum("revision.document" in statement for statement in many) == 3  # of this line, the shop, those in the log
