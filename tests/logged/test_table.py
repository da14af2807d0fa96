"""The log as a table, both ways; what is wrong with a row is said by its row and column."""

from datetime import datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.logbook.entries import BOUNDS, FINDINGS, GRADED_AT, KINDS
from fenwick.logged import Logged
from fenwick.logged.check import problems_of
from fenwick.logged.table import MOST_PROBLEMS, MOST_ROWS, parse_log, write_log
from fenwick.rig import RigError

NOW = datetime(2026, 11, 28, 17, 0)
LINES = {1: "Bench line", 2: "=cmd|line"}
NUMBERS = {name: number for number, name in LINES.items()}


@st.composite
def entries(draw: st.DrawFn) -> Logged:
    """Any entry that may be logged, its figures as fine as a table shows them."""
    key = draw(st.sampled_from(list(KINDS)))
    kind = KINDS[key]
    amounts = {}
    for name in kind.amounts:
        least, most = BOUNDS[name]
        value = round(draw(st.floats(least, most)), 3)
        amounts[name] = draw(st.sampled_from([value, None])) if name != kind.needs else value
    finding = draw(st.sampled_from(["", *FINDINGS.get(kind.findings, {})]))
    text = st.text(st.characters(codec="utf-8", exclude_categories=["Cc", "Cs"]), max_size=40).map(str.strip)
    words = draw(text.filter(bool) if kind.needs == "words" else text)
    at = NOW - timedelta(minutes=draw(st.integers(0, 5_000_000)))
    thing = draw(st.sampled_from(["", *GRADED_AT]) if key == "wiped" else text)
    return Logged(key, at, draw(st.sampled_from([None, 1, 2])), thing, "", finding, words, **amounts)


@given(st.lists(entries(), max_size=6), st.sampled_from(["metric", "inch"]))
def test_what_is_written_is_read_again(several: list[Logged], system: str) -> None:
    table = write_log(several, LINES, system).encode()
    if not several:
        with pytest.raises(RigError, match="a heading and a row"):
            parse_log(table, NUMBERS, NOW, system)
        return
    for before, after in zip(several, parse_log(table, NUMBERS, NOW, system), strict=True):
        assert (before.kind, before.at, before.line, before.words) == (after.kind, after.at, after.line, after.words)
        assert (before.thing, before.finding) == (after.thing, after.finding)
        for name in BOUNDS:
            was, now = getattr(before, name), getattr(after, name)
            assert (was is None) == (now is None)
            assert was is None or now == pytest.approx(was, rel=1e-6, abs=1e-9)


def test_no_cell_is_a_formula() -> None:
    table = write_log([Logged("remark", NOW, 2, words="=1+1")], LINES, "metric")
    assert "'=1+1" in table
    assert ",'=cmd|line," in table


@pytest.mark.parametrize(
    ("rows", "said"),
    [
        ("", "a heading and a row"),
        ("a,b\n1,2", "no column is headed when, entry"),
        ("when;entry\n2026-13-40;tapped", "row 2, “when”: “2026-13-40” is no date"),
        ("when;entry\n2027-01-01;tapped", "row 2, “at”: lies in the future"),
        ("when;entry\n1066-10-14;tapped", "more than forty years back"),
        ("when;entry\n2026-01-01;danced", "there is no such entry as “danced”"),
        ("when;entry;line\n2026-01-01;tapped;Moon", "there is no line “Moon” in this shop"),
        ("when;entry;hours\n2026-01-01;worked;lots", "“hours”: “lots” is not a number"),
        ("when;entry\n2026-01-01;worked", "“hours”: is missing"),
        ("when;entry;hours\n2026-01-01;worked;-3", "must be 0 or more"),
        ("when;entry;level (mm)\n2026-01-01;looked;1e99", "must be 3,?000.* mm or less"),
        ("when;entry;finding\n2026-01-01;tapped;let-go", "is none of this entry"),
        ("when;entry\n2026-01-01;odd", "“words”: are missing"),
    ],
)
def test_what_is_wrong_is_said_where_it_is(rows: str, said: str) -> None:
    with pytest.raises(RigError, match=said):
        parse_log(rows.encode(), NUMBERS, NOW, "metric")


def test_a_hundred_thousand_bad_rows_are_refused_at_once() -> None:
    with pytest.raises(RigError, match=f"at most {MOST_ROWS}"):
        parse_log(b"when;entry\n" + b"never;tapped\n" * 100_000, NUMBERS, NOW, "metric")
    with pytest.raises(RigError) as refused:
        parse_log(b"when;entry\n" + b"never;tapped\n" * 50_000, NUMBERS, NOW, "metric")
    assert len(refused.value.problems) == MOST_PROBLEMS


@pytest.mark.parametrize(
    "raw", [b"\x00\x01\x02", b"when;entry\n" + b"x" * 40_000 + b";tapped", b'when;entry\n"' + b"a" * 200_000]
)
def test_what_is_no_table_is_refused_in_a_sentence(raw: bytes) -> None:
    with pytest.raises(RigError):
        parse_log(raw, NUMBERS, NOW, "metric")


def test_ten_megabytes_of_words_are_too_many() -> None:
    (problem,) = problems_of(Logged("remark", NOW, words="x" * 10_000_000), NOW)
    assert problem.path == "words"
    assert "at most 2000" in problem.sentence()
