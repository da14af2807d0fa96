"""The shop's page: lists, floor plan, history, and lengths that flow into the lines."""

import io
import json
import re
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

HX = {"HX-Request": "true"}


def shop(client: FlaskClient) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(client.get("/shop/shop.json").data)
    return found


def post(client: FlaskClient, address: str, **data: str) -> Any:
    return client.post(f"/shop/{address}", data=data, headers=HX)


@pytest.mark.parametrize("listed", ["tools", "vacuums", "hoses", "fittings", "circuits", "furniture", "jobs", "room"])
def test_every_list_is_there_with_its_fields(client: FlaskClient, listed: str) -> None:
    page = client.get(f"/shop?list={listed}").text
    assert "Willow Yard Ukuleles" in page
    assert page.count("<input") > 5
    assert "reaches every tool" in page


def test_things_are_added_changed_copied_removed_and_brought_back(client: FlaskClient) -> None:
    assert post(client, "hoses/add").status_code == 200
    assert len(shop(client)["hoses"]) == 8
    changed = post(client, "items/hose-1", **{"hoses[7].bore_m": "27", "hoses[7].one_end.outside_d_m": "31.5"})
    assert changed.status_code == 200
    new = shop(client)["hoses"][7]
    assert (new["bore_m"], new["one_end"]["outside_d_m"]) == (0.027, 0.0315)
    post(client, "items/hose-1/duplicate")
    assert shop(client)["hoses"][8]["name"] == "Hose copy"
    post(client, "items/hose-1/remove")
    assert len(shop(client)["hoses"]) == 8
    post(client, "undo")
    assert len(shop(client)["hoses"]) == 9
    for _ in range(9):
        post(client, "undo")
    assert len(shop(client)["hoses"]) == 7  # never behind where it began
    post(client, "redo")
    assert len(shop(client)["hoses"]) == 8
    assert client.post("/shop/items/nothing").status_code == 404
    assert client.post("/shop/toys/add").status_code == 404


def test_what_only_referred_to_a_thing_goes_with_it(client: FlaskClient) -> None:
    post(client, "items/bandsaw/remove")
    assert "bandsaw" not in {job["tool"] for job in shop(client)["jobs"]}
    post(client, "items/north/remove")
    assert all(tool.get("circuit") != "north" for tool in shop(client)["tools"])


@pytest.mark.parametrize(
    ("item", "field", "text", "sentence"),
    [
        ("hose-a", "hoses[0].bore_m", "wide", "is not a number in mm"),
        ("hose-a", "hoses[0].length_m", "-2", "Must be above 0 m"),
        ("drum-vac", "vacuums[0].curve.sealed_suction_pa", "0", "Must be above 0 kPa"),
        ("bench", "furniture[0].width_m", "0.1", "Must be above 0.2 m"),
        ("resaw", "jobs[0].tool", "nobody", "names no tool"),
    ],
)
def test_bad_values_stay_beside_their_field(
    client: FlaskClient, item: str, field: str, text: str, sentence: str
) -> None:
    before = shop(client)
    refused = post(client, f"items/{item}", **{field: text})
    assert refused.status_code == 422
    assert sentence.lower() in refused.text.lower()
    assert f'value="{text}"' in refused.text or field.endswith("tool")
    assert shop(client) == before


def test_a_room_too_small_for_what_stands_in_it_is_refused(client: FlaskClient) -> None:
    refused = client.post("/shop/room", data={"room.width_m": "2"})
    assert refused.status_code == 422
    assert "within the room" in refused.text


def test_things_move_snapped_and_stay_in_the_room(client: FlaskClient) -> None:
    post(client, "place/bandsaw", x_m="1.234", y_m="99")
    assert shop(client)["tools"][0]["place"] == {"x_m": 1.25, "y_m": 3.6}
    assert client.post("/shop/place/bandsaw", data={"x_m": "left"}).status_code == 400
    assert client.post("/shop/place/bandsaw", data={"x_m": "nan", "y_m": "1"}).status_code == 400


def test_the_separator_goes_to_the_best_spot_and_hoses_get_shorter(client: FlaskClient) -> None:
    before = client.get("/shop").text
    longest = re.search(r"where the separator\s+stands it takes ([\d.]+) m", before)
    best = re.search(r"one hose of ([\d.]+) m reaches", before)
    assert longest
    assert best
    assert float(best[1]) < float(longest[1]) - 1
    after = post(client, "spot").text
    assert f"where one hose of {best[1]} m reaches every tool" in after
    assert "Separator moved" in after


def test_a_route_is_laid_into_the_line(client: FlaskClient) -> None:
    page = client.get("/shop").text
    wanted = re.search(r"Bandsaw\s*</th>\s*<td class=\"num\">\s*([\d.]+) m", page)
    assert wanted
    laid = client.post("/shop/lay/bandsaw/2/bandsaw", headers=HX)
    assert laid.status_code == 200
    rig = json.loads(client.get("/lines/2/rig.json").data)
    drop, main = rig["line"]["branches"][0]["elements"][0], rig["line"]["elements"][0]
    assert drop["length_m"] + main["length_m"] == pytest.approx(float(wanted[1]), abs=0.02)
    assert [bend["angle_deg"] for bend in drop["bends"]] == [90.0, 90.0]
    assert "Hose laid as on the floor plan" in client.get("/lines/2").text
    assert client.post("/shop/lay/nobody/2/bandsaw").status_code == 404
    assert client.post("/shop/lay/bandsaw/2/nobody", headers=HX).status_code == 422


