"""A figure that shows on several pages is the same on each, and the same as `fenwick solve` prints."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask import Flask
from flask.testing import FlaskClient

from fenwick.data import Database
from fenwick.data.demo import demo_rig
from fenwick.data.shops import the_shop
from fenwick.rig import Rig, build_line, check_rig, read_rig
from fenwick.rig.edits.ports import alone
from fenwick.rig.result import solve_rig
from fenwick.rig.voice import voice_for
from fenwick.services import lines
from fenwick.units import METRIC

Document = dict[str, Any]
TUNING = {"fan": 0.9, "roughness": 1.3, "entry": 1.2, "leak": 1.6, "cake": 0.8, "cut": 1.2, "exchange": 0.7}
SLEEVE = {"id": "sleeve", "kind": "filter", "bore_m": 0.05, "medium": "bag", "area_m2": 0.3, "held_kg": 0.02}
FAN = {"flow_m3_s": 0.02, "medium": "paper", "area_m2": 0.5}


def _trunk(document: Document) -> list[Document]:
    trunk: list[Document] = document["line"]["elements"]
    return trunk


def _bin(document: Document) -> Document:
    found: Document = next(e for e in _trunk(document) if e["kind"] == "separator")["bin"]
    return found


def _tuned(document: Document) -> None:
    document["tuning"] = {"on": True, **TUNING}


def _valve(document: Document) -> None:
    _bin(document)["relief"] = {"opens_at_pa": 3500.0, "area_m2": 3e-3}


def _sleeve(document: Document) -> None:
    at = next(i for i, e in enumerate(_trunk(document)) if e["kind"] == "separator")
    _trunk(document).insert(at, SLEEVE)


def _fan(document: Document) -> None:
    document["line"]["branches"][0]["port"]["hood"]["extra_fan"] = FAN


def _stages(document: Document) -> None:
    at = next(i for i, e in enumerate(_trunk(document)) if e["kind"] == "separator")
    second = {**_trunk(document)[at], "id": "second", "stand": None}
    _trunk(document).insert(at + 1, second)


CHANGES: dict[str, tuple[Callable[[Document], None], ...]] = {
    "as it is": (),
    "tuned": (_tuned,),
    "a valve": (_valve,),
    "an in-line filter": (_sleeve,),
    "an extra fan": (_fan,),
    "two stages": (_stages,),
    "all of it": (_tuned, _valve, _sleeve, _fan, _stages),
}


def made(changes: tuple[Callable[[Document], None], ...]) -> Rig:
    """The demo line with some changes."""
    document = demo_rig().model_dump(mode="json")
    for change in changes:
        change(document)
    return check_rig({**document, "name": "Under test"})


def page(client: FlaskClient, address: str) -> BeautifulSoup:
    """A page, parsed."""
    answer = client.get(address)
    assert answer.status_code == 200, address
    return BeautifulSoup(answer.text, "html.parser")


def verdict_of(soup: BeautifulSoup) -> dict[str, str]:
    """Figures of the verdict's rows."""
    return {
        str(row["data-row"]): " ".join(figure.text.split())
        for row in soup.select(".verdict-row")
        if (figure := row.select_one(".figure")) is not None
    }


