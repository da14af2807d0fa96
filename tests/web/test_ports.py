"""The bar of tool ports: which one is looked at, which are open, and opening one alone."""

import csv
import io
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
    assert [a.text for a in page.select(".lines > a:not(.pale)")] == ["Bench line", "Drum sander, cyclone"]


def test_picking_a_port_shows_its_way_and_says_that_it_is_shut(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2?port=router"))
    assert page.select_one(".drawing-card h2").text.strip() == "4 tools, one vacuum"  # type: ignore[union-attr]
    strong = {a["data-part"] for a in page.select(".line-drawing a[data-part]") if "quiet" not in a["class"]}
    assert {"router", "router-hose", "bench-pipe", "corner", "main", "sep", "link", "vacuum"} == strong
    quiet = {a["data-part"] for a in page.select(".line-drawing a.quiet[data-part]")}
    assert {"bandsaw", "drop-bandsaw", "sander", "sander-hose", "sweep", "sweep-hose"} == quiet
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


def test_trying_a_change_shows_it_and_saves_nothing(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1"))
    tries = page.select(".suggestions a[data-try]")
    assert len(tries) >= 3
    before = client.get("/lines/1/rig.json").data
    trial = soup(client.get(str(tries[0]["href"])))
    assert "Nothing is saved yet" in trial.select_one(".trial").text  # type: ignore[union-attr]
    assert trial.select_one('[data-row="kept"] .was') is not None
    assert trial.select_one("#editor") is None
    assert client.get("/lines/1/rig.json").data == before


def test_keeping_a_change_makes_it_and_one_undo_takes_it_back(client: FlaskClient) -> None:
    before = client.get("/lines/1/rig.json").data
    kept = soup(client.post("/lines/1/keep/bore~hose-b~0.05", headers=HTMX))
    assert kept.select_one("#undo .what").text == "Hose B in 50 mm"  # type: ignore[union-attr]
    assert client.get("/lines/1/rig.json").data != before
    client.post("/lines/1/undo", headers=HTMX)
    assert client.get("/lines/1/rig.json").data == before


def test_a_change_the_line_does_not_know_is_not_found(client: FlaskClient) -> None:
    for key in (
        "nonsense",
        "bore~nowhere~0.05",
        "fold~sep~1",
        "stiffen~link~0.1",
        "entry~drum-sander~9",
        "clean-bag~vacuum~0",
    ):
        assert client.get(f"/lines/1/try/{key}").status_code == 404, key
        assert client.post(f"/lines/1/keep/{key}").status_code == 404, key


def test_the_table_shows_every_port_alone_and_saves_as_csv(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2/ports"))
    names = [a.text for a in page.select("tbody th a")]
    assert names == ["Bandsaw", "Binding router", "Finishing sander", "Floor sweep"]
    chips = [chip.text for chip in soup(client.get("/lines/2")).select(".port b")]
    assert [
        row.select_one("td b").text for row in page.select(".ports-page table:first-of-type tbody tr")[: len(chips)]
    ] == chips  # type: ignore[union-attr]
    assert page.select("tbody .state")
    saved = client.get("/lines/2/ports.csv")
    lines = saved.text.splitlines()
    assert lines[0].startswith("id,name,dust,flow [L/s],port_speed [m/s],slowest_speed [m/s],slowest_run,carrying")
    assert len(lines) == 5
    assert chips[2].removesuffix(" L/s") in lines[3].split(",")
    told = client.get("/lines/2/ports.json").json
    for row, line in zip(csv.DictReader(lines), told, strict=True):
        assert row.keys() == line.keys()
        for heading, cell in row.items():
            if "[" in heading:  # a bare number, or nothing
                assert line[heading] == (float(cell) if cell else None), heading


def test_parts_are_added_copied_moved_and_removed_each_one_undo_away(client: FlaskClient) -> None:
    original = client.get("/lines/1/rig.json").data
    steps = [
        ("hose-a", "add", {"kind": "gate"}, "Gate added behind Hose A"),
        ("hose-b", "duplicate", {}, "Hose B duplicated"),
        ("cuff", "back", {}, "Cuff moved towards the tool"),
        ("hose-a", "remove", {}, "Hose A removed"),
    ]
    for part, action, data, label in steps:
        answer = client.post(f"/lines/1/parts/{part}/{action}", data=data, headers=HTMX)
        assert soup(answer).select_one("#undo .what").text == label  # type: ignore[union-attr]
    for _ in steps:
        client.post("/lines/1/undo", headers=HTMX)
    assert client.get("/lines/1/rig.json").data == original


def test_what_cannot_be_done_is_said_in_the_editor(client: FlaskClient) -> None:
    answer = client.post("/lines/1/parts/hose-a/back", headers=HTMX)
    assert answer.status_code == 422
    assert "The part is at the end of its run." in soup(answer).select_one(".fields .error").text  # type: ignore[union-attr]
    answer = client.post("/lines/1/parts/hose-a/add", data={"kind": "teleporter"}, headers=HTMX)
    assert "There is no kind of part" in answer.text
    assert client.post("/lines/1/parts/hose-a/explode").status_code == 404
    assert client.post("/lines/1/parts/nothing/remove").status_code == 404


def test_combinations_are_named_refused_and_removed(client: FlaskClient) -> None:
    client.post("/lines/2/combinations/0/remove")  # the one that the demo comes with
    assert "None named yet" in client.get("/lines/2/ports").text
    assert client.post("/lines/2/combinations", data={"port": ["bandsaw", "sweep"]}).status_code == 302
    page = client.get("/lines/2/ports").text
    assert "Bandsaw + Floor sweep" in page
    for chosen, sentence in ((["bandsaw"], "two tools"), (["sweep", "bandsaw"], "already"), (["a", "b"], "tool port")):
        refused = client.post("/lines/2/combinations", data={"port": chosen})
        assert refused.status_code == 422
        assert sentence in refused.text
    saved = client.get("/lines/2/used-together.csv").text.splitlines()
    assert saved[0].startswith("name,flow at Bandsaw [L/s],flow at Floor sweep [L/s],slowest_speed [m/s]")
    assert saved[1].startswith("Bandsaw + Floor sweep,")
    assert float(saved[1].split(",")[1]) > 0.0
    client.post("/lines/2/combinations/0/remove")
    assert "None named yet" in client.get("/lines/2/ports").text
    assert client.post("/lines/2/combinations/0/remove").status_code == 404


def test_one_hose_moved_between_tools_is_a_choice_that_can_be_undone(client: FlaskClient) -> None:
    def cells() -> list[str]:
        page = BeautifulSoup(client.get("/lines/2/ports").text, "html.parser")
        return [cell.text for cell in page.select("td")]

    before = cells()
    assert client.post("/lines/2/use", data={"use": "swap"}).status_code == 302
    assert cells() != before
    assert "One hose, moved from tool to tool" in client.get("/lines/2").text
    client.post("/lines/2/undo")
    assert cells() == before
    assert client.post("/lines/2/use", data={"use": "magic"}).status_code == 400


def test_the_table_gives_the_advice_of_the_line_another_vacuum_of_the_shop_included(client: FlaskClient) -> None:
    weak = {"curve.open_flow_m3_s": "8", "curve.sealed_suction_pa": "1.5", "filter.held_kg": "0"}
    sent = {f"vacuum.{key}": value for key, value in weak.items()}
    assert client.post("/lines/1/parts/vacuum", data=sent, headers=HTMX).status_code == 200
    tight = {"line.elements[0].bin.leak_area_m2": "0", "line.elements[0].bin.wall_m": "8"}
    assert client.post("/lines/1/parts/sep", data=tight, headers=HTMX).status_code == 200
    near = {"line.branches[0].port.hood.distance_m": "10", "line.branches[0].port.entry": "bellmouth"}
    assert client.post("/lines/1/ports/drum-sander/hood", data=near, headers=HTMX).status_code == 200
    offered = [link["aria-label"] for link in soup(client.get("/lines/1")).select("#suggest a[data-try]")]
    first = str(offered[0]).removeprefix("Try: ")
    table = soup(client.get("/lines/1/ports"))
    assert any(f"{first}: " in cell.text for cell in table.select("td"))
    assert f"{first}: " in client.get("/lines/1/ports.csv").text
    assert "in its place" in first, offered


def test_each_tool_has_a_dust_of_its_own_and_the_line_s_stands_at_its_end(client: FlaskClient) -> None:
    tool = soup(client.get("/lines/2?part=sander")).select_one("#editor")
    assert tool is not None
    assert not tool.select('[name="dust.kind"]'), "that of all tools is not changed at one of them"
    own = tool.select_one('select[name$="port.dust"]')
    assert own is not None
    assert own.select_one("option[selected]")["value"] == "sanding-p240"  # type: ignore[index]
    vacuum = soup(client.get("/lines/2?part=vacuum")).select_one("#editor")
    assert vacuum is not None
    assert "Dust of the line" in vacuum.text
    path = own["name"]
    client.post("/lines/2/parts/sander", data={str(path): ""}, headers=HTMX)
    row = next(r for r in csv.DictReader(io.StringIO(client.get("/lines/2/ports.csv").text)) if r["id"] == "sander")
    assert row["dust"] == "Bandsaw dust"
    alone = soup(client.get("/lines/1?part=drum-sander")).select_one("#editor")
    assert alone is not None
    assert alone.select('[name="dust.kind"]'), "with one tool its dust is the line's"


def test_a_gate_is_opened_and_shut_where_it_stands(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2"))
    assert [gate["data-gate"] for gate in page.select(".only-wide a.gate")] == ["bandsaw", "router", "sander", "sweep"]
    answer = soup(client.post("/lines/2/gates/sweep", data={"port": "bandsaw"}, headers=HTMX))
    assert answer.select_one("#undo .what").text == "Gate at Floor sweep opened"  # type: ignore[union-attr]
    assert {chip["data-port"] for chip in answer.select(".port.shut")} == {"router", "sander"}
    back = soup(client.post("/lines/2/gates/sweep", headers=HTMX))
    assert back.select_one("#undo .what").text == "Gate at Floor sweep shut"  # type: ignore[union-attr]
    assert client.post("/lines/2/gates/bench").status_code == 404  # no gate there
    assert client.post("/lines/2/gates/main").status_code == 404  # nor on the trunk
    assert client.post("/lines/1/gates/%F0%9F%99%82").status_code == 404
    assert client.post("/lines/2/gates/sweep").headers["Location"].startswith("/lines/2")


def test_with_every_gate_shut_the_page_still_stands(client: FlaskClient) -> None:
    assert client.post("/lines/2/gates/bandsaw", headers=HTMX).status_code == 200
    page = soup(client.get("/lines/2"))
    assert len(page.select(".only-wide .gate.is-shut")) == 4
    assert client.get("/lines/2/way").status_code == 200


def test_the_tree_and_the_table_tell_the_same_air(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2"))
    chips = {chip["data-port"]: chip.select_one("b").text for chip in page.select(".port")}  # type: ignore[union-attr]
    for tool in page.select(".only-narrow .part-tool"):
        detail = tool.select_one(".detail")
        assert detail is not None
        assert chips[tool["data-part"]] in detail.text
