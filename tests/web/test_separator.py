"""The Separator page: every kind shown and changed, bad sizes refused at their field, dust traced, nothing lost."""

import json
import re
from typing import Any

import pytest
from flask.testing import FlaskClient

from fenwick.rig.edits.kinds import KINDS

PAGE = "/lines/1/separator"
HX = {"HX-Request": "true"}
SEP = "line.elements[0]"


def change(client: FlaskClient, **fields: str) -> Any:
    """Post some fields; dots and brackets are written as they are in the file."""
    return client.post(PAGE, data={f"{SEP}.{key}": text for key, text in fields.items()}, headers=HX)


def stored(client: FlaskClient) -> dict[str, Any]:
    """The separator as it is saved."""
    document: dict[str, Any] = json.loads(client.get("/lines/1/rig.json").text)
    return dict(document["line"]["elements"][0])


def kept(page: str) -> float:
    """The figure for what is kept."""
    found = re.search(r'data-row="kept".*?<b>([\d.]+)</b>', page, re.S)
    assert found
    return float(found[1])


def test_the_page_shows_section_figures_curve_and_what_to_mend(client: FlaskClient) -> None:
    page = client.get(PAGE).text
    for piece in ("section-drawing", "grade-chart", "sweep-chart", "Through a clear wall", "What the bin gives back"):
        assert piece in page
    assert page.count('class="sweep-chart"') == 3
    assert "is believable" in page
    assert "Seal the bin" in page
    assert client.get("/separator").status_code == 302


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_can_be_taken_and_taken_back(client: FlaskClient, kind: str) -> None:
    before = stored(client)
    page = client.post(f"{PAGE}/kind", data={"part": "sep", "kind": kind}, headers=HX).text
    assert f'<option value="{kind}" selected>' in page
    assert 0.0 <= kept(page) <= 100.0
    assert ("The four published models" in page) is (kind == "cyclone")
    client.post(f"{PAGE}/undo", data={"part": "sep"}, headers=HX)
    assert stored(client) == before


def test_a_field_is_saved_and_said(client: FlaskClient) -> None:
    page = change(client, **{"bin.leak_area_m2": "0"}).text
    assert kept(page) > 90.0
    assert stored(client)["bin"]["leak_area_m2"] == 0.0
    assert "bin leak 22 mm² → 0 mm²" in page


@pytest.mark.parametrize(
    ("kind", "field", "text", "sentence"),
    [
        ("slotted-disc", "outlet_d_m", "400", "Must be narrower than the chamber, at most 380 mm (got 400 mm)."),
        ("slotted-disc", "slots[0].width_m", "200", "less than the chamber&#39;s radius, at most 190 mm (got 200 mm)."),
        ("slotted-disc", "inlet_bore_m", "130", "Must fit the chamber&#39;s height, at most 120 mm (got 130 mm)."),
        ("hung-disc", "chamber_d_m", "400", "Must fit the bin where the disc hangs, 120 mm below the rim"),
        ("cyclone", "outlet_d_m", "300", "Must be narrower than the body"),
        ("cyclone", "outlet_length_m", "900", "Must be shorter than the cyclone is high"),
        ("cyclone", "inlet_width_m", "wide", "“wide” is not a number"),
        ("elbow-lid", "outlet_length_m", "-5", "Must be at least 0 mm"),
    ],
)
def test_what_does_not_fit_stands_beside_its_field_and_saves_nothing(
    client: FlaskClient, kind: str, field: str, text: str, sentence: str
) -> None:
    client.post(f"{PAGE}/kind", data={"part": "sep", "kind": kind}, headers=HX)
    before = stored(client)
    answer = change(client, **{field: text})
    assert answer.status_code == 422
    name = re.escape(f"{SEP}.{field}")
    beside = re.search(rf'name="{name}"\s+value="{text}".*?<p class="error"[^>]*>(.*?)</p>', answer.text, re.S)
    assert beside
    assert sentence in beside[1]
    assert "section-drawing" in answer.text
    assert stored(client) == before
    preview = client.post(f"{PAGE}/preview", data={"part": "sep", f"{SEP}.{field}": text}, headers=HX)
    assert preview.status_code == 422
    assert preview.headers["HX-Retarget"] == "#drag-note"
    assert "The drawing shows the last that fits." in preview.text


