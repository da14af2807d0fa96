"""What is kept on other pages with its day stands in the log, too: steps of a way, of a build, and tests."""

from datetime import datetime

from bs4 import BeautifulSoup
from flask import Flask
from flask.testing import FlaskClient
from sqlmodel import Session

from fenwick.data.logbook import LogWanted, entries_of
from fenwick.data.ways import change_way, step_way
from fenwick.services.logbook.document import log_document
from fenwick.services.logbook.elsewhere import BUILT, ON_WAY, TESTED, done_elsewhere
from fenwick.services.logbook.trend import trends_in
from fenwick.way_kept.model import KeptStep, KeptWay


def rows(client: FlaskClient, address: str) -> list[str]:
    """What the log lists, each row as it reads."""
    page = BeautifulSoup(client.get(address).text, "html.parser")
    return [" ".join(row.text.split()) for row in page.select(".log-day:not(.log-ghost) li")]


def every_row(client: FlaskClient) -> list[str]:
    """Of every page of the log."""
    found: list[str] = []
    for page in range(1, 20):
        told = BeautifulSoup(client.get(f"/log?page={page}").text, "html.parser")
        found += [" ".join(row.text.split()) for row in told.select(".log-day:not(.log-ghost) li")]
        if told.select_one(".paging [rel=next]") is None:
            return found
    raise AssertionError("the log has no end")


def test_every_page_of_the_log_together_has_each_thing_once(client: FlaskClient, session: Session) -> None:
    found = every_row(client)
    kept = done_elsewhere(session)
    assert {one.kind for one in kept} == {BUILT, TESTED}
    assert len(found) == len(entries_of(session, LogWanted())) + len(kept)
    for one in kept:
        assert sum(one.words in row for row in found) == 1, one


def test_what_was_built_on_a_day_is_one_row(session: Session) -> None:
    built = [one for one in done_elsewhere(session) if one.kind == BUILT]
    assert len(built) == len({one.at.date() for one in built}) == 2
    assert "more" in built[0].words


def test_a_step_of_the_way_stands_on_its_day_and_is_gone_with_undo(client: FlaskClient, session: Session) -> None:
    step = KeptStep(key="clean", words="Seal the <b>lid</b>", cost=4.0, hours=0.5, done="2026-11-10")
    later = KeptStep(key="empty", words="Not done yet", cost=0.0, hours=0.2)
    change_way(session, 2, KeptWay(steps=(step, later)), "Done: seal")
    session.commit()
    (told,) = [row for row in every_row(client) if "Step of the way" in row]
    assert "Seal the <b>lid</b>" in told
    assert "Not done yet" not in told
    assert "<b>lid" not in client.get("/log?page=1").text
    (line,) = [one for one in trends_in(session, datetime.now()) if one.line == 2]
    assert [one.words for one in line.happened if one.what == ON_WAY] == [step.words]
    assert "step of the way" in client.get("/log/trend").text
    step_way(session, 2, -1)
    session.commit()
    assert not [row for row in every_row(client) if "Step of the way" in row]


def test_a_narrowed_log_has_its_line_alone(client: FlaskClient) -> None:
    assert any("Built" in row for row in rows(client, "/log?line=1"))
    assert not any("Built" in row for row in rows(client, "/log?line=3"))
    assert not any(row.startswith("Tested") or "Built" in row for row in rows(client, "/log?group=worked"))


def test_the_document_has_them_apart_from_the_entries(app: Flask, session: Session) -> None:
    told = log_document(session, datetime.now())
    assert {one["kind"] for one in told["elsewhere"]} == {"built", "tested"}
    assert all(one["line"] and one["words"] and one["at"] for one in told["elsewhere"])
    assert not {"built", "tested", "way"} & {one["kind"] for one in told["entries"]}
