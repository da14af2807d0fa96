"""Workings on the page: two clicks from a figure, the same figure there, its steps, its file."""

from __future__ import annotations

import html
import json
import re

import pytest
from bs4 import BeautifulSoup, Tag
from flask.testing import FlaskClient

from fenwick.core.workings.figures import KINDS
from tests.house.test_workings import done_again

LINES = (1, 2, 3)


def soup(client: FlaskClient, address: str) -> BeautifulSoup:
    """The parsed page; its answer has to be in order."""
    answer = client.get(address)
    assert answer.status_code == 200, address
    return BeautifulSoup(answer.text, "html.parser")


def figures_listed(client: FlaskClient, line: int) -> dict[str, str]:
    """Address of every working that a line lists, by the figure as it is told there."""
    page = soup(client, f"/lines/{line}/workings")
    links = page.select(".figure-group a")
    return {str(link["href"]): link.select_one("b").text for link in links}  # type: ignore[union-attr]


@pytest.mark.parametrize("line", LINES)
def test_every_working_that_is_listed_opens_and_tells_the_figure_of_the_list(client: FlaskClient, line: int) -> None:
    listed = figures_listed(client, line)
    assert len(listed) > 15
    stations = [address for address in listed if "suction:" in address]
    for address in stations[3:-1]:  # one is told like the other
        del listed[address]
    for address, told in listed.items():
        text = client.get(address).text  # hundreds of steps: a parser would take longer than the page
        figure = re.search(r'class="working-figure"><b>([^<]+)</b>', text)
        assert figure is not None
        assert html.unescape(figure[1]).strip() == told
        assert 'class="step"' in text or 'class="given-table"' in text
        assert "{{" not in text


@pytest.mark.parametrize(
    ("address", "row"),
    [
        ("/lines/1", "air"),
        ("/lines/1", "caught"),
        ("/lines/1", "settling"),
        ("/lines/1", "kept"),
        ("/lines/1/separator", "kept"),
        ("/lines/1/separator", "cut"),
        ("/lines/1/separator", "drop"),
        ("/lines/1/separator", "inlet"),
        ("/lines/1/ports/drum-sander/hood", "caught"),
        ("/lines/1/dust", "mask"),
        ("/lines/1/ageing", "life"),
        ("/lines/1/ageing", "cost"),
        ("/lines/1/ageing", "payback"),
        ("/lines/2", "air"),
        ("/lines/2?port=bandsaw", "caught"),
        ("/lines/2/dust?of=bandsaw", "mask"),
        ("/lines/2/ageing?port=bandsaw", "life"),
        ("/lines/3", "kept"),
    ],
)
def test_a_click_on_a_figure_leads_to_its_working_which_tells_the_same(
    client: FlaskClient, address: str, row: str
) -> None:
    link = soup(client, address).select_one(f'[data-row="{row}"] a.working-link')
    assert link is not None
    told = float(link.text.strip())
    there = soup(client, str(link["href"])).select_one(".working-figure")
    assert there is not None
    shown = there.text.strip()
    number = float(re.match(r"[\d.]+", shown).group())  # type: ignore[union-attr]
    minutes = 60.0 if row == "mask" and "min" in shown and "h" in link.parent.text.split() else 1.0  # type: ignore[union-attr]
    assert number / minutes == pytest.approx(told, rel=0.02)


def test_checks_lead_to_the_workings_of_strength_and_standing(client: FlaskClient) -> None:
    page = soup(client, "/lines/1/checks")
    linked = {str(link["href"]).split("/workings/")[1].split("?")[0] for link in page.select("a.working-link")}
    assert {"collapse:sep", "tipping:sep", "lid:sep"} <= linked
    for link in page.select("a.working-link"):
        there = soup(client, str(link["href"])).select_one(".working-figure")
        assert there is not None
        assert link.text.split()[0] == there.text.split()[0]


def test_a_tuned_factor_leads_to_its_working(client: FlaskClient) -> None:
    page = soup(client, "/lines/3/test")
    links = page.select(".factors a.working-link")
    assert len(links) == 7
    for link in links:
        there = soup(client, str(link["href"])).select_one(".working-figure")
        assert there is not None
        # the list tells a factor in two figures
        told = float(re.search(r"[\d.]+", link.text).group())  # type: ignore[union-attr]
        assert float(there.text.split()[0]) == pytest.approx(told, abs=0.006)


