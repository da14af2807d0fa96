"""Home: every line in small, what comes, what is first; the same figures as on their own pages."""

from datetime import UTC, datetime, timedelta

from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from sqlmodel import Session
from werkzeug.test import TestResponse

from fenwick.builds.edit import tick, untick
from fenwick.data.builds import build_state, change_build
from fenwick.data.lines import line_state
from fenwick.services.making import BuildAsked, build_pack


def soup(response: TestResponse) -> BeautifulSoup:
    """A page, parsed."""
    return BeautifulSoup(response.text, "html.parser")


def test_a_shop_without_a_line_begins_with_the_five_questions(empty: FlaskClient) -> None:
    assert empty.get("/").location == "/start"


def test_every_line_stands_there_in_small_those_at_work_first(client: FlaskClient) -> None:
    page = soup(client.get("/"))
    assert [one.text for one in page.select(".line-card-head b")] == [
        "Bench line",
        "Drum sander line",
        "Drum sander, cyclone",
    ]
    assert len(page.select(".line-card svg.small-line")) == 3
    assert "2 lines at work" in page.select_one(".home-sub").text  # type: ignore[union-attr]


def test_what_is_to_act_on_is_the_count_of_the_checks(client: FlaskClient) -> None:
    page = soup(client.get("/"))
    for card in page.select(".line-card"):
        number = str(card["href"]).rsplit("/", 1)[1]
        badge = card.select_one(".state")
        pill = soup(client.get(f"/lines/{number}")).select_one("#checks-pill b")
        assert badge is not None
        assert pill is not None
        assert badge.text == pill.text


def test_what_is_due_is_what_the_log_says(client: FlaskClient) -> None:
    home = [one.text for one in soup(client.get("/")).select(".only-wide .due-name")]
    due = [one.text for one in soup(client.get("/log/due")).select(".only-wide .due-name")]
    assert home == due[: len(home)]
    assert len(home) >= 4


def test_what_the_vacuum_last_held_is_said_with_its_caution(client: FlaskClient) -> None:
    page = client.get("/").text
    assert "Last held: sanding dust P240" in page
    assert "before anything that sparks or glows" in page
    client.post("/log/new", data={"kind": "worked", "where": "2|Bandsaw", "hours": "1", "at": "2999-01-01T00:00"})
    assert "Last held: sanding dust P240" in client.get("/").text


def test_the_next_change_follows_by_itself(client: FlaskClient) -> None:
    answer = client.get("/home/change")
    assert answer.status_code == 200
    assert "kept" in answer.text or "air" in answer.text


def test_the_mark_leads_home_and_a_first_line_is_in_the_foot(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1"))
    assert page.select_one("a.brand")["href"] == "/"  # type: ignore[index]
    assert page.select_one('footer a[href="/start"]') is not None


def test_what_is_overdue_stands_in_the_header(client: FlaskClient) -> None:
    client.post(
        "/log/new",
        data={"kind": "inspected", "line": "2", "thing": "gasket", "finding": "let-go", "at": "2026-11-20T10:00"},
    )
    page = soup(client.get("/lines/1"))
    count = page.select_one(".due-count")
    assert count is not None
    listed = soup(client.get("/log/due")).select(".due-soon li.due-act")
    assert int(count.text) == len(listed)
    assert "mend what has let go" in listed[0].text


def test_what_cures_is_said_until_it_has(client: FlaskClient, session: Session) -> None:
    def ticked(ago: timedelta) -> None:
        state = build_state(session, 1, "sep")
        at = (datetime.now(UTC) - ago).strftime("%Y-%m-%dT%H:%M:%SZ")
        change_build(session, 1, "sep", tick(untick(state.file, curing), curing, at, cures=True), "Glued")
        session.commit()

    pack = build_pack(line_state(session, 1).rig, BuildAsked("sep"))
    step = next(one for one in pack.steps if one.cure > 3600.0)
    curing = step.id
    assert "Cures:" not in client.get("/").text
    ticked(timedelta(minutes=10))
    told = soup(client.get("/")).text
    assert "Cures:" in told
    assert "not to be loaded for another" in told
    ticked(timedelta(seconds=step.cure + 60.0))
    assert "Cures:" not in client.get("/").text
