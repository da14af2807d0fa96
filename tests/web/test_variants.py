"""Tests of variants: states that are lines, each expected by itself; readings go to their own line; what to test."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from sqlmodel import Session

from fenwick.core.bench.trials.planning import GOALS
from fenwick.data.lines import line_state, set_removed
from fenwick.data.readings import readings_of
from fenwick.data.trials import trial_state, trials_of
from fenwick.rig import read_rig
from fenwick.services.trials import trial_bench, workbench
from fenwick.units import INCH, METRIC
from fenwick.wording.planning import GOAL_WORDS
from tests.web.test_trials import HTMX, carried_out, first_run, go, planned, soup


def plan_page(client: FlaskClient, query: str) -> BeautifulSoup:
    """The form of a plan on line 1."""
    answer = client.get(f"/lines/1/tests/plan?{query}")
    assert answer.status_code == 200
    return soup(answer)


def expected_of(page: BeautifulSoup) -> dict[str, str]:
    """What the model expects, by state."""
    rows = page.select(".expects-card .states-said div")
    return {row.dt.text: row.dd.text for row in rows if row.dt and row.dd}


def plain(words: str) -> str:
    """With ordinary spaces."""
    return words.replace("\u2009", " ").replace("\xa0", " ")


def builds(client: FlaskClient, **more: str) -> int:
    """A test of line 1 against line 3; its id."""
    data = {"kind": "builds", "seed": "5", "variant_0": "", "line_0": "1", "variant_1": "", "line_1": "3", **more}
    answer = client.post("/lines/1/tests/plan", data=data)
    assert answer.status_code == 302, soup(answer).select(".error")
    return int(answer.headers["Location"].rsplit("/", 1)[1])


def test_a_state_that_is_a_line_is_called_after_it_and_expected_by_itself(client: FlaskClient) -> None:
    page = plan_page(client, "kind=builds&line_0=1&line_1=3&variant_0=&variant_1=")
    said = expected_of(page)
    assert list(said) == ["Drum sander line", "Drum sander, cyclone"]
    values = [
        re.match(r"([\d.]+) % \(([\d.]+) to ([\d.]+)\)", words.replace("\u2009", " ").replace("\xa0", " "))
        for words in said.values()
    ]
    assert all(values)
    assert len({found[1] for found in values if found}) == 2
    assert page.select(".expects-card .believed")


def test_a_state_that_is_only_named_is_not_spoken_of(client: FlaskClient) -> None:
    said = expected_of(plan_page(client, "kind=builds&line_0=1&line_1=&variant_0=&variant_1=a friend's"))
    assert "only named" in said["a friend's"]
    assert "%" in said["Drum sander line"]


@pytest.mark.parametrize("system", ["metric", "inch"])
def test_leaning_and_filled_states_of_one_line_are_expected_apart(client: FlaskClient, system: str) -> None:
    client.set_cookie("units", system)
    for query in ("kind=tilt", "kind=fill", "kind=dust"):
        said = expected_of(plan_page(client, query))
        assert len(set(said.values())) == 2, query
    page = plan_page(client, "kind=tilt&variant_0=upright&variant_1=far over&lean_1=60")
    assert "far over" in expected_of(page)


def test_another_kind_of_test_begins_with_its_own_states(client: FlaskClient) -> None:
    page = plan_page(client, "kind=builds&kind_was=tilt&variant_0=upright&variant_1=leaning&lean_1=20")
    names = [str(field["value"]) for field in page.select(".states input[name^=variant]")]
    assert names[:2] == ["Drum sander line", "Bench line"]
    assert not page.select("[name^=lean]")


@pytest.mark.parametrize(
    ("field", "text", "kind"),
    [
        ("lean_1", "95", "tilt"),
        ("lean_1", "-3", "tilt"),
        ("lean_1", "over", "tilt"),
        ("level_1", "120", "fill"),
        ("level_1", "nan", "fill"),
    ],
)
def test_how_a_state_stands_comes_back_with_what_is_wrong(
    client: FlaskClient, field: str, text: str, kind: str
) -> None:
    data = {"kind": kind, "seed": "1", "variant_0": "a", "variant_1": "b", field: text}
    answer = client.post("/lines/1/tests/plan", data=data)
    assert answer.status_code == 422
    page = soup(answer)
    wrong = page.select_one(f"[name={field}]")
    assert wrong is not None
    assert wrong["value"] == text
    assert wrong.get("aria-invalid") == "true"


def test_a_line_that_is_none_of_the_shop_is_only_a_name(client: FlaskClient) -> None:
    for line in ("999", "-1", "abc", "1 or 1", str(10**30)):
        page = plan_page(client, f"kind=builds&line_0=1&variant_1=x&line_1={line}")
        assert "only named" in expected_of(page)["x"]


def test_each_state_becomes_a_reading_of_its_own_line_and_of_no_other(client: FlaskClient, session: Session) -> None:
    trial = builds(client)
    for _ in range(6):
        carried_out(client, trial)
    before = {line: len(readings_of(session, line)) for line in (1, 2, 3)}
    page = soup(client.get(f"/tests/{trial}"))
    assert page.select(".held-card .states-said div")
    assert "the model" in page.select_one(".held-card").text.lower()  # type: ignore[union-attr]
    told = client.post(f"/tests/{trial}/use", data={"variant": "1"}, follow_redirects=True)
    assert "of “Drum sander, cyclone” now" in told.text
    assert soup(told).select_one('.undo-line a[href="/lines/3/test"]') is not None
    session.rollback()
    assert {line: len(readings_of(session, line)) - n for line, n in before.items()} == {1: 0, 2: 0, 3: 1}
    added = readings_of(session, 3)[-1].reading
    assert (added.fed, added.level) == (0.1, 0.0)
    client.post(f"/tests/{trial}/use", data={"variant": "0"})
    session.rollback()
    assert len(readings_of(session, 1)) == before[1] + 1


def test_what_leant_is_no_reading_of_a_line_that_stands(client: FlaskClient, session: Session) -> None:
    page = soup(client.get("/tests/2"))
    use = page.select_one(".use-card")
    assert use is not None
    assert [button["value"] for button in use.select("button[name=variant]")] == ["0"]
    assert "leant for this test" in use.text
    before = len(readings_of(session, 1))
    client.post("/tests/2/use", data={"variant": "1"})
    session.rollback()
    assert len(readings_of(session, 1)) == before


def test_a_line_that_was_changed_or_taken_away_is_said(client: FlaskClient, session: Session) -> None:
    trial = builds(client)
    for _ in range(6):
        carried_out(client, trial)
    assert "changed since this test was planned" not in client.get(f"/tests/{trial}").text
    client.post("/lines/3/parts/hose-b", data={"line.branches[0].elements[2].bore_m": "45"})
    said = client.get(f"/tests/{trial}").text
    assert "Drum sander, cyclone: changed since" in said
    set_removed(session, 3, removed=True)
    session.commit()
    page = client.get(f"/tests/{trial}")
    assert page.status_code == 200
    assert client.get(f"/tests/{trial}/report.pdf").data.startswith(b"%PDF")


def test_the_demo_compares_two_builds_and_says_what_that_tells(client: FlaskClient, session: Session) -> None:
    (trial,) = [one for one in trials_of(session, 1) if one.plan.kind == "builds"]
    page = client.get(f"/tests/{trial.id}")
    assert "real: worse" in page.text
    assert "could not have said which is ahead" in page.text
    assert "Nothing here speaks against the model" in page.text
    link = soup(page).select_one(".paper-card a[href*='plan?']")
    assert link is not None
    again = soup(client.get(str(link["href"])))
    lines = [field.select_one("option[selected]") for field in again.select(".states select[name^=line]")]
    assert [one["value"] if one else "" for one in lines][:2] == ["1", "3"]


@pytest.mark.parametrize("system", [METRIC, INCH])
def test_what_is_expected_is_the_same_on_plan_result_and_report(
    client: FlaskClient, session: Session, system: str
) -> None:
    client.set_cookie("units", system)
    trial = builds(client)
    plan = expected_of(plan_page(client, "kind=builds&line_0=1&line_1=3&variant_0=&variant_1="))
    rows = soup(client.get(f"/tests/{trial}")).select(".held-card .states-said div")
    assert {row.dt.text: row.dd.text for row in rows if row.dt and row.dd} == plan
    session.rollback()
    state = trial_state(session, trial)
    bench = trial_bench(session, state, workbench(line_state(session, 1), system))
    assert [one.line_name for one in bench.states] == ["", "Drum sander, cyclone"]


def test_a_port_of_another_line_is_found_by_its_name_or_is_its_open_one(session: Session) -> None:
    one, other = (workbench(line_state(session, number), METRIC) for number in (1, 2))
    trial = next(t for t in trials_of(session, 1) if t.plan.port == "drum-sander")
    here = other.here(trial.plan, one.line)
    assert here.port in {leaf.id for leaf in other.line.leaves}
    assert other.drawn(here) is not None


def test_the_mass_to_weigh_out_stands_in_the_step_on_the_sheet_and_at_the_scale(client: FlaskClient) -> None:
    trial = planned(client, fed="500", feed_seconds="300")
    assert "500 g, ± 10 g" in plain(client.get(f"/tests/{trial}/sheet").text)
    run = first_run(client, trial)
    client.post(f"/runs/{run}/begin")
    page = soup(go(client, run, 2, bin_before="2143", past_before="6872", without="1"))
    assert "500 g, ± 10 g" in plain(page.text)
    client.post("/devices", data={"name": "Scale", "kind": "scale", "address": "fenwick-sim://scale", "baud": "9600"})
    shown = soup(client.get(f"/runs/{run}")).select_one("[data-weigh]")
    if shown is not None:  # where a scale is there
        assert (shown["data-weigh"], shown["data-near"], shown["data-unit"]) == ("500", "10", "g")


def test_dust_is_fed_by_a_clock_that_has_run(client: FlaskClient) -> None:
    trial = planned(client)
    run = first_run(client, trial)
    client.post(f"/runs/{run}/begin")
    go(client, run, 2, bin_before="2143", past_before="6872", without="1")
    go(client, run, 3, fed_feed="100")
    refused = go(client, run, 4)
    assert refused.status_code == 422
    assert "The clock has not run down" in refused.text
    assert "Go on without" in refused.text
    here = soup(client.get(f"/runs/{run}")).select_one('.step[aria-current="step"]')
    assert here is not None
    assert "Feed" in here.text
    assert go(client, run, 4, without="1").status_code == 200


def test_what_was_fed_otherwise_is_said_and_counts(client: FlaskClient) -> None:
    trial = planned(client, repeats="1")
    run = first_run(client, trial)
    client.post(f"/runs/{run}/begin")
    go(client, run, 1)
    go(client, run, 2, bin_before="2000", past_before="6000", without="1")
    go(client, run, 3, fed_feed="150")
    go(client, run, 5, without="1")
    go(client, run, 6, bin_after="2120", past_after="6030")
    go(client, run, 7)
    page = client.get(f"/tests/{trial}").text
    assert "not the mass that was to be fed" in page.lower()
    assert "80 %" in plain(page)


@pytest.mark.parametrize("goal", sorted(GOALS))
def test_every_question_has_an_answer_or_says_what_would_answer_it(client: FlaskClient, goal: str) -> None:
    query = f"want={goal}&scale_step=1&scale_most=5000&fine_step=0.1&gauge_step=0.05&force_step=1&ruler=on&monitor=on"
    page = soup(client.get(f"/lines/1/tests/propose?{query}&minutes=240"))
    assert page.select_one("#f-want option[selected]").text == GOAL_WORDS[goal]  # type: ignore[union-attr]
    cards = page.select(".proposal")
    assert cards
    link = cards[0].select_one("a[href*='plan?']")
    assert link is not None
    plan = soup(client.get(str(link["href"])))
    assert not plan.select(".error")
    nothing = soup(client.get(f"/lines/1/tests/propose?want={goal}&scale_step=&gauge_step=&force_step=&minutes=60"))
    assert nothing.select(".proposal .state-ok") or nothing.select_one(".would-help") is not None


def test_what_cannot_be_had_is_said_beside_it(client: FlaskClient) -> None:
    answer = client.get("/lines/1/tests/propose?want=kept&scale_step=many&gauge_step=-1&minutes=0&fine_step=9e9")
    page = soup(answer)
    assert answer.status_code == 200
    for name in ("scale_step", "gauge_step", "minutes", "fine_step"):
        assert page.select_one(f"#f-{name.replace('_', '-')}-error, #f-{name}-error") is not None, name
    assert client.get("/lines/99/tests/propose").status_code == 404
    assert client.get("/lines/1/tests/propose?want=%00%FF&other=x", headers=HTMX).status_code == 200


def test_a_reading_of_a_run_goes_out_and_comes_in_with_what_was_fed(client: FlaskClient, session: Session) -> None:
    trial = builds(client)
    for _ in range(6):
        carried_out(client, trial)
    client.post(f"/tests/{trial}/use", data={"variant": "0"})
    rows = client.get("/lines/1/test/readings.csv").text.splitlines()
    assert rows[-1].endswith("0.1,0.0")
    assert read_rig(client.get("/lines/1/rig.json").data).name == "Drum sander line"
    page = client.get("/lines/1/test")
    assert page.status_code == 200


def test_all_states_are_fed_one_heap(client: FlaskClient, session: Session) -> None:
    """A line whose tools make another dust is expected to keep of the dust that is fed, and so is its reading."""
    one, other = (workbench(line_state(session, number), METRIC) for number in (1, 2))
    assert one.line.dust is not None
    assert other.line.dust is not None
    assert one.line.dust.kind != other.line.dust.kind
    number = builds(client, line_1="2")
    session.rollback()
    trial = trial_state(session, number)
    bench = trial_bench(session, trial, one)
    assert bench.states[0].plan.dust == ""
    assert bench.states[1].plan.dust == one.line.dust.kind
    assert bench.states[1].lies.density == one.line.dust.bulk_density
    said = trial_bench(session, trial, one).drawn[1]
    plain = other.drawn(replace(bench.states[1].plan, dust=""), 1)
    assert said is not None
    assert plain is not None
    assert said[0] != plain[0]
