"""Tests on the page: planned, run step by step with everything kept, judged, taken over; on paper and in files."""

from __future__ import annotations

import re
from io import BytesIO
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from PIL import Image

from fenwick.core.bench.trials.plan import KINDS, WAYS, Plan
from fenwick.core.bench.trials.steps import Step, steps
from fenwick.data import Database
from fenwick.wording.trials import ASK_WORDS, CATCH_WORDS, OUTCOME_WORDS, RESET_WORDS, STEP_WORDS, TEST_KINDS, WAY_WORDS

HTMX = {"HX-Request": "true"}
BEFORE = {"bin_before": "2143", "past_before": "6872"}
AFTER = {"bin_after": "2233", "past_after": "6882"}


def soup(response: Any) -> BeautifulSoup:
    """The parsed answer."""
    return BeautifulSoup(response.text, "html.parser")


def planned(client: FlaskClient, kind: str = "separation", **more: str) -> int:
    """A new test of line 1; its id."""
    answer = client.post("/lines/1/tests/plan", data={"kind": kind, "seed": "1", **more})
    assert answer.status_code == 302, soup(answer).select(".error")
    return int(answer.headers["Location"].rsplit("/", 1)[1])


def first_run(client: FlaskClient, trial: int) -> int:
    """Id of a test's next run."""
    link = soup(client.get(f"/tests/{trial}")).select_one(".history a")
    assert link is not None
    return int(str(link["href"]).rsplit("/", 1)[1])


def go(client: FlaskClient, run: int, to: int, **data: str) -> Any:
    """Go to a step with what was typed."""
    return client.post(f"/runs/{run}/step", data={"to": str(to), **data}, headers=HTMX)


def carried_out(client: FlaskClient, trial: int, after: dict[str, str] = AFTER) -> int:
    """The next run of a test by mass, from start to end."""
    run = first_run(client, trial)
    client.post(f"/runs/{run}/begin")
    go(client, run, 1)
    go(client, run, 2, **BEFORE)
    go(client, run, 3, fed_feed="100")
    go(client, run, 5, without="1")  # nobody waits for the clock
    go(client, run, 6, **after)
    assert go(client, run, 7).headers["HX-Redirect"] == f"/tests/{trial}"
    return run


def test_everything_has_words() -> None:
    assert set(TEST_KINDS) == set(KINDS)
    assert set(WAY_WORDS) == set(OUTCOME_WORDS) == set(WAYS)
    assert set(ASK_WORDS) == {ask.key for way in WAYS.values() for ask in way.asks}
    assert set(RESET_WORDS) == {key for kind in KINDS.values() for key in kind.resets} | {"light"}
    walked: set[Step] = {step for kind in KINDS.values() for way in kind.ways for step in steps(Plan(kind.key, way))}
    assert set(STEP_WORDS) == {step.key for step in walked}
    assert set(CATCH_WORDS) == {"vacuum", "filter", "bag", "cloth"}


@pytest.mark.parametrize(("kind", "way"), [(k.key, way) for k in KINDS.values() for way in k.ways])
def test_every_kind_of_test_can_be_planned_opened_and_begun(client: FlaskClient, kind: str, way: str) -> None:
    page = soup(client.get(f"/lines/1/tests/plan?kind={kind}&way={way}"))
    assert page.select(".resets li")
    assert page.select_one(".tells-card .why") is not None
    assert not page.select(".error")
    trial = planned(client, kind, way=way)
    run = first_run(client, trial)
    for i in range(len(steps(Plan(kind, way)))):
        answer = client.post(f"/runs/{run}/step", data={"to": str(i), "without": "1"}, headers=HTMX)
        assert answer.status_code == 200
        assert soup(answer).select_one('.step[aria-current="step"]') is not None
    assert client.get(f"/tests/{trial}/sheet").status_code == 200
    assert client.get(f"/tests/{trial}/report.pdf").data.startswith(b"%PDF")


def test_the_plan_says_beforehand_what_it_cannot_tell(client: FlaskClient) -> None:
    coarse = soup(client.get("/lines/1/tests/plan?kind=separation&fed=10&repeats=1"))
    fine = soup(client.get("/lines/1/tests/plan?kind=separation&fed=300&repeats=5&past_step=0.1"))
    said = [li.text.split() for li in coarse.select(".pairs li")]
    assert ["cannot", "tell", "95", "from", "99", "%"] in said
    assert ["can", "tell", "95", "from", "99", "%"] in [li.text.split() for li in fine.select(".pairs li")]


