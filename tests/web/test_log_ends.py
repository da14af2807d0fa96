"""The log at its ends: whatever is posted is answered in words, and whatever is stored leaves every page open."""

import random

import pytest
from flask.testing import FlaskClient
from sqlmodel import Session

from fenwick.core.logbook.entries import BOUNDS, KINDS
from fenwick.data import Database
from fenwick.data.logbook import LogWanted, add_entries, count_of
from fenwick.data.shops import the_shop
from fenwick.data.tables import ShopRevision
from fenwick.logged import Logged
from tests.web.test_log import newest

PAGES = (
    "/", "/log", "/log/due", "/log/trend", "/log/money", "/log/emptying", "/home/change", "/home/money", "/lines/2",
    "/log.json", "/log.csv", "/log/new?kind=worked",
)  # fmt: skip
JUNK = (
    "", "0", "-1", "1", "1e308", "nan", "inf", "abc", "\x00", "'; DROP", "<b>", "2|Bandsaw", "9" * 30, "1,5", "0.75",
    "gasket", "due", "let-go", "2999-01-01T00:00", "0001-01-01T00:00", "2026-11-01T10:00+99:00", "x" * 3000,
)  # fmt: skip
FIELDS = ("thing", "job", "finding", "words", "fill", "at", *BOUNDS)


def all_open(client: FlaskClient) -> None:
    """Every page that shows the log."""
    for page in PAGES:
        assert client.get(page).status_code == 200, page


@pytest.mark.parametrize("kind", list(KINDS))
def test_whatever_is_typed_is_taken_or_answered_at_its_field(client: FlaskClient, kind: str) -> None:
    chance = random.Random(kind)
    for _ in range(25):
        typed = {field: chance.choice(JUNK) for field in FIELDS if chance.random() < 0.6}
        place = {"line": chance.choice(("2", "", "x", "77")), "where": chance.choice(("2|Bandsaw", "9|None", ""))}
        answer = client.post("/log/new", data={"kind": kind, "at": "2026-11-01T10:00", **place, **typed})
        assert answer.status_code in (302, 422), typed
    all_open(client)


@pytest.mark.parametrize("end", [0, 1])
def test_the_smallest_and_the_largest_of_everything_leave_every_page_open(
    client: FlaskClient, session: Session, shop: Database, end: int
) -> None:
    at = newest(session).at
    session.rollback()
    entries = [
        Logged(
            key, at, 2, "Bandsaw" if key == "worked" else "gasket", **{one: BOUNDS[one][end] for one in kind.amounts}
        )
        for key, kind in KINDS.items()
        for _ in range(3)
    ]
    with shop.session(to_write=True) as writing:
        add_entries(writing, entries, "At their ends")
    all_open(client)


def test_a_shop_whose_file_cannot_be_read_still_shows_its_log(client: FlaskClient, shop: Database) -> None:
    with shop.session(to_write=True) as session:
        mine = the_shop(session)
        row = session.get(ShopRevision, 1)
        assert row is not None
        assert row.number == mine.cursor
        row.document = '{"format": "fenwick-shop", "version": 1, "tools": "none"}'
        session.add(row)
    for page in ("/", "/log", "/log/due", "/log/money", "/log/emptying", "/log/new?kind=spent"):
        assert client.get(page).status_code == 200, page


def test_a_line_that_was_taken_away_leaves_its_entries_and_opens_nothing_by_them(
    client: FlaskClient, session: Session
) -> None:
    before = count_of(session, LogWanted())
    client.post("/lines/2/remove")
    session.rollback()
    assert count_of(session, LogWanted()) == before
    all_pages = [page for page in PAGES if page != "/lines/2"]
    for page in all_pages:
        assert client.get(page).status_code == 200, page
    assert "one line at work" in client.get("/").text


def test_an_emptying_of_a_bin_higher_than_it_is_is_refused(client: FlaskClient) -> None:
    answer = client.post("/log/new", data={"kind": "looked", "line": "2", "level": "900", "at": "2026-11-01T10:00"})
    assert answer.status_code == 422
    assert "the bin is 420" in answer.text
