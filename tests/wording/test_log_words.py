"""When, how surely and why, as one says it; no number with more digits than it has."""

import math
from datetime import datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.logbook.entries import FINDINGS, KINDS, PIECES
from fenwick.core.logbook.looks import EVERY
from fenwick.logged import Logged
from fenwick.logged.words import details_of, title_of
from fenwick.wording.logbook import (
    LOOK,
    SHORT,
    WHAT,
    between_days,
    day_name,
    forecast_steps,
    in_days,
    life_words,
    pieces_words,
    times_left,
)
from fenwick.wording.money import one_off_words, paid_words
from fenwick.wording.trend import PIECE_WORDS

NOW = datetime(2026, 11, 28, 17, 0)


@pytest.mark.parametrize(
    ("days", "words"),
    [
        (0.2, "today"),
        (1.0, "tomorrow"),
        (-1.0, "yesterday"),
        (3.2, "in 3 days"),
        (20.0, "in 3 weeks"),
        (-40.0, "6 weeks ago"),
        (100.0, "in 3 months"),
        (700.0, "in 23 months"),
        (math.inf, "not within two years"),
        (math.nan, "nobody can say when"),
    ],
)
def test_how_far_off_it_is(days: float, words: str) -> None:
    assert in_days(days) == words


@pytest.mark.parametrize(
    ("low", "high", "words"),
    [
        (0.0, 0.0, "it is due"),
        (0.0, 10.0, "now, or within 10 days"),
        (3.0, 5.0, "in 3 to 5 days"),
        (1.0, 8.0, "in 1 to 8 days"),
        (3.0, 20.0, "in 3 days to 3 weeks"),
        (14.0, 30.0, "in 2 to 4 weeks"),
        (5.0, math.inf, "in 5 days at the soonest"),
        (math.inf, math.inf, "not within two years"),
        (30.0, 30.2, "in 4 weeks"),
    ],
)
def test_between_when_and_when(low: float, high: float, words: str) -> None:
    assert between_days(low, high) == words


def test_a_day_is_called_by_its_name_within_a_week_and_by_its_date_beyond() -> None:
    assert day_name(0.1, NOW) == "today"
    assert day_name(2.0, NOW) == "Monday"
    assert day_name(12.0, NOW) == "10 December"
    assert day_name(60.0, NOW) == "27 January 2027"


@given(st.floats(-1e5, 1e5) | st.just(math.inf) | st.just(math.nan), st.floats(0, 1e5))
def test_there_are_words_for_every_day(low: float, more: float) -> None:
    for words in (in_days(low), between_days(low, low + more)):
        assert words
        assert "nan" not in words
        assert "inf" not in words


def test_every_piece_and_every_kind_has_its_words() -> None:
    assert set(SHORT) == set(PIECES) == set(PIECE_WORDS)
    assert set(EVERY) <= set(WHAT)
    assert set(EVERY) == set(LOOK)
    for key, kind in KINDS.items():
        finding = next(iter(FINDINGS.get(kind.findings, {"": ""})))
        entry = Logged(key, NOW, 1, "gasket", finding=finding, level=0.2, hours=0.5, money=3.5)
        assert title_of(entry)
        assert all(details_of(entry, system, "€") for system in ("metric", "inch"))


def test_a_life_is_told_against_the_model_only_where_it_differs() -> None:
    assert life_words(9.0, 24.0) == "the last lasted 9.0 h, not 24 h"
    assert life_words(23.0, 24.0) == "the last lasted 23 h, as the model says"
    assert life_words(None, 24.0) == ""


def test_what_is_left_of_a_job() -> None:
    assert times_left("Sand", 0.5, "hour") == "30 min of “Sand”"
    assert times_left("Resaw", 7.6, "cut") == "7 more cuts of “Resaw”"
    assert times_left("Plane", 1.2, "board") == "1 more board of “Plane”"
    assert times_left("Plane", 0.2, "board") == "no more boards of “Plane”"


def test_pieces_in_one_breath() -> None:
    assert pieces_words(("joint",)) == "the joints"
    assert pieces_words(("joint", "gasket", "cord")) == "the joints, the bin's gasket and cord and plug"


def test_when_a_separator_has_paid() -> None:
    assert paid_words(60.0, 30.0, 100.0, 180.0).startswith("The separator paid for itself 9 weeks after")
    assert "will have paid for itself in 4 months" in paid_words(300.0, 100.0, math.inf, 180.0)
    assert "does not pay" in paid_words(math.inf, 100.0, math.inf, 180.0)
    assert "cannot be told" in paid_words(math.nan, math.nan, math.nan, 180.0)


def test_a_job_that_comes_once() -> None:
    assert one_off_words(2.1, "38.0 L", 0.9) == "38.0 L in the bin: about 2 emptyings; about 1 cleaning of the filter"
    assert one_off_words(None, "", 0.0) == "hardly any cleanings of the filter"


@pytest.mark.parametrize("lives", [0, 1, 7])
@pytest.mark.parametrize("modelled", [None, 24.0])
def test_an_estimate_tells_every_step_with_its_figure(lives: int, modelled: float | None) -> None:
    told = forecast_steps(
        modelled=modelled, lives=lives, typical=0.4, begun=12.0, seen=0.25, work=0.3, used=0.8, low=0.5, high=1.3
    )
    assert ("24 h" in told[0]) == (modelled is not None)
    assert ("0.40 times" in told[1]) == (lives > 0)
    assert "12 days ago, 25 % over by then; since then 30 %" in told[2]
    assert "80 % is used by now; nine in ten: 50 to 130 %" in told[3]
