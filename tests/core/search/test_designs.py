"""Designs from free numbers: spread evenly, close to good ones when asked, and each of them something one can make."""

from __future__ import annotations

import numpy as np
import pytest

from fenwick.core.arrays import take_variants
from fenwick.core.components.separator import Separator
from fenwick.core.rules import RuleBook
from fenwick.core.search.designs import BOUGHT, MADE, RANGES, build, effort, near, sample
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

KINDS = pytest.mark.parametrize("kind", sorted(RANGES))
COUNT, BORE, SHEET = 64, 0.05, (0.6, 0.4)
BIN = build_line(demo_rig()).separators[0].bin


def designs(kind: str, numbers: np.ndarray | None = None) -> Separator:
    """Over the demo's bin."""
    given = sample(kind, COUNT, 3) if numbers is None else numbers
    return build(kind, given, "it", BIN, BORE, "shop-built")


@KINDS
def test_a_sample_is_spread_evenly_over_every_number(kind: str) -> None:
    numbers = sample(kind, COUNT, 3)
    assert numbers.shape == (len(RANGES[kind]), COUNT)
    for row in numbers:  # a Latin hypercube: one in every slice
        assert sorted(np.floor(row * COUNT).astype(int)) == list(range(COUNT))


@KINDS
def test_the_same_seed_draws_the_same(kind: str) -> None:
    assert np.array_equal(sample(kind, COUNT, 5), sample(kind, COUNT, 5))
    assert not np.array_equal(sample(kind, COUNT, 5), sample(kind, COUNT, 6))


@KINDS
@pytest.mark.parametrize("spread", [0.0, 0.05, 10.0])
def test_what_is_drawn_near_good_designs_stays_within_its_range(kind: str, spread: float) -> None:
    good = sample(kind, 3, 1)
    drawn = near(good, COUNT, spread, 2)
    assert drawn.shape == (good.shape[0], COUNT)
    assert np.all((drawn >= 0.0) & (drawn <= 1.0))
    if spread == 0.0:
        assert {tuple(column) for column in drawn.T} <= {tuple(column) for column in good.T}
    elif spread < 1.0:
        nearest = np.min(np.abs(drawn[:, :, None] - good[:, None, :]).max(axis=0), axis=1)
        assert np.all(nearest < 6.0 * spread)


@KINDS
def test_many_designs_are_what_each_is_by_itself(kind: str) -> None:
    numbers = sample(kind, COUNT, 3)
    together = designs(kind, numbers)
    for i in (0, 17, COUNT - 1):
        alone = designs(kind, numbers[:, i : i + 1])
        one = take_variants(together, np.array([i]))
        for name in ("outlet_bore", "rise_above_rim"):
            assert np.asarray(getattr(one, name)) == pytest.approx(np.asarray(getattr(alone, name)))


@KINDS
def test_the_corners_of_the_ranges_can_be_made_too(kind: str) -> None:
    rows = len(RANGES[kind])
    corners = np.array([np.zeros(rows), np.ones(rows), np.arange(rows) % 2, 1 - np.arange(rows) % 2], dtype=float).T
    made = designs(kind, corners)
    taken = effort(kind, made, MADE, SHEET, RuleBook())
    assert np.all(np.asarray(made.outlet_bore) > 0.0)
    for figures in (taken.height, taken.largest_hole, taken.sheet, taken.cost, taken.hours):
        assert np.all(np.isfinite(figures))
        assert np.all(figures >= 0.0)


@KINDS
def test_the_effort_counts_the_bin_below_and_nothing_stands_lower_than_it(kind: str) -> None:
    taken = effort(kind, designs(kind), MADE, SHEET, RuleBook())
    assert taken.height.shape == (COUNT,)
    assert np.all(taken.height >= BIN.height)


@KINDS
def test_a_smaller_sheet_is_used_up_more(kind: str) -> None:
    large = effort(kind, designs(kind), MADE, SHEET, RuleBook())
    small = effort(kind, designs(kind), MADE, (0.3, 0.2), RuleBook())
    assert np.all(small.sheet >= large.sheet)
    assert np.array_equal(small.height, large.height)


def test_a_bought_cyclone_takes_no_sheet_and_less_time() -> None:
    made, bought = (effort("cyclone", designs("cyclone"), how, SHEET, RuleBook()) for how in (MADE, BOUGHT))
    assert np.all(bought.hours < made.hours)
    assert np.all(bought.sheet <= made.sheet)
    assert np.all(bought.height == made.height)


@pytest.mark.parametrize("bore", [0.02, 0.035, 0.1, 0.15])
@KINDS
def test_a_design_fits_its_bin_whatever_hose_arrives(kind: str, bore: float) -> None:
    made = build(kind, sample(kind, COUNT, 4), "it", BIN, bore, "smooth")
    assert np.all(np.asarray(made.outlet_bore) <= BIN.diameters[-1])
