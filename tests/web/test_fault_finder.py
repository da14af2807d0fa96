"""The fault finder on the page: symptoms ticked, checks recorded, the suspect named with its reason."""

from __future__ import annotations

import re
from typing import Any

from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.core.bench.faults.kinds import FAULTS, LOOKS, SYMPTOMS
from fenwick.wording.faults import FAULT_WORDS, LOOK_WORDS, SYMPTOM_WORDS

HTMX = {"HX-Request": "true"}
PAGE = "/lines/1/test/fault"


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def check(client: FlaskClient, key: str, value: str, *symptoms: str) -> Any:
    """Record a check."""
    return client.post(f"{PAGE}/readings", data={"key": key, "value": value, "s": list(symptoms)}, headers=HTMX)


def test_everything_has_words() -> None:
    assert set(FAULT_WORDS) == set(FAULTS)
    assert set(SYMPTOM_WORDS) == set(SYMPTOMS)
    assert set(LOOK_WORDS) == set(LOOKS)
    assert all(what and todo.endswith(".") for what, todo in FAULT_WORDS.values())
    assert all(question.endswith("?") for question in LOOK_WORDS.values())


def test_an_empty_sheet_asks_what_was_noticed(client: FlaskClient) -> None:
    page = soup(client.get(PAGE))
    assert len(page.select(".symptoms input")) == len(SYMPTOMS)
    assert not page.select(".suspects li")
    assert "Tick what you noticed" in page.text


def test_symptoms_name_suspects_and_the_next_check(client: FlaskClient) -> None:
    page = soup(client.get(f"{PAGE}?s=weak&s=pitch-high&s=nonsense"))
    assert page.select(".suspects li")
    assert page.select(".next-checks li")
    assert [box["value"] for box in page.select(".symptoms input[checked]")] == ["weak", "pitch-high"]
    assert "a reading would tell more" in page.text


def test_a_look_names_the_fault_and_can_be_taken_back(client: FlaskClient) -> None:
    page = soup(check(client, "look~swapped-hoses", "yes", "dust-in-vacuum"))
    leading = page.select_one(".suspects .leading")
    assert leading is not None
    assert "on each other's ports" in leading.text
    assert "most likely" in leading.text
    assert "seen" in leading.text
    drop = page.select_one(".checked form")
    assert drop is not None
    back = soup(client.post(str(drop["action"]), data={"s": "dust-in-vacuum"}, headers=HTMX))
    assert not back.select(".checked li")


def test_a_reading_gives_its_reason_in_the_users_units(client: FlaskClient) -> None:
    page = soup(check(client, "suction~link", "3.2", "weak"))
    leading = page.select_one(".suspects .leading")
    assert leading is not None
    assert "read 3.2 kPa; with this fault" in leading.text
    assert "sound" in leading.text


def test_bad_figures_stay_beside_their_check(client: FlaskClient) -> None:
    page = soup(client.get(f"{PAGE}?s=weak"))
    key = page.select_one('.next-checks input[name="key"]')["value"]  # type: ignore[index]
    for text, said in (("much", "number"), ("", "number"), ("-2", "Below 0"), ("9999", "more than can be")):
        answer = check(client, str(key), text, "weak")
        assert answer.status_code == 422
        assert said in answer.text
    assert not soup(client.get(PAGE)).select(".checked li")


def test_begin_anew_clears_the_sheet_and_leaves_the_tuning_alone(client: FlaskClient) -> None:
    client.post("/lines/1/test/readings", data={"kind": "sealed", "value": "16"})
    check(client, "look~tilted", "no", "weak")
    assert len(soup(client.get("/lines/1/test")).select(".readings-card tbody tr")) == 1
    client.post(f"{PAGE}/anew")
    assert not soup(client.get(PAGE)).select(".checked li")
    assert len(soup(client.get("/lines/1/test")).select(".readings-card tbody tr")) == 1


def test_checks_that_are_not_on_offer(client: FlaskClient) -> None:
    assert check(client, "look~nothing", "yes").status_code == 404
    assert check(client, "suction~nowhere", "3").status_code == 404
    check(client, "look~tilted", "no")
    assert check(client, "look~tilted", "yes").status_code == 404  # made already
    assert client.post(f"{PAGE}/readings/999/remove").status_code == 404


def test_looks_come_before_gauges_and_no_gauge_shows_two_suspects_alike(client: FlaskClient) -> None:
    for noticed in ("weak", "dust-in-vacuum", "pitch-high"):
        page = soup(client.get(f"/lines/1/test/fault?s={noticed}"))
        checks = page.select(".next-checks > li")
        kinds = ["look" if check.select_one("button[value=yes]") else "gauge" for check in checks]
        assert kinds == sorted(kinds, reverse=True), kinds
        for check in checks:
            said = re.findall(r"([\d.]+) [\w/ %]+ if ", check.text)
            if said:
                assert len(set(said)) == len(said) == 2, check.text
