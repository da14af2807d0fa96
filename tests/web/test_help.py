"""Behind every question mark: what this page answers; and all of it on one page to print."""

import pytest
from bs4 import BeautifulSoup
from flask import Flask
from flask.testing import FlaskClient

from fenwick.core.rules import RULES
from fenwick.web.kit.help import HELP, PLACES
from fenwick.web.kit.terms import TERMS
from fenwick.web.reference.equations import TOPICS, equations

PAGES = (
    "/", "/start", "/lines/1", "/lines/1/way", "/lines/2/ports", "/lines/1/ports/drum-sander/hood",
    "/lines/1/dust", "/lines/1/ageing", "/lines/1/joints", "/lines/1/drawer", "/lines/1/vacuum",
    "/lines/1/compare", "/lines/1/compare/3", "/lines/1/separator", "/lines/1/separator/schools",
    "/lines/1/separator/find?part=sep", "/lines/1/build", "/lines/1/build/sheets", "/lines/1/build/steps",
    "/lines/1/build/joints", "/lines/1/build/make-or-buy", "/lines/1/tests", "/lines/1/tests/plan", "/tests/1",
    "/lines/1/test", "/lines/1/test/fault", "/lines/1/air", "/lines/1/practice", "/lines/1/devices", "/log",
    "/log/new", "/log/1", "/log/due", "/log/trend", "/log/money", "/log/emptying", "/shop", "/lines/1/checks",
    "/lines/1/workings", "/assumptions", "/terms", "/guide", "/backups", "/lessons", "/lessons/tape",
    "/lines/2/phone",
)  # fmt: skip


@pytest.mark.parametrize("address", PAGES)
def test_every_page_says_what_it_answers(client: FlaskClient, address: str) -> None:
    answer = client.get(address, follow_redirects=True)
    assert answer.status_code == 200
    told = BeautifulSoup(answer.text, "html.parser").select_one("#keys .page-help h2")
    assert told is not None, address
    assert told.text.endswith("?")


def test_what_is_said_is_of_pages_that_there_are(app: Flask) -> None:
    endpoints = {rule.endpoint for rule in app.url_map.iter_rules()}
    assert set(HELP) <= endpoints
    assert {one.place for one in HELP.values()} == set(PLACES)


def test_the_guide_lists_every_page_once(client: FlaskClient) -> None:
    page = BeautifulSoup(client.get("/guide").text, "html.parser")
    rows = [row.text for row in page.select(".guide-place:not(.guide-more) .guide-table tr")]
    assert len(rows) == len(set(rows)) == len(set(HELP.values()))


def test_one_field_finds_pages_words_rules_and_equations(client: FlaskClient) -> None:
    page = BeautifulSoup(client.get("/guide?find=cake <b>").text, "html.parser")
    field = page.select_one("#find-page")
    assert field is not None
    assert field["value"] == "cake <b>"
    told = [" ".join(row.text.split()) for row in page.select(".guide-more tr")]
    assert len(told) > len(TERMS) + len(RULES) + 90
    for words in ("Dalla Valle 1939", "U.S. Standard Atmosphere 1976", TERMS["caught"].sentence, RULES[0].meaning):
        assert any(words in row for row in told), words
    asked = BeautifulSoup(client.get("/log").text, "html.parser").select_one("#keys form")
    assert asked is not None
    assert asked["action"] == "/guide"


def test_every_topic_of_the_model_has_a_name() -> None:
    assert {row.topic for row in equations()} <= set(TOPICS.values())
    assert all("`" not in row.meaning + row.formula for row in equations())
