"""The ways in words: what they cost at most, what a step takes and moves, what stays."""

from __future__ import annotations

import numpy as np
import pytest

from fenwick.core.judging.check import Check
from fenwick.core.search.way.count import WayCount
from fenwick.core.search.way.options import WayLimits
from fenwick.units.sentence import inside
from fenwick.wording.say import Voice
from fenwick.wording.way import left_sentences, moved_words, takes_words, way_title


@pytest.mark.parametrize(
    ("limits", "title"),
    [
        (WayLimits(0.0, 3.0), "free, this evening"),
        (WayLimits(0.0, 12.0), "free, a weekend"),
        (WayLimits(0.0, 1.5), "free, 1 h 30"),
        (WayLimits(60.0, 12.0), "for 60 €, a weekend"),
        (WayLimits(7.5, 0.5), "for 7.50 €, 30 min"),
        (WayLimits(20.0, None), "for 20 €, however long"),
        (WayLimits(None, 3.0), "whatever it costs, an evening"),
        (WayLimits(0.0, None), "free, however long"),
        (WayLimits(), "the best that can be had"),
    ],
)
def test_a_way_is_called_by_its_limits(limits: WayLimits, title: str) -> None:
    assert way_title(limits, "€") == title


@pytest.mark.parametrize(
    ("cost", "hours", "words"),
    [(0.0, 0.25, "free, 15 min"), (8.0, 1.0, "8 €, 1 h"), (7.25, 0.5, "7.25 €, 30 min"), (24.34, 6.0, "24 €, 6 h")],
)
def test_what_a_step_takes(cost: float, hours: float, words: str) -> None:
    assert takes_words(cost, hours, "€") == words


def count(acts: int, lost: float, past: float) -> WayCount:
    """Of two kilograms a week."""
    return WayCount(acts, lost, past, 0.0, 0.0, 2.0)


def test_what_a_step_moves_is_told_of_100_g_and_what_stays_is_not() -> None:
    assert moved_words(count(4, 0.6, 0.3), count(2, 0.25, 0.3)) == ["to act on 4 → 2", "lost 30 → 12 g of 100"]
    assert moved_words(count(1, 0.6, 0.05), count(1, 0.6, 0.01)) == ["past the bin 2.5 → 0.5 g of 100"]
    assert moved_words(count(1, 0.6, 0.3), count(1, 0.6, 0.3)) == []
    assert moved_words(WayCount(1, 0, 0, 0, 0, 0.0), WayCount(0, 0, 0, 0, 0, 0.0)) == ["to act on 1 → 0"]


def check(name: str, level: int, quantity: str = "flow", part: str = "saw") -> Check:
    """As the core makes it."""
    return Check(name, np.array([level]), np.array([0.0972]), np.array([0.1667]), quantity, part)


def test_what_stays_is_told_with_the_reason_and_fine_dust_once() -> None:
    voice = Voice("metric", {"saw": "Saw", "router": "Router", "sep": "Chamber"})
    watching = [check("containment", 1), check("containment", 1, part="router"), check("bin-leak", 1, "share")]
    said = left_sentences([check("headroom", 2, "length", "sep")], watching, ("jigsaw",), voice)
    assert len(said) == 3
    assert "another place does" in said[0]
    assert said[1].count("No shop vacuum moves that much air") == 1
    assert said[1].count("takes") == 2
    assert "want of tools" in said[2]
    assert left_sentences([], [], (), voice) == []


def test_a_sentence_begins_small_within_another_unless_it_is_written_in_capitals() -> None:
    told = {"A plate behind it": "a plate behind it", "MDF": "MDF", "Hose A": "hose A", "": "", "PVC tube": "PVC tube"}
    assert {name: inside(name) for name in told} == told


def test_where_nobody_knows_where_the_dust_goes_no_mass_is_told() -> None:
    before, after = (WayCount(acts, 0.0, 0.0, 0.0, 0.0, 2.0, known=False) for acts in (3, 1))
    assert moved_words(before, after) == ["to act on 3 → 1"]
    assert moved_words(after, after) == []