@pytest.mark.parametrize("name", sorted(CHANGES))
def test_every_page_tells_what_solve_prints(name: str, app: Flask, shop: Database) -> None:
    rig, client = made(CHANGES[name]), app.test_client()
    with shop.session() as session:
        (line_id,) = lines.add(session, the_shop(session), rig)
    result, voice = solve_rig(rig), voice_for(rig, METRIC)
    verdict = verdict_of(page(client, f"/lines/{line_id}"))
    flow = voice.figure(result["ports"][0]["flow_m3_s"], "flow")
    assert verdict["air"] == flow
    folds = min(c["value"] / c["limit"] for c in result["checks"] if c["id"] == "bin-collapse")
    assert verdict["collapse"] == f"{folds:.1f} ×"
    assert verdict["caught"] == voice.figure(result["ports"][0]["capture"]["total"], "share")

    beside = page(client, f"/lines/{line_id}/compare/1")
    compared = {str(cell["data-title"]): cell for cell in beside.select(".compare-ports td")}
    compared |= {row.select_one("th").text: row for row in beside.select(".compare-whole tbody tr")}  # type: ignore[union-attr]
    titles = (("air", "Air at the tool"), ("settling", "Slowest hose"), ("kept", "Kept"))
    for row, title in (*titles, ("collapse", "Bin against collapse"), ("caught", "Caught")):
        assert compared[title].select_one(".side-left b").text == verdict[row], title  # type: ignore[union-attr]

    (port,) = csv.DictReader(io.StringIO(client.get(f"/lines/{line_id}/ports.csv").text))
    bare = (
        f"{float(port['flow [L/s]']):.1f} L/s",
        f"{float(port['kept [%]']):.1f} %",
        f"{float(port['caught [%]']):.1f} %",
    )
    assert bare == (flow, verdict["kept"], verdict["caught"])
    assert f"{float(port['slowest_speed [m/s]']):.1f} m/s" == verdict["settling"]
    assert flow in page(client, f"/lines/{line_id}/vacuum").select_one(".running").text  # type: ignore[union-attr]

    checks = page(client, f"/lines/{line_id}/checks")
    weakest = min((c for c in result["checks"] if c["id"] == "bin-collapse"), key=lambda c: c["value"] / c["limit"])
    told = checks.select_one(f'[data-check="bin-collapse~{weakest["part"]}"] .check-figure')
    if told is not None:
        assert voice.figure(weakest["value"], "suction") in told.text
        assert voice.figure(weakest["limit"], "suction") in told.text

    first = result["separators"][0]
    separator = verdict_of(page(client, f"/lines/{line_id}/separator?part={first['id']}"))
    assert separator["kept"] == voice.figure(first["efficiency"], "share")
    if len(result["separators"]) == 1:
        assert separator["kept"] == verdict["kept"]


def test_chips_the_table_and_the_vacuum_s_page_tell_the_same_air(client: FlaskClient) -> None:
    rig = read_rig(client.get("/lines/2/rig.json").data)
    table = csv.DictReader(io.StringIO(client.get("/lines/2/ports.csv").text))
    running = page(client, "/lines/2/vacuum").select(".running li")
    for row, shown in zip(table, running, strict=True):
        lone = alone(rig, row["id"])
        assert lone is not None
        port = next(one for one in solve_rig(lone)["ports"] if one["id"] == row["id"])
        told = voice_for(rig, METRIC).figure(port["flow_m3_s"], "flow")
        assert f"{float(row['flow [L/s]']):.1f} L/s" == told
        assert shown.select_one("b").text == told  # type: ignore[union-attr]
    shut = {chip["data-port"]: chip.select_one("b").text for chip in page(client, "/lines/2").select("a.port.shut")}  # type: ignore[union-attr]
    assert shut
    told = dict(zip([leaf.id for leaf in build_line(rig).leaves], running, strict=True))
    assert all(told[str(port)].select_one("b").text == air for port, air in shut.items())  # type: ignore[union-attr]


def test_two_lines_are_compared_by_figures_even_where_one_dust_harms_most(app: Flask, shop: Database) -> None:
    harmful = check_rig({**demo_rig().model_dump(mode="json"), "dust": {"kind": "mdf-sanding"}, "name": "MDF"})
    with shop.session() as session:
        (line_id,) = lines.add(session, the_shop(session), harmful)
    cells = page(app.test_client(), f"/lines/1/compare/{line_id}").select(".compare-ports td")
    assert {"Caught", "In the bin, of 100 g"} <= {str(cell["data-title"]) for cell in cells}
    for cell in cells:
        assert "not known" not in cell.text, cell.text


def test_lines_side_by_side_tell_of_each_tool_what_the_table_of_ports_tells(client: FlaskClient) -> None:
    table = list(csv.DictReader(io.StringIO(client.get("/lines/2/ports.csv").text)))
    rows = page(client, "/lines/2/compare/1").select(".compare-ports tbody tr")
    keys = ("flow [L/s]", "slowest_speed [m/s]", "caught [%]", "kept [%]")
    for port, row in zip(table, rows, strict=False):
        told = [side.text.split(" ")[0] for side in row.select(".side-left b")]
        assert [float(one) for one in told[:4]] == [float(port[key]) for key in keys]
        assert abs(float(told[4]) - float(port["in_bin [g of 100]"])) < 0.06


