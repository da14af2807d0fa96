"""The best line from a drawer: everything sensible is tried, nothing used twice, and the figures are the rig's own."""

from itertools import pairwise

import numpy as np
import pytest

from fenwick.core.catalogue.parts import ADAPTER_PRICE
from fenwick.core.search.drawer import StockFitting, StockHose, Task, assignments, best_lines
from fenwick.core.search.figures import figures_of_each
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import build_line
from fenwick.shop import edit_shop
from fenwick.shop.drawer import lines_from_drawer, task_for
from tests.lines import disc_line

HOSES = [
    StockHose(str(i), bore, length, 1e-4) for i, (bore, length) in enumerate([(0.05, 3.0), (0.038, 2.0), (0.05, 1.0)])
]
FITTINGS = [StockFitting("cone", 0.038, 0.05, 0.08), StockFitting("wide", 0.063, 0.05, 0.05)]


def test_every_assignment_reaches_joins_up_and_uses_a_part_once() -> None:
    line = disc_line()
    found = assignments(line, 0, HOSES, FITTINGS, "drum", Task(2.5, 0.8))
    assert found
    for one in found:
        parts = [h.id for h in one.run] + [one.link.id if one.link else ""]
        fittings = [f.id for f in one.joints if f]
        assert len({*parts}) == len(parts)
        assert len({*fittings}) == len(fittings)
        assert sum(h.length for h in one.run) >= 2.5
        assert one.link is not None
        assert one.link.length >= 0.8
        assert (one.bought, one.price) == (0, 0.0)


def test_money_buys_the_adapter_that_is_missing() -> None:
    line = disc_line()
    free = assignments(line, 0, HOSES, [], "drum", Task(2.5, 0.8))
    paid = assignments(line, 0, HOSES, [], "drum", Task(2.5, 0.8, spend=2 * ADAPTER_PRICE))
    assert len(paid) > len(free)
    assert all(one.price == one.bought * ADAPTER_PRICE <= 2 * ADAPTER_PRICE for one in paid)


def test_two_hoses_are_joined_only_where_neither_reaches_alone() -> None:
    line = disc_line()
    assert all(len(one.run) == 1 for one in assignments(line, 0, HOSES, FITTINGS, "drum", Task(1.5, 0.8)))
    far = assignments(line, 0, HOSES, FITTINGS, "drum", Task(4.5, 0.8, spend=50.0))
    assert all({h.id for h in one.run} == {"0", "1"} for one in far)
    assert not assignments(line, 0, HOSES, FITTINGS, "drum", Task(9.0, 0.8))


def test_the_order_is_by_use_and_the_best_is_the_best_of_all() -> None:
    found = best_lines({"drum": disc_line()}, 0, HOSES, FITTINGS, Task(2.5, 0.8, spend=30.0))
    keys = [
        (int(f.figures.acts[0]), -round(float(f.figures.in_bin[0]), 3)) for f in found if f.figures.in_bin is not None
    ]
    assert keys == sorted(keys)
    assert len(keys) == len(found)


@pytest.mark.parametrize("spend", [0.0, 60.0])
def test_a_found_line_as_a_rig_computes_the_same(spend: float) -> None:
    rig, shop = demo_rig(), demo_shop()
    made = lines_from_drawer(rig, "drum-sander", shop, task_for(rig, "drum-sander", shop, spend))
    assert 1 <= len(made.free) <= 3
    assert len(made.paid) == (1 if spend else 0)
    for one in (*made.free, *made.paid):
        alone = figures_of_each([build_line(one.rig)], 0)[0]
        assert float(alone.flow[0]) == pytest.approx(float(one.line.figures.flow[0]), rel=1e-4)
        assert float(alone.flow[0]) == float(one.figures.flow[0])
        bores = [
            b for e in one.rig.line.branches[0].elements if e.kind == "reducer" for b in (e.bore_in_m, e.bore_out_m)
        ]
        assert all(a != b for a, b in pairwise(bores[:2]))
        assert (one.line.assignment.price > 0.0) is bool(one.buy)


def test_the_plan_says_what_must_be_reached_and_without_it_today_does() -> None:
    rig, shop = demo_rig(), demo_shop()
    planned = task_for(rig, "drum-sander", shop)
    assert planned.reach == pytest.approx(4.49, abs=0.02)
    unplaced = edit_shop(shop, {"separator_place": None})
    assert task_for(rig, "drum-sander", unplaced).reach == pytest.approx(5.0)


def test_with_more_money_it_never_gets_worse() -> None:
    rig, shop = demo_rig(), demo_shop()
    best = []
    for spend in (0.0, 15.0, 60.0, 200.0):
        made = lines_from_drawer(rig, "drum-sander", shop, task_for(rig, "drum-sander", shop, spend))
        figures = (*made.paid, *made.free)[0].line.figures
        assert figures.in_bin is not None
        best.append((int(figures.acts[0]), -round(float(figures.in_bin[0]), 3)))
    assert best == sorted(best, reverse=True)
    assert np.isfinite([b[1] for b in best]).all()
