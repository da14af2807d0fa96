"""The bar of tool ports: which one is looked at, which are open, and opening one alone."""

from typing import Any

from bs4 import BeautifulSoup
from flask.testing import FlaskClient

HTMX = {"HX-Request": "true"}


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def test_the_bar_shows_every_port_and_which_are_shut(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2"))
    chips = page.select(".port")
    assert [chip.select_one("span").text for chip in chips] == [  # type: ignore[union-attr]
        "Bandsaw",
        "Binding router",
        "Finishing sander",
        "Floor sweep",
    ]
    assert [("shut" in chip["class"]) for chip in chips] == [False, True, True, True]
    assert chips[0]["aria-current"] == "true"
    assert [a.text for a in page.select(".lines a")] == ["Drum sander line", "Bench line"]


def test_picking_a_port_shows_its_way_and_says_that_it_is_shut(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2?port=router"))
    assert "From the binding router" in page.select_one(".drawing-card h2").text  # type: ignore[union-attr]
    parts = {a["data-part"] for a in page.select(".line-drawing a[data-part]")}
    assert {"router", "router-hose", "bench-pipe", "corner", "main", "sep", "link", "vacuum"} == parts
    assert "Its gate is shut" in page.select_one('[data-row="air"] .why').text  # type: ignore[union-attr]
    ladder = page.select_one("#ladder-wide-desc").text  # type: ignore[union-attr]
    assert "Router hose" in ladder
    assert "Sweep hose" not in ladder


def test_opening_a_port_alone_is_one_undo_away(client: FlaskClient) -> None:
    answer = soup(client.post("/lines/2/ports/router/alone", data={"port": "router"}, headers=HTMX))
    shut = {chip["data-port"] for chip in answer.select(".port.shut")}
    assert shut == {"bandsaw", "sander", "sweep"}
    assert answer.select_one("#undo .what").text == "Binding router opened alone"  # type: ignore[union-attr]
    assert answer.select_one(".port.here")["data-port"] == "router"  # type: ignore[index]
    back = soup(client.post("/lines/2/undo", data={"port": "router"}, headers=HTMX))
    assert {chip["data-port"] for chip in back.select(".port.shut")} == {"router", "sander", "sweep"}
    assert client.post("/lines/2/ports/nothing/alone").status_code == 404


def test_a_part_deep_in_the_tree_can_be_changed_and_keeps_its_port_in_view(client: FlaskClient) -> None:
    path = "line.branches[1].branches[1].elements[0].bore_m"
    answer = soup(client.post("/lines/2/parts/sander-hose", data={path: "32", "port": "sander"}, headers=HTMX))
    assert answer.select_one("#undo .what").text == "Sander hose: bore 27 mm → 32 mm"  # type: ignore[union-attr]
    assert answer.select_one(".port.here")["data-port"] == "sander"  # type: ignore[index]
