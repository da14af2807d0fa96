"""Every kind of separator on every page that shows a line: nothing assumes a slotted disc."""

import io
import json
import re
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.core.components.wet import WET_DUSTS
from fenwick.rig.edits.kinds import KINDS

HX = {"HX-Request": "true"}
PAGES = (
    "",
    "?part=sep",
    "?panel=hookup",
    "?panel=measure",
    "/joints",
    "/drawer",
    "/ports",
    "/vacuum",
    "/compare/2",
    "/separator",
    "/separator/find",
    "/separator/ready-made",
)


def taken(client: FlaskClient, kind: str) -> None:
    """Another kind on the first line."""
    client.post("/lines/1/separator/kind", data={"part": "sep", "kind": kind}, headers=HX)


def rig(client: FlaskClient) -> dict[str, Any]:
    """The first line as it is stored."""
    found: dict[str, Any] = json.loads(client.get("/lines/1/rig.json").text)
    return found


def put(client: FlaskClient, document: dict[str, Any]) -> Any:
    """Open a rig file in the first line's place."""
    data = {"rig": (io.BytesIO(json.dumps(document).encode()), "line.json")}
    return client.post("/lines/1/rig", data=data, content_type="multipart/form-data", follow_redirects=True)


@pytest.mark.parametrize("kind", KINDS)
def test_every_page_shows_every_kind(client: FlaskClient, kind: str) -> None:
    taken(client, kind)
    for page in PAGES:
        answer = client.get(f"/lines/1{page}")
        assert answer.status_code == 200, page
        assert "nan" not in re.sub(r"<[^>]*>", " ", answer.text).split()


@pytest.mark.parametrize("kind", KINDS)
def test_single_changes_of_every_kind_can_be_tried_and_kept(client: FlaskClient, kind: str) -> None:
    taken(client, kind)
    page = BeautifulSoup(client.get("/lines/1").text, "html.parser")
    tries = [str(a["href"]) for a in page.select("a[data-try]") if "/try/" in str(a["href"])]
    assert tries
    for address in tries:
        tried = client.get(address, headers=HX)
        assert tried.status_code == 200
        assert "Nothing is saved yet" in tried.text
    before = rig(client)
    kept = BeautifulSoup(client.get(tries[0], headers=HX).text, "html.parser").select_one(".trial form")
    assert kept is not None
    assert client.post(str(kept["action"]), data={"port": ""}, headers=HX).status_code == 200
    assert rig(client) != before


@pytest.mark.parametrize("kind", KINDS)
def test_the_short_fields_on_the_line_are_taken(client: FlaskClient, kind: str) -> None:
    taken(client, kind)
    page = BeautifulSoup(client.get("/lines/1?part=sep").text, "html.parser")
    names = [str(field["name"]) for field in page.select("#editor [name]")]
    assert len(names) >= 8
    answer = client.post("/lines/1/parts/sep", data={"line.elements[0].bin.fill_height_m": "120"}, headers=HX)
    assert answer.status_code == 200
    assert rig(client)["line"]["elements"][0]["bin"]["fill_height_m"] == pytest.approx(0.12)


@pytest.mark.parametrize("kind", ["cyclone", "hung-disc", "rim-inlet"])
def test_a_line_from_the_drawer_keeps_its_separator(client: FlaskClient, kind: str) -> None:
    taken(client, kind)
    page = BeautifulSoup(client.get("/lines/1/drawer").text, "html.parser")
    form = page.select_one(".drawer-card form")
    assert form is not None
    data = {str(field["name"]): str(field.get("value", "")) for field in form.select("input[name]")}
    answer = client.post(str(form["action"]), data=data)
    assert answer.status_code == 302
    line = re.search(r"/lines/(\d+)", answer.headers["Location"])
    assert line
    made = json.loads(client.get(f"/lines/{line[1]}/rig.json").text)
    assert next(e for e in made["line"]["elements"] if e["id"] == "sep") == rig(client)["line"]["elements"][0]


def test_the_hook_up_of_a_cyclone_names_its_ports(client: FlaskClient) -> None:
    taken(client, "cyclone")
    page = client.get("/lines/1?panel=hookup").text
    assert "side port of the conical cyclone" in page
    assert "centre port of the conical cyclone" in page


def test_a_vortex_that_reaches_the_bin_is_named_on_the_line(client: FlaskClient) -> None:
    taken(client, "cyclone")
    client.post("/lines/1/separator", data={"part": "sep", "line.elements[0].total_height_m": "260"}, headers=HX)
    assert "its tail stirs the bin" in client.get("/lines/1").text.replace("\n", " ")


