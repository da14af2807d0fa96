"""The finder: every design keeps to its limits, is solved as it would be alone, and comes again with its seed."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.bins import Bin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.search.designs import (
    BOUGHT,
    MADE,
    RANGES,
    Effort,
    HoseEnds,
    build,
    effort,
    one_of,
    sample,
    transitions,
)  # fmt: skip
from fenwick.core.search.effects import with_stage
from fenwick.core.search.finder import Limits, Scores, Search, search, to_carry
from fenwick.core.search.on_the_line import evaluate
from fenwick.core.search.work import PortWork
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line
from tests.lines import disc_line

BIN = Bin((0.0, 0.42), (0.32, 0.38), fill_height=0.05, leak_area=4e-6)


def started() -> Line:
    """A line with a disc over a tapered bin."""
    line = disc_line()
    disc = replace(line.separators[0], bin=BIN)  # type: ignore[type-var]
    return with_stage(line, disc)


def finished(limits: Limits, count: int = 600, seed: int = 3, **wishes: float) -> Search:
    """The end of a search."""
    line = started()
    *_, last = search(line, line.separators[0], 0, limits, wishes or None, count, seed)
    assert last.over
    return last


@pytest.mark.parametrize("kind", RANGES)
def test_many_designs_are_those_solved_alone(kind: str) -> None:
    line = started()
    designs = build(kind, sample(kind, 24, 5), "sep", BIN, 0.05, "shop-built")
    found = evaluate(line, designs, 0)
    assert np.all((found.kept >= 0.0) & (found.kept <= 1.0))
    for i in (0, 11, 23):
        alone = assess(with_stage(line, one_of(designs, i)))
        assert alone.kept is not None
        assert alone.separations[0].grades is not None
        assert found.kept[i] == pytest.approx(float(alone.kept[0]), abs=1e-4)
        assert found.air[i] == pytest.approx(float(alone.point.port_flow[0, 0]), rel=1e-4)
        assert found.suction[i] == pytest.approx(float(alone.separations[0].pressure_drop[0]), rel=1e-3)
        assert found.cut_size[i] == pytest.approx(float(alone.separations[0].grades.cut_size[0]), rel=1e-3)


@pytest.mark.parametrize("kind", RANGES)
def test_every_design_can_be_built(kind: str) -> None:
    designs = build(kind, sample(kind, 400, 1), "sep", BIN, 0.05, "smooth")
    g = designs.geometry
    assert np.all(np.asarray(g.outlet_radius) < np.asarray(g.body_radius))
    assert np.all(np.asarray(g.inlet_width) <= np.asarray(g.body_radius) + 1e-12)
    assert np.all(np.asarray(designs.free_height) > 0.0)
    if isinstance(designs, Cyclone):
        s = designs.shape
        assert np.all(np.asarray(s.inlet_height) <= np.asarray(s.outlet_length) + 1e-12)
        assert np.all(np.asarray(s.outlet_length) < np.asarray(s.cylinder))
        assert np.all(np.asarray(s.cylinder) < np.asarray(s.height))


def test_designs_keep_to_their_limits_and_the_best_comes_first() -> None:
    found = finished(Limits(height=0.75, suction=2500.0, hours=4.0, largest_hole=0.07, sheet=(0.6, 0.4)))
    assert found.designs
    for design in found.designs:
        assert design.height <= 0.75
        assert design.suction <= 2500.0
        assert design.hours <= 4.0
        assert design.kind != "cyclone"  # six hours of work
    scores = [design.score for design in found.designs]
    assert scores == sorted(scores, reverse=True)
    assert found.feasible <= found.tried


def test_grey_designs_are_beaten_and_the_others_are_not() -> None:
    found = finished(Limits(), kept=1.0, air=1.0)
    free = [design for design in found.designs if not design.dominated]
    for design in found.designs:
        better = [f for f in free if f.kept >= design.kept and f.air >= design.air and f != design]
        assert any(f.kept > design.kept or f.air > design.air for f in better) is design.dominated


def test_the_same_seed_finds_the_same_and_another_something_else() -> None:
    first, again, other = (finished(Limits(), 200, seed).designs for seed in (3, 3, 4))
    assert first == again
    assert first != other


def test_closer_rounds_find_better_ones() -> None:
    line = started()
    designs = build("hung-disc", sample("hung-disc", 330, 3000), "sep", BIN, 0.05, "shop-built")
    anywhere = float(evaluate(line, designs, 0).kept.max())
    found = finished(Limits(kinds=("hung-disc",)), 600, 3, kept=1.0)
    assert found.designs[0].kept >= anywhere


@pytest.mark.parametrize(
    ("limits", "name", "least"),
    [
        (Limits(height=0.30), "height", 0.42),
        (Limits(kinds=("cyclone",), hours=2.0), "hours", 6.0),
        (Limits(cutter_reach=0.008), "cutter_reach", 0.012),
    ],
)
def test_the_limit_in_the_way_is_named_with_what_it_would_take(limits: Limits, name: str, least: float) -> None:
    found = finished(limits, 200)
    assert found.designs == ()
    assert found.in_the_way[0].limit == name
    assert found.in_the_way[0].alone
    assert found.in_the_way[0].least == pytest.approx(least, rel=1e-6)


def test_two_limits_in_the_way_say_that_neither_is_alone() -> None:
    found = finished(Limits(height=0.3, hours=0.1), 200)
    assert {way.limit for way in found.in_the_way} == {"height", "hours"}
    assert not any(way.alone for way in found.in_the_way)


def test_a_search_can_be_stopped_and_hands_over_what_it_has() -> None:
    line, calls = started(), []

    def stop() -> bool:
        calls.append(1)
        return len(calls) > 2

    *_, last = search(line, line.separators[0], 0, Limits(), None, 1000, 1, stop)
    assert last.over
    assert last.designs
    assert last.tried < 500


def test_bought_takes_no_saw_and_less_time() -> None:
    rules = disc_line().rules
    designs = build("cyclone", sample("cyclone", 20, 1), "sep", BIN, 0.05, "smooth")
    made, bought = (effort("cyclone", designs, how, (0.6, 0.4), rules) for how in (MADE, BOUGHT))
    assert np.all(bought.largest_hole == 0.0)
    assert np.all(bought.sheet == 0.0)
    assert np.all(bought.hours < made.hours)
    assert np.all(made.sheet > 0.0)
    assert np.all(made.height == bought.height)


def test_for_several_tools_a_design_is_judged_by_the_dust_that_each_makes() -> None:
    line = build_line(demo_rig("demo_bench"))
    stage, works = line.separators[0], [PortWork(0, 3.0), PortWork(2, 1.0)]
    both = evaluate(line, stage, 0, works)
    saw, sander = (evaluate(line_alone(line, port), stage, port) for port in (0, 2))
    assert both.kept[0] == pytest.approx(0.75 * saw.kept[0] + 0.25 * sander.kept[0])
    assert both.air[0] == pytest.approx(0.75 * saw.air[0] + 0.25 * sander.air[0])
    assert both.suction[0] == max(saw.suction[0], sander.suction[0])
    assert (both.worst[0], both.worst_port[0]) == (sander.kept[0], 2)
    *_, found = search(line, stage, 0, Limits(("cyclone",)), {"kept": 1.0}, 120, 1, works=works)
    best = found.designs[0]
    assert best.kept > both.kept[0]
    assert best.worst_port == 2
    assert best.worst <= best.kept


def test_more_than_half_of_what_gets_past_counts_as_much_at_either_end() -> None:
    scores = Scores.of
    low, high = (scores(_kept(np.array(pair)), "kept") for pair in ((0.80, 0.90), (0.98, 0.99)))
    assert low[1] - low[0] == pytest.approx(high[1] - high[0])


def _kept(kept: np.ndarray) -> Scores:  # type: ignore[type-arg]
    """Scores of which nothing but what is kept is looked at."""
    nothing = np.zeros_like(kept)
    taken = Effort(nothing, nothing, nothing, nothing, nothing)
    return Scores(kept, nothing, nothing, nothing, nothing, kept, nothing.astype(int), taken, nothing == 0.0)


@pytest.mark.parametrize("how", ["made", "bought"])
def test_a_transition_piece_is_counted_where_bores_differ(how: str) -> None:
    numbers = sample("slotted-disc", 40, 1)
    line = started()
    stage = line.separators[0]
    designs = build("slotted-disc", numbers, "sep", stage.bin, 0.05, "shop-built")
    without, with_ = (
        effort("slotted-disc", designs, how, (1e9, 1e9), line.rules, ends) for ends in (None, HoseEnds(0.05, 0.05))
    )
    odd = transitions(designs, HoseEnds(0.05, 0.05))
    assert set(np.unique(odd)) <= {0.0, 1.0, 2.0}
    assert np.allclose(with_.cost - without.cost, 6.0 * odd)
    assert np.array_equal(with_.hours, without.hours), "an adapter is bought: the bench takes as long as it did"


def test_dust_is_carried_at_inlet_and_outlet_of_every_design_that_is_advised() -> None:
    found = finished(Limits(), 600, 3)
    stage = started().separators[0]
    today = float(evaluate(started(), stage, 0).carries[0])
    for design in found.designs[:40]:
        assert float(evaluate(started(), design.separator, 0).carries[0]) >= min(1.0, 0.9 * today) - 1e-6
    assert all(design.bought is not None for design in found.designs)
    assert all(design.bought is None for design in finished(Limits(how="bought"), 200, 3).designs)


@given(today=st.floats(0.0, 3.0), more=st.floats(1e-6, 0.01))
def test_what_a_design_has_to_carry_grows_without_a_jump(today: float, more: float) -> None:
    asked, next_ = to_carry(today), to_carry(today + more)
    assert asked <= min(today, 1.0), "today's own is never refused for it"
    assert 0.0 <= next_ - asked <= 1.2 * more
    assert today < 1.0 or asked == 1.0
