"""A figure of the log that stands on two pages is the same on both, and what is told is what was logged."""

import re
from datetime import datetime

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from sqlmodel import Session
from werkzeug.test import TestResponse

from fenwick.data.by_log import stored_rig
from fenwick.data.lines import line_standing
from fenwick.data.logbook import LogWanted, count_of
from fenwick.logged import Logged
from fenwick.rig import Rig, read_rig
from fenwick.services.logbook.holders import bin_on, emptied, first_separator, share_of_bin
from tests.web.test_log import newest

FILL = "line.elements[1].bin.fill_height_m"


def soup(response: TestResponse) -> BeautifulSoup:
    """A page, parsed."""
    return BeautifulSoup(response.text, "html.parser")


def shown(client: FlaskClient, line: int = 2) -> Rig:
    """A line as its page gives it away."""
    return read_rig(client.get(f"/lines/{line}/rig.json").data)


def fill(rig: Rig) -> float:
    """Height of the dust in the first bin [m]."""
    part = first_separator(rig)
    assert part is not None
    return part.bin.fill_height_m


def used(client: FlaskClient, kind: str, name: str) -> float:
    """What the log's document says is used of a holder."""
    today = client.get("/log.json").get_json()["today"]
    return float(next(one for one in today if (one["kind"], one["name"]) == (kind, name))["used"]["likely"])


def test_the_bin_is_as_full_on_the_line_as_the_log_says(client: FlaskClient) -> None:
    rig = shown(client)
    there = bin_on(emptied(rig))
    assert there is not None
    entry_share = share_of_bin(Logged("looked", datetime(2026, 1, 1), 2, level=fill(rig)), rig)
    assert entry_share == pytest.approx(used(client, "bin", "Bench line"), abs=0.01)


def test_the_share_of_a_bin_is_the_same_in_the_log_and_where_it_is_due(client: FlaskClient) -> None:
    share = round(100 * used(client, "bin", "Bench line"))
    log = soup(client.get("/log"))
    row = next(one for one in log.select(".log-holder") if "Bin · Bench line" in one.text)
    assert f"{share} %, within" in row.text
    for page in ("/log/due", "/"):
        assert f"about {share} % of the room up to its mark is used" in client.get(page).text, page


def test_home_draws_the_bin_as_the_line_shows_it(client: FlaskClient) -> None:
    def drawn() -> float:
        card = next(one for one in soup(client.get("/")).select(".line-card") if "Bench line" in one.text)
        found = re.search(r'class="dust" d="M [\d.]+ ([\d.]+)', str(card))
        assert found is not None
        return float(found[1])

    by_log = drawn()
    assert by_log == pytest.approx(100.0 - 38.0 * fill(shown(client)) / 0.42, abs=0.1)
    client.post("/log/today/2/off")
    assert drawn() == pytest.approx(100.0 - 38.0 * 0.05 / 0.42, abs=0.1)


def test_what_is_kept_on_home_is_what_the_line_says(client: FlaskClient) -> None:
    for line in (1, 2, 3):
        verdict = soup(client.get(f"/lines/{line}")).select_one('[data-row="kept"] .figure b')
        card = next(one for one in soup(client.get("/")).select(".line-card") if one["href"] == f"/lines/{line}")
        assert verdict is not None
        assert f"{verdict.text} % kept" in card.text


def test_the_trend_on_home_says_what_its_own_page_says(client: FlaskClient) -> None:
    home = soup(client.get("/")).select_one(".home-said")
    page = soup(client.get("/log/trend")).select_one(".trend-said")
    assert home is not None
    assert page is not None
    assert " ".join(home.text.split()) == " ".join(page.text.split()).removesuffix(" fault finder")


def test_a_new_gasket_stands_in_the_trend_and_moves_its_next_look(client: FlaskClient) -> None:
    def next_look() -> float:
        due = client.get("/log.json").get_json()["due"]
        return float(next(one for one in due if one["key"] == "gasket:2")["days"]["likely"])

    before, marks = next_look(), client.get("/log/trend").text.count("new gasket")
    client.post("/log/new", data={"kind": "renewed", "line": "2", "thing": "gasket", "at": "2026-11-28T10:00"})
    assert next_look() > before
    assert client.get("/log/trend").text.count("new gasket") > marks


def test_a_level_set_on_the_line_is_an_entry_of_the_log_and_no_step_of_the_line(
    client: FlaskClient, session: Session
) -> None:
    standing = line_standing(session, 2).revision
    answer = client.post("/lines/2/parts/sep", data={FILL: "150"})
    assert answer.status_code in (200, 302)
    entry = newest(session)
    assert (entry.kind, entry.line, entry.level) == ("looked", 2, pytest.approx(0.15))
    assert fill(shown(client)) == pytest.approx(0.15, abs=2e-3)
    assert fill(stored_rig(session, 2)) == 0.05
    assert line_standing(session, 2).revision == standing  # Undo of the line has nothing to do with it
    client.post("/log/undo")
    assert fill(shown(client)) != pytest.approx(0.15, abs=2e-3)


def test_a_change_of_a_hose_says_nothing_of_the_log(client: FlaskClient, session: Session) -> None:
    before = count_of(session, LogWanted())
    client.post("/lines/2/parts/main", data={"line.elements[0].length_m": "2.2"})
    session.rollback()
    assert count_of(session, LogWanted()) == before
    assert fill(stored_rig(session, 2)) == 0.05
    assert stored_rig(session, 2).line.elements[0].length_m == 2.2  # type: ignore[union-attr]


def test_a_new_bag_goes_in_step_by_step_with_the_inlet_s_bore(client: FlaskClient) -> None:
    page = soup(client.get("/log/new?kind=bag&line=2"))
    steps = [one.text for one in page.select(".entry-steps li")]
    assert len(steps) == 4
    assert "63.5 mm" in steps[0]
    assert "collar" in steps[1]
    assert "twist" in steps[2]
    assert not soup(client.get("/log/new?kind=tapped&line=2")).select(".entry-steps")


def test_both_systems_of_units_tell_the_same_level(client: FlaskClient, session: Session) -> None:
    client.post("/units", data={"system": "inch", "next": "/log"})
    client.post("/log/new", data={"kind": "looked", "line": "2", "level": "10", "at": "2026-11-28T10:00"})
    assert newest(session).level == pytest.approx(0.254)
    assert "10 in" in client.get("/log").text
    client.post("/units", data={"system": "metric", "next": "/log"})
    assert "254 mm" in client.get("/log").text