def test_a_preview_moves_the_figures_and_saves_nothing(client: FlaskClient) -> None:
    before = stored(client)
    page = client.post(f"{PAGE}/preview", data={"part": "sep", f"{SEP}.bin.fill_height_m": "400"}, headers=HX).text
    assert kept(page) < 50.0
    assert "is believable" not in page  # the bands take their time
    assert stored(client) == before


@pytest.mark.parametrize("rows", ["slots", "profile", "ledges", "stiffeners"])
def test_rows_come_and_go(client: FlaskClient, rows: str) -> None:
    def count() -> int:
        part = stored(client)
        return len((part["bin"] | {"slots": part["slots"]}).get(rows, ()))

    before = count()
    page = client.post(f"{PAGE}/rows/{rows}/add", data={"part": "sep"}, headers=HX)
    assert page.status_code == 200
    assert count() == before + 1
    client.post(f"{PAGE}/rows/{rows}/remove", data={"part": "sep"}, headers=HX)
    assert count() == before


def test_the_last_slot_and_the_last_heights_stay(client: FlaskClient) -> None:
    for rows in ("slots", "profile"):
        answer = client.post(f"{PAGE}/rows/{rows}/remove", data={"part": "sep"}, headers=HX)
        assert answer.status_code == 422
        assert "Needs at least" in answer.text


def test_grains_are_traced_to_where_they_end(client: FlaskClient) -> None:
    found = client.get(f"{PAGE}/motion?part=sep").json
    assert found
    assert set(found["ends"]) >= {"bin", "past"}
    for way in found["ways"]:
        assert way["end"] in found["ends"]
        assert all(len(place) == 3 for place in way["places"])
        assert all(0.0 <= place[0] <= 0.171 for place in way["places"])


def test_a_line_without_a_separator_offers_the_kinds(client: FlaskClient) -> None:
    client.post("/lines/1/parts/sep/remove", headers=HX)
    page = client.get(PAGE).text
    assert "has no separator yet" in page
    answer = client.post(f"{PAGE}/begin/cyclone")
    assert answer.status_code == 302
    assert "Conical cyclone" in client.get(answer.headers["Location"]).text


def test_what_is_not_there_is_not_found(client: FlaskClient) -> None:
    assert client.post(f"{PAGE}/kind", data={"part": "sep", "kind": "windmill"}).status_code == 404
    assert client.post(f"{PAGE}/rows/wheels/add", data={"part": "sep"}).status_code == 404
    assert client.get("/lines/99/separator").status_code == 404


def test_inches_are_read_as_inches(client: FlaskClient) -> None:
    client.post("/units", data={"system": "inch", "next": PAGE})
    change(client, **{"bin.fill_height_m": "10"})
    assert stored(client)["bin"]["fill_height_m"] == pytest.approx(0.254)


def dust(client: FlaskClient, **fields: str) -> Any:
    """Post fields of the dust."""
    return client.post(f"{PAGE}/dust", data={f"dust.{key}": text for key, text in fields.items()}, headers=HX)


def test_floor_sweepings_are_mixed_and_a_dust_becomes_ones_own(client: FlaskClient) -> None:
    page = dust(client, kind="mixture").text
    assert 'name="dust.kinds[1].parts"' in page
    client.post(f"{PAGE}/dust/add", data={"part": "sep"}, headers=HX)
    dust(client, **{"kinds[2].kind": "planer", "kinds[2].parts": "3"})
    document = json.loads(client.get("/lines/1/rig.json").text)
    assert document["dust"]["kinds"][2] == {"kind": "planer", "parts": 3.0}
    page = dust(client, kind="own").text
    assert 'name="dust.particle_density_kg_m3"' in page
    assert 'value="Mixture, own"' in page
    answer = dust(client, **{"modes[0].median_m": "-3"})
    assert answer.status_code == 422
    assert "Must be at least 0.1 µm" in answer.text
    assert "section-drawing" in answer.text