def test_bad_figures_of_a_plan_come_back_beside_what_was_typed(client: FlaskClient) -> None:
    data = {"kind": "tilt", "repeats": "2.5", "fed": "-3", "hoped": "many", "variant_0": "upright", "variant_1": ""}
    answer = client.post("/lines/1/tests/plan", data=data)
    assert answer.status_code == 422
    page = soup(answer)
    for name, text in (("repeats", "2.5"), ("fed", "-3"), ("hoped", "many")):
        field = page.select_one(f"#f-{name}")
        assert field is not None
        assert field["value"] == text
        assert page.select_one(f"#f-{name}-error") is not None
    assert "Name two states" in page.text
    assert page.select_one("#f-variant_0, #f-variant-0")["value"] == "upright"  # type: ignore[index]


def test_another_way_of_reading_does_not_keep_a_figure_in_the_old_unit(client: FlaskClient) -> None:
    page = soup(client.get("/lines/1/tests/plan?kind=hose&way=masses&way_was=suction&hoped=0.2"))
    assert page.select_one("#f-hoped")["value"] == "7"  # type: ignore[index]


def test_a_run_is_made_step_by_step_and_judged(client: FlaskClient) -> None:
    trial = planned(client)
    carried_out(client, trial)
    page = soup(client.get(f"/tests/{trial}"))
    assert page.select_one(".big").text == "90 %"  # type: ignore[union-attr]
    assert "one run: no scatter is known" in page.text
    assert "100.0 % of what was fed was found again" in page.text
    assert page.select(".runs-chart .run")
    for _ in range(2):
        carried_out(client, trial, {"bin_after": "2232", "past_after": "6883"})
    page = soup(client.get(f"/tests/{trial}"))
    assert "3 runs" in page.select_one(".states-said").text  # type: ignore[union-attr]
    assert page.select_one(".history a") is None
    assert len(page.select(".budget-card tr")) == 4  # both scales, the scatter, together


def test_what_is_typed_is_kept_at_once_and_what_is_wrong_said(client: FlaskClient) -> None:
    run = first_run(client, planned(client))
    client.post(f"/runs/{run}/begin")
    go(client, run, 1)
    for text in ("2", "21", "21x"):
        said = client.post(f"/runs/{run}/entries", data={"key": "bin_before", "text": text, "system": "metric"}).json
    assert said is not None
    assert "is not a unit" in said["error"]
    field = soup(client.get(f"/runs/{run}")).select_one("#e-bin_before")
    assert field is not None
    assert field["value"] == "21x"
    client.post(f"/runs/{run}/entries", data={"key": "note", "text": "the door was open"})
    assert "the door was open" in client.get(f"/runs/{run}").text
    assert client.post(f"/runs/{run}/entries", data={"key": "nonsense", "text": "1"}).status_code == 404


def test_a_step_with_figures_missing_asks_and_can_be_gone_on_without(client: FlaskClient) -> None:
    run = first_run(client, planned(client))
    go(client, run, 1)
    answer = go(client, run, 2, bin_before="2143")
    assert answer.status_code == 422
    assert "Not read yet." in answer.text
    assert soup(answer).select_one("#e-bin_before")["value"] == "2143"  # type: ignore[index]
    assert client.post(f"/runs/{run}/step?without=1", data={"to": "2"}, headers=HTMX).status_code == 200


def test_units_may_change_in_the_middle_of_a_run(client: FlaskClient) -> None:
    trial = planned(client)
    run = first_run(client, trial)
    go(client, run, 1)
    go(client, run, 2, **BEFORE)
    client.set_cookie("units", "inch")
    client.post(f"/runs/{run}/step", data={"to": "1"}, headers=HTMX)
    field = soup(client.get(f"/runs/{run}")).select_one("#e-bin_before")
    assert field is not None
    assert field["value"] == "75.5921"  # 2143 g in ounces, by hand
    go(client, run, 2, bin_before=str(field["value"]), past_before="242.4027", system="inch")
    client.set_cookie("units", "metric")
    client.post(f"/runs/{run}/step", data={"to": "1"}, headers=HTMX)
    assert soup(client.get(f"/runs/{run}")).select_one("#e-bin_before")["value"] == "2143"  # type: ignore[index]


