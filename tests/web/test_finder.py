"""The finder's page: asked, watched, stopped, picked from, taken over; bad limits and empty outcomes explained."""

import re
import time
from typing import Any

import pytest
from flask.testing import FlaskClient

PAGE = "/lines/1/separator/find"
KINDS = ["cyclone", "slotted-disc", "hung-disc", "elbow-lid", "rim-inlet"]


def ask(client: FlaskClient, **limits: Any) -> Any:
    """Post limits; every kind allowed unless said otherwise."""
    return client.post(PAGE, data={"part": "sep", "kinds": KINDS, "count": "300", "seed": "2", **limits})


def outcome(client: FlaskClient, **limits: Any) -> tuple[str, str]:
    """(address, page) of a finished search."""
    answer = ask(client, **limits)
    assert answer.status_code == 302
    address = answer.headers["Location"]
    job = re.search(r"job=([\w-]+)", address)
    assert job
    for _ in range(200):
        if "HX-Redirect" in client.get(f"{PAGE}/{job[1]}").headers:
            return address, client.get(address).text
        time.sleep(0.05)
    raise AssertionError("the search did not end")


def test_the_page_asks_for_limits_and_wishes(client: FlaskClient) -> None:
    page = client.get(f"{PAGE}?part=sep").text
    for words in ("Stands at most", "Cutter reaches", "Made or bought", "Kept in the bin", "Seed", "Conical cyclone"):
        assert words in page


def test_designs_are_plotted_listed_and_one_is_drawn(client: FlaskClient) -> None:
    address, page = outcome(client, height="900")
    assert 'class="tradeoff"' in page
    assert "Best by your wishes" in page
    assert "Today: Slot chamber" in page
    assert "section-drawing" in page
    picks = re.findall(r"pick=(\d+)", page)
    again = client.get(f"{address}&pick={max(map(int, picks))}").text
    assert "Make it a variant" in again


def test_a_design_becomes_a_variant_and_the_line_stays(client: FlaskClient) -> None:
    before = client.get("/lines/1/rig.json").text
    address, _ = outcome(client, kinds=["cyclone"], height="600")
    job = re.search(r"job=([\w-]+)", address)
    assert job
    answer = client.post(f"{PAGE}/{job[1]}/take/0")
    assert answer.status_code == 302
    page = client.get(answer.headers["Location"]).text
    assert "Conical cyclone" in page
    assert "Drum sander line, conical cyclone" in page.replace("drum sander line", "Drum sander line")
    assert client.get("/lines/1/rig.json").text == before
    assert client.post(f"{PAGE}/{job[1]}/take/9999").status_code == 404


def test_nothing_feasible_names_the_limit_and_by_how_much(client: FlaskClient) -> None:
    _, page = outcome(client, height="300")
    assert "Nothing keeps to every limit" in page
    assert "The height: 300 mm is allowed and the nearest design takes 420 mm, 120 mm more" in page


@pytest.mark.parametrize(
    ("field", "text", "sentence"),
    [
        ("height", "tall", "“tall” is not a number"),
        ("height", "-5", "Must be above nothing, or left empty for no limit."),
        ("suction", "0", "Must be above nothing"),
        ("count", "1e9", "Must be a whole number from 1 to 60000."),
        ("seed", "0", "Must be a whole number from 1 to 9999."),
        ("sheet_width", "600", "A sheet has a width and a length: give both, or neither."),
        ("kinds", [], "Tick at least one kind of separator."),
    ],
)
def test_a_bad_limit_is_said_and_what_was_typed_stays(
    client: FlaskClient, field: str, text: Any, sentence: str
) -> None:
    answer = ask(client, **{"hours": "3", field: text})
    assert answer.status_code == 422
    assert sentence in answer.text
    assert 'value="3"' in answer.text
    if isinstance(text, str):
        assert f'value="{text}"' in answer.text


def test_a_mended_bin_keeps_more(client: FlaskClient) -> None:
    def best(page: str) -> float:
        found = re.search(r"Best by your wishes.*?<td class=\"num\">([\d.]+) %", page, re.S)
        assert found
        return float(found[1])

    _, as_it_is = outcome(client, kinds=["cyclone"])
    _, mended = outcome(client, kinds=["cyclone"], bin="mended")
    assert best(mended) > best(as_it_is) + 5.0


