"""The Line page over HTTP: shown, changed, undone, saved and opened; the page and the fragment are the same."""

import io
import json
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.rig.result import solve_rig

HTMX = {"HX-Request": "true"}
BORE = "line.branches[0].elements[2].bore_m"


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def figure(page: BeautifulSoup, row: str) -> str:
    """The figure of a verdict row."""
    found = page.select_one(f'[data-row="{row}"] .figure b')
    assert found is not None
    return found.text


def test_without_a_number_it_is_the_line_with_the_most_tools(client: FlaskClient) -> None:
    assert client.get("/lines").location == "/lines/2"  # the one with the most tools


def test_the_page_holds_the_whole_bench(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1"))
    assert page.select_one(".shop").text == "Willow Yard Ukuleles"  # type: ignore[union-attr]
    assert len(page.select("svg.line-drawing a[data-part]")) == 14  # seven parts, wide and narrow
    assert {row["data-row"] for row in page.select(".verdict-row")} == {"air", "caught", "settling", "kept", "collapse"}
    assert page.select_one("#editor h3").text == "Hose B"  # type: ignore[union-attr]  # the worst part is open
    assert page.select_one('[data-row="settling"] .state-act') is not None
    assert "respirator" in page.select_one('[data-row="air"] .why').text  # type: ignore[union-attr]
    assert "hands off" in page.select_one('[data-row="collapse"] .why').text  # type: ignore[union-attr]
    assert "Local codes" in page.select_one("footer").text  # type: ignore[union-attr]


def late_of(fragment: BeautifulSoup) -> str:
    """Where a fragment asks for what is slower than the eye."""
    asks = fragment.select_one("#late")
    assert asks is not None
    return str(asks["data-url"])


def test_htmx_gets_the_same_fragment_alone_and_the_rest_by_itself(client: FlaskClient) -> None:
    whole, alone = soup(client.get("/lines/1?part=sep")), soup(client.get("/lines/1?part=sep", headers=HTMX))
    assert alone.select_one("html") is None
    assert whole.select_one("#late") is None  # a page without scripts comes at once
    rest = soup(client.get(late_of(alone), headers=HTMX))
    for name in ("believable-kept", "believable-caught", "suggest", "checks-pill"):
        there, comes = whole.select_one(f"#{name}"), rest.select_one(f"#{name}")
        assert there is not None
        assert comes is not None
        assert comes["hx-swap-oob"] == "true"
        assert comes.text.split() == there.text.split()
    assert alone.select_one("#suggest[hx-preserve]") is not None  # what was advised stays until then: no flicker
    for page in (whole, alone):
        for slow in page.select("[name=csrf_token], #suggest, #late, [id^=believable], #lines, .tools"):
            slow.decompose()
    first, second = alone.select_one("#bench"), whole.select_one("#bench")
    assert first is not None
    assert second is not None
    assert " ".join(str(first).split()) == " ".join(str(second).split())


def test_while_a_change_is_tried_only_its_band_follows(client: FlaskClient) -> None:
    key = str(soup(client.get("/lines/1")).select("[data-try]")[0]["href"])
    tried = soup(client.get(key, headers=HTMX))
    rest = soup(client.get(late_of(tried), headers=HTMX))
    assert "is believable" in rest.select_one("#believable-kept").text  # type: ignore[union-attr]
    assert rest.select_one("#checks-pill") is None
    assert not rest.select(".suggestions li")
    before = soup(client.get("/lines/1")).select_one("#believable-kept")
    assert before is not None
    assert before.text != rest.select_one("#believable-kept").text  # type: ignore[union-attr]


def test_a_change_moves_every_figure_and_one_undo_takes_it_back(client: FlaskClient) -> None:
    before = soup(client.get("/lines/1"))
    changed = soup(client.post("/lines/1/parts/hose-b", data={BORE: "50"}, headers=HTMX))
    assert float(figure(changed, "settling")) > 1.4 * float(figure(before, "settling"))
    assert changed.select_one('[data-row="settling"] .was').text == f"was {figure(before, 'settling')} m/s"  # type: ignore[union-attr]
    assert changed.select_one("#undo .what").text == "Hose B: bore 63 mm → 50 mm"  # type: ignore[union-attr]
    assert str(changed.select_one(".ladder")) != str(before.select_one(".ladder"))
    undone = soup(client.post("/lines/1/undo", data={"part": "hose-b"}, headers=HTMX))
    assert str(undone.select_one("svg.line-drawing")) == str(before.select_one("svg.line-drawing"))
    redone = soup(client.post("/lines/1/redo", headers=HTMX))
    assert figure(redone, "settling") == figure(changed, "settling")


def test_without_htmx_a_change_redirects_to_the_page(client: FlaskClient) -> None:
    response = client.post("/lines/1/parts/hose-b", data={BORE: "50"})
    assert (response.status_code, response.location) == (302, "/lines/1?part=hose-b")


@pytest.mark.parametrize(
    ("part", "path", "typed"),
    [
        ("hose-b", "line.branches[0].elements[2].wall", "smooth"),
        ("hose-a", "line.branches[0].elements[0].length_m", "1,5"),
        ("sep", "line.elements[0].slots[0].width_m", "45 mm"),
        ("sep", "line.elements[0].bin.leak_area_m2", ""),
        ("vacuum", "vacuum.curve.open_flow_m3_s", "50"),
        ("vacuum", "vacuum.curve.air_watts", "300"),
        ("vacuum", "site.altitude_m", "1200"),
        ("drum-sander", "line.branches[0].port.hood.distance_m", "30"),
        ("drum-sander", "dust.kind", "planer"),
        ("cuff", "line.branches[0].elements[1].length_m", "0"),
        ("link", "line.elements[1].bends[0].radius_m", "100"),
    ],
)
def test_every_part_can_be_changed(client: FlaskClient, part: str, path: str, typed: str) -> None:
    response = client.post(f"/lines/1/parts/{part}", data={path: typed}, headers=HTMX)
    assert response.status_code == 200
    assert not soup(response).select(".error")
    assert soup(response).select_one("#undo .what") is not None


def test_saving_without_a_change_makes_no_history_in_either_unit(client: FlaskClient) -> None:
    original = client.get("/lines/1/rig.json").data
    for system in ("inch", "metric"):
        client.set_cookie("units", system)
        for part in ("drum-sander", "hose-a", "cuff", "hose-b", "sep", "link", "vacuum"):
            page = soup(client.get(f"/lines/1?part={part}"))
            typed = {f["name"]: f.get("value", "") for f in page.select("#editor .fields input")}
            typed |= {s["name"]: s.select_one("[selected]")["value"] for s in page.select("#editor select")}  # type: ignore[index]
            client.post(f"/lines/1/parts/{part}", data=typed, headers=HTMX)
    assert client.get("/lines/1/rig.json").data == original
    assert soup(client.get("/lines/1")).select_one("#undo").has_attr("disabled")  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("typed", "system", "sentence"),
    [
        ("", "metric", "Enter a number in mm."),
        ("wide", "metric", "“wide” is not a number in mm."),
        ("-3", "metric", "Must be at least 1 mm (got -3 mm)."),
        ("9000", "metric", "Must be at most 1000 mm (got 9000 mm)."),
        ("0", "inch", "Must be at least 0.0394 in (got 0 in)."),
        ("3 kg", "metric", "“kg” is not a unit of this field; use mm or in."),
    ],
)
def test_bad_input_stays_in_its_field_with_a_sentence(
    client: FlaskClient, typed: str, system: str, sentence: str
) -> None:
    client.set_cookie("units", system)
    response = client.post("/lines/1/parts/hose-b", data={BORE: typed}, headers=HTMX)
    assert response.status_code == 422
    page = soup(response)
    field = page.select_one(f'input[name="{BORE}"]')
    assert field is not None
    assert (field["value"], field["aria-invalid"]) == (typed, "true")
    assert page.select_one(f"#{field['aria-describedby']}").text == sentence  # type: ignore[union-attr]
    assert page.select_one("#undo").has_attr("disabled")  # type: ignore[union-attr]  # nothing was saved