def test_metal_never_goes_with_wood(client: FlaskClient) -> None:
    dust(client, kind="mixture")
    answer = dust(client, **{"kinds[1].kind": "steel-grinding"})
    assert answer.status_code == 422
    assert "sparks and hot metal set it on fire" in answer.text


def test_the_bin_says_what_it_holds_and_where_to_mark_it(client: FlaskClient) -> None:
    page = client.get(PAGE).text
    assert "to the brim" in page
    assert "lie below that mark, about" in page
    assert "Marks for a dip rod or a window" in page


def test_every_school_is_worked_out_and_can_be_taken(client: FlaskClient) -> None:
    page = client.get(f"{PAGE}/schools").text
    asked = re.findall(r"/separator/schools/([\w-]+)\?", page)
    assert len(asked) == 10
    for name in asked:
        card = client.get(f"{PAGE}/schools/{name}?part=sep").text
        assert "Habit:" in card
        assert 'class="judgement"' in card
    card = client.get(f"{PAGE}/schools/under-inlet?part=sep").text
    assert "not modelled" in card
    assert "kind=slot" in card
    answer = client.post(f"{PAGE}/schools/wall/second", data={"part": "sep"})
    assert answer.status_code == 302
    assert "Steel" in client.get(answer.headers["Location"]).text
    assert client.get(f"{PAGE}/schools/flat-earth?part=sep").status_code == 404


PRINTED = {"part": "sep", "name": "Bench cyclone", "inlet_bore": "50", "body": "150", "height": "400"}


def test_what_a_seller_prints_is_taken_and_its_claims_stay_apart(client: FlaskClient) -> None:
    claims = {"flow": "60", "suction": "1.2", "efficiency": "99", "bolt_circle": "110", "bolts": "6"}
    answer = client.post(f"{PAGE}/ready-made", data={**PRINTED, "outlet": "60", **claims})
    assert answer.status_code == 302
    page = client.get(answer.headers["Location"]).text
    assert "Claimed and modelled" in page
    assert "of what it is sold for" in page
    assert 'class="lid"' in page
    assert "6 holes of" in page
    part = stored(client)
    assert part["claim"]["efficiency"] == pytest.approx(0.99)
    assert part["outlet_d_m"] == pytest.approx(0.06)
    guesses = {guess["key"] for guess in json.loads(client.get("/lines/1/rig.json").text)["guesses"]}
    assert guesses == {"dust_outlet_d_m", "outlet_length_m", "cylinder_height_m"}


def test_without_claims_nothing_is_claimed(client: FlaskClient) -> None:
    answer = client.post(f"{PAGE}/ready-made", data=PRINTED)
    assert "Claimed and modelled" not in client.get(answer.headers["Location"]).text


@pytest.mark.parametrize(
    ("changes", "sentence"),
    [
        ({"body": ""}, "Is wanted: without it there is nothing to model."),
        ({"inlet_bore": "wide"}, "“wide” is not a number"),
        ({"inlet_bore": "140"}, "Must not reach past the body&#39;s centre"),
        ({"outlet": "200"}, "Must be narrower than the body"),
        ({"bolts": "2.5"}, "Must be a whole number."),
        ({"bolt_circle": "20", "bolts": "4"}, "Must be wider than the dust outlet"),
        ({"efficiency": "120"}, "Must be at most 100 %"),
    ],
)
def test_a_misprint_stays_beside_its_field(client: FlaskClient, changes: dict[str, str], sentence: str) -> None:
    before = stored(client)
    answer = client.post(f"{PAGE}/ready-made", data={**PRINTED, **changes})
    assert answer.status_code == 422
    assert sentence in answer.text
    assert 'value="Bench cyclone"' in answer.text
    assert stored(client) == before
