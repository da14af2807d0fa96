"""The page of the way: asked, watched, taken up, tried, done, struck out; bad sums and empty outcomes explained."""

from __future__ import annotations

import re
import time
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

PAGE = "/lines/1/way"


def soup(answer: Any) -> BeautifulSoup:
    """A page as a tree."""
    assert answer.status_code == 200, answer.status
    return BeautifulSoup(answer.text, "html.parser")


def found(client: FlaskClient, **asked: str) -> tuple[str, BeautifulSoup]:
    """(id of the job, page) of a finished search."""
    answer = client.post(PAGE, data=asked)
    assert answer.status_code == 302
    address = answer.headers["Location"]
    job = re.search(r"job=([\w-]+)", address)
    assert job
    for _ in range(600):
        if "HX-Redirect" in client.get(f"{PAGE}/{job[1]}").headers:
            return job[1], soup(client.get(address))
        time.sleep(0.05)
    raise AssertionError("the search did not end")


def keys_of(page: BeautifulSoup, card: str = ".way-card") -> list[str]:
    """Of the steps of a card."""
    first = page.select_one(card)
    assert first is not None
    return [str(one["value"]) for one in first.select('input[name="step"]')]


def test_it_asks_for_money_and_time_and_begins_by_itself(client: FlaskClient) -> None:
    page = soup(client.get(PAGE))
    begin = page.select_one("#begin")
    assert begin is not None
    assert "load" in str(begin["hx-trigger"])
    assert [str(one["name"]) for one in page.select(".ask-form input[type=text], .ask-form .form-control")] == [
        "spend",
        "hours",
    ]
    answer = client.post(PAGE, data={"spend": "0", "hours": "0"}, headers={"HX-Request": "true"})
    assert answer.status_code == 200
    assert "/way?job=" in answer.headers["HX-Redirect"]


def test_what_is_found_is_an_ordered_list_with_what_each_step_takes_and_moves(client: FlaskClient) -> None:
    _, page = found(client, spend="20", hours="4")
    cards = page.select(".way-card")
    assert [card.h2.text for card in cards if card.h2] == ["Free, this evening", "For 20 €, 4 h"]
    for card in cards:
        steps = card.select(".way-steps li")
        assert 1 <= len(steps) <= 6
        assert [one.text for one in card.select(".rank")] == [str(i + 1) for i in range(len(steps))]
        assert all(step.select_one(".takes") and step.select_one("em") for step in steps)
        assert card.select(".way-ports tbody tr")
    assert "combinations of" in page.text


def test_a_way_is_taken_up_put_in_another_order_and_left(client: FlaskClient) -> None:
    job, page = found(client, spend="20", hours="4")
    assert client.post(f"{PAGE}/{job}/take/1").headers["Location"].endswith(PAGE)
    page = soup(client.get(PAGE))
    first = list(dict.fromkeys(keys_of(page, ".way-kept")))
    assert len(first) >= 2
    client.post(f"{PAGE}/change/later", data={"step": first[0]})
    assert list(dict.fromkeys(keys_of(soup(client.get(PAGE)), ".way-kept")))[:2] == [first[1], first[0]]
    client.post(f"{PAGE}/undo")
    assert list(dict.fromkeys(keys_of(soup(client.get(PAGE)), ".way-kept"))) == first
    client.post(f"{PAGE}/change/tick", data={"step": first[1]})
    page = soup(client.get(PAGE))
    assert first[1] not in keys_of(page, ".way-kept")
    assert first[1] in keys_of(page, ".way-done")
    client.post(f"{PAGE}/change/untick", data={"step": first[1]})
    client.post(f"{PAGE}/leave")
    assert soup(client.get(PAGE)).select_one(".way-kept") is None


def test_a_step_that_is_tried_is_kept_in_one_change_and_ticked_off(client: FlaskClient) -> None:
    job, _ = found(client, spend="20", hours="4")
    client.post(f"{PAGE}/{job}/take/1")
    steps = list(dict.fromkeys(keys_of(soup(client.get(PAGE)), ".way-kept")))
    before = client.get("/lines/1/rig.json").json
    trial = soup(client.get(f"{PAGE}/try", query_string={"step": steps}))
    assert f"{len(steps)} steps of the way" in trial.select_one(".trial").text  # type: ignore[union-attr]
    assert client.get("/lines/1/rig.json").json == before
    assert client.get("/lines/1/late", query_string={"step": steps}).status_code == 200
    assert client.post(f"{PAGE}/keep", data={"step": steps}).status_code == 302
    after = client.get("/lines/1/rig.json").json
    assert after != before
    page = soup(client.get(PAGE))
    assert keys_of(page, ".way-done") == steps
    client.post("/lines/1/undo")
    assert client.get("/lines/1/rig.json").json == before


def test_what_is_struck_out_is_told_and_can_be_taken_back(client: FlaskClient) -> None:
    _, page = found(client, spend="0", hours="3")
    key = keys_of(page)[0]
    client.post(f"{PAGE}/change/strike", data={"step": key})
    page = soup(client.get(PAGE))
    assert key in [str(one["value"]) for one in page.select(".struck-card input[name=step]")]
    _, page = found(client, spend="0", hours="3")
    assert key not in keys_of(page)
    client.post(f"{PAGE}/change/unstrike", data={"step": key})
    assert soup(client.get(PAGE)).select_one(".struck-card") is None