def test_swapped_hoses_are_to_act_on_everywhere(client: FlaskClient) -> None:
    client.post("/lines/1/separator", data={"part": "sep", "line.elements[0].hoses_swapped": "yes"}, headers=HX)
    assert "The hoses are on the wrong ports of Slot chamber" in client.get("/lines/1").text
    page = client.get("/lines/1/separator").text
    assert "Swap the hoses: the vacuum belongs in the centre" in page
    assert "the hoses are swapped" in page


def test_two_stages_are_drawn_labelled_and_counted_together(client: FlaskClient) -> None:
    client.post("/lines/1/parts/sep/add", data={"kind": "separator"}, headers=HX)
    page = BeautifulSoup(client.get("/lines/1").text, "html.parser")
    assert len(page.select(".only-wide svg.line-drawing .part-separator")) == 2
    results = rig(client)["line"]["elements"]
    assert [e["kind"] for e in results].count("separator") == 2
    second = next(e["id"] for e in results if e["kind"] == "separator" and e["id"] != "sep")
    page = BeautifulSoup(client.get(f"/lines/1/separator?part={second}").text, "html.parser")
    assert any("Slot chamber" in a.text for a in page.select(".sub a"))


def test_a_wet_stage_is_offered_for_its_dusts_alone_and_never_takes_wood(client: FlaskClient) -> None:
    wooden = client.get("/lines/1?part=sep").text
    assert '<option value="wet-stage">' not in wooden
    document = rig(client)
    document["dust"] = {"kind": WET_DUSTS[0]}
    assert put(client, document).status_code == 200
    assert '<option value="wet-stage">' in client.get("/lines/1?part=sep").text
    client.post("/lines/1/parts/sep/add", data={"kind": "wet-stage"}, headers=HX)
    page = client.get("/lines/1").text
    assert "throat" in page
    answer = client.post("/lines/1/separator/dust", data={"part": "sep", "dust.kind": "saw"}, headers=HX)
    assert answer.status_code == 422
    assert "wood swells, clogs and rots" in answer.text
    assert rig(client)["dust"]["kind"] == WET_DUSTS[0]


def test_the_demo_s_cyclone_has_its_claims(client: FlaskClient) -> None:
    page = client.get("/lines/3/separator").text
    assert "Bucket-top cyclone" in page
    assert "Claimed and modelled" in page
    assert "The four published models" in page


def test_old_files_still_open(client: FlaskClient) -> None:
    """A file of the first version: one slotted disc, a plain dust, none of the newer keys."""
    document = rig(client)
    old = document["line"]["elements"][0]
    for key in ("hoses_swapped", "hung", "claim", "inlet_height_m", "inlet_width_m", "tilt_deg"):
        old.pop(key, None)
    document["dust"] = {"kind": document["dust"]["kind"]}
    assert put(client, document).status_code == 200
    assert rig(client)["line"]["elements"][0]["type"] == "slotted-disc"


def test_an_unknown_dust_is_named_on_the_separator_page(client: FlaskClient) -> None:
    document = rig(client)
    del document["dust"]
    put(client, document)
    page = client.get("/lines/1/separator").text
    assert "Name the dust to learn what the bin keeps." in page
    assert "sweep-chart" not in page
    assert "Find a better one" not in page
    assert "Name the dust of this line first" in client.get("/lines/1/separator/find").text
    answer = client.post("/lines/1/separator/dust", data={"part": "sep", "dust.kind": "saw"}, headers=HX)
    assert answer.status_code == 200
    assert "sweep-chart" in answer.text
    assert rig(client)["dust"] == {"kind": "saw"}


def test_every_guess_of_a_bought_cyclone_says_how_to_measure_it(client: FlaskClient) -> None:
    data = {"part": "sep", "name": "Bought", "inlet_bore": "50", "body": "150", "height": "400"}
    client.post("/lines/1/separator/ready-made", data=data)
    page = client.get("/lines/1?panel=measure&all=1").text
    for words in ("Ruler across the outlet tube.", "Ruler down the straight part.", "Ruler across the hole the dust"):
        assert words in page


def test_a_mended_search_says_so(client: FlaskClient) -> None:
    data = {"part": "sep", "kinds": ["cyclone"], "count": "100", "seed": "1", "bin": "mended"}
    address = client.post("/lines/1/separator/find", data=data).headers["Location"]
    page = ""
    for _ in range(300):
        page = client.get(address).text
        if "tradeoff" in page and "the bin counted as sealed, empty and upright" in page:
            break
    assert "the bin counted as sealed, empty and upright" in page


def test_the_drawer_says_that_it_takes_the_first_separator_alone(client: FlaskClient) -> None:
    words = "made with the first separator alone"
    assert words not in client.get("/lines/1/drawer").text
    client.post("/lines/1/parts/sep/add", data={"kind": "separator"}, headers=HX)
    assert words in client.get("/lines/1/drawer").text
