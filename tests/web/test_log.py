"""The log in the browser's eyes: one tap, forms that lose nothing, undo, tables both ways, what is due."""

import io
from datetime import datetime, timedelta
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask import Flask
from flask.testing import FlaskClient
from PIL import Image
from sqlmodel import Session
from werkzeug.test import TestResponse

from fenwick.core.logbook.entries import KINDS
from fenwick.data.lines import line_state
from fenwick.data.logbook import LogWanted, count_of, entries_of, entry_of
from fenwick.logged import Logged


def soup(response: TestResponse) -> BeautifulSoup:
    """A page, parsed."""
    return BeautifulSoup(response.text, "html.parser")


def newest(session: Session) -> Logged:
    """The entry that was added last."""
    session.rollback()
    return max(entries_of(session, LogWanted()), key=lambda one: one.id or 0)


def field(page: BeautifulSoup, name: str) -> str:
    """What stands in a field."""
    found = page.select_one(f'[name="{name}"]')
    assert found is not None
    return str(found.get("value", ""))


def test_one_tap_logs_and_the_page_that_comes_asks_what_else_can_be_said(client: FlaskClient, session: Session) -> None:
    answer = client.post("/log/tap", data={"kind": "emptied", "line": "2"})
    entry = newest(session)
    assert (entry.kind, entry.line, entry.level) == ("emptied", 2, None)
    page = soup(client.get(answer.location))
    assert "It was full" in page.text
    assert "Mask on" in page.select_one(".caution").text  # type: ignore[union-attr]
    said = {"fill": "0.75", "line": "2", "at": field(page, "at"), "words": ""}
    assert client.post(f"/log/{entry.id}", data=said).status_code == 302
    changed = newest(session)
    assert changed.level == pytest.approx(0.25, abs=0.03)  # three quarters of the room up to its mark
    assert changed.id != entry.id


def test_undo_takes_the_last_step_back_and_redo_brings_it_again(client: FlaskClient, session: Session) -> None:
    before = count_of(session, LogWanted())
    client.post("/log/tap", data={"kind": "tapped", "line": "2"})
    assert "Tapped the filter" in soup(client.get("/log")).select_one("#undo").text  # type: ignore[union-attr]
    client.post("/log/undo")
    session.rollback()
    assert count_of(session, LogWanted()) == before
    client.post("/log/redo")
    session.rollback()
    assert count_of(session, LogWanted()) == before + 1


@pytest.mark.parametrize("kind", list(KINDS))
def test_every_kind_of_entry_has_a_form_and_the_form_of_what_was_logged(
    client: FlaskClient, session: Session, kind: str
) -> None:
    about = {"line": "2", "where": "2|Bandsaw", "thing": "gasket", "at": "2026-05-04T10:30", "words": "as it was"}
    amounts = {"level": "200", "volume": "10", "mass": "2", "hours": "1,5", "money": "12", "suction": "5.5"}
    typed: dict[str, Any] = {
        "kind": kind,
        **about,
        **amounts,
        "kept": "97",
        "grade": "1",
        "pitch": "410",
        "quiet": "24",
    }
    if kind in ("spent", "wiped"):
        typed["thing"] = "filter"
    page = soup(client.get(f"/log/new?kind={kind}"))
    asked = {one["name"] for one in page.select(".entry-form [name]")}
    answer = client.post("/log/new", data={key: value for key, value in typed.items() if key in asked})
    assert answer.status_code == 302, soup(answer).select(".error")
    entry = newest(session)
    assert entry.kind == kind
    again = soup(client.get(f"/log/{entry.id}"))
    assert field(again, "at") == "2026-05-04T10:30"
    for key in {"hours", "suction", "kept", "money", "pitch", "quiet"} & asked:
        assert float(field(again, key).replace(",", ".")) == pytest.approx(float(str(typed[key]).replace(",", ".")))
    if kind not in ("worked", "inspected", "renewed", "spent", "wiped"):  # those are called by what they are about
        assert KINDS[kind].label in soup(client.get("/log?find=as it was")).text


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"kind": "worked", "where": "2|Bandsaw", "hours": "lots"}, "“lots” is not a number"),
        ({"kind": "worked", "where": "2|Bandsaw", "hours": ""}, "is missing"),
        ({"kind": "worked", "where": "2|Moon saw", "hours": "1"}, "no such tool"),
        ({"kind": "worked", "where": "99|Bandsaw", "hours": "1"}, "no such line"),
        ({"kind": "looked", "line": "2", "level": "-5"}, "must be 0 mm or more"),
        ({"kind": "looked", "line": "2", "level": "9e99"}, "must be 3000 mm or less"),
        ({"kind": "tapped", "line": "2", "at": "2999-01-01T00:00"}, "lies in the future"),
        ({"kind": "tapped", "line": "2", "at": "0001-01-01T00:00"}, "more than forty years"),
        ({"kind": "tapped", "line": "2", "at": "soon"}, "a date and a time"),
        ({"kind": "tapped", "line": "2", "finding": "let-go"}, "none of this entry"),
        ({"kind": "odd", "line": "2", "words": "  "}, "are missing"),
        ({"kind": "odd", "line": "2", "words": "x" * 5000}, "at most 2000"),
        ({"kind": "kept", "line": "2", "kept": "140"}, "must be 100 % or less"),
        ({"kind": "inspected", "line": "2", "thing": "nose"}, "Choose what it was"),
    ],
)
def test_what_is_wrong_is_said_at_its_field_and_nothing_typed_is_lost(
    client: FlaskClient, session: Session, typed: dict[str, str], said: str
) -> None:
    before = count_of(session, LogWanted())
    answer = client.post("/log/new", data={"at": "2026-11-01T10:00", "words": "keep me", **typed})
    assert answer.status_code == 422
    page = soup(answer)
    assert said in " ".join(error.text for error in page.select(".error"))
    assert typed.get("words", "keep me") in page.select_one("textarea").text  # type: ignore[union-attr]
    session.rollback()
    assert count_of(session, LogWanted()) == before


