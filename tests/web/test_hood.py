"""A tool port's own page: hoods of every kind, their fields, ways of working, and what could be done."""

from __future__ import annotations

from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.core.catalogue.tools import TOOLS
from fenwick.rig.format.hood import HOOD_KINDS

HTMX = {"HX-Request": "true"}
PAGE = "/lines/1/ports/drum-sander/hood"
HOOD = "line.branches[0].port.hood"


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def figure(page: BeautifulSoup, row: str) -> float:
    """The figure of a row of the verdict."""
    found = page.select_one(f'[data-row="{row}"] .figure b')
    assert found is not None, row
    return float(found.text)


@pytest.mark.parametrize("kind", HOOD_KINDS)
def test_every_kind_of_hood_is_drawn_and_judged(client: FlaskClient, kind: str) -> None:
    page = soup(client.post(f"{PAGE}/kind", data={"kind": kind}, headers=HTMX))
    assert page.select_one(".hood-drawing desc") is not None
    assert page.select_one(f'#hood-kind option[value="{kind}"][selected]') is not None
    assert figure(page, "hood-speed") > 0.0
    assert figure(page, "escapes") >= 0.0
    assert "respirator" in page.text


@pytest.mark.parametrize("tool", sorted(TOOLS))
def test_every_generic_tool_brings_its_hood(client: FlaskClient, tool: str) -> None:
    page = soup(client.post(f"{PAGE}/kind", data={"kind": f"tool:{tool}"}, headers=HTMX))
    assert page.select_one(".hood-drawing") is not None
    kind = TOOLS[tool].hood
    assert page.select_one(f'#hood-kind option[value="{kind}"][selected]') is not None


def test_closing_a_box_speeds_the_air_in_its_openings(client: FlaskClient) -> None:
    client.post(f"{PAGE}/kind", data={"kind": "enclosure"})
    slow = figure(soup(client.post(PAGE, data={f"{HOOD}.openings[0].area_m2": "600"}, headers=HTMX)), "hood-speed")
    fast = figure(soup(client.post(PAGE, data={f"{HOOD}.openings[0].area_m2": "150"}, headers=HTMX)), "hood-speed")
    assert fast == pytest.approx(4.0 * slow, rel=0.06)


def test_ways_of_working_and_an_extra_fan_come_and_go(client: FlaskClient) -> None:
    client.post(f"{PAGE}/kind", data={"kind": "enclosure"})
    page = soup(client.post(f"{PAGE}/ways/add", headers=HTMX))
    assert [cell.text.split(" ")[0] for cell in page.select(".ways-card tbody th")] == ["In", "Door"]
    page = soup(client.post(f"{PAGE}/ways/remove", headers=HTMX))
    assert not page.select(".ways-card")
    page = soup(client.post(f"{PAGE}/fan/add", headers=HTMX))
    assert "extra fan takes" in page.text
    page = soup(client.post(f"{PAGE}/fan/remove", headers=HTMX))
    assert "extra fan takes" not in page.text
    assert client.post(f"{PAGE}/fan/remove", headers=HTMX).status_code == 200  # twice: it stays away
    assert client.post(f"{PAGE}/fan/curve", headers=HTMX).status_code == 400  # there is none to tell of
    refused = client.post(f"{PAGE}/ways/remove", headers=HTMX)
    assert refused.status_code == 422
    assert "a box with no opening draws no air" in refused.text