def test_one_bad_field_keeps_what_was_typed_in_the_others(client: FlaskClient) -> None:
    length = "line.branches[0].elements[2].length_m"
    page = soup(client.post("/lines/1/parts/hose-b", data={BORE: "x", length: "4.25"}, headers=HTMX))
    assert page.select_one(f'input[name="{length}"]')["value"] == "4.25"  # type: ignore[index]


def test_values_that_contradict_each_other_are_refused_at_the_field(client: FlaskClient) -> None:
    page = soup(client.post("/lines/1/parts/sep", data={"line.elements[0].inlet_bore_m": "130"}, headers=HTMX))
    assert "Must fit the chamber's height, at most 120 mm (got 130 mm)." in page.select_one(".fields .error").text  # type: ignore[union-attr]
    page = soup(client.post("/lines/1/parts/vacuum", data={"vacuum.curve.air_watts": "5000"}, headers=HTMX))
    assert "too high for this sealed suction" in page.select_one(".fields .error").text  # type: ignore[union-attr]


def test_the_saved_file_opens_to_the_same_line_and_figures(client: FlaskClient) -> None:
    client.post("/lines/1/parts/hose-b", data={BORE: "51.3"}, headers=HTMX)
    saved = client.get("/lines/1/rig.json")
    assert saved.headers["Content-Disposition"] == "attachment; filename=drum-sander-line.json"
    for _ in range(2):
        client.post("/lines/1/undo", headers=HTMX)
    upload = {"rig": (io.BytesIO(saved.data), "mine.json")}
    page = soup(client.post("/lines/1/rig", data=upload, headers=HTMX))
    assert page.select_one("#undo .what").text == "Opened mine.json"  # type: ignore[union-attr]
    assert client.get("/lines/1/rig.json").data == saved.data
    from fenwick.rig import read_rig

    flow = solve_rig(read_rig(saved.data))["ports"][0]["flow_m3_s"]
    assert page.select_one(".port b").text == f"{flow * 1e3:.1f} L/s"  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("content", "sentence"),
    [
        (b"", "was not opened. the file is empty"),
        (b"hello", "the file is not JSON"),
        (b'{"format": "fenwick-rig", "version": 9}', "version: is newer than this Fenwick reads"),
        (b" " * 1_100_000, "a rig file is at most 1 MB"),
    ],
)
def test_a_bad_file_is_refused_inline(client: FlaskClient, content: bytes, sentence: str) -> None:
    response = client.post("/lines/1/rig", data={"rig": (io.BytesIO(content), "bad.json")}, headers=HTMX)
    assert response.status_code == 422
    assert sentence in soup(response).select_one("#rig-file-error").text  # type: ignore[union-attr]
    assert soup(response).select_one("#undo").has_attr("disabled")  # type: ignore[union-attr]