def test_the_clock_runs_stops_and_is_set_back(client: FlaskClient) -> None:
    run = first_run(client, planned(client))
    client.post(f"/runs/{run}/step?without=1", data={"to": "3"}, headers=HTMX)

    def dial(what: str) -> Any:
        return soup(client.post(f"/runs/{run}/clock/{what}", headers=HTMX)).select_one(".clock")

    assert dial("start")["data-ticking"] == "1"
    counted = float(dial("stop")["data-counted"])
    assert 0.0 <= counted < 5.0
    assert dial("reset")["data-counted"] == "0.0"
    assert dial("start")["data-ticking"] == "1"
    assert soup(client.post(f"/runs/{run}/pause", headers=HTMX)).select_one(".clock")["data-ticking"] == "0"  # type: ignore[index]


def test_a_run_is_paused_spoilt_counted_again_and_given_up_and_stays_on_record(client: FlaskClient) -> None:
    trial = planned(client)
    run = carried_out(client, trial)
    client.post(f"/runs/{run}/spoil", data={"why": "spilled", "why_else": "the dog came in", "then": "test"})
    page = soup(client.get(f"/tests/{trial}"))
    assert "the dog came in" in page.text
    assert page.select_one(".big") is None
    client.post(f"/runs/{run}/count", data={"then": "test"})
    assert soup(client.get(f"/tests/{trial}")).select_one(".big") is not None
    other = first_run(client, trial)
    client.post(f"/runs/{other}/begin")
    assert "paused" in client.post(f"/runs/{other}/pause", headers=HTMX).text
    assert client.post(f"/runs/{other}/resume", headers=HTMX).status_code == 200
    client.post(f"/runs/{other}/abort", data={"why": "fed unevenly"})
    page = soup(client.get(f"/tests/{trial}"))
    assert "given up" in page.text
    client.post(f"/tests/{trial}/runs", data={"variant": "0"})
    assert len(soup(client.get(f"/tests/{trial}")).select(".runs-card tbody tr")) == 4


def test_more_out_than_in_is_flagged_and_never_averaged_in(client: FlaskClient) -> None:
    trial = planned(client)
    carried_out(client, trial)
    carried_out(client, trial, {"bin_after": "2290", "past_after": "6890"})
    page = soup(client.get(f"/tests/{trial}"))
    assert "more came out than went in" in page.text
    assert page.select_one(".big").text == "90 %"  # type: ignore[union-attr]
    assert "1 run is kept apart" in page.text
    assert len(page.select(".runs-chart .apart")) == 1


def test_a_test_is_taken_away_and_brought_back(client: FlaskClient) -> None:
    trial = planned(client, title="A mistake")
    gone = client.post(f"/tests/{trial}/remove", follow_redirects=True)
    assert "Bring it back" in gone.text
    assert "A mistake" not in gone.text
    assert client.get(f"/tests/{trial}").status_code == 404
    assert "A mistake" in client.post(f"/tests/{trial}/back", follow_redirects=True).text


def test_an_outcome_becomes_a_reading_that_tunes_the_line(client: FlaskClient) -> None:
    trial = planned(client)
    for _ in range(3):
        carried_out(client, trial, {"bin_after": "2203", "past_after": "6911"})
    answer = client.post(f"/tests/{trial}/use", data={"variant": "0"}, follow_redirects=True)
    assert "It is a reading of “Drum sander line” now" in answer.text
    page = soup(client.get("/lines/1/test"))
    assert "60.6 %" in page.select_one(".readings-card tbody").text  # type: ignore[union-attr]
    assert page.select_one(".before-after") is not None


def test_a_leak_test_gives_the_two_readings_that_find_the_leak(client: FlaskClient) -> None:
    trial = planned(client, "leak", repeats="1")
    run = first_run(client, trial)
    client.post(f"/runs/{run}/begin")
    go(client, run, 1)
    assert "seconds" in client.get(f"/runs/{run}").text
    go(client, run, 3, sealed="17.2")
    go(client, run, 5, shut="14.0", whistle="heard")
    go(client, run, 6)
    answer = client.post(f"/tests/{trial}/use", data={"variant": "0"}, follow_redirects=True)
    assert "2 readings of “Drum sander line” now" in answer.text
    assert "A whistle was heard in 1 of 1 runs" in answer.text


def test_runs_go_out_as_a_table_and_come_in(client: FlaskClient) -> None:
    trial = planned(client)
    carried_out(client, trial)
    table = client.get(f"/tests/{trial}/runs.csv")
    assert table.mimetype == "text/csv"
    head, row, *_ = table.text.splitlines()
    assert "bin_before (g)" in head
    made = "\n".join([head, row.replace("2233", "2231")])
    answer = client.post(f"/tests/{trial}/runs.csv", data={"runs": (BytesIO(made.encode()), "mine.csv")})
    assert answer.status_code == 302
    assert len(soup(client.get(f"/tests/{trial}")).select(".runs-chart .run")) == 2
    wrong = client.post(f"/tests/{trial}/runs.csv", data={"runs": (BytesIO(b"a;b\n1;2\n"), "other.csv")})
    assert wrong.status_code == 422
    assert "other.csv was not read" in wrong.text


