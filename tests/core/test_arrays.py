"""Batches of nested components: counted, cut and put together again."""

from dataclasses import dataclass

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.arrays import Values, batches, join_variants, take_variants, variant_count
from fenwick.core.components.elements import Hose, Leak
from fenwick.core.judging.check import LEVEL_WORDS, graded
from fenwick.core.line.transport import CARRYING_WORDS, judge_carrying


@dataclass(frozen=True)
class Inner:
    """A part with one value."""

    size: Values


@dataclass(frozen=True)
class Outer:
    """A whole with shared and per-variant values."""

    name: str
    shared: float
    many: Values
    inner: Inner
    parts: tuple[Inner, ...]
    rules: dict[str, Values]


WHOLE = Outer(
    "whole", 1.0, np.arange(5.0), Inner(np.arange(5.0) * 2), (Inner(3.0), Inner(np.arange(5.0))), {"a": np.arange(5.0)}
)


def test_count_looks_everywhere() -> None:
    assert variant_count(WHOLE) == 5
    assert variant_count(Inner(2.0)) == 1
    assert variant_count(np.zeros((60, 1)), np.zeros((60, 7))) == 7


def test_count_refuses_what_disagrees() -> None:
    with pytest.raises(ValueError, match=r"\[4, 5\]"):
        variant_count(WHOLE, np.zeros(4))


def test_a_cut_takes_the_same_variants_of_every_array_and_leaves_the_rest() -> None:
    cut = take_variants(WHOLE, slice(1, 3))
    assert cut.many.tolist() == [1.0, 2.0]  # type: ignore[union-attr]
    assert cut.inner.size.tolist() == [2.0, 4.0]  # type: ignore[union-attr]
    assert cut.parts[0].size == 3.0
    assert cut.rules["a"].tolist() == [1.0, 2.0]  # type: ignore[union-attr]
    assert (cut.name, cut.shared) == ("whole", 1.0)


def test_joining_cuts_gives_the_arrays_back() -> None:
    joined = join_variants([take_variants(WHOLE, slice(0, 2)), take_variants(WHOLE, slice(2, 5))])
    assert np.array_equal(joined.many, WHOLE.many)
    assert np.array_equal(joined.inner.size, WHOLE.inner.size)
    assert np.array_equal(joined.parts[1].size, WHOLE.parts[1].size)
    assert join_variants([WHOLE]) is WHOLE


def test_judgements_at_their_limits() -> None:
    states = judge_carrying(np.array([12.9, 13.0, 15.0, 15.1]), (13.0, 15.0))
    assert [CARRYING_WORDS[state] for state in states] == ["settles", "marginal", "marginal", "carries"]
    levels = graded(np.array([True, False, False]), np.array([True, True, False]))
    assert [LEVEL_WORDS[level] for level in levels] == ["act", "watch", "ok"]


def test_single_components_come_together_by_what_they_have_in_common() -> None:
    bores = (0.03, 0.05, 0.04)
    hoses = [Hose("h", bore, 2.0) for bore in bores]
    mixed = [hoses[0], Leak("l", 1e-4), hoses[1], Leak("l", 2e-4), hoses[2], Hose("h", 0.03, 2.0, "corrugated")]
    found = batches(mixed)
    assert [batch.places for batch in found] == [(0, 2, 4), (1, 3), (5,)]
    together = found[0].together
    assert isinstance(together, Hose)
    assert np.asarray(together.bore).tolist() == list(bores)
    assert together.length == 2.0  # what is alike in all stays one value
    assert batches([]) == []


@given(st.lists(st.sampled_from(["smooth", "wire-helix", "corrugated"]), max_size=9))
def test_every_component_has_one_place(walls: list[str]) -> None:
    parts = [Hose("h", 0.03 + 0.001 * i, 2.0, wall) for i, wall in enumerate(walls)]
    found = batches(parts)
    assert sorted(place for batch in found for place in batch.places) == list(range(len(parts)))
    for batch in found:
        for variant, place in enumerate(batch.places):
            bore = np.broadcast_to(np.asarray(batch.together.bore, dtype=float), (len(batch.places),))[variant]
            assert (bore, batch.together.wall) == (parts[place].bore, parts[place].wall)