def test_an_extra_fan_is_told_by_its_flow_or_by_its_curve_and_its_duct(client: FlaskClient) -> None:
    client.post(f"{PAGE}/fan/add")
    page = soup(client.post(f"{PAGE}/fan/curve", headers=HTMX))
    fan = f"{HOOD}.extra_fan"
    typed = {field["name"]: field["value"] for field in page.select(f'input[name^="{fan}"]') if field.get("value")}
    assert typed[f"{fan}.curve.sealed_suction_pa"] == "0.5"
    assert typed[f"{fan}.curve.open_flow_m3_s"] == "200"
    assert typed[f"{fan}.bore_m"] == "100"
    assert f"{fan}.flow_m3_s" not in typed
    wide = figure(page, "hood-speed")
    form = {field["name"]: field.get("value", "") for field in page.select("#editor input")}
    form |= {
        f["name"]: f.select_one("option[selected]")["value"] for f in page.select("#editor select:has([selected])")
    }  # type: ignore[index, misc]
    narrow = soup(client.post(PAGE, data={**form, f"{fan}.bore_m": "40"}, headers=HTMX))
    assert figure(narrow, "hood-speed") < wide  # its duct throttles it
    refused = client.post(PAGE, data={**form, f"{fan}.curve.sealed_suction_pa": "-3"}, headers=HTMX)
    assert refused.status_code == 422
    assert "kPa" in refused.text
    page = soup(client.post(f"{PAGE}/fan/flow", headers=HTMX))  # it goes on moving as much
    assert figure(page, "hood-speed") == pytest.approx(figure(narrow, "hood-speed"), abs=0.11)
    assert page.select_one(f'input[name="{fan}.flow_m3_s"]') is not None
    assert page.select_one(f'input[name="{fan}.bore_m"]') is None


@pytest.mark.parametrize(
    ("path", "text", "said"),
    [
        (f"{HOOD}.distance_m", "0", "Must be above 0 mm"),
        (f"{HOOD}.distance_m", "near", "number"),
        (f"{HOOD}.thrown_share", "120", "Must be at most 100 %"),
        ("line.branches[0].port.dust_rate_kg_s", "-1", "Must be at least 0 g/min"),
    ],
)
def test_bad_input_is_said_at_the_field(client: FlaskClient, path: str, text: str, said: str) -> None:
    answer = client.post(PAGE, data={path: text}, headers=HTMX)
    assert answer.status_code == 422
    page = soup(answer)
    field = page.select_one(f'[name="{path}"]')
    assert field is not None
    assert field["value"] == text
    error = page.select_one(f"#{field['aria-describedby']}".replace(".", "\\.").replace("[", "\\[").replace("]", "\\]"))
    assert error is not None
    assert said in error.text


def test_what_could_be_done_is_done_and_undone(client: FlaskClient) -> None:
    page = soup(client.get(PAGE))
    before = figure(page, "escapes")
    form = page.select_one(".suggestions form")
    assert form is not None
    after = soup(client.post(str(form["action"]), headers=HTMX))
    assert figure(after, "escapes") < before
    assert after.select_one("#undo .what").text.startswith("Drum sander: Port 27.5 mm from the dust")  # type: ignore[union-attr]
    back = soup(client.post(f"{PAGE}/undo", headers=HTMX))
    assert figure(back, "escapes") == before


def test_working_outdoors_is_a_choice_of_its_own(client: FlaskClient) -> None:
    page = soup(client.post(f"{PAGE}/take/outdoors", headers=HTMX))
    assert "blows away outdoors" in page.text
    assert not page.select('form[action$="take/outdoors"]')
    assert client.post(f"{PAGE}/take/outdoors").status_code == 404