def test_the_shop_is_saved_opened_and_refused_as_a_file(client: FlaskClient) -> None:
    document = shop(client)
    document["name"] = "Another shop"
    sent = {"shop": (io.BytesIO(json.dumps(document).encode()), "mine.json")}
    assert client.post("/shop/file", data=sent).status_code == 302
    assert "Another shop" in client.get("/shop").text
    document["tools"][0]["circuit"] = "moon"
    sent = {"shop": (io.BytesIO(json.dumps(document).encode()), "bad.json")}
    refused = client.post("/shop/file", data=sent)
    assert refused.status_code == 422
    assert "tools[0].circuit: names no circuit of this shop" in refused.text
    assert client.post("/shop/file").status_code == 422


def test_an_empty_shop_can_be_filled(empty: FlaskClient) -> None:
    assert "Nothing here yet" in empty.get("/shop").text
    refused = post(empty, "jobs/add")
    assert refused.status_code == 422
    assert "add the tool first" in refused.text
    post(empty, "tools/add")
    post(empty, "jobs/add")
    assert len(shop(empty)["jobs"]) == 1
    assert "reaches every tool from the marked spot" in empty.get("/shop").text
    for _ in range(3):
        post(empty, "undo")
    assert "tools" not in shop(empty) or not shop(empty)["tools"]


def test_a_sheet_that_the_shop_has_is_not_bought(client: FlaskClient) -> None:
    wanted = "Clear polycarbonate 1.5 mm"
    before = client.get("/lines/1/build?what=sep").text
    assert wanted.lower() in before.lower()
    post(client, "sheets/add")
    at = len(shop(client)["sheets"]) - 1
    own = shop(client)["sheets"][at]["id"]
    sizes = {"material": "polycarbonate", "thickness_m": "1.5", "width_m": "1220", "height_m": "610"}
    fields = {f"sheets[{at}].{key}": text for key, text in sizes.items()}
    assert post(client, f"items/{own}", **fields).status_code == 200
    assert shop(client)["sheets"][at]["width_m"] == 1.22
    assert client.get("/lines/1/build?what=sep").text != before


def test_a_salvaged_part_is_looked_at_before_it_is_trusted(client: FlaskClient) -> None:
    assert "looked at, and fine." in client.get("/shop?list=salvaged").text
    post(client, "salvaged/add")
    assert "before it is trusted, look at cracks, what it last held" in client.get("/shop?list=salvaged").text


def test_the_finder_begins_with_what_the_shop_has(client: FlaskClient) -> None:
    page = BeautifulSoup(client.get("/lines/1/separator/find?part=sep&stock=1").text, "html.parser")
    held = shop(client)["sheets"]
    largest = max(held, key=lambda sheet: sheet["width_m"] * sheet["height_m"])
    for name, key in (("sheet_width", "width_m"), ("sheet_height", "height_m")):
        found = page.select_one(f'input[name="{name}"]')
        assert found is not None
        assert found["value"] == f"{largest[key] * 1000:g}"


def test_a_list_is_scanned_and_one_thing_opened(client: FlaskClient) -> None:
    page = BeautifulSoup(client.get("/shop?list=hoses").text, "html.parser")
    rows = page.select(".items details")
    assert [row.select_one("summary b").text for row in rows][:2] == ["Hose A", "Hose B"]  # type: ignore[union-attr]
    assert "38 mm · 2.5 m · Wire helix" in rows[0].select_one("summary span").text  # type: ignore[union-attr]
    assert not [row for row in rows if row.has_attr("open")]
    opened = BeautifulSoup(client.get("/shop?item=blue").text, "html.parser")
    (row,) = [row for row in opened.select(".items details") if row.has_attr("open")]
    assert row.parent["data-owned"] == "blue"  # type: ignore[index]
    assert client.get("/shop?item=nothing").status_code == 404
    assert client.get("/shop?item=separator").status_code == 200


def test_what_is_changed_stays_open_and_what_is_refused_opens(client: FlaskClient) -> None:
    field = "hoses[3].length_m"
    changed = BeautifulSoup(client.post("/shop/items/blue", data={field: "3.2"}, headers=HX).text, "html.parser")
    assert [row.parent["data-owned"] for row in changed.select(".items details[open]")] == ["blue"]  # type: ignore[index]
    refused = client.post("/shop/items/blue", data={field: "-1"}, headers=HX)
    assert refused.status_code == 422
    (row,) = BeautifulSoup(refused.text, "html.parser").select(".items details[open]")
    assert row.parent["data-owned"] == "blue"  # type: ignore[index]


def test_the_shop_is_filled_from_a_line_and_a_line_made_of_the_shop(client: FlaskClient) -> None:
    page = client.get("/shop").text
    assert "Bench line has what is not listed here: Bandsaw drop, Bench pipe" in page
    filled = client.post("/shop/from/2", data={"list": "hoses"}, headers=HX).text
    assert "Bench pipe" in filled
    assert "Bench line has what is not listed here" not in filled
    undone = client.post("/shop/undo", data={"list": "hoses"}, headers=HX).text
    assert "Bench line has what is not listed here" in undone
    made = client.post("/shop/line")
    line = client.get(made.headers["Location"]).text
    assert "Every tool of Willow Yard Ukuleles" in line
    assert line.count('data-gate="') >= 6
    assert client.post("/shop/from/99").status_code == 404


def test_an_empty_shop_makes_no_line_and_says_why(empty: FlaskClient) -> None:
    refused = empty.post("/shop/line", headers=HX)
    assert refused.status_code == 422
    assert "The shop has no tool yet" in refused.text
