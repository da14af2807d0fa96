"""Start: the five questions, what stops there, and the line that comes of it."""

import re
from dataclasses import fields

import pytest
from flask.testing import FlaskClient

from fenwick.core.catalogue.tools import TOOLS
from fenwick.rig.start.answers import Answers
from fenwick.units.quantities import QUANTITIES
from fenwick.web.start.form import TOPICS


def answer(client: FlaskClient, **given: str):  # type: ignore[no-untyped-def]
    return client.post("/start", data=given)


def test_an_empty_shop_begins_with_the_questions(empty: FlaskClient) -> None:
    assert empty.get("/").headers["Location"].endswith("/start")
    page = empty.get("/start").text
    assert page.count("<fieldset") == 5
    assert page.count("don&#39;t know") > 10


def test_all_unknown_ends_on_a_line_with_card_mark_and_guesses(empty: FlaskClient) -> None:
    done = answer(empty)
    assert done.status_code == 302
    page = empty.get(done.headers["Location"]).text
    assert "Hook it up" in page
    assert "to the side port of the slotted disc" in page
    assert re.search(r"Mark the bin \d+ mm above its floor", page)
    assert "Measure this next" in page
    assert "23 guesses" in page
    assert "proposal for your bin" in page  # what was concluded is said once
    assert "proposal for your bin" not in empty.get(done.headers["Location"]).text
    assert "First line as it stands" in page


def test_the_time_there_is_picks_what_to_do(empty: FlaskClient) -> None:
    page = empty.get(answer(empty, time="20-minutes").headers["Location"]).text
    assert re.search(r"With 20 minutes: [^<]+\.", page)


@pytest.mark.parametrize(
    ("fields", "sentence"),
    [
        ({"hazard": "sparks"}, "are a fire"),
        ({"hazard": "asbestos"}, "licensed work"),
        ({"hazard": "light-metal"}, "hydrogen"),
        ({"hose_bore": "wide"}, "is not a number in mm"),
        ({"hose_bore": "3800"}, "Must be at most 1000 mm (got 3800 mm)"),
        ({"hose_bore": "-38"}, "Must be at least 1 mm"),
        ({"tool": "lightsaber"}, "Pick tools of those that are drawn."),
        ({"dust": "moonshine"}, "Pick one of the list."),
        ({"spend": "-5"}, "nothing or more"),
        ({"bin_volume": "0.2"}, "Must not reach past the chamber"),
        ({"sealed_suction": "20", "open_flow": "50", "air_watts": "900"}, "too high"),
        ({"bin_top": "60", "hose_bore": "70"}, "chamber"),
    ],
)
def test_what_cannot_be_stops_beside_its_field_and_loses_nothing(
    empty: FlaskClient, fields: dict[str, str], sentence: str
) -> None:
    refused = answer(empty, bin_height="417", **fields)
    assert refused.status_code == 422
    assert sentence in refused.text.replace("&#39;", "'")
    assert 'value="417"' in refused.text
    for name, text in fields.items():
        assert f'value="{text}"' in refused.text or name in ("tool", "dust")
    assert empty.get("/").headers["Location"].endswith("/start")  # no line was made


def test_inches_and_amperes_are_read_as_such(empty: FlaskClient) -> None:
    empty.set_cookie("units", "inch")
    page = empty.get(answer(empty, hose_bore="1 1/2", current="10").headers["Location"]).text
    assert "1.5 in" in page
    assert "small drum vacuum" in page  # 10 A at 120 V


def test_a_guess_is_replaced_by_a_measurement_with_one_post(empty: FlaskClient) -> None:
    line = answer(empty).headers["Location"].split("?")[0]

    def measure(part: str, key: str, value: str) -> tuple[int, str]:
        data = {"value": value, "panel": "measure", "all": "1"}
        response = empty.post(f"{line}/measured/{part}/{key}", data=data, headers={"HX-Request": "true"})
        return response.status_code, response.text

    status, page = measure("hose", "bore_m", "36")
    assert status == 200
    assert "Tool hose: bore measured" in page
    assert "22 guesses" in page
    assert "Tool hose · 36 mm" in page
    status, page = measure("link", "length_m", "1.2")  # as it was guessed
    assert status == 200
    assert "21 guesses" in page
    status, page = measure("vacuum", "curve.sealed_suction_pa", "much")
    assert status == 422
    assert "is not a number in kPa" in page
    assert 'value="much"' in page
    assert measure("hose", "bore_m", "36")[0] == 404  # no guess any more


def test_each_thing_asked_is_an_answer_and_asked_once() -> None:
    names = [asked.name for topic in TOPICS for asked in topic.asks]
    assert len(names) == len(set(names))
    assert set(names) - {field.name for field in fields(Answers)} == {"hazard"}  # it is answered by a refusal
    assert {field.name for field in fields(Answers)} - set(names) == {"mains", "tools"}  # tools are picked
    for asked in (one for topic in TOPICS for one in topic.asks):
        assert asked.kind in QUANTITIES if isinstance(asked.kind, str) else len(asked.kind) > 1


def test_several_tools_are_picked_and_the_line_is_theirs(empty: FlaskClient) -> None:
    done = empty.post("/start", data={"tool": ["planer", "mitre-saw"], "time": "weekend", "spend": "60"})
    address = done.headers["Location"]
    page = empty.get(address).text
    assert "Planer and mitre saw" in page
    assert "What to do with 60 € and a weekend" in page
    assert "spend=60" in page
    assert "hours=12" in page


def test_sparks_beside_wood_and_too_many_tools_stop_here(empty: FlaskClient) -> None:
    refused = empty.post("/start", data={"tool": ["bench-grinder", "table-saw"]})
    assert refused.status_code == 422
    assert "are a fire" in refused.text
    assert refused.text.count(" checked") >= 2, "what was picked is still picked"
    every = [pick for pick in TOOLS if pick != "bench-grinder"][:7]
    assert "Pick 6 at most" in empty.post("/start", data={"tool": every}).text


def test_the_answers_fill_the_shop_where_that_is_asked(empty: FlaskClient) -> None:
    without = answer(empty, tool="planer")
    assert 'value="Planer"' not in empty.get("/shop?list=tools").text
    assert "Entered in the shop" not in empty.get(without.headers["Location"]).text
    said = empty.get(answer(empty, tool="planer", into_shop="1").headers["Location"]).text
    assert "Entered in the shop: Drum vacuum, Planer, Tool hose" in said
    assert 'value="Planer"' in empty.get("/shop?list=tools").text
    assert 'value="Tool hose"' in empty.get("/shop?list=hoses").text
    again = empty.get(answer(empty, tool="planer", into_shop="1").headers["Location"]).text
    assert "Entered in the shop" not in again, "nothing twice"


@pytest.mark.parametrize(
    ("fields", "sentence"),
    [
        ({"vacuum": "drum", "electrical_power": "1000"}, "its class makes 18 kPa and 62 L/s"),
        ({"current": "5"}, "By its 1150 W"),
        ({"electrical_power": "5000"}, "peak power"),
        ({"electrical_power": "lots"}, ""),
        ({}, ""),
    ],
)
def test_what_the_label_comes_to_is_said_while_it_is_typed(
    empty: FlaskClient, fields: dict[str, str], sentence: str
) -> None:
    told = empty.post("/start/label", data=fields)
    assert told.status_code == 200
    assert sentence in told.text
    if not sentence:
        assert re.sub(r"<[^>]+>", "", told.text).strip() == ""