def test_the_file_of_a_working_can_be_done_again(client: FlaskClient) -> None:
    answer = client.get("/lines/1/workings/kept.json")
    assert answer.status_code == 200
    assert "attachment" in answer.headers["Content-Disposition"]
    document = json.loads(answer.text)
    assert document["format"] == "fenwick-working"
    assert done_again(document) == document["value"]


def test_the_minutes_of_the_job_are_those_of_the_page(client: FlaskClient) -> None:
    short, long = (
        soup(client, f"/lines/1/workings/fog?minutes={minutes}").select_one(".working-figure") for minutes in (5, 40)
    )
    assert short is not None
    assert long is not None
    assert float(short.text.split()[0]) < float(long.text.split()[0])
    for nonsense in ("-3", "many", "1e9"):
        usual = soup(client, f"/lines/1/workings/fog?minutes={nonsense}").select_one(".working-figure")
        assert usual is not None
        assert usual.text == soup(client, "/lines/1/workings/fog").select_one(".working-figure").text  # type: ignore[union-attr]


@pytest.mark.parametrize("figure", ["beauty", "kept:nowhere", "factor:cut", "collapse:moon", "suction:x", ":", "air:"])
def test_a_figure_that_is_not_told_says_so_and_leads_to_those_that_are(client: FlaskClient, figure: str) -> None:
    answer = client.get(f"/lines/1/workings/{figure}")
    page = BeautifulSoup(answer.text, "html.parser")
    if page.select_one(".working-figure") is None:
        assert answer.status_code == 404
        assert "is not told for this line" in page.text
        assert page.select_one('a[href^="/lines/1/workings"]') is not None
        assert client.get(f"/lines/1/workings/{figure}.json").status_code == 404


def test_steps_point_at_the_steps_they_come_from(client: FlaskClient) -> None:
    page = soup(client, "/lines/1/workings/kept")
    there = {str(one["id"]) for one in page.select("[id]")}
    targets = [str(link["href"])[1:] for link in page.select(".step-inputs a")]
    assert len(targets) > 300
    assert set(targets) <= there
    ids = [str(one["id"]) for one in page.select(".step, .given-table tr")]
    assert len(ids) == len(set(ids))


def test_what_is_a_rule_shows_its_range_and_what_is_given_its_key(client: FlaskClient) -> None:
    page = soup(client, "/lines/1/workings/cut-size:sep")

    def row(name: str) -> Tag:
        found = page.find(id=name)
        assert isinstance(found, Tag)
        return found

    assert "our rule 0.005 … 0.03" in " ".join(row("swirl.friction-shop").text.split())
    assert "sep.chamber_d_m" in row("sep.chamber_d_m").text
    assert page.select_one("math msqrt mfrac") is not None


def test_a_guess_is_told_as_one(client: FlaskClient) -> None:
    made = client.post("/start", data={"vacuum": "drum", "tool": "drum-sander"})
    assert made.status_code in (302, 303)
    line = re.search(r"/lines/(\d+)", made.headers["Location"])
    assert line is not None
    page = soup(client, f"/lines/{line.group(1)}/workings/air")
    kinds = {one.text.split()[0] for one in page.select(".origins .origin")}
    assert "a" in kinds  # “a guess”


def test_units_of_the_head_follow_the_user_and_those_of_the_steps_are_si(client: FlaskClient) -> None:
    client.post("/units", data={"system": "inch", "next": "/"})
    page = soup(client, "/lines/1/workings/air")
    assert "CFM" in page.select_one(".working-figure").text  # type: ignore[union-attr]
    assert "m³/s" in page.select_one(".working-root").text  # type: ignore[union-attr]


def test_an_empty_shop_and_a_missing_line_are_answered(client: FlaskClient, empty: FlaskClient) -> None:
    assert client.get("/lines/99/workings").status_code == 404
    assert client.get("/lines/99/workings/air").status_code == 404
    assert empty.get("/lines/1/workings").status_code == 404


def test_every_kind_of_figure_stands_in_a_group(client: FlaskClient) -> None:
    page = soup(client, "/lines/3/workings")
    groups = {head.text for head in page.select(".figure-group h2")}
    told = {kind.group for kind in KINDS.values()}
    assert groups <= told
    assert len(groups) >= 6


def test_readings_go_out_as_a_table(client: FlaskClient) -> None:
    answer = client.get("/lines/3/test/readings.csv")
    assert answer.status_code == 200
    lines = answer.text.splitlines()
    assert lines[0] == "kind,value,sd,unit,port,station,dust,fed,level"
    assert len(lines) == 6
    assert "readings.csv" in client.get("/lines/3/test").text
    assert client.get("/lines/99/test/readings.csv").status_code == 404
