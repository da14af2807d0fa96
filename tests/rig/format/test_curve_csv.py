"""Fan curves as spreadsheets and loggers write them."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.rig import RigError
from fenwick.rig.format.curve_csv import read_curve

POINTS = ((0.0, 18000.0), (0.02, 14000.0), (0.05, 5000.0))

GOOD = {
    "plain, in the page's units": "0,18\n20,14\n50,5\n",
    "semicolons and decimal commas": "flow;suction\n0,0;18,0\n20,0;14,0\n50,0;5,0\n",
    "tabs, blank lines, shuffled": "\n50\t5\n\n\n0\t18\n20\t14\n\n",
    "headings with units": "suction [Pa],flow [m³/s]\n18000,0\n14000,0.02\n5000,0.05\n",
    "units in brackets": "Flow (m3/h);Suction (mbar)\n0;180\n72;140\n180;50\n",
    "units in the cells": "Flow,Suction\n0 L/s,18 kPa\n20 L/s,140 mbar\n0.05 m^3/s,5000 Pa\n",
    "further columns": "time,flow_l/s,note,suction_kpa\n1,0,shut,18\n2,20,,14\n3,50,open,5\n",
    "quoted": '"flow","suction"\n"0","18"\n"20","14"\n"50","5"\n',
    "a minus of nothing": "0;18\n20;14\n50;5\n",
}


@pytest.mark.parametrize("name", sorted(GOOD))
@pytest.mark.parametrize("mark", [b"", b"\xef\xbb\xbf"])
def test_what_is_clear_is_read(name: str, mark: bytes) -> None:
    table = read_curve(mark + GOOD[name].encode(), "metric")
    assert np.array(table.points) == pytest.approx(np.array(POINTS), rel=1e-3)
    assert (table.rows, table.averaged) == (3, False)


def test_figures_without_a_unit_are_those_of_the_page() -> None:
    table = read_curve(b"0,72.27\n42.38,56.2\n105.9,20.07\n", "inch")
    assert np.array(table.points) == pytest.approx(np.array(POINTS), rel=2e-3)
    wide = read_curve("0,18\n20,14\n50,5\n".encode("utf-16"), "metric")
    assert np.array(wide.points) == pytest.approx(np.array(POINTS))


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        ("", "the file is empty"),
        ("0,18\n20,much\n50,5\n", "line 2, column 2: “much” is not a number in kPa"),
        ("0,18\n20\n50,5\n", "line 2, column 2: there is no suction"),
        ("flow;suction\n0;18\n\n20;14 litres\n50;5\n", "line 4, column 2: “litres” is not a unit"),
        ("flow,colour\n0,18\n", "no column is headed suction"),
        ("0,18\n20,14\n20,5\n", "line 3 stands at the same flow as line 2"),
        ("0,18\n20,14\n\n50,15\n", "line 4 must fall in suction as flow rises, against line 2"),
        ("0,18\n50,5\n", "takes three points or more; here are 2"),
        ("0,18\n-20,14\n50,5\n", "line 2, column 1: a flow of -20 is below nothing"),
        ("0,18\n1e999,14\n50,5\n", "line 2, column 1"),
    ],
)
def test_what_is_not_clear_is_named_by_line_and_column(text: str, sentence: str) -> None:
    with pytest.raises(RigError) as refused:
        read_curve(text.encode(), "metric")
    assert sentence in str(refused.value)


def test_many_problems_are_counted_rather_than_listed() -> None:
    with pytest.raises(RigError) as refused:
        read_curve(("0,18\n" + "x,y\n" * 500).encode(), "metric")
    assert len(refused.value.problems) == 9
    assert "more like that" in refused.value.problems[-1].rule


def test_a_log_of_100_000_rows_becomes_a_curve() -> None:
    rng = np.random.default_rng(7)
    flow = rng.uniform(0.0, 60.0, 100_000)
    suction = 18.0 * (1.0 - flow / 62.0) + rng.normal(0.0, 0.3, flow.size)
    rows = "\n".join(f"{q:.2f};{max(p, 0.0):.3f}" for q, p in zip(flow, suction, strict=True))
    table = read_curve(f"flow;suction\n{rows}\n".encode(), "metric")
    assert table.averaged
    assert table.rows == 100_000
    assert 20 < len(table.points) <= 60
    for q, p in table.points:
        assert p == pytest.approx(18000.0 * (1.0 - q / 0.062), abs=150.0)
    assert np.all(np.diff([p for _, p in table.points]) < 0.0)


def test_a_log_that_rises_is_no_fan_curve() -> None:
    rows = "\n".join(f"{i},{i}" for i in range(1, 200))
    with pytest.raises(RigError, match="no fan curve"):
        read_curve(rows.encode(), "metric")


@given(st.binary(max_size=300))
def test_no_bytes_break_it(raw: bytes) -> None:
    try:
        table = read_curve(raw, "metric")
    except RigError:
        return  # refused in words
    assert len(table.points) >= 3
    assert np.all(np.diff([p for _, p in table.points]) < 0.0)