def test_no_file_chosen(client: FlaskClient) -> None:
    response = client.post("/lines/1/rig", data={}, headers=HTMX)
    assert "Choose a rig file first" in soup(response).select_one("#rig-file-error").text  # type: ignore[union-attr]


def test_a_file_of_50_mb_is_refused_in_a_sentence(client: FlaskClient) -> None:
    response = client.post("/lines/1/rig", data={"rig": (io.BytesIO(b" " * 50_000_000), "big.json")}, headers=HTMX)
    assert response.status_code == 413
    assert "at most 1 MB" in response.text


def test_a_hopeless_line_still_has_a_page(client: FlaskClient) -> None:
    data = {"line.branches[0].elements[0].bore_m": "1"}
    page = soup(client.post("/lines/1/parts/hose-a", data=data, headers=HTMX))
    assert "Next to nothing flows" in page.select_one(".notes").text  # type: ignore[union-attr]
    assert page.select_one('[data-row="air"] .state-act') is not None


def test_a_line_without_dust_or_hood_says_so(client: FlaskClient, document: dict[str, Any]) -> None:
    del document["dust"]
    upload = {"rig": (io.BytesIO(json.dumps(document).encode()), "nodust.json")}
    page = soup(client.post("/lines/1/rig", data=upload, headers=HTMX))
    assert figure(page, "kept") == "not known"
    assert "Not known" in page.select_one(".fate-card").text  # type: ignore[union-attr]


def test_units_switch_everywhere_and_come_back(client: FlaskClient) -> None:
    response = client.post("/units", data={"system": "inch", "next": "/lines/1?part=hose-b"})
    assert response.location == "/lines/1?part=hose-b"
    page = soup(client.get(response.location))
    assert page.select_one(".port b").text.endswith("CFM")  # type: ignore[union-attr]
    assert page.select_one(f'input[name="{BORE}"]')["value"] == "2.4803"  # type: ignore[index]
    assert "inH2O" in page.select_one(".ladder-card header").text  # type: ignore[union-attr]


@pytest.mark.parametrize("next_page", ["https://elsewhere.example/", "//elsewhere.example", "/\\elsewhere.example", ""])
def test_units_never_lead_away(client: FlaskClient, next_page: str) -> None:
    assert client.post("/units", data={"system": "inch", "next": next_page}).location == "/lines"
