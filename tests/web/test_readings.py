"""Readings on the page: taken, kept apart, taken away and brought back; the line tuned, marked, and switched back."""

from __future__ import annotations

import re
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from sqlmodel import Session

from fenwick.data.readings import readings_of
from fenwick.rig import read_rig
from fenwick.services.solving import sureness_of

HTMX = {"HX-Request": "true"}
PAGE = "/lines/1/test"


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def add(client: FlaskClient, kind: str, value: str, **more: str) -> Any:
    """Take a reading."""
    data = {"kind": kind, "value": value, "port": "drum-sander", **more}
    return client.post(f"{PAGE}/readings", data=data, headers=HTMX)


def well_read(client: FlaskClient) -> BeautifulSoup:
    """The page after four readings of a tired fan."""
    add(client, "sealed", "16.0")
    add(client, "suction", "2.85", station="hose-a")
    add(client, "suction", "4.9", station="link", note="by the cuff")
    return soup(add(client, "kept", "75"))


def test_an_untested_line_says_how_to_begin(client: FlaskClient) -> None:
    page = soup(client.get(PAGE))
    assert "Begin with a tube of water" in page.text
    assert not page.select(".factors")
    assert client.get("/test").headers["Location"].endswith(PAGE)


def test_readings_are_kept_with_what_the_line_should_show(client: FlaskClient) -> None:
    page = well_read(client)
    rows = [th.text for th in page.select(".readings-card tbody th")]
    assert len(rows) == 4
    assert "by the cuff" in rows[2]
    assert len(page.select(".factors li")) == 7
    assert "Suction of the fan" in page.select_one(".factors li").text  # type: ignore[union-attr]
    assert page.select(".before-after tbody tr")
    assert "Not fixed by these readings. What would:" in page.text


def test_the_line_is_tuned_marked_everywhere_and_switched_back(client: FlaskClient) -> None:
    def air() -> str:
        return soup(client.get("/lines/1")).select_one('[data-row="air"] .figure b').text  # type: ignore[union-attr]

    before = air()
    well_read(client)
    answer = soup(client.post(f"{PAGE}/tune", headers=HTMX))
    assert answer.select_one("#undo .what").text == "Tuned to 4 readings"  # type: ignore[union-attr]
    assert answer.select_one(".tuned-mark") is not None
    assert air() != before
    assert soup(client.get("/shop")).select_one(".tuned-mark") is not None
    assert client.get("/lines/1/rig.json").json["tuning"]["fan"] < 0.95
    client.post(f"{PAGE}/described")
    assert air() == before
    assert soup(client.get("/shop")).select_one(".tuned-mark") is None
    client.post(f"{PAGE}/tuned")
    assert air() != before
    for _ in range(3):
        client.post(f"{PAGE}/undo")
    assert air() == before


def test_a_reading_is_kept_apart_taken_away_and_brought_back(client: FlaskClient) -> None:
    page = well_read(client)
    tools = [str(form["action"]) for form in page.select(".reading-tools form")]
    apart = soup(client.post(tools[0], headers=HTMX))
    assert "kept apart: doubted" in apart.text
    assert len(apart.select(".kept-apart")) == 1
    again = soup(client.post(tools[0].replace("/out", "/count"), headers=HTMX))
    assert not again.select(".kept-apart")
    gone = soup(client.post(tools[1], headers=HTMX))
    assert len(gone.select(".readings-card tbody tr")) == 3
    back = soup(client.post(str(gone.select_one(".full-line form")["action"]), headers=HTMX))  # type: ignore[index]
    assert len(back.select(".readings-card tbody tr")) == 4
    assert client.post(f"{PAGE}/readings/999/out").status_code == 404


@pytest.mark.parametrize(
    ("kind", "value", "more", "field", "said"),
    [
        ("suction", "", {"station": "hose-a"}, "value", "Type what was read."),
        ("suction", "much", {"station": "hose-a"}, "value", "number"),
        ("suction", "-3", {"station": "hose-a"}, "value", "Below 0"),
        ("suction", "900", {"station": "hose-a"}, "value", "more than can be"),
        ("suction", "3", {"station": "nowhere"}, "station", "behind which part"),
        ("kept", "130", {}, "value", "more than can be"),
        ("kept", "80", {"sd": "0"}, "sd", "Must be above 0."),
    ],
)
def test_bad_readings_are_said_at_their_field_and_kept(
    client: FlaskClient, kind: str, value: str, more: dict[str, str], field: str, said: str
) -> None:
    answer = add(client, kind, value, **more)
    assert answer.status_code == 422
    page = soup(answer)
    wrong = page.select_one(f"#f-{field}-error")
    assert wrong is not None
    assert said in wrong.text
    assert page.select_one("#f-value")["value"] == value  # type: ignore[index]
    assert not page.select(".readings-card tbody tr")


def test_the_form_follows_the_kind_of_reading(client: FlaskClient) -> None:
    fields = {
        kind: {f["name"] for f in soup(client.get(f"{PAGE}?kind={kind}")).select(".reading-form [name]")}
        for kind in ("suction", "sealed", "kept", "flow", "nonsense")
    }
    assert "station" in fields["suction"]
    assert not {"station", "port"} & fields["sealed"]
    assert "dust" in fields["kept"]
    assert "station" not in fields["flow"]
    refused = client.post(f"{PAGE}/readings", data={"kind": "nonsense", "value": "1"}, headers=HTMX)
    assert refused.status_code == 422


def test_tuning_what_was_never_read_leads_nowhere(client: FlaskClient) -> None:
    assert client.post(f"{PAGE}/tune").status_code == 404
    assert client.post(f"{PAGE}/described").status_code == 404