def words(found: Any) -> str:
    """What an element says, in one line."""
    return " ".join(found.text.split())


@pytest.mark.parametrize("name", sorted(CHANGES))
def test_advice_starts_from_the_verdict(name: str, app: Flask, shop: Database) -> None:
    with shop.session() as session:
        (line_id,) = lines.add(session, the_shop(session), made(CHANGES[name]))
    whole = page(app.test_client(), f"/lines/{line_id}")
    verdict = verdict_of(whole)
    told = {"kept": "kept", "slowest": "settling", "collapse": "collapse"}
    starts = [
        (told[what], number)
        for effect in whole.select("#suggest .effect, #suggest em, #suggest li")
        for what, number in re.findall(r"(kept|slowest|collapse) ([\d.]+) →", words(effect))
    ]
    assert starts
    for row, number in starts:
        assert verdict[row].split()[0] == number, row


def test_where_the_dust_goes_is_the_same_on_the_line_and_in_the_stream(client: FlaskClient) -> None:
    fate = solve_rig(demo_rig())["fate"]
    bar = [words(text) for text in page(client, "/lines/1").select("svg.fate")[0].select("text")]
    stream = dict(
        re.match(r"(.+?) ((?:under )?[\d.]+) g", words(text)).groups()  # type: ignore[union-attr]
        for text in page(client, "/lines/1/dust").select("svg.dust-flow text")
    )
    for end, said in (("bin", "bin"), ("floor", "floor"), ("room_air", "room air")):
        assert stream[said] == f"{100.0 * fate[end]:.0f}"
        assert any(text == f"{said} {stream[said]} g" for text in bar), said
    past = float(stream["vacuum's tank"]) + float(stream["filter"])
    assert any(text == f"filter {past:.0f} g" for text in bar)
    assert stream["on to the vacuum"] == f"{past:.0f}"


def test_ageing_begins_where_the_verdict_stands(client: FlaskClient) -> None:
    air = verdict_of(page(client, "/lines/1"))["air"]
    ageing = page(client, "/lines/1/ageing")
    described = words(ageing.select_one("svg.ageing-chart desc"))
    assert f"from today: {air} at first" in described
    clean = re.search(r"as it is: ([\d.]+ L/s) at first", described)
    assert clean is not None
    assert clean[1] in words(ageing.select_one("table"))


def test_what_helps_at_a_hood_is_the_same_in_the_table_and_at_the_port(client: FlaskClient) -> None:
    client.post("/log/today/2/off")  # with the cake of today, to clean the filter helps most
    helped = [row for row in page(client, "/lines/2/ports").select("tbody tr") if "less in the room" in row.text]
    assert helped
    for row in helped:
        told = re.search(r"[\d.]+ g of 100 less in the room", words(row))
        link = row.select_one("a[href*='/ports/'], a[href*='port=']")
        assert told is not None
        assert link is not None
        port = re.search(r"(?:ports/|port=)([\w-]+)", str(link["href"]))
        assert port is not None
        options = page(client, f"/lines/2/ports/{port[1]}/hood").select(".suggestions li")
        assert told[0] in words(options[0])


@pytest.mark.parametrize("line_id", [1, 2, 3])
def test_the_header_counts_what_the_page_of_checks_shows(line_id: int, client: FlaskClient) -> None:
    shown = page(client, f"/lines/{line_id}/checks").select("[data-check].check-act")
    counted = f"{len(shown)} to act on" if shown else "in order"
    for place in ("", "/separator", "/ports", "/dust", "/ageing", "/checks", "/tests"):
        assert counted in words(page(client, f"/lines/{line_id}{place}").select_one("#checks-pill")), place


@pytest.mark.parametrize("line_id", [1, 2, 3])
def test_the_best_of_the_fan_is_the_same_beside_the_line_and_on_its_own_page(line_id: int, client: FlaskClient) -> None:
    described = " ".join(words(d) for d in page(client, f"/lines/{line_id}?part=vacuum").select("desc"))
    told = re.search(r"Air power peaks at ([\d.]+ W)", described)
    assert told is not None
    whole = " ".join(words(d) for d in page(client, f"/lines/{line_id}/vacuum").select("desc"))
    assert f"air power peaks at {told[1]}." in whole
