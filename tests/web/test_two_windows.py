"""A page made before something else was changed: both changes stand, or both are shown, and nothing goes back."""

import json
import re
from typing import Any

import pytest
from flask.testing import FlaskClient

HX = {"HX-Request": "true"}
HOSE_A, HOSE_B = (f"line.branches[0].elements[{i}].length_m" for i in (0, 2))
SAW, SANDER = "/shop/place/bandsaw", "/shop/place/drum-sander"


def state_of(page: str, what: str = "line_state") -> str:
    found = re.search(rf'name="{what}" value="(\d+)"', page)
    assert found is not None
    return found[1]


def rig_of(client: FlaskClient, line: int = 1) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(client.get(f"/lines/{line}/rig.json").data)
    return found


def lengths(client: FlaskClient) -> dict[str, float]:
    (branch,) = rig_of(client)["line"]["branches"]
    return {part["id"]: part["length_m"] for part in branch["elements"] if "length_m" in part}


def whole_form(page: str) -> dict[str, str]:
    """The fields of the editor of a page as a browser sends them all, untouched."""
    form = page.split('id="editor"', 1)[1].split("</form>", 1)[0]
    found = dict(re.findall(r'name="([^"]+)"\s+value="([^"]*)"', form))
    for name, inside in re.findall(r'<select[^>]*?name="([^"]+)"[^>]*>(.*?)</select>', form, re.S):
        chosen = re.search(r'value="([^"]*)" selected', inside)
        found[name] = chosen[1] if chosen else ""
    return found


def test_what_a_stale_form_leaves_alone_is_not_put_back(client: FlaskClient) -> None:
    old = whole_form(client.get("/lines/1?part=hose-a").text)
    bore = HOSE_A.replace("length_m", "bore_m")
    assert client.post("/lines/1/parts/hose-a", data={**old, bore: "44"}, headers=HX).status_code == 200
    assert client.post("/lines/1/parts/hose-a", data={**old, HOSE_A: "1.5"}, headers=HX).status_code == 200
    hose = rig_of(client)["line"]["branches"][0]["elements"][0]
    assert (hose["bore_m"], hose["length_m"]) == (0.044, 1.5)


def test_two_windows_change_two_parts(client: FlaskClient) -> None:
    one, other = (state_of(client.get(f"/lines/1?part={part}").text) for part in ("hose-a", "hose-b"))
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5", "line_state": one}, headers=HX)
    client.post("/lines/1/parts/hose-b", data={HOSE_B: "2.25", "line_state": other}, headers=HX)
    assert (lengths(client)["hose-a"], lengths(client)["hose-b"]) == (1.5, 2.25)


def test_a_field_is_found_again_when_a_part_was_put_before_it(client: FlaskClient) -> None:
    state = state_of(client.get("/lines/1?part=hose-b").text)
    client.post("/lines/1/parts/hose-a/add", data={"kind": "reducer"}, headers=HX)
    client.post("/lines/1/parts/hose-b", data={HOSE_B: "2.25", "line_state": state}, headers=HX)
    assert lengths(client)["hose-b"] == 2.25


@pytest.fixture
def twice(client: FlaskClient) -> tuple[str, str]:
    """(state that both windows showed, the answer to the second change of one field)."""
    state = state_of(client.get("/lines/1?part=hose-a").text)
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5", "line_state": state}, headers=HX)
    second = client.post(
        "/lines/1/parts/hose-a", data={HOSE_A: "1.7", "line_state": state}, headers={**HX, "HX-Target": "bench"}
    )
    assert second.status_code == 409
    assert second.headers["HX-Retarget"] == "#notice"
    return state, second.text


def test_the_same_field_twice_is_shown_side_by_side(client: FlaskClient, twice: tuple[str, str]) -> None:
    cells = re.findall(r'<td data-of="([^"]+)">(?:<b>)?([^<]+)', twice[1])
    assert cells == [("Was", "2.5 m"), ("Is now", "1.5 m"), ("Yours", "1.7 m")]
    assert "Hose A: length" in twice[1]
    assert lengths(client)["hose-a"] == 1.5


def test_mine_goes_in_once_it_was_seen_beside_theirs(client: FlaskClient, twice: tuple[str, str]) -> None:
    sent = dict(re.findall(r'<input type="hidden" name="([^"]+)" value="([^"]*)"', twice[1]))
    assert client.post("/lines/1/parts/hose-a", data=sent, headers=HX).status_code == 200
    assert lengths(client)["hose-a"] == 1.7


def test_mine_does_not_go_over_a_third_change_that_was_not_seen(client: FlaskClient, twice: tuple[str, str]) -> None:
    sent = dict(re.findall(r'<input type="hidden" name="([^"]+)" value="([^"]*)"', twice[1]))
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.9"}, headers=HX)
    assert client.post("/lines/1/parts/hose-a", data=sent, headers=HX).status_code == 409
    assert lengths(client)["hose-a"] == 1.9