def test_the_next_reading_is_asked_for_one_figure_or_another(client: FlaskClient) -> None:
    well_read(client)
    for figure in ("kept", "flow", "nonsense"):
        page = soup(client.get(f"{PAGE}?figure={figure}"))
        assert "The next reading worth taking" in page.text
        assert "its band narrows to" in page.text


def test_before_anything_is_read_it_shows_where_a_reading_would_tell_most(client: FlaskClient) -> None:
    page = soup(client.get("/lines/2/test"))
    told = page.select_one(".suggestions")
    assert told is not None
    assert len(told.select("li")) == 3
    assert "This line should show" in page.select_one(".reading-expected").text  # type: ignore[union-attr]
    assert page.select_one(".before-after") is None


@pytest.mark.parametrize(
    ("typed", "pascal"),
    [("120 mm", 1176.8), ("4.7 in of water", 1170.7), ("12 mbar", 1200.0), ("1200 Pa", 1200.0), ("0,35 inHg", 1185.2)],
)
def test_a_gauge_is_read_in_any_unit_that_gauges_have(
    client: FlaskClient, session: Session, typed: str, pascal: float
) -> None:
    client.post(f"{PAGE}/readings", data={"kind": "sealed", "value": typed})
    session.rollback()
    assert readings_of(session, 1)[-1].reading.value == pytest.approx(pascal, abs=0.1)


def test_an_interval_stays_in_what_can_be_and_is_that_of_the_line(client: FlaskClient) -> None:
    rig = read_rig(client.get("/lines/3/rig.json").data)
    band = sureness_of(rig.model_copy(update={"tuning": None})).kept
    assert band is not None
    told = soup(client.get("/lines/3/test")).select_one(".before-after tbody tr")
    assert told is not None
    was = told.select("td")[0].text
    assert f"{100 * band.low:.1f} to {100 * band.high:.1f} %" in was
    client.post("/lines/3/test/tune")
    after = sureness_of(read_rig(client.get("/lines/3/rig.json").data)).kept
    assert after is not None
    assert after.high - after.low < 0.1
    assert f"{100 * after.low:.1f} to {100 * after.high:.1f} %" in told.select("td")[1].text
    assert f"{100 * after.low:.1f}" in client.get("/lines/3/late").text.replace("\u2009", " ")
    for found in re.findall(r"([\d.]+) to ([\d.]+) %", told.text):
        assert 0.0 <= float(found[0]) < float(found[1]) <= 100.0


def test_readings_that_nothing_explains_are_not_tuned_to(client: FlaskClient) -> None:
    for value, where in (("2.85", "hose-a"), ("4.9", "link")):
        add(client, "suction", value, station=where)
    assert "Tune the line to its readings" in client.get(PAGE).text
    add(client, "sealed", "3.0", sd="0.05")
    page = client.get(PAGE).text
    assert "Tune the line to its readings" not in page
    assert "a leak that is not drawn" in page
    assert "a unit that was misread" in page


def test_readings_are_taken_on_the_drawing_at_the_hole(client: FlaskClient) -> None:
    page = soup(client.get("/lines/3/test"))
    drawn = page.select_one(".holes-box.only-wide")
    assert drawn is not None
    marks = drawn.select("a.hole")
    assert len(marks) >= 5
    link = next(one for one in marks if "behind Link hose" in str(one["aria-label"]))
    picked = soup(client.get(str(link["href"])))
    assert picked.select_one("#f-station option[selected]").text == "behind Link hose"  # type: ignore[union-attr]
    here = picked.select(".holes-box.only-wide a.hole-here")
    assert len(here) == 1
    assert "behind Link hose" in str(here[0]["aria-label"])


def test_a_gauge_shows_what_was_read_last_and_what_the_page_says_it_should(client: FlaskClient) -> None:
    add(client, "suction", "5.3", station="link")
    page = soup(client.get(f"{PAGE}?kind=suction&station=link"))
    gauge = page.select_one(".holes-box.only-wide a.hole-here")
    assert gauge is not None
    assert gauge.select_one(".hole-read").text == "5.3"  # type: ignore[union-attr]
    should = re.search(r"should show ([\d.]+)", page.select_one(".reading-expected").text)  # type: ignore[union-attr]
    assert should is not None
    assert should[1] in gauge.select_one(".hole-expected").text  # type: ignore[union-attr]


def test_an_empty_page_shows_where_a_reading_would_tell_most(client: FlaskClient) -> None:
    page = soup(client.get(PAGE))
    best = page.select(".holes-box.only-wide a.hole-best")
    assert len(best) == 1
    assert "tells most" in best[0].text


def test_every_kind_and_port_is_drawn_and_what_is_no_place_locks_no_page(client: FlaskClient) -> None:
    for query in ("kind=blocked", "kind=sealed", "kind=flow", "kind=kept", "kind=x", "station=nowhere", "port=none"):
        for line in (1, 2, 3):
            answer = client.get(f"/lines/{line}/test?{query}")
            assert answer.status_code == 200, query
            assert soup(answer).select(".holes-box svg")


def test_a_gauge_of_the_shop_is_offered_where_a_suction_is_asked_for(client: FlaskClient) -> None:
    assert not soup(client.get(PAGE)).select(".from-gauge")
    form = {"kind": "manometer", "name": "Tube on the wall", "address": "loop://", "baud": "9600"}
    assert client.post("/lines/1/devices", data=form).status_code == 302
    offered = soup(client.get(f"{PAGE}?kind=suction")).select(".from-gauge button")
    assert [button.text for button in offered] == ["From tube on the wall"]
    assert offered[0]["data-for"] == "f-value"
    assert soup(client.get(f"{PAGE}?kind=suction")).select("#f-value-error")
    assert not soup(client.get(f"{PAGE}?kind=kept")).select(".from-gauge")
