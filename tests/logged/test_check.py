"""What is wrong with an entry: its time, its words, its amounts, each at its own field; and the words of one."""

from dataclasses import replace
from datetime import datetime, timedelta

import pytest

from fenwick.core.logbook.entries import BOUNDS, FINDINGS, GRADES, KINDS, PIECES, QUANTITIES, SPENT_ON
from fenwick.logged import Logged
from fenwick.logged.check import LEEWAY, LONG_AGO, MOST_NAME, NAMES, problems_of
from fenwick.logged.words import details_of, title_of
from fenwick.units import QUANTITIES as SHOWN

NOW = datetime(2026, 11, 28, 17, 0)
FINE = Logged("worked", NOW, 2, "Bandsaw", hours=1.5)


def wrong(entry: Logged) -> dict[str, str]:
    """What is wrong with an entry, by its field."""
    return {problem.path: problem.sentence("metric") for problem in problems_of(entry, NOW)}


def test_an_entry_that_says_what_it_has_to_is_fine() -> None:
    assert wrong(FINE) == {}


@pytest.mark.parametrize("key", BOUNDS)
def test_every_amount_has_bounds_a_name_and_a_unit(key: str) -> None:
    least, most = BOUNDS[key]
    assert least < most
    assert QUANTITIES[key] in SHOWN
    assert key in NAMES
    kind = next(name for name, one in KINDS.items() if key in one.amounts)
    plain = replace(FINE, kind=kind, hours=None, words="x")
    entry = replace(plain, **{key: most})  # type: ignore[arg-type]
    assert key not in wrong(entry)
    assert "or less" in wrong(replace(entry, **{key: most * 1.001 + 1e-6}))[key]  # type: ignore[arg-type]
    assert "or more" in wrong(replace(entry, **{key: least - 1e-3 * max(abs(least), 1.0)}))[key]  # type: ignore[arg-type]
    assert wrong(replace(entry, **{key: float("nan")}))[key] == "must be a number"  # type: ignore[arg-type]


def test_clocks_may_differ_a_little_and_nobody_logs_what_will_be() -> None:
    assert wrong(replace(FINE, at=NOW + LEEWAY)) == {}
    assert "future" in wrong(replace(FINE, at=NOW + LEEWAY + timedelta(seconds=1)))["at"]
    assert wrong(replace(FINE, at=NOW - LONG_AGO)) == {}
    assert "forty years" in wrong(replace(FINE, at=NOW - LONG_AGO - timedelta(days=1)))["at"]


def test_names_and_findings_are_bounded() -> None:
    assert "thing" in wrong(replace(FINE, thing="x" * (MOST_NAME + 1)))
    assert "job" in wrong(replace(FINE, job="x" * (MOST_NAME + 1)))
    assert "finding" in wrong(replace(FINE, finding="due"))
    assert wrong(replace(FINE, kind="tapped", hours=None, finding="due")) == {}
    assert set(wrong(replace(FINE, kind="no such"))) == {"kind"}


def test_an_amount_that_says_nothing_there_is_not_kept_silently() -> None:
    assert wrong(replace(FINE, suction=5000.0)) == {"suction": "says nothing in such an entry"}


def test_an_entry_is_called_by_what_it_is_about() -> None:
    assert title_of(FINE) == "Worked at the bandsaw"
    assert title_of(replace(FINE, job="Resaw backs")) == "Resaw backs"
    assert title_of(Logged("renewed", NOW, 2, "gasket")) == f"Replaced or mended: {PIECES['gasket'].lower()}"
    assert title_of(Logged("spent", NOW, None, "bag", money=4.0)) == f"Spent money: {SPENT_ON['bag'].lower()}"
    assert title_of(Logged("an older kind", NOW)) == "an older kind"


def test_figures_are_told_in_the_reader_s_units_and_the_shop_s_money() -> None:
    entry = Logged("emptied", NOW, 2, level=0.254, volume=0.02, mass=4.5)
    assert details_of(entry, "metric", "€") == ["4.5 kg", "20 L", "254 mm"]
    assert details_of(entry, "inch", "$")[2] == "10 in"
    assert details_of(replace(FINE, hours=0.5), "metric", "€") == ["30 min"]
    assert details_of(Logged("spent", NOW, money=12.5), "metric", "CHF") == ["12 CHF"]
    assert details_of(Logged("wiped", NOW, grade=3.0), "metric", "€") == [GRADES[3]]
    assert details_of(Logged("suction", NOW, 2, "the hose", suction=5500.0), "metric", "€") == [
        "5.5 kPa",
        "at the hose",
    ]


def test_every_finding_is_told() -> None:
    for key, kind in KINDS.items():
        for finding, words in FINDINGS.get(kind.findings, {}).items():
            told = details_of(Logged(key, NOW, 2, finding=finding), "metric", "€")
            assert told[-1].lower() == words.lower()
