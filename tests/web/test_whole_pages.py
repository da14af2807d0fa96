"""The whole shop on the page of copies: written, looked at, added or put in its place; whatever is sent is answered."""

import io
import json
import zipfile
from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from threading import Event

import pytest
from bs4 import BeautifulSoup
from flask import Flask
from flask.testing import FlaskClient
from sqlmodel import Session
from werkzeug.test import TestResponse

from fenwick.data import Database
from fenwick.data.lines import all_line_ids, all_names
from fenwick.data.logbook import LogWanted, add_entries, count_of
from fenwick.logged import Logged
from fenwick.services.whole import export_shop
from fenwick.web.kit.telling import StoppedError, telling


def soup(response: TestResponse) -> BeautifulSoup:
    """A page, parsed."""
    return BeautifulSoup(response.text, "html.parser")


def send(client: FlaskClient, content: bytes, name: str = "shop.zip") -> TestResponse:
    """Send a file as a whole shop."""
    return client.post("/backups/whole", data={"whole": (io.BytesIO(content), name)})


def test_the_file_has_its_day_in_its_name_and_the_shop_in_it(client: FlaskClient) -> None:
    answer = client.get("/backups/whole.zip")
    assert answer.mimetype == "application/zip"
    assert f"fenwick-shop-{datetime.now():%Y-%m}" in answer.headers["Content-Disposition"]
    with zipfile.ZipFile(io.BytesIO(answer.data)) as file:
        assert json.loads(file.read("shop.json"))["format"] == "fenwick-whole-shop"
        assert file.testzip() is None
    assert client.get("/backups/whole.zip").data == answer.data


def test_sent_back_at_once_it_would_change_nothing(client: FlaskClient) -> None:
    look = send(client, client.get("/backups/whole.zip").data)
    assert look.status_code == 302
    assert "to put it back would change nothing" in " ".join(soup(client.get(look.location)).text.split())


def test_what_is_missing_here_is_named_and_added_and_the_shop_before_it_is_kept(
    client: FlaskClient, session: Session
) -> None:
    packed = client.get("/backups/whole.zip").data
    client.post("/lines/3/remove")
    client.post("/log/new", data={"kind": "odd", "line": "2", "words": "mine", "at": "2026-11-01T10:00"})
    session.rollback()
    entries = count_of(session, LogWanted())
    page = client.get(send(client, packed).location)
    assert "Drum sander, cyclone" in soup(page).text
    assert "fewer" in page.text  # entries, were it put back
    form = next(one for one in soup(page).select("form") if "/add" in str(one["action"]))
    done = client.get(client.post(str(form["action"])).location)
    told = " ".join(soup(done).select_one(".copies-told").text.split())  # type: ignore[union-attr]
    assert "Added: 1 lines and 0 entries" in told
    session.rollback()
    assert "Drum sander, cyclone" in all_names(session)
    assert count_of(session, LogWanted()) == entries  # what was here stays


def test_put_in_the_place_of_the_shop_what_came_since_is_gone_and_in_a_copy(
    client: FlaskClient, session: Session
) -> None:
    packed = client.get("/backups/whole.zip").data
    add_entries(session, [Logged("remark", datetime(2026, 11, 1), words="since then")], "Since")
    session.commit()
    page = soup(client.get(send(client, packed).location))
    form = next(one for one in page.select("form") if str(one["action"]).endswith("/restore"))
    restored = client.get(client.post(str(form["action"])).location)
    assert "As it was before" in restored.text
    assert "since then" not in client.get("/log").text


def test_an_empty_shop_takes_all_of_it(client: FlaskClient, empty: FlaskClient) -> None:
    packed = client.get("/backups/whole.zip").data
    page = soup(empty.get(send(empty, packed).location))
    form = next(one for one in page.select("form") if "/add" in str(one["action"]))
    empty.post(str(form["action"]))
    assert len(soup(empty.get("/")).select(".line-card")) == 3
    assert empty.get("/backups/whole.zip").data == packed


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"", "is no whole shop"),
        (b"not a zip", "is no whole shop"),
        (b"PK\x03\x04" + b"\x00" * 200, "is no whole shop"),
        (b"PK\x05\x06" + bytes(18), "holds no shop.json"),
    ],
)
def test_what_is_none_is_said_by_its_name_and_nothing_is_touched(
    client: FlaskClient, session: Session, content: bytes, said: str
) -> None:
    before = all_line_ids(session)
    answer = send(client, content, "holiday.zip")
    assert answer.status_code == 422
    told = soup(answer).select_one(".copies-error")
    assert told is not None
    assert said in told.text
    assert "holiday.zip" in told.text or "The zip" in told.text
    session.rollback()
    assert all_line_ids(session) == before


def test_without_a_file_one_is_asked_for(client: FlaskClient) -> None:
    answer = client.post("/backups/whole", data={})
    assert answer.status_code == 422
    assert "Choose a file first" in answer.text
    assert client.post("/backups/nothing.db/add").status_code == 404


def test_what_takes_long_says_how_far_it_is_and_ends_where_it_should(
    app: Flask, client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    packed = client.get("/backups/whole.zip").data
    going, seen = Event(), Event()

    def slowly(shop: Database, out: Path, progress: Callable[[float], None]) -> None:
        progress(0.25)
        seen.set()
        going.wait(20.0)
        export_shop(shop, out, progress)

    monkeypatch.setattr("fenwick.web.backups.whole.export_shop", slowly)
    monkeypatch.setitem(app.config, "WORK_AT_ONCE", 0.0)
    watch = client.post("/backups/whole/write").location
    seen.wait(20.0)
    while "25 %" not in (page := client.get(watch).text):
        assert "How far it is" in page
    assert "<h1" not in client.get(watch, headers={"HX-Request": "true"}).text
    assert client.get(f"{watch}/file").status_code == 404  # it is not whole yet
    assert app.test_client().get(watch).status_code == 404  # another browser has no part in it
    going.set()
    while (fragment := client.get(watch, headers={"HX-Request": "true"})).headers.get("HX-Redirect") is None:
        assert fragment.status_code == 200
    assert "It is written" in client.get(watch).text
    assert client.get(f"{watch}/file").data == packed


def test_work_that_nobody_looks_at_any_more_ends() -> None:
    steps = telling(lambda tell: [tell(0.1), tell(0.2)])(lambda: True)
    far = list(steps)
    assert isinstance(far[-1].error, StoppedError)
    assert far[-1].outcome is None


def test_written_from_the_page_it_is_the_file_that_the_command_writes(
    client: FlaskClient,
) -> None:
    page = soup(client.post("/backups/whole/write"))
    link = page.select_one("a[download]")
    assert link is not None
    assert client.get(str(link["href"])).data == client.get("/backups/whole.zip").data
    assert client.get("/backups/whole/nothing").status_code == 404
