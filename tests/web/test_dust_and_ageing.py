"""The pages of the dust, of the room's air, and of ageing."""

from __future__ import annotations

import re
from itertools import pairwise
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.core.dust.fate import ENDS
from fenwick.drawing.flow import FULL, lay_out_flow

HTMX = {"HX-Request": "true"}


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def test_the_widths_of_the_stream_are_true_and_add_up() -> None:
    ends = dict.fromkeys(ENDS, 0.0) | {"bin": 0.5, "room_air": 0.2, "floor": 0.1, "tank": 0.05, "paper": 0.15}
    nodes, ribbons = lay_out_flow(ends, lambda share: f"{share:.2f}", "made")
    drawn = {node.key: node.height / FULL for node in nodes if node.end}
    assert drawn == pytest.approx({key: share for key, share in ends.items() if share > 0.0})
    assert sum(drawn.values()) == pytest.approx(1.0)
    assert {ribbon.key for ribbon in ribbons} == {*drawn, "on"}
    column = [node for node in nodes if node.x == nodes[1].x]
    for above, below in pairwise(column):
        assert above.y + above.height < below.y  # nothing lies over anything


def test_the_stream_of_one_tool_and_of_the_week(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1/dust"))
    said = page.select_one("#flow-desc").text  # type: ignore[union-attr]
    grams = [float(n) for n in re.findall(r"([\d.]+) g", said)]
    assert sum(grams) == pytest.approx(100.0, abs=1.5)
    week = soup(client.get("/lines/2/dust?of=week"))
    assert "week" in week.select_one(".flow-card h2").text  # type: ignore[union-attr]
    assert [cell.text.strip() for cell in week.select(".jobs-card tbody th")] == [
        "Resaw backs and sides",
        "Finish sanding",
        "Rout binding channels",
    ]
    assert re.search(r"[\d.]+ cuts", week.text)
    assert "is not on this line" in week.text


def test_boards_fill_the_bin(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1/dust"))
    cells = [cell.text.strip() for cell in page.select(".jobs-card tbody td.num")]
    assert cells[0].endswith("a week")
    assert cells[1].endswith("a board")
    assert cells[2].endswith("boards")


def test_a_room_filter_shortens_the_time_behind_the_mask(client: FlaskClient) -> None:
    def mask(query: str) -> float:
        ways = soup(client.get(f"/lines/1/dust?{query}")).select_one(".airings li").text  # type: ignore[union-attr]
        return float(re.search(r"mask (\d+) min", ways).group(1))  # type: ignore[union-attr]

    assert mask("cleaned=200") < mask("cleaned=100") < mask("cleaned=50")
    page = soup(client.get("/lines/1/dust"))
    assert "no measurement" in page.text
    assert "optical monitor" in page.text


@pytest.mark.parametrize(
    ("query", "said"),
    [("minutes=0", "above 0"), ("minutes=soon", "number"), ("cleaned=-5", "between 0"), ("cleaned=x", "number")],
)
def test_bad_input_about_the_air_stays_at_its_field(client: FlaskClient, query: str, said: str) -> None:
    answer = client.get(f"/lines/1/dust?{query}")
    assert answer.status_code == 422
    key, _, text = query.partition("=")
    page = soup(answer)
    assert page.select_one(f'[name="{key}"]')["value"] == text  # type: ignore[index]
    assert said in page.select_one(f"#f-{key}-error").text  # type: ignore[union-attr]
    assert page.select_one(".dust-flow") is not None


def test_unknown_hoods_and_shops_without_jobs_say_so(client: FlaskClient, empty: FlaskClient) -> None:
    client.post("/lines/1/parts/drum-sander", data={"line.branches[0].port.dust_rate_kg_s": ""})
    page = soup(client.get("/lines/1/dust"))
    assert "It takes the dust, the hood and the dust made" in page.text
    assert empty.get("/dust").headers["Location"].endswith("/start")
    assert empty.get("/ageing").headers["Location"].endswith("/start")


def test_a_job_is_counted_by_time_boards_or_cuts(client: FlaskClient) -> None:
    page = soup(client.get("/shop?list=jobs"))
    form = page.select_one('[data-owned="thickness"] form')
    assert form is not None
    path = form.select_one("select[name$='.work']")["name"]  # type: ignore[index]
    answer = soup(client.post("/shop/items/thickness", data={path: "time", "list": "jobs"}, headers=HTMX))
    labels = [label.text.strip() for label in answer.select('[data-owned="thickness"] label')]
    assert "Hours a week" in labels
    missing = str(path).replace("work", "hours_a_week")
    again = soup(client.post("/shop/items/thickness", data={missing: ""}, headers=HTMX))
    assert again.select_one(f'[name="{missing}"]')["value"] == "2"  # left empty it begins again as usual


def test_ageing_shows_what_the_separator_saves(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1/ageing"))
    rows = [cell.text for cell in page.select(".ways-card tbody th")]
    assert rows == ["As it is", "With a bag", "Without the separator"]
    assert page.select_one(".ageing-chart desc") is not None
    assert "Never blow a filter out indoors" in page.text
    assert "the separator has paid" in page.text.lower()
    for figure in ("suction", "speed", "kept", "exhaust", "nothing"):
        assert client.get(f"/lines/1/ageing?figure={figure}").status_code == 200


def test_prices_change_the_cost_and_bad_ones_stay_at_their_field(client: FlaskClient) -> None:
    def cost() -> float:
        found = soup(client.get("/lines/1/ageing")).select_one('[data-row="cost"] .figure b')
        assert found is not None
        return float(found.text)

    before = cost()
    client.post("/lines/1/ageing", data={"vacuum.filter.price": "40"}, headers=HTMX)
    assert cost() == pytest.approx(2.0 * before, abs=0.02)
    answer = client.post("/lines/1/ageing", data={"vacuum.filter.area_m2": "0"}, headers=HTMX)
    assert answer.status_code == 422
    assert "Must be above 0" in answer.text
    assert client.get("/lines/1/ageing?wanted=0").status_code == 422
    back = soup(client.post("/lines/1/ageing/undo", headers=HTMX))
    assert back.select_one("#ageing") is not None


def test_a_line_without_what_it_takes_says_so(client: FlaskClient) -> None:
    client.post("/lines/1/parts/drum-sander", data={"line.branches[0].port.dust_rate_kg_s": ""})
    page = client.get("/lines/1/ageing").text
    assert "It takes the dust, its amount, the hood" in page
