"""The page of the best line from the drawer."""

import json

import pytest
from flask.testing import FlaskClient

PAGE = "/lines/1/drawer"


def test_the_best_at_no_cost_and_one_for_the_money(client: FlaskClient) -> None:
    page = client.get(PAGE).text
    assert page.count("drawer-card") == 3
    assert "At no cost" in page
    assert "For the money allowed" in page
    assert "about" in page
    assert "to the side port of the slot chamber" in page
    assert "from the centre port of the slot chamber by way of the Rubber step 50 to 63" in page


def test_one_becomes_a_variant_with_its_hook_up_card(client: FlaskClient) -> None:
    made = client.post(PAGE, data={"index": "0"})
    page = client.get(made.headers["Location"]).text
    assert "From the drawer" in page
    assert "Hook it up" in page
    rig = json.loads(client.get(made.headers["Location"].split("?")[0] + "/rig.json").data)
    assert {e["name"] for e in rig["line"]["branches"][0]["elements"]} >= {"Blue smooth hose", "Link hose"}
    assert client.post(PAGE, data={"index": "7"}).status_code == 404
    assert client.post(PAGE, data={"index": "0", "reach": "far"}).status_code == 400


@pytest.mark.parametrize(
    ("query", "sentence"),
    [
        ("reach=far", "is not a number in m"),
        ("reach=-2", "Must be between 0 and 50 m"),
        ("spend=1e9", "Must be between 0 and 10000"),
    ],
)
def test_what_cannot_be_read_stays(client: FlaskClient, query: str, sentence: str) -> None:
    refused = client.get(f"{PAGE}?{query}")
    assert refused.status_code == 422
    assert sentence in refused.text
    assert f'value="{query.split("=")[1]}"' in refused.text


def test_too_far_says_so(client: FlaskClient) -> None:
    page = client.get(f"{PAGE}?reach=30&spend=0").text
    assert "Nothing in the drawer reaches" in page
    assert "4 m" in page


def test_each_tool_of_a_line_with_gates(client: FlaskClient) -> None:
    page = client.get("/lines/2/drawer?port=sander").text
    assert "drawer-card" in page
    assert "Finishing sander" in page
