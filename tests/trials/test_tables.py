"""Tables in and out: runs of a test, logs of a monitor, plans as documents; what is wrong is named or counted."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.air_log.log_csv import read_log
from fenwick.core.bench.trials.monitor import monitored, ordered
from fenwick.core.bench.trials.plan import KINDS, WAYS, Condition, Plan, Setup
from fenwick.rig import RigError
from fenwick.trials.document import plan_problems, read_plan, write_plan
from fenwick.trials.runs_csv import RunRow, parse_runs, write_runs
from fenwick.trials.values import Entry, run_values, text_in

PLAN = Plan("tilt", "masses", ("upright", "leaning"))
TEXTS = {"bin_before": "2143", "past_before": "6872", "fed_feed": "100", "bin_after": "2233", "past_after": "6881.5"}


@given(
    st.sampled_from([(k.key, way) for k in KINDS.values() for way in k.ways]), st.integers(1, 20), st.floats(1e-4, 10.0)
)
def test_a_plan_is_read_as_it_was_written(pair: tuple[str, str], repeats: int, fed: float) -> None:
    plan = Plan(*pair, repeats=repeats, fed=fed, variants=("a", "b"), setup=Setup(past_step=1e-4, catch="cloth"))
    assert read_plan(write_plan(plan)) == plan


@pytest.mark.parametrize(
    "text",
    [
        "",
        "{}",
        '{"kind": "tilt", "way": "force"}',
        '{"kind": "x", "way": "masses"}',
        '{"kind": "tilt", "way": "masses", "repeats": 0}',
    ],
)
def test_no_plan_is_refused(text: str) -> None:
    with pytest.raises(RigError):
        read_plan(text)


def test_problems_of_a_plan_are_named_by_field() -> None:
    bad = Plan("tilt", "masses", ("a", "A"), 99, 0.0, -1.0, setup=Setup(bin_step=0.0, repeat_sd=-1.0, catch="sieve"))
    assert set(plan_problems(bad)) == {"repeats", "variants", "hoped", "fed", "bin_step", "repeat_sd", "catch"}


@pytest.mark.parametrize("system", ["metric", "inch"])
def test_runs_go_out_and_come_back(system: str) -> None:
    entries = {key: Entry(text, "metric") for key, text in TEXTS.items()}
    asks = {ask.key: ask for ask in WAYS["masses"].asks}
    texts = {key: text_in(entry, asks[key], system) for key, entry in entries.items()}
    table = write_runs(PLAN, [RunRow(1, texts, "windy", "lid open")], system)
    (row,) = parse_runs(table.encode(), PLAN, "metric")
    assert (row.variant, row.note, row.spoilt) == (1, "windy", "lid open")
    back, wrong = run_values(PLAN, {key: Entry(text, "metric") for key, text in row.texts.items()})
    assert wrong == {}
    assert back == pytest.approx(run_values(PLAN, entries)[0], rel=2e-4)


def test_words_never_become_a_spreadsheets_formula() -> None:
    table = write_runs(Plan("tilt", "masses", ("=1+1", "b")), [RunRow(0, TEXTS, "=cmd", "@x")], "metric")
    assert "\n" in table
    assert not any(cell.startswith(("=", "@")) for cell in table.replace("\r\n", ",").split(","))


@pytest.mark.parametrize(
    ("table", "why"),
    [
        ("", "a heading and a row"),
        ("run state bin_before\n1 upright 2143\n", "only one column"),
        ("run,state,bin_before (g)\n1,upright,2143\n", "no column is headed past_before"),
        (None, "line 3, column 3"),
    ],
)
def test_a_table_of_runs_that_cannot_be_read_says_where(table: str | None, why: str) -> None:
    if table is None:
        good = write_runs(PLAN, [RunRow(0, TEXTS)] * 2, "metric").splitlines()
        table = "\n".join([*good[:2], good[2].replace("2143", "twenty"), ""])
    with pytest.raises(RigError, match=why):
        parse_runs(table.encode(), PLAN, "metric")


def test_a_state_that_the_test_does_not_have_is_refused() -> None:
    table = write_runs(PLAN, [RunRow(0, TEXTS)], "metric").replace("upright", "sideways")
    with pytest.raises(RigError, match="there is no state “sideways”"):
        parse_runs(table.encode(), PLAN, "metric")


def test_figures_typed_in_other_units_mean_the_same() -> None:
    metric = run_values(PLAN, {"bin_before": Entry("2143", "metric"), "fed_feed": Entry("0.1 kg", "metric")})
    inch = run_values(PLAN, {"bin_before": Entry("75.592", "inch"), "fed_feed": Entry("100 g", "inch")})
    assert metric[0] == pytest.approx(inch[0], rel=1e-4)
    assert run_values(PLAN, {"bin_before": Entry("heavy", "metric"), "past_before": Entry("-3", "metric")})[
        1
    ].keys() == {
        "bin_before",
        "past_before",
    }


@pytest.mark.parametrize(
    "text",
    [
        "time (s),dust (ug/m3)\n0,9\n5,9.5\n10,30\n",
        "time;PM2.5 (µg/m³)\n0;9\n5;9,5\n10;30\n",
        "Timestamp\tpm25_ug/m3\n2026-11-26 08:00:00\t9\n2026-11-26 08:00:05\t9.5\n2026-11-26 08:00:10\t30\n",
        "clock time,dust mg/m3\n08:00:00,0.009\n08:00:05,0.0095\n08:00:10,0.03\n",
        "0,9\n5,9.5\n10,30\n",
    ],
)
def test_logs_however_a_monitor_wrote_them(text: str) -> None:
    table = read_log(text.encode())
    assert [t for t, _ in table.rows] == [0.0, 5.0, 10.0]
    assert [v for _, v in table.rows] == pytest.approx([9e-9, 9.5e-9, 30e-9])
    assert table.unreadable == 0


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "two rows or more"),
        ("time dust\n0 9\n5 9\n", "only one column"),
        ("time,dust\n0,0,9,5\n5,0,9,7\n10,0,9,9\n", "comma stands between the columns and inside"),
        ("when,what\n0,9\n5,9\n", "no column is headed time"),
        ("time,dust\nx,y\na,b\n", "hardly a row"),
    ],
)
def test_what_is_no_log_is_refused_with_the_reason(text: str, why: str) -> None:
    with pytest.raises(RigError, match=why):
        read_log(text.encode())


def test_bad_rows_of_a_log_are_kept_apart_and_never_averaged_in() -> None:
    lines = ["time,dust (ug/m3)", *(f"{5 * i},{9 + (i % 3)}" for i in range(40))]
    lines[7], lines[8] = lines[8], lines[7]  # out of order
    lines.insert(12, lines[11])  # twice
    lines.insert(20, "nan,9")
    lines.insert(25, "130,-9")
    table = read_log("\n".join(lines).encode())
    log = ordered(table.rows, table.unreadable)
    assert (log.out_of_order, log.duplicates, log.unreadable) == (1, 1, 2)
    assert log.time.size == 40
    assert monitored(log, []).baseline == pytest.approx(10e-9)


@pytest.mark.parametrize(
    "bad",
    [{"lean": 2.0}, {"lean": -0.1}, {"lean": float("nan")}, {"level": 1.5}, {"level": float("nan")}, {"dust": "moon"}],
)
def test_a_stored_state_that_cannot_stand_is_refused_and_locks_no_page(bad: dict[str, Any]) -> None:
    plan = Plan("tilt", "masses", ("a", "b"), conditions=(Condition(), Condition(**bad)))
    assert "conditions" in plan_problems(plan)
    if any(value != value for value in bad.values()):  # what is no number is written as nothing said
        assert read_plan(write_plan(plan)).conditions[1].plain
        return
    with pytest.raises(RigError):
        read_plan(write_plan(plan))
    assert plan_problems(Plan("tilt", "masses", ("a", "b"), conditions=(Condition(lean=1.5, level=1.0),))) == {}
    assert "dust" in plan_problems(Plan("separation", "masses", dust="moon"))