def test_boards_of_a_job_are_hours_at_its_tool(client: FlaskClient, session: Session) -> None:
    typed = {
        "kind": "worked",
        "where": "2|Bandsaw",
        "job": "Resaw backs and sides",
        "count": "20",
        "hours": "",
        "at": "2026-11-01T10:00",
    }
    assert client.post("/log/new", data=typed).status_code == 302
    entry = newest(session)
    assert entry.hours == pytest.approx(20 * 0.0624, rel=0.01)
    assert (entry.job, entry.count, entry.thing) == ("Resaw backs and sides", 20.0, "Bandsaw")


def test_a_usual_week_is_one_step_of_all_jobs(client: FlaskClient, empty: FlaskClient, session: Session) -> None:
    before = count_of(session, LogWanted())
    client.post("/log/week")
    session.rollback()
    assert count_of(session, LogWanted()) == before + 4
    assert "a usual week, 4 jobs" in client.get("/log").text
    client.post("/log/undo")
    session.rollback()
    assert count_of(session, LogWanted()) == before
    assert empty.post("/log/week").status_code == 404  # no job is known there


def test_the_clock_at_a_tool_logs_the_time_between_start_and_stop(
    app: Flask, client: FlaskClient, session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    now = datetime(2026, 11, 28, 14, 0)
    monkeypatch.setitem(app.config, "CLOCK", lambda: now)
    assert client.post("/log/clock/start", data={"where": "2|Bandsaw"}).status_code == 302
    assert "The clock runs at the" in client.get("/log").text
    now += timedelta(minutes=45)
    client.post("/log/clock/stop")
    entry = newest(session)
    assert (entry.kind, entry.line, entry.thing, entry.hours) == ("worked", 2, "Bandsaw", 0.75)
    client.post("/log/clock/start", data={"where": "2|Bandsaw"})
    now += timedelta(hours=30)
    asked = client.post("/log/clock/stop")
    assert "/log/new?kind=worked" in asked.location  # somebody forgot to stop it
    assert newest(session) == entry
    client.post("/log/clock/start", data={"where": "2|Bandsaw"})
    client.post("/log/clock/forget")
    assert "The clock runs" not in client.get("/log").text
    assert client.post("/log/clock/start", data={"where": "2|Moon saw"}).status_code == 404
    assert client.post("/log/clock/stop").status_code == 302


def test_words_are_shown_as_words(client: FlaskClient) -> None:
    bad = "<script>alert(1)</script>{{ 7*7 }}"
    client.post("/log/new", data={"kind": "odd", "line": "2", "words": bad, "at": "2026-11-01T10:00"})
    page = client.get("/log?find=alert").text
    assert "<script>alert" not in page
    assert "&lt;script&gt;alert(1)&lt;/script&gt;{{ 7*7 }}" in page


def test_the_log_as_a_table_goes_out_and_comes_in_once(client: FlaskClient, session: Session) -> None:
    table = client.get("/log.csv").data
    rows = len(table.splitlines())
    before = count_of(session, LogWanted())
    assert rows == before + 1
    form = {"once": "a-form", "table": (io.BytesIO(table), "log.csv")}
    assert client.post("/log/read", data=form).status_code == 302
    client.post("/log/read", data={"once": "a-form", "table": (io.BytesIO(table), "log.csv")})
    session.rollback()
    assert count_of(session, LogWanted()) == 2 * before
    client.post("/log/undo")
    session.rollback()
    assert count_of(session, LogWanted()) == before


def test_a_table_that_cannot_be_read_leaves_the_log_alone(client: FlaskClient, session: Session) -> None:
    before = count_of(session, LogWanted())
    bad = b"when;entry;line\n2026-01-01;tapped;Bench line\n2026-01-02;danced;Bench line\n"
    answer = client.post("/log/read", data={"table": (io.BytesIO(bad), "log.csv")})
    assert answer.status_code == 422
    assert "row 3" in answer.text
    session.rollback()
    assert count_of(session, LogWanted()) == before


def test_a_photo_is_kept_made_small_and_thrown_away(client: FlaskClient, session: Session) -> None:
    client.post("/log/new", data={"kind": "odd", "line": "2", "words": "a screw", "at": "2026-11-01T10:00"})
    entry = newest(session)
    out = io.BytesIO()
    Image.new("RGB", (3000, 2000), "brown").save(out, "PNG")
    kept = client.post(f"/log/{entry.id}/photos", data={"photo": (io.BytesIO(out.getvalue()), "a.png")})
    assert kept.status_code == 302
    picture = soup(client.get(f"/log/{entry.id}")).select_one(".log-photos img")
    assert picture is not None
    shown = client.get(str(picture["src"]))
    assert Image.open(io.BytesIO(shown.data)).size == (1600, 1067)
    bad = client.post(f"/log/{entry.id}/photos", data={"photo": (io.BytesIO(b"<svg/>"), "a.svg")})
    assert bad.status_code == 422
    assert "no picture" in bad.text
    client.post(str(picture["src"]).replace(".jpg", "/remove"))
    assert soup(client.get(f"/log/{entry.id}")).select_one(".log-photos img") is None


def test_an_entry_is_taken_away_and_brought_back(client: FlaskClient, session: Session) -> None:
    client.post("/log/tap", data={"kind": "tapped", "line": "2"})
    entry = newest(session)
    client.post(f"/log/{entry.id}/remove")
    assert client.get(f"/log/{entry.id}").status_code == 404
    client.post("/log/undo")
    session.rollback()
    assert entry.id is not None
    assert entry_of(session, entry.id).kind == "tapped"


def due_of(client: FlaskClient, what: str) -> dict[str, Any]:
    """One thing that is due, as the log's own document has it."""
    found = next(one for one in client.get("/log.json").get_json()["due"] if one["what"] == what)
    return dict(found)


def test_a_filter_that_lasted_less_than_the_model_says_is_due_sooner(client: FlaskClient, app: Flask) -> None:
    def lives(client: FlaskClient) -> float:
        today = client.get("/log.json").get_json()["today"]
        return float(next(one for one in today if one["kind"] == "filter")["lives_over_model"])

    before = lives(client)
    now = datetime.now().replace(second=0, microsecond=0)
    for day in (6, 4, 2):
        at = (now - timedelta(days=day)).isoformat(timespec="minutes")
        client.post("/log/new", data={"kind": "worked", "where": "2|Finishing sander", "hours": "0.5", "at": at})
        client.post("/log/new", data={"kind": "tapped", "line": "2", "finding": "due", "at": at})
    assert lives(client) < before


def test_the_list_is_narrowed_and_paged(client: FlaskClient) -> None:
    page = soup(client.get("/log?group=told&line=2"))
    titles = {one.text for one in page.select(".log-what b")}
    assert titles <= {"Found something odd", "Spent money: the separator itself", "Spent money: parts", "Remark"}
    assert "Older" in client.get("/log").text
    assert client.get("/log?page=9999&line=nobody&group=nothing&find=%00").status_code == 200


def test_what_is_due_is_drawn_and_told_the_same(client: FlaskClient) -> None:
    page = soup(client.get("/log/due"))
    drawn = [one.text for one in page.select(".only-wide .due-name")]
    listed = [one.text for one in page.select(".due-soon b")]
    assert drawn == listed
    assert any(name.startswith("Bench line: bin") for name in drawn)
    beside = [one.text for one in soup(client.get("/log")).select(".log-due b")]
    assert beside == listed[: len(beside)]


def test_the_line_shows_what_the_log_says_of_today_until_it_is_switched_off(
    client: FlaskClient, session: Session
) -> None:
    stored = line_state(session, 2).rig

    def shown() -> dict[str, Any]:
        return dict(client.get("/lines/2/rig.json").get_json())

    def fill(rig: dict[str, Any]) -> float:
        return float(next(one for one in rig["line"]["elements"] if one["id"] == "sep")["bin"]["fill_height_m"])

    assert "by the log" in client.get("/lines/2").text
    assert fill(shown()) != 0.05
    assert shown()["vacuum"]["filter"]["held_kg"] != stored.vacuum.filter.held_kg  # type: ignore[union-attr]
    client.post("/log/today/2/off")
    assert fill(shown()) == 0.05
    assert "by the log" not in client.get("/lines/2").text
    client.post("/log/today/2/on")
    assert fill(shown()) != 0.05


def test_a_level_typed_on_the_line_is_logged_and_not_stored(client: FlaskClient, session: Session) -> None:
    answer = client.post("/lines/2/parts/sep", data={"line.elements[1].bin.fill_height_m": "150"})
    if answer.status_code == 404:
        pytest.skip("the part's form has another address")
    entry = newest(session)
    assert (entry.kind, entry.level) == ("looked", pytest.approx(0.15))
    assert line_state(session, 2).rig.line.elements[1].bin.fill_height_m == 0.05  # type: ignore[union-attr]


def test_nothing_logged_yet_says_what_would_be_there(empty: FlaskClient) -> None:
    for address, words in (
        ("/log", "Nothing is logged yet"),
        ("/log/due", "Nothing can be told yet"),
        ("/log/trend", "Nothing to compare yet"),
    ):
        answer = empty.get(address)
        assert answer.status_code == 200
        assert words in answer.text


@pytest.mark.parametrize(
    "address", ["/log/tap", "/log/new", "/log/999999", "/log/999999/remove", "/log/999999/photos", "/log/today/99/on"]
)
def test_what_is_not_there_is_not_found(client: FlaskClient, address: str) -> None:
    assert client.post(address, data={"kind": "nothing", "line": "77"}).status_code in (404, 422)


@pytest.mark.parametrize("line", [1, 2, 3, 99])
def test_how_a_bin_is_emptied_is_told_step_by_step(client: FlaskClient, line: int) -> None:
    page = soup(client.get(f"/log/emptying?line={line}"))
    steps = [one.text for one in page.select(".emptying-steps li span")]
    assert steps[0].startswith("Switch off")
    assert "Mask on" in steps[0]
    assert steps[-1].startswith("Log it")
    assert "minutes" in page.select_one(".emptying-facts").text  # type: ignore[union-attr]


def test_a_shop_without_a_line_says_what_would_stand_there(empty: FlaskClient) -> None:
    for address in ("/log/emptying", "/log/money"):
        assert empty.get(address).status_code == 200


def test_money_is_booked_and_a_job_that_comes_once_is_worked_out(client: FlaskClient) -> None:
    page = soup(client.get("/log/money"))
    total = page.select_one("tfoot .num")
    assert total is not None
    client.post("/log/new", data={"kind": "spent", "thing": "parts", "money": "12.50", "at": "2026-11-01T10:00"})
    after = soup(client.get("/log/money")).select_one("tfoot .num")
    assert after is not None
    assert float(after.text.split()[0]) == pytest.approx(float(total.text.split()[0]) + 12.5, abs=1.0)
    once = client.get("/log/money?hours=10&tool=2|Floor sweep").text
    assert "about 5 emptyings" in once or "about 6 emptyings" in once
    for hours, said in (("lots", "not a number"), ("-3", "Between 0 and 1000"), ("1e9", "Between 0 and 1000")):
        assert said in client.get(f"/log/money?hours={hours}&tool=2|Floor sweep").text
    assert client.get("/log/money?hours=1&tool=77|Nothing").status_code == 200


def test_home_and_the_page_of_money_tell_the_same_sum(client: FlaskClient) -> None:
    home = soup(client.get("/home/money"))
    page = soup(client.get("/log/money"))
    booked = home.select_one(".home-sum b")
    assert booked is not None
    filters = next(row for row in page.select(".money-table tr") if row.text.strip().startswith("Filters"))
    assert booked.text == filters.select_one(".num").text  # type: ignore[union-attr]
    assert home.select_one("small").text == "since May" or home.select("small")  # type: ignore[union-attr]
    assert home.select(".home-thing small")[0].text in page.text
