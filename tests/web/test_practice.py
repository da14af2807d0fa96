"""Practice on the page: readings are kept, levels, two faults, the record; and a hunt that knows since when."""

from __future__ import annotations

from datetime import datetime

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from sqlmodel import Session

from fenwick.core.bench.faults.hunt import Case
from fenwick.core.bench.faults.practice import LEVELS, TWO, set_puzzle
from fenwick.core.bench.faults.since import WORK
from fenwick.data.demo import demo_rig
from fenwick.data.practice import ended_hunts, hunt_record, open_hunt
from fenwick.rig import build_line
from fenwick.services.faults import lately_done, work_of

PAGE = "/lines/1/practice"


def soup(client: FlaskClient, address: str) -> BeautifulSoup:
    """A page."""
    return BeautifulSoup(client.get(address).text, "html.parser")


def say(client: FlaskClient, seed: int = 3, level: str = "usual", **said: str) -> BeautifulSoup:
    """Take a reading, or name a fault."""
    answer = client.post(PAGE, data={"seed": str(seed), "level": level, **said}, follow_redirects=True)
    assert answer.status_code == 200
    return BeautifulSoup(answer.text, "html.parser")


@pytest.fixture(scope="module")
def case() -> Case:
    """The demo line with every fault it can have."""
    return Case.of(build_line(demo_rig()))


def test_every_reading_is_kept_and_the_hunt_is_taken_up_again(client: FlaskClient, session: Session) -> None:
    say(client, r="sealed~")
    say(client, r="suction~link")
    say(client, r="suction~link")
    session.rollback()
    assert hunt_record(session, 1, 3, "usual").read == ("0:sealed~", "0:suction~link")
    back = client.get(PAGE)
    assert "seed=3" in back.headers["Location"]
    page = soup(client, back.headers["Location"])
    assert len(page.select(".readings-card tbody tr")) == 2
    assert "seed=3&" not in client.get(f"{PAGE}?level=easy").headers["Location"]


def test_a_hunt_that_ended_goes_into_the_record_and_takes_nothing_more(
    client: FlaskClient, session: Session, case: Case
) -> None:
    right = set_puzzle(case, 3).fault
    say(client, r="sealed~")
    page = say(client, named=right)
    assert page.select_one(".answer-card h2").text == "Found"  # type: ignore[union-attr]
    assert page.select(".hunt-ends")
    assert "1 of the last 1 found" in page.select_one(".past-card").text  # type: ignore[union-attr]
    again = say(client, r="suction~link")
    assert len(again.select(".readings-card tbody tr")) == 1
    session.rollback()
    (record,) = ended_hunts(session, 1, 10)
    assert record.right
    assert record.minutes == 4.0
    assert record.good_minutes is not None
    assert open_hunt(session, 1) is None
    wrong = "tilted" if set_puzzle(case, 4).fault != "tilted" else "worn-motor"
    assert "1 of the last 2 found" in say(client, seed=4, named=wrong).text


def test_of_two_faults_the_first_that_is_named_is_mended(client: FlaskClient, session: Session, case: Case) -> None:
    seed = next(seed for seed in range(20) if len(set_puzzle(case, seed, TWO).faults) == 2)
    first, second = set_puzzle(case, seed, TWO).faults
    say(client, seed, TWO, r="sealed~")
    page = say(client, seed, TWO, named=second)
    assert "Something else is left" in page.text
    assert not page.select(".answer-card")
    say(client, seed, TWO, r="sealed~")
    page = say(client, seed, TWO, named=first)
    rows = page.select(".readings-card tbody tr")
    assert ["before anything" in row.text for row in rows] == [True, False]
    assert page.select_one(".answer-card h2").text == "Found"  # type: ignore[union-attr]
    assert len(page.select(".answer-card > p > b")) == 2
    session.rollback()
    assert hunt_record(session, 1, seed, TWO).named == (second, first)


@pytest.mark.parametrize(
    "said",
    [
        {"r": "nothing"},
        {"r": "x" * 5000},
        {"named": "healthy"},
        {"named": "no such fault"},
        {"level": "impossible", "r": "sealed~"},
        {"seed": "many"},
        {"seed": str(10**30), "r": "sealed~"},
        {"seed": "-5", "named": "tilted"},
        {},
    ],
)
def test_what_cannot_be_said_changes_nothing_and_locks_no_page(client: FlaskClient, said: dict[str, str]) -> None:
    answer = client.post(PAGE, data={"seed": "3", "level": "usual", **said}, follow_redirects=True)
    assert answer.status_code == 200
    assert client.get(f"{PAGE}?seed=3&named=nonsense&r=rubbish").status_code == 200
    assert client.get("/lines/99/practice?seed=3").status_code == 404


@pytest.mark.parametrize("level", sorted(LEVELS))
def test_every_level_has_its_page(client: FlaskClient, level: str) -> None:
    page = soup(client, f"{PAGE}?seed=11&level={level}")
    here = page.select(".levels a[aria-current]")
    assert len(here) == 1
    assert page.select(".offers button")


def test_a_hunt_works_from_what_was_done_by_the_log(client: FlaskClient, session: Session) -> None:
    page = soup(client, "/lines/2/test/fault")
    options = [str(one["value"]) for one in page.select("#since option")]
    assert options[0] == ""
    assert "emptied" in options
    assert set(options[1:]) <= set(WORK)
    plain = soup(client, "/lines/2/test/fault?s=dust-in-vacuum")
    told = soup(client, "/lines/2/test/fault?s=dust-in-vacuum&since=emptied")
    assert "too full" in plain.select(".suspects h3")[0].text
    assert "lid or seam leaks" in told.select(".suspects h3")[0].text
    assert "It was handled then: 4 times as likely" in told.select(".suspects li")[0].text
    assert told.select("form.symptoms #since option[selected]")[0]["value"] == "emptied"
    kept = client.post(
        "/lines/2/test/fault/readings",
        data={"key": "sealed~", "value": "17", "s": "dust-in-vacuum", "since": "emptied"},
    )
    assert "since=emptied" in kept.headers["Location"]
    assert client.get("/lines/2/test/fault?since=<script>").status_code == 200


def test_the_newest_of_each_kind_of_work_is_offered(session: Session) -> None:
    done = lately_done(session, 2, datetime.now())
    assert len({key for key, _ in done}) == len(done)
    dates = [entry.at for _, entry in done]
    assert dates == sorted(dates, reverse=True)
    assert all(work_of(entry) == key for key, entry in done)
    assert lately_done(session, 3, datetime(2001, 1, 1)) == []