def test_with_nothing_at_hand_it_says_what_is_in_the_way(client: FlaskClient) -> None:
    _, page = found(client, spend="0", hours="0")
    assert "Nothing within these limits makes this line better" in page.text
    left = page.select_one(".left-card")
    assert left is not None
    assert len(left.select("li")) >= 4


@pytest.mark.parametrize(
    ("typed", "told"), [({"spend": "-3"}, "Must be"), ({"hours": "soon"}, "number"), ({"spend": "1e400"}, ""),
                        ({"spend": "9" * 300}, ""), ({"hours": "nan"}, "")],
)  # fmt: skip
def test_a_sum_that_cannot_be_read_stays_where_it_was_typed(
    client: FlaskClient, typed: dict[str, str], told: str
) -> None:
    answer = client.post(PAGE, data={"spend": "", "hours": "", **typed})
    assert answer.status_code == 422
    page = BeautifulSoup(answer.text, "html.parser")
    (name,) = typed
    field = page.select_one(f'.ask-form [name="{name}"]')
    assert field is not None
    assert str(field["value"]) == typed[name]
    assert told in answer.text
    assert page.select_one("#begin") is None


@pytest.mark.parametrize(
    "address",
    ["/way/none", "/way/try", "/way/try?step=nothing", "/way/try?step=gate~x&step=gate~x", "/late?step=%F0%9F%99%82"],
)
def test_what_there_is_not_is_not_found(client: FlaskClient, address: str) -> None:
    assert client.get(f"/lines/1{address}").status_code == 404


def test_changes_of_nothing_change_nothing(client: FlaskClient) -> None:
    for address, data in (("keep", {}), ("keep", {"step": "x"}), ("change/burn", {"step": "x"}), ("change/tick", {}),
                          ("none/stop", {}), ("none/take/0", {})):  # fmt: skip
        assert client.post(f"{PAGE}/{address}", data=data).status_code == 404, address
    client.post(f"{PAGE}/change/tick", data={"step": "x" * 500})
    client.post(f"{PAGE}/undo")
    client.post(f"{PAGE}/leave")
    assert "Undo" in client.get(PAGE).text
    assert client.get("/lines/99/way").status_code == 404


def test_a_step_that_the_line_does_not_take_any_more_says_so(client: FlaskClient) -> None:
    job, _ = found(client, spend="20", hours="4")
    client.post(f"{PAGE}/{job}/take/1")
    steps = list(dict.fromkeys(keys_of(soup(client.get(PAGE)), ".way-kept")))
    client.post(f"{PAGE}/keep", data={"step": steps[:1]})
    client.post(f"{PAGE}/change/untick", data={"step": steps[0]})  # made, and not ticked off
    page = soup(client.get(PAGE))
    gone = page.select_one(".way-kept .gone")
    assert gone is not None
    assert "does not take this step" in gone.text
    client.post(f"{PAGE}/change/tick", data={"step": steps[0]})
    assert soup(client.get(PAGE)).select_one(".way-kept .gone") is None


def test_what_was_found_for_another_state_of_the_line_is_not_shown_as_if_for_this(client: FlaskClient) -> None:
    job, page = found(client, spend="0", hours="3")
    assert client.post(f"{PAGE}/keep", data={"step": keys_of(page)[0]}).status_code == 302
    again = soup(client.get(f"{PAGE}?job={job}"))
    assert "another state of the line" in again.text
    assert again.select_one("#begin") is not None


def test_what_the_way_starts_from_is_what_the_table_of_ports_says(client: FlaskClient) -> None:
    answer = client.post("/lines/2/way", data={"spend": "20", "hours": "2"})
    job = re.search(r"job=([\w-]+)", answer.headers["Location"])
    assert job
    for _ in range(900):
        if "HX-Redirect" in client.get(f"/lines/2/way/{job[1]}").headers:
            break
        time.sleep(0.05)
    rows = soup(client.get(answer.headers["Location"])).select(".way-ports")[0].select("tbody tr")
    table = {row["name"]: row for row in client.get("/lines/2/ports.json").json}
    assert rows
    for row in rows:
        air, caught, in_bin = (cell.text.partition(" →")[0].split()[0] for cell in row.select("td"))
        known = table[row.th.text]  # type: ignore[union-attr]
        assert (float(air), float(caught)) == (known["flow [L/s]"], known["caught [%]"])
        assert float(in_bin) == pytest.approx(known["in_bin [g of 100]"], abs=0.051)


def test_however_much_is_struck_out_the_page_stands(client: FlaskClient) -> None:
    assert client.post(f"{PAGE}/change/strike", data={"step": "no such step"}).status_code == 404
    moves = [str(key) for key in keys_of(found(client, spend="0", hours="3")[1])]
    for key in moves * 3:
        assert client.post(f"{PAGE}/change/strike", data={"step": key}).status_code == 302
    assert len(soup(client.get(PAGE)).select(".struck-card li")) == len(set(moves))


def test_a_step_that_is_gone_is_told_in_a_sentence_with_a_way_back(client: FlaskClient) -> None:
    answer = client.get(f"{PAGE}/try", query_string={"step": "nothing~here"})
    assert answer.status_code == 404
    assert "no such step on this line" in answer.text
    assert "To the" in answer.text
