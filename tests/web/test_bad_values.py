"""What cannot be is refused at its field, in the user's units, and nothing that was typed is lost."""

from __future__ import annotations

import io
import json
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from tests.ends.rigs import CYCLONE, rig_file
from tests.ends.test_bin_and_standing_ends import GRINDING, WET

HX = {"HX-Request": "true"}
SEP = "line.elements[0]"
BIN = "/lines/1/separator/bin"


def field(text: str, path: str) -> Any:
    """A field of a page by its path."""
    found = BeautifulSoup(text, "html.parser").select_one(f'[name="{path}"]')
    assert found is not None, path
    return found


def error_at(text: str, path: str) -> str:
    """What is said at a field."""
    beside = field(text, path).find_next("p", class_="error")
    assert beside is not None
    return str(beside.text)


def opened(client: FlaskClient, document: dict[str, Any]) -> None:
    """Open a rig file in the first line's place."""
    data = {"rig": (io.BytesIO(json.dumps(document).encode()), "line.json")}
    answer = client.post("/lines/1/rig", data=data, content_type="multipart/form-data")
    assert answer.status_code in (200, 302)


def in_inches(client: FlaskClient) -> None:
    """Turn the units over."""
    assert client.post("/units", data={"system": "inch"}).status_code == 302


def stored(client: FlaskClient) -> dict[str, Any]:
    """The first line as it is stored."""
    document: dict[str, Any] = json.loads(client.get("/lines/1/rig.json").text)
    return document


@pytest.mark.parametrize(("text", "most"), [("430", "420 mm"), ("421", "420 mm")])
def test_a_ledge_above_the_rim(client: FlaskClient, text: str, most: str) -> None:
    client.post("/lines/1/separator/rows/ledges/add", data={"part": "sep"}, headers=HX)
    path = f"{SEP}.bin.ledges[0].height_m"
    answer = client.post("/lines/1/separator", data={path: text}, headers=HX)
    assert answer.status_code == 422
    assert f"at most {most} (got {text} mm)" in error_at(answer.text, path)
    assert field(answer.text, path)["value"] == text


def test_a_bin_is_turned_square_and_round_again_and_keeps_its_litres(client: FlaskClient) -> None:
    before = stored(client)["line"]["elements"][0]["bin"]["profile"]
    page = client.post(BIN, headers=HX)
    assert page.status_code == 200
    assert "Round bin" in page.text
    square = stored(client)["line"]["elements"][0]["bin"]["profile"]
    for was, now in zip(before, square, strict=True):
        assert now["width_m"] == now["depth_m"]
        assert now["width_m"] * now["depth_m"] == pytest.approx(3.14159 / 4 * was["d_m"] ** 2, rel=3e-3)
    path = f"{SEP}.bin.profile[1].depth_m"
    answer = client.post("/lines/1/separator", data={path: ""}, headers=HX)  # two widths at one height alone
    assert answer.status_code == 422
    assert "missing" in error_at(answer.text, path).lower()
    assert "not judged" in client.get("/lines/1/checks").text
    client.post(BIN, headers=HX)
    again = stored(client)["line"]["elements"][0]["bin"]["profile"]
    assert [point["d_m"] for point in again] == pytest.approx([point["d_m"] for point in before], rel=3e-3)
    client.post("/lines/1/separator/undo", headers=HX)
    assert stored(client)["line"]["elements"][0]["bin"]["profile"] == square


@pytest.mark.parametrize(("units", "text", "limit"), [("metric", "25", "under 24.691 kg"), ("inch", "60", "lb")])
def test_water_above_the_outlet_of_its_vessel(client: FlaskClient, units: str, text: str, limit: str) -> None:
    opened(client, rig_file(GRINDING, (CYCLONE, WET)))
    if units == "inch":
        in_inches(client)
    path = "line.elements[1].water_kg"
    answer = client.post("/lines/1/parts/wet", data={path: text}, headers=HX)
    assert answer.status_code == 422
    said = error_at(answer.text, path)
    assert "below the vessel's outlet" in said
    assert limit in said
    assert field(answer.text, path)["value"] == text
    assert stored(client)["line"]["elements"][1]["water_kg"] == WET["water_kg"]


def test_a_file_with_too_much_water_still_opens_with_a_check_and_takes_other_changes(client: FlaskClient) -> None:
    opened(client, rig_file(GRINDING, (CYCLONE, {**WET, "water_kg": 26.0})))
    assert "splashes to the outlet" in client.get("/lines/1/checks").text
    answer = client.post("/lines/1/parts/wet", data={"line.elements[1].throat_d_m": "45"}, headers=HX)
    assert answer.status_code == 200
    assert stored(client)["line"]["elements"][1]["throat_d_m"] == pytest.approx(0.045)


@pytest.mark.parametrize("on", ["vacuum", "deck"])
def test_a_stack_without_a_height(client: FlaskClient, on: str) -> None:
    path = f"{SEP}.stand.stands_on"
    answer = client.post("/lines/1/checks/fields/stand", data={path: on}, headers=HX)
    assert answer.status_code == 422
    assert "stands at a height" in answer.text
    both = {path: on, f"{SEP}.stand.base_height_m": "600"}
    assert client.post("/lines/1/checks/fields/stand", data=both, headers=HX).status_code == 200
    assert stored(client)["line"]["elements"][0]["stand"]["base_height_m"] == pytest.approx(0.6)


def test_a_tube_wider_than_the_cone_where_it_ends_is_refused_as_a_new_value_only(client: FlaskClient) -> None:
    opened(client, rig_file("saw", ({**CYCLONE, "outlet_length_m": 0.5},)))
    path = f"{SEP}.outlet_length_m"
    answer = client.post("/lines/1/separator", data={path: "560"}, headers=HX)
    assert answer.status_code == 422
    assert "narrower than the cone" in answer.text
    opened(client, rig_file("saw", ({**CYCLONE, "outlet_length_m": 0.56},)))
    assert "no air can turn round it" in client.get("/lines/1/checks").text
    renamed = client.post("/lines/1/separator", data={f"{SEP}.bin.wall_m": "5"}, headers=HX)
    assert renamed.status_code == 200


@pytest.mark.parametrize("text", ["91", "-1", "steep", "1e9", "nan"])
def test_a_lean_that_cannot_be(client: FlaskClient, text: str) -> None:
    path = f"{SEP}.tilt_deg"
    answer = client.post("/lines/1/separator", data={path: text}, headers=HX)
    assert answer.status_code == 422
    assert error_at(answer.text, path)
    assert field(answer.text, path)["value"] == text


def test_it_may_lean_all_the_way_down(client: FlaskClient) -> None:
    answer = client.post("/lines/1/separator", data={f"{SEP}.tilt_deg": "90"}, headers=HX)
    assert answer.status_code == 200
    assert client.get("/lines/1").status_code == 200