def test_a_port_makes_its_own_dust(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2/ports"))
    assert page.select(".bar-cell .fate-small")
    own = "line.branches[1].branches[1].port.dust"
    answer = client.post("/lines/2/ports/sander/hood", data={own: "silica"}, headers=HTMX)
    assert answer.status_code == 422
    assert "licensed work" in answer.text


def test_addresses_that_lead_nowhere(client: FlaskClient) -> None:
    assert client.get("/lines/1/ports/nothing/hood").status_code == 404
    assert client.post(f"{PAGE}/kind", data={"kind": "nothing"}).status_code == 400
    assert client.post(f"{PAGE}/ways/add").status_code == 400  # an opening has no ways
    assert client.post(f"{PAGE}/take/nothing").status_code == 404
    assert client.get(f"{PAGE}").status_code == 200


@pytest.mark.parametrize("kind", HOOD_KINDS)
def test_the_line_page_edits_a_tool_with_any_hood(client: FlaskClient, kind: str) -> None:
    client.post(f"{PAGE}/kind", data={"kind": kind})
    page = soup(client.get("/lines/1?part=drum-sander"))
    assert page.select_one("#editor .fields input") is not None
    assert page.select_one(f'.strip-tabs a[href="{PAGE}"]') is not None
    assert client.get("/lines/1/rig.json").json["line"]["branches"][0]["port"]["hood"]["kind"] == kind


BOX = f"{PAGE}/box"


def test_a_box_with_sizes_is_open_by_what_they_say_and_can_be_built(client: FlaskClient) -> None:
    client.post(f"{PAGE}/kind", data={"kind": "enclosure"})
    before = figure(soup(client.get(PAGE)), "hood-speed")
    page = soup(client.post(f"{BOX}/sizes", headers=HTMX))
    assert figure(page, "hood-speed") == pytest.approx(before, rel=0.02)  # as open as it was
    page = soup(client.post(PAGE, data={f"{HOOD}.box.passages[0].height_m": "20"}, headers=HTMX))
    assert figure(page, "hood-speed") > before
    assert "Build it" in page.text
    built = client.get("/lines/1/build?what=hood:drum-sander")
    assert built.status_code == 200
    assert "Front" in built.text


def test_a_door_is_a_way_of_working_and_its_gap_leaks_when_it_is_shut(client: FlaskClient) -> None:
    client.post(f"{PAGE}/kind", data={"kind": "enclosure"})
    client.post(f"{BOX}/sizes")
    page = soup(client.post(f"{BOX}/door", headers=HTMX))
    ways = [cell.text.split(" ")[0].lower() for cell in page.select(".ways-card tbody th")]
    assert ways == ["doors", "door"]
    shut = soup(client.post(PAGE, data={f"{HOOD}.box.gap_m": "10"}, headers=HTMX))
    opened = [float(one.select(".ways-card tbody td")[0].text.split(" ")[0]) for one in (page, shut)]
    assert opened[1] > opened[0]  # 1.1 m round the door, 9 mm wider
    page = soup(client.post(f"{BOX}/less-door", headers=HTMX))
    assert page.select(".ways-card") == []
    back = soup(client.post(f"{BOX}/none", headers=HTMX))
    assert back.select_one(f'input[name="{HOOD}.openings[0].area_m2"]') is not None


def test_a_passage_that_does_not_fit_its_side_is_said_at_its_field(client: FlaskClient) -> None:
    client.post(f"{PAGE}/kind", data={"kind": "enclosure"})
    client.post(f"{BOX}/sizes")
    found = client.post(PAGE, data={f"{HOOD}.box.passages[0].width_m": "900"}, headers=HTMX)
    assert found.status_code == 422
    assert "Must fit the side it is in, at most 500 mm (got 900 mm)." in found.text
    assert client.post(f"{BOX}/less-passage").status_code == 422
    assert client.post(f"{BOX}/burn").status_code == 400


@pytest.mark.parametrize("line", [1, 2, 3])
def test_what_stands_first_on_ports_stands_first_at_the_hood(client: FlaskClient, line: int) -> None:
    table = soup(client.get(f"/lines/{line}/ports")).select(".ports-table")[0].select("tbody tr")
    seen = 0
    for row in table:
        link = row.select_one("th a")
        assert link is not None
        told = row.select("td")[-1].get_text(" ", strip=True)
        first = soup(client.get(str(link["href"]))).select_one(".suggestions .what")
        if told == "nothing single":
            assert first is None or "outdoors" in first.text  # that moves the job, not a part of the line
            continue
        assert first is not None
        here = ": ".join(" ".join(words.split()) for words in first.stripped_strings)
        assert here.startswith(" ".join(told.split()))  # this page may say more of it
        seen += 1
    assert seen


def test_where_no_change_of_the_line_helps_the_line_names_what_its_hood_would(client: FlaskClient) -> None:
    client.post("/log/today/2/off")  # with the cake of today, to clean the filter helps
    line = soup(client.get("/lines/2/late?port=bandsaw", headers=HTMX)).select_one("#suggest .suggestions .what b")
    hood = soup(client.get("/lines/2/ports/bandsaw/hood")).select_one(".suggestions .what")
    assert line is not None
    assert hood is not None
    assert line.text == next(hood.stripped_strings)
