"""Ways over a floor: straight where they can be, shortest where they cannot, and never through a bench."""

from math import hypot, pi

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from fenwick.core.formulas.route import CLEARANCE, Block, crosses, distances_from, shortest_way, turns, way_length
from fenwick.core.rules import RuleBook
from fenwick.core.site.floor import Reach, best_spot, cord_reach, route

BENCH = Block(2.0, 2.0, 2.0, 1.0)
RULES = RuleBook()


def test_nothing_in_the_way_is_a_straight_line() -> None:
    way = shortest_way((0.0, 0.0), (3.0, 4.0), [])
    assert way.shape == (2, 2)
    assert way_length(way) == pytest.approx(5.0)
    assert turns(way).size == 0


def test_round_one_bench_by_hand() -> None:
    way = shortest_way((2.0, 0.5), (2.0, 3.5), [BENCH])
    side, step = 1.0 + CLEARANCE, 0.5 + CLEARANCE
    by_hand = 2 * hypot(side, 1.5 - step) + 2 * step
    assert way_length(way) == pytest.approx(by_hand)
    assert len(way) == 4
    assert turns(way) == pytest.approx([turns(way)[0]] * 2)


def test_a_tool_on_a_bench_is_not_shut_in_by_it() -> None:
    assert way_length(shortest_way((2.0, 2.0), (2.0, 4.0), [BENCH])) == pytest.approx(2.0)


@pytest.mark.parametrize(
    ("start", "end", "through"),
    [
        ((0.0, 2.0), (4.0, 2.0), True),
        ((0.0, 0.0), (4.0, 0.0), False),
        ((1.0, 1.5), (3.0, 1.5), False),  # along its edge
        ((0.0, 2.0), (0.9, 2.0), False),  # stops short
        ((2.0, 2.0), (2.0, 2.0), True),
    ],
)
def test_crossing(start: tuple[float, float], end: tuple[float, float], through: bool) -> None:
    assert bool(crosses(np.array(start), np.array(end), BENCH)) is through


BLOCKS = st.lists(
    st.builds(Block, st.floats(1.0, 5.0), st.floats(1.0, 4.0), st.floats(0.3, 1.5), st.floats(0.3, 1.5)), max_size=3
)
LEFT, RIGHT = (st.tuples(st.floats(x, x + 1.0), st.floats(2.0, 3.0)) for x in (0.0, 5.0))
BETWEEN = st.builds(Block, st.just(3.0), st.floats(2.2, 2.8), st.floats(0.3, 1.5), st.floats(1.8, 2.5))


@given(LEFT, RIGHT, st.builds(lambda blocks, between: [*blocks, between], BLOCKS, BETWEEN))
def test_a_way_is_no_shorter_than_straight_and_runs_through_nothing(
    start: tuple[float, float], end: tuple[float, float], blocks: list[Block]
) -> None:
    way = shortest_way(start, end, blocks)
    assert way_length(way) >= hypot(start[0] - end[0], start[1] - end[1]) - 1e-9
    assume(len(way) > 2)  # walled in, the answer is the straight line
    ends = np.array([start, end])
    for block in blocks:
        if not block.holds(ends).any():
            assert not crosses(way[:-1], way[1:], block).any()
    found = distances_from(start, np.array([end]), [b for b in blocks if not b.holds(ends).any()])
    assert found[0] == pytest.approx(way_length(way), rel=1e-6)


def test_a_hose_takes_rise_travel_and_slack_and_bends_at_its_ends() -> None:
    found = route(Reach("saw", (0.0, 0.0), 0.8, travel=0.4), (3.0, 0.0), 0.5, [], RULES)
    assert found.length == pytest.approx(3.0 + 0.8 + 0.5 + 0.4 + 0.3)
    assert found.bends == pytest.approx((pi / 2, pi / 2))


def test_the_best_spot_lies_between_the_tools_and_off_the_bench() -> None:
    tools = [Reach("a", (0.5, 0.5), 0.8), Reach("b", (4.5, 0.5), 0.8)]
    spot = best_spot((5.0, 4.0), tools, 0.5, [], RULES)
    assert spot is not None
    assert spot.place == pytest.approx((2.5, 0.5), abs=0.11)
    assert spot.length == pytest.approx(2.0 + 0.8 + 0.5 + 0.3, abs=0.1)
    taken = best_spot((5.0, 4.0), tools, 0.5, [Block(2.5, 0.5, 1.0, 0.6)], RULES)
    assert taken is not None
    assert taken.length > spot.length
    assert best_spot((5.0, 4.0), [], 0.5, [], RULES) is None
    assert best_spot((0.3, 0.3), tools, 0.5, [], RULES) is None


def test_no_other_place_on_the_grid_is_better() -> None:
    tools = [Reach(str(i), place, 0.8) for i, place in enumerate([(0.4, 3.2), (4.4, 2.9), (2.0, 0.6)])]
    blocks = [Block(2.2, 2.0, 1.6, 0.6)]
    spot = best_spot((5.0, 3.6), tools, 0.5, blocks, RULES)
    assert spot is not None
    rng = np.random.default_rng(3)
    for x, y in rng.uniform((0.3, 0.3), (4.7, 3.3), (60, 2)):
        place = (round(float(x), 1), round(float(y), 1))
        if Block(2.2, 2.0, 2.1, 1.1).holds(np.array([place]))[0]:
            continue
        longest = max(route(tool, place, 0.5, blocks, RULES).length for tool in tools)
        assert longest >= spot.length - 1e-6


def test_the_nearest_outlet_along_the_walls() -> None:
    assert cord_reach((1.0, 1.0), [("far", (4.0, 3.0)), ("near", (0.0, 1.5))]) == ("near", 1.5)
    assert cord_reach((1.0, 1.0), []) is None