def test_both_to_the_same_value_is_no_clash_and_no_second_step(client: FlaskClient) -> None:
    state = state_of(client.get("/lines/1?part=hose-a").text)
    for _ in range(2):
        answer = client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5", "line_state": state}, headers=HX)
        assert answer.status_code == 200
    client.post("/lines/1/undo", headers=HX)
    assert lengths(client)["hose-a"] == 2.5


def test_undo_takes_back_what_its_page_shows_or_nothing(client: FlaskClient) -> None:
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5"}, headers=HX)
    state = state_of(client.get("/lines/1").text)
    client.post("/lines/1/parts/hose-b", data={HOSE_B: "2.25"}, headers=HX)
    refused = client.post("/lines/1/undo", data={"line_state": state}, headers=HX)
    assert refused.status_code == 409
    assert "Nothing was taken back" in refused.text
    assert "Hose B" in refused.text
    assert (lengths(client)["hose-a"], lengths(client)["hose-b"]) == (1.5, 2.25)
    again = client.post("/lines/1/undo", data={"line_state": state_of(client.get("/lines/1").text)}, headers=HX)
    assert again.status_code == 200


def test_a_form_made_of_what_was_undone_since_brings_only_its_own_change(client: FlaskClient) -> None:
    client.post("/lines/1/parts/hose-b", data={HOSE_B: "2.25"}, headers=HX)
    state = state_of(client.get("/lines/1?part=hose-a").text)
    client.post("/lines/1/undo", headers=HX)
    client.post("/lines/1/name", data={"name": "Another"})  # what had been undone is left behind now
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5", "line_state": state}, headers=HX)
    assert lengths(client)["hose-a"] == 1.5
    assert lengths(client)["hose-b"] != 2.25
    assert rig_of(client)["name"] == "Another"


def test_both_together_may_be_what_neither_is(client: FlaskClient) -> None:
    """A bin cut down here, filled up there."""
    page, bin_ = "/lines/1/separator", "line.elements[0].bin"
    state = state_of(client.get(page).text)
    filled = {f"{bin_}.fill_height_m": "350 mm", "line_state": state}
    cut = {f"{bin_}.profile[1].height_m": "300 mm", "line_state": state}
    assert client.post(page, data=filled, headers=HX).status_code == 200
    answer = client.post(page, data=cut, headers=HX)
    assert answer.status_code == 409
    assert "Both changes together cannot be" in answer.text
    assert "Put mine in" not in answer.text
    assert rig_of(client)["line"]["elements"][0]["bin"]["profile"][1]["height_m"] == 0.42
    client.post("/lines/1/undo", headers=HX)
    assert client.post(page, data=cut, headers=HX).status_code == 200


def test_a_refused_form_still_knows_what_it_was_made_of(client: FlaskClient) -> None:
    state = state_of(client.get("/lines/1?part=hose-a").text)
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5"}, headers=HX)
    refused = client.post("/lines/1/parts/hose-a", data={HOSE_A: "wide", "line_state": state}, headers=HX)
    assert refused.status_code == 422
    assert set(re.findall(r'name="line_state" value="(\d+)"', refused.text)) == {state}


def test_two_windows_on_the_shop(client: FlaskClient) -> None:
    state = state_of(client.get("/shop").text, "shop_state")
    client.post(SAW, data={"x_m": "1", "y_m": "1", "shop_state": state}, headers=HX)
    client.post(SANDER, data={"x_m": "2", "y_m": "2", "shop_state": state}, headers=HX)
    shop = json.loads(client.get("/shop/shop.json").data)
    assert {"x_m": 1.0, "y_m": 1.0} in [tool["place"] for tool in shop["tools"]]
    assert {"x_m": 2.0, "y_m": 2.0} in [tool["place"] for tool in shop["tools"]]
    clash = client.post(SAW, data={"x_m": "3", "y_m": "1", "shop_state": state}, headers=HX)
    assert clash.status_code == 409
    assert "Put mine in" in clash.text


def test_without_htmx_the_two_stand_on_a_page_of_their_own(client: FlaskClient) -> None:
    state = state_of(client.get("/lines/1?part=hose-a").text)
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5", "line_state": state})
    page = client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.7", "line_state": state})
    assert page.status_code == 409
    assert "<html" in page.text
    assert "Put mine in" in page.text


@pytest.mark.parametrize("state", ["0", "-3", "999999", "²", "9" * 400, "", "2"])
def test_a_state_that_is_not_the_lines_own_is_taken_for_the_one_that_stands(client: FlaskClient, state: str) -> None:
    answer = client.post(
        "/lines/1/parts/hose-a", data={HOSE_A: "1.5", "line_state": state, "seen_state": state}, headers=HX
    )
    assert answer.status_code == 200
    assert lengths(client)["hose-a"] == 1.5