def test_the_report_and_the_sheet_hold_the_test(client: FlaskClient) -> None:
    sheet = soup(client.get("/tests/2/sheet"))
    assert len(sheet.select(".sheet-table tbody tr")) == 6
    assert len(sheet.select(".boxes li")) >= 7
    assert "Respirator" in sheet.text
    report = client.get("/tests/2/report.pdf")
    assert report.mimetype == "application/pdf"
    assert len(report.data) > 3000


def picture(kind: str = "PNG", size: tuple[int, int] = (3000, 2000)) -> bytes:
    """A photo from a telephone."""
    out = BytesIO()
    Image.new("RGB", size, (120, 90, 60)).save(out, kind)
    return out.getvalue()


def test_photos_are_kept_small_and_what_is_none_is_refused(client: FlaskClient) -> None:
    run = first_run(client, planned(client))
    client.post(f"/runs/{run}/begin")
    answer = client.post(
        f"/runs/{run}/photos", data={"photo": (BytesIO(picture()), "a.png"), "words": "filter"}, headers=HTMX
    )
    address = soup(answer).select_one(".photos img")["src"]  # type: ignore[index]
    with Image.open(BytesIO(client.get(str(address)).data)) as kept:
        assert kept.format == "JPEG"
        assert max(kept.size) == 1600
    bad = client.post(f"/runs/{run}/photos", data={"photo": (BytesIO(b"not a photo"), "a.jpg")}, headers=HTMX)
    assert bad.status_code == 422
    assert "no picture that can be read" in bad.text
    number = re.search(r"photos/(\d+)", str(address))
    assert number is not None
    assert not soup(client.post(f"/photos/{number[1]}/remove", headers=HTMX)).select(".photos img")
    assert client.get(str(address)).status_code == 404


def test_an_empty_shop_and_wrong_numbers_are_answered(client: FlaskClient, empty: FlaskClient) -> None:
    assert empty.get("/tests").headers["Location"].endswith("/start")
    for address in (f"/tests/{10**30}", "/tests/999", "/runs/999", "/photos/999.jpg", "/lines/99/tests"):
        assert client.get(address).status_code == 404
    assert client.get("/tests").headers["Location"].endswith("/lines/1/tests")


@pytest.mark.parametrize("repeats", ["1e9", "nan", "999999999999", "-3", "2.5"])
def test_a_plan_of_any_length_is_answered_at_once(client: FlaskClient, repeats: str) -> None:
    page = soup(client.get(f"/lines/1/tests/plan?kind=tilt&repeats={repeats}&seed=-{10**30}"))
    assert page.select_one("#f-repeats-error") is not None
    assert page.select_one("#f-repeats")["value"] == repeats  # type: ignore[index]
    assert len(page.select(".run-order li")) == 6


def test_one_look_of_each_is_too_few_and_said_so(client: FlaskClient) -> None:
    trial = planned(client, "slot", way="look", repeats="1")
    for grade in ("4", "1"):
        run = first_run(client, trial)
        client.post(f"/runs/{run}/begin")
        go(client, run, 1)
        go(client, run, 2, grade=grade)
        go(client, run, 3)
    assert "takes two runs of each" in client.get(f"/tests/{trial}").text


def test_the_demo_has_something_of_every_verdict(client: FlaskClient) -> None:
    badges = [
        b.text for line in (1, 2, 3) for b in soup(client.get(f"/lines/{line}/tests")).select(".test-head .state")
    ]
    assert {"real: worse", "real: better", "cannot be shown"} <= set(badges)
    assert soup(client.get("/lines/3/tests")).select_one(".live-run") is not None


def test_a_line_changed_since_the_plan_is_said(client: FlaskClient) -> None:
    words = "changed since this test was planned"
    trial = planned(client)
    carried_out(client, trial)
    assert words not in client.get(f"/tests/{trial}").text
    client.post("/lines/1/parts/hose-b", data={"line.branches[0].elements[2].bore_m": "45"})
    assert words in client.get(f"/tests/{trial}").text
    client.post("/lines/1/test/undo")
    assert words not in client.get(f"/tests/{trial}").text