def test_a_bin_of_the_shop_can_be_searched_for(client: FlaskClient) -> None:
    client.post("/shop/bins/add")
    own = client.get("/shop/shop.json").get_json(force=True)["bins"][-1]
    sizes = {"top_d_m": "300", "bottom_d_m": "300", "height_m": "600", "name": "Tall drum"}
    at = len(client.get("/shop/shop.json").get_json(force=True)["bins"]) - 1
    client.post(f"/shop/items/{own['id']}", data={f"bins[{at}].{key}": text for key, text in sizes.items()})
    assert "Tall drum" in client.get(f"{PAGE}?part=sep").text
    address, _ = outcome(client, kinds=["cyclone"], bin=f"bin:{own['id']}")
    job = re.search(r"job=([\w-]+)", address)
    assert job
    new = client.post(f"{PAGE}/{job[1]}/take/0").headers["Location"]
    line = re.search(r"/lines/(\d+)/", new)
    assert line
    stage = client.get(f"/lines/{line[1]}/rig.json").get_json(force=True)["line"]["elements"]
    profile = next(e for e in stage if e["id"] == "sep")["bin"]["profile"]
    assert [point["d_m"] for point in profile] == [0.3, 0.3]
    assert profile[-1]["height_m"] == 0.6


@pytest.mark.parametrize("how", ["made", "bought"])
def test_a_design_is_taken_straight_to_the_bench(client: FlaskClient, how: str) -> None:
    address, _ = outcome(client, kinds=["cyclone"], how=how)
    job = re.search(r"job=([\w-]+)", address)
    assert job
    answer = client.post(f"{PAGE}/{job[1]}/take/0", data={"then": "build"})
    assert "/build" in answer.headers["Location"]
    page = client.get(answer.headers["Location"]).text
    assert "taken apart" in page
    assert f'<option value="{how}" selected>' in page


def test_the_shops_own_prices_are_the_finders(client: FlaskClient) -> None:
    def cost(page: str) -> str:
        found = re.search(r"Best by your wishes.*?</tr>", page, re.S)
        assert found
        return found[0]

    _, before = outcome(client, kinds=["cyclone"], how="bought")
    client.post("/shop/prices/add")
    at = len(client.get("/shop/shop.json").get_json(force=True)["prices"]) - 1
    own = client.get("/shop/shop.json").get_json(force=True)["prices"][at]["id"]
    client.post(f"/shop/items/{own}", data={f"prices[{at}].of": "buy.cyclone", f"prices[{at}].price": "400"})
    _, after = outcome(client, kinds=["cyclone"], how="bought")
    assert cost(before) != cost(after)


def test_a_forgotten_search_says_so(client: FlaskClient) -> None:
    assert "no longer kept" in client.get(f"{PAGE}?part=sep&job=gone").text
    assert client.get(f"{PAGE}/gone").status_code == 404
    assert client.post(f"{PAGE}/gone/stop").status_code == 404


def test_a_running_search_shows_how_far_it_is_and_stops(client: FlaskClient) -> None:
    answer = ask(client, count="60000")
    job = re.search(r"job=([\w-]+)", answer.headers["Location"])
    assert job
    first = client.get(f"{PAGE}/{job[1]}").text
    assert "<progress" in first
    client.post(f"{PAGE}/{job[1]}/stop")
    for _ in range(200):
        if "HX-Redirect" in client.get(f"{PAGE}/{job[1]}").headers:
            break
        time.sleep(0.05)
    page = client.get(answer.headers["Location"]).text
    tried = re.search(r"([\d,]+) designs tried", page)
    assert tried
    assert int(tried[1].replace(",", "")) < 60000


def test_for_several_tools_the_worst_is_told_and_it_begins_by_itself_where_it_is_asked_to(client: FlaskClient) -> None:
    address = "/lines/2/separator/find"
    assert 'hx-trigger="load, submit"' in client.get(f"{address}?part=sep&stock=1&begin=1").text
    assert 'hx-trigger="load, submit"' not in client.get(f"{address}?part=sep").text
    data = {"part": "sep", "kinds": ["cyclone"], "count": "200", "seed": "2"}
    answer = client.post(address, data=data, headers={"HX-Request": "true"})
    shown = answer.headers["HX-Redirect"]
    job = re.search(r"job=([\w-]+)", shown)
    assert job
    for _ in range(400):
        if "HX-Redirect" in client.get(f"{address}/{job[1]}").headers:
            break
        time.sleep(0.05)
    page = client.get(shown).text
    assert "for all tools by the dust they make" in page
    assert "Least kept" in page
    assert "Finishing sander" in page
