"""The Checks: what is open, what settles it, what is lived with, and the count in the header."""

from __future__ import annotations

from typing import Any

import pytest
from bs4 import BeautifulSoup, Tag
from flask.testing import FlaskClient

HTMX = {"HX-Request": "true"}
SEP = "line.elements[0]"


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def row(page: BeautifulSoup, check: str) -> Tag | None:
    """The row of a check; None where the page has none."""
    return page.select_one(f'[data-check^="{check}~"]')


def state(page: BeautifulSoup, check: str) -> str:
    """The word of its level."""
    found = row(page, check)
    assert found is not None, check
    word = found.select_one(".state")
    assert word is not None
    return word.text


def test_the_demo_line_has_much_to_find_and_the_header_counts_it(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1/checks"))
    for check in ("bin-collapse", "tips", "switch", "settling", "kept"):
        assert state(page, check) == "act", check
    for check in ("static", "headroom", "rolls-apart", "bin-leak", "containment", "caught"):
        assert state(page, check) == "watch", check
    count = len(page.select("section .check-act"))
    pill = page.select_one("#checks-pill b")
    assert pill is not None
    assert pill.text == f"{count} to act on"
    assert soup(client.get("/shop")).select_one("#checks-pill b").text == pill.text  # type: ignore[union-attr]
    assert page.select(".fine-card .check-ok")


def test_one_button_stiffens_the_bin_and_the_count_falls(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1/checks"))
    before = int(page.select_one("#checks-pill b").text.split()[0])  # type: ignore[union-attr]
    assert "A valve that opens" in row(page, "bin-collapse").text  # type: ignore[union-attr]
    form = row(page, "bin-collapse").select_one(".check-tools form")  # type: ignore[union-attr]
    assert form is not None
    answer = soup(client.post(str(form["action"]), headers=HTMX))
    assert row(answer, "bin-collapse")["class"] != ["check", "check-act"]  # type: ignore[index]
    assert int(answer.select_one("#checks-pill b").text.split()[0]) == before - 1  # type: ignore[union-attr]
    assert answer.select_one("#undo .what").text.startswith("A ring round the bin")  # type: ignore[union-attr]
    back = soup(client.post("/lines/1/checks/undo", headers=HTMX))
    assert state(back, "bin-collapse") == "act"


def test_wood_then_grinding_is_stopped_until_emptied(client: FlaskClient) -> None:
    path = "line.branches[0].port.dust"
    client.post("/lines/1/ports/drum-sander/hood", data={path: "steel-grinding"})
    page = soup(client.get("/lines/1/checks"))
    assert state(page, "last-held") == "act"
    assert "Empty bin, tank and filter" in row(page, "last-held").text  # type: ignore[union-attr]
    answer = soup(client.post("/lines/1/checks/settle/last-held", headers=HTMX))
    assert state(answer, "last-held") == "in order"
    assert answer.select_one("#undo .what").text.startswith("What the vacuum last held")  # type: ignore[union-attr]


def test_a_rewired_vacuum_is_to_act_on_until_it_is_ticked(client: FlaskClient) -> None:
    page = client.post("/lines/1/checks/fields/vacuum", data={"vacuum.wiring": "rewired"}, headers=HTMX)
    assert state(soup(page), "rewired") == "act"
    ticked = soup(client.post("/lines/1/checks/settle/rewired", headers=HTMX))
    assert state(ticked, "rewired") == "in order"
    assert "tested since" in ticked.text


def test_a_check_is_acknowledged_with_a_reason_and_stays_in_sight(client: FlaskClient) -> None:
    refused = client.post("/lines/1/checks/static~/seen", data={"reason": "  "}, headers=HTMX)
    assert refused.status_code == 422
    assert "Say why it may stay so" in refused.text
    answer = soup(client.post("/lines/1/checks/static~/seen", data={"reason": "Copper on order"}, headers=HTMX))
    static = row(answer, "static")
    assert static is not None
    assert "lived-with" in static["class"]
    assert "Copper on order" in static.select_one(".seen").text  # type: ignore[union-attr]
    assert "1 lived with" in answer.select_one(".check-count").text  # type: ignore[union-attr]
    button = static.select_one(".seen form")
    assert button is not None
    again = soup(client.post(str(button["action"]), headers=HTMX))
    assert state(again, "static") == "watch"
    assert client.post(str(button["action"]), headers=HTMX).status_code == 404


def test_an_acknowledged_check_that_gets_worse_is_open_again(client: FlaskClient) -> None:
    key = "headroom~sep"
    client.post(f"/lines/1/checks/{key}/seen", data={"reason": "It rolls out"})
    assert "lived-with" in row(soup(client.get("/lines/1/checks")), "headroom")["class"]  # type: ignore[index]
    client.post("/lines/1/checks/fields/stand", data={f"{SEP}.stand.headroom_m": "600"})
    assert state(soup(client.get("/lines/1/checks")), "headroom") == "act"


def test_a_reason_too_long_is_refused_and_kept(client: FlaskClient) -> None:
    answer = client.post("/lines/1/checks/static~/seen", data={"reason": "x" * 501}, headers=HTMX)
    assert answer.status_code == 422
    assert "At most 500" in answer.text
    assert "x" * 501 in answer.text


@pytest.mark.parametrize(
    ("part", "path", "text", "said"),
    [
        ("stand", f"{SEP}.stand.headroom_m", "-3", "Must be at least 0"),
        ("stand", f"{SEP}.stand.mass_kg", "heavy", "number"),
        ("vacuum", "vacuum.current_a", "0", "Must be above 0"),
        ("bin", f"{SEP}.bin.lid.thickness_m", "0", "Must be above 0"),
        ("bin", f"{SEP}.bin.lid.stiffener_material", "plywood", "Is missing"),
        ("bin", f"{SEP}.bin.material", "other", "nobody can say when a bin of this material folds"),
    ],
)
def test_bad_input_is_said_at_the_field_and_nothing_typed_is_lost(
    client: FlaskClient, part: str, path: str, text: str, said: str
) -> None:
    answer = client.post(f"/lines/1/checks/fields/{part}", data={path: text}, headers=HTMX)
    assert answer.status_code == 422
    assert said in answer.text
    page = soup(answer)
    field = page.select_one(f'[name="{path}"]')
    assert field is not None
    shown = field.get("value") or field.select_one("option[selected]")["value"]  # type: ignore[index]
    assert shown == text


def test_a_lid_and_a_valve_are_described_and_taken_away(client: FlaskClient) -> None:
    answer = soup(client.post("/lines/1/checks/begin/relief", headers=HTMX))
    assert state(answer, "relief") == "in order"
    assert row(answer, "bin-collapse")["class"][1] == "check-ok"  # type: ignore[index]
    answer = soup(client.post("/lines/1/checks/begin/relief-off", headers=HTMX))
    assert row(answer, "relief") is None
    answer = soup(client.post("/lines/1/checks/begin/lid-off", headers=HTMX))
    assert row(answer, "lid-bends") is None
    answer = soup(client.post("/lines/1/checks/begin/lid", headers=HTMX))
    assert row(answer, "lid-bends") is not None


def test_the_panel_lies_over_any_place(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1/checks/panel"))
    assert page.select_one("#checks-inside") is not None
    assert not page.select(".check-ok")
    data = {"reason": "Known", "panel": "1"}
    answer = soup(client.post("/lines/1/checks/static~/seen", data=data, headers=HTMX))
    assert answer.select_one("#checks-inside .lived-with") is not None
    assert answer.select_one('#checks-pill[hx-swap-oob="true"]') is not None


def test_addresses_that_lead_nowhere(client: FlaskClient) -> None:
    for path in (
        "checks/nothing~/seen",
        "checks/settle/nothing",
        "checks/mend/x~y~1",
        "checks/mend/x",
        "checks/begin/z",
    ):
        assert client.post(f"/lines/1/{path}", data={"reason": "x"}).status_code == 404, path
    assert client.post("/lines/1/checks/fields/nothing").status_code == 404
    assert client.get("/lines/99/checks").status_code == 404
    assert client.get("/checks").headers["Location"].endswith("/lines/1/checks")


def test_an_empty_shop_has_nothing_to_check(empty: FlaskClient) -> None:
    assert empty.get("/checks").headers["Location"].endswith("/start")
    assert soup(empty.get("/start")).select_one("#checks-pill") is None