def test_a_figure_of_a_finished_run_is_mended_without_beginning_it_anew(client: FlaskClient) -> None:
    trial = planned(client)
    run = carried_out(client, trial)
    client.post(f"/runs/{run}/step", data={"to": "5"}, headers=HTMX)
    client.post(f"/runs/{run}/entries", data={"key": "bin_after", "text": "2223", "system": "metric"})
    page = soup(client.get(f"/tests/{trial}"))
    assert page.select_one(".big").text == "88.9 %"  # type: ignore[union-attr]  # hand: 80/90
    assert "under way" not in page.text


def test_a_feed_that_is_not_found_again_is_said_and_counts(client: FlaskClient) -> None:
    trial = planned(client)
    carried_out(client, trial, {"bin_after": "2213", "past_after": "6876"})
    page = soup(client.get(f"/tests/{trial}"))
    assert "some of it was not found again" in page.text
    assert page.select_one(".big") is not None


def test_a_scale_too_coarse_for_what_gets_past_is_said(client: FlaskClient) -> None:
    trial = planned(client)
    carried_out(client, trial, {"bin_after": "2242.6", "past_after": "6872.4"})
    page = soup(client.get(f"/tests/{trial}"))
    assert "less than one step of the scale" in page.text
    assert "at least" in page.select_one(".honest").text  # type: ignore[union-attr]
    assert "One run cannot carry" in page.text


@pytest.mark.parametrize("system", ["metric", "inch"])
def test_the_same_test_is_planned_again(client: FlaskClient, system: str) -> None:
    client.set_cookie("units", system)
    link = soup(client.get("/tests/2")).select_one(".paper-card a[href*='plan?']")
    assert link is not None
    page = soup(client.get(str(link["href"])))
    assert not page.select(".error")
    names = [field["value"] for field in page.select(".states input[name^=variant]")]
    assert names[:2] == ["upright", "leaning 20°"]
    assert page.select_one("#f-fed")["value"] == ("100" if system == "metric" else "3.5274")  # type: ignore[index]
    assert page.select_one("#f-hoped")["value"] == "3"  # type: ignore[index]


def test_what_a_test_tells_of_the_slots_is_taken_into_the_line_and_undone(client: FlaskClient) -> None:
    trial = planned(client, "slot")
    for _ in range(2):
        carried_out(client, trial)
    page = client.get(f"/tests/{trial}").text
    assert "For its slots" in page
    answer = client.post(f"/tests/{trial}/slots", data={"variant": "0"})
    assert answer.status_code == 302
    assert "Its slots now give back" in client.get(answer.headers["Location"]).text
    tuning = client.get("/lines/1/rig.json").json["tuning"]  # type: ignore[index]
    assert tuning["on"] is True
    assert tuning["slot"] != 1.0
    assert "Slots by test" in client.get("/lines/1").text
    client.post("/lines/1/undo")
    assert client.get("/lines/1/rig.json").json.get("tuning") is None  # type: ignore[union-attr]


def test_only_a_test_of_slots_tells_of_them(client: FlaskClient) -> None:
    trial = planned(client)
    carried_out(client, trial)
    assert "For its slots" not in client.get(f"/tests/{trial}").text
    answer = client.post(f"/tests/{trial}/slots", data={"variant": "0"})
    assert answer.status_code == 422
    assert "cannot be brought" in answer.text
    assert client.post(f"/tests/{trial}/slots", data={"variant": "99"}).status_code == 422


def test_a_note_of_many_pages_flows_over_them(client: FlaskClient, shop: Database) -> None:
    with shop.engine.begin() as connection:
        note = "The hose came off, again and again. " * 60
        connection.exec_driver_sql("UPDATE trial_run SET note = ?, spoilt = ?", (note[:2000], "x" * 300))
    report = client.get("/tests/1/report.pdf")
    assert report.status_code == 200
    assert report.data.startswith(b"%PDF")


def test_many_tests_stand_in_pages(client: FlaskClient, shop: Database) -> None:
    from fenwick.data.trials import add_trial, trial_state

    with shop.session(to_write=True) as session:
        plan = trial_state(session, 1).plan
        for i in range(45):
            add_trial(session, 1, plan, f"Test number {i}")
    first, last = client.get("/lines/1/tests").text, client.get("/lines/1/tests?page=3").text
    assert "Test number 44" in first
    assert "Test number 44" not in last
    assert "Test number 0" in last
    assert "page 3 of 3" in last
    for page in ("0", "-4", "99", "²", "9" * 400):
        assert client.get("/lines/1/tests", query_string={"page": page}).status_code == 200
