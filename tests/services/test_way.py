"""The ways of a line: within what was said, in an order that makes sense, confirmed by solving the line they end in."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given, settings
from sqlmodel import Session

from fenwick.core.errors import CoreError
from fenwick.core.judging.check import ACT
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.data.lines import line_state
from fenwick.rig import Rig, build_line, check_rig
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services.checks import checked, tally
from fenwick.services.moves import moves_for, with_moves
from fenwick.services.solving import solve
from fenwick.services.way import FoundWays, WayAsked, asked_limits, search_ways, ways_to, works_of
from fenwick.services.way_document import plans_document
from fenwick.services.way_steps import as_it_stands, steps_of, whole_count
from fenwick.shop import check_shop
from tests.test_rigs import rigs

NAMES = ("demo_line", "demo_bench", "demo_cyclone")


def ways(name: str, **asked: object) -> FoundWays:
    """Of a demo line in the demo shop."""
    return ways_to(demo_rig(name), demo_shop(), WayAsked(**asked))  # type: ignore[arg-type]


@pytest.mark.parametrize("name", NAMES)
def test_every_step_lowers_the_count_or_says_which_later_one_it_prepares(name: str) -> None:
    found = ways(name)
    assert found.ways
    for way in found.ways:
        keys = [step.move.option.key for step in way.steps]
        assert len(set(keys)) == len(keys) <= 6
        before = found.count
        for place, step in enumerate(way.steps):
            lowers = step.count.figures < before.figures
            assert lowers or step.prepares in keys[place + 1 :], step.move.option.key
            before = step.count
        assert before == way.count


@pytest.mark.parametrize("name", NAMES)
def test_a_way_ends_in_the_line_that_it_says_and_keeps_to_its_limits(name: str) -> None:
    rig, found = demo_rig(name), ways(name)
    for way in found.ways:
        assert with_moves(rig, [step.move for step in way.steps]) == way.rig == way.steps[-1].rig
        assert as_it_stands(way.rig) == way.figures
        assert way.limits.allows(way.cost, way.hours)
        whole = whole_count(way.rig, found.works, demo_shop())
        assert whole is not None
        assert whole.count == way.count
        assert way.count.better_than(found.count)
    counts = [way.count for way in found.ways]
    assert all(later.better_than(earlier) for earlier, later in pairwise(counts))


def test_more_than_one_change_is_found_where_one_is_not_enough() -> None:
    found = ways("demo_line")
    assert found.count.acts == 5
    free, paid = found.ways[:2]
    assert free.cost == 0.0
    assert free.count.acts < found.count.acts
    assert paid.count.acts == 1
    assert paid.cost <= 60.0
    assert len(paid.steps) > 1
    assert [check.id for check in found.left] == ["switch"]  # an electrician's, whatever is done to the line


def test_what_stays_to_act_on_is_told_from_the_furthest_way() -> None:
    found = ways("demo_line", spend=0.0, hours=3.0)
    (way,) = found.ways
    whole = whole_count(way.rig, found.works, demo_shop())
    assert whole is not None
    assert found.left == whole.acting
    assert found.left
    assert all(int(check.level[0]) == ACT for check in found.left)


@pytest.mark.parametrize(
    ("asked", "limits"),
    [
        (WayAsked(), [(0.0, 3.0), (60.0, 12.0), (None, None)]),
        (WayAsked(spend=20.0), [(0.0, 3.0), (20.0, None)]),
        (WayAsked(hours=1.0), [(0.0, 1.0), (None, 1.0)]),
        (WayAsked(20.0, 5.0), [(0.0, 3.0), (20.0, 5.0)]),
        (WayAsked(0.0, 5.0), [(0.0, 5.0)]),
        (WayAsked(0.0), [(0.0, None)]),
        (WayAsked(0.0, 0.0), [(0.0, 0.0)]),
        (WayAsked(1e9), [(0.0, 3.0), (1e9, None)]),
    ],
)
def test_there_are_three_ways_at_most_and_the_best_of_all_only_without_a_limit(
    asked: WayAsked, limits: list[tuple[float | None, float | None]]
) -> None:
    assert [(one.cost, one.hours) for one in asked_limits(asked)] == limits


def test_with_no_time_at_all_there_is_no_way_and_all_of_it_is_left() -> None:
    found = ways("demo_line", spend=0.0, hours=0.0)
    assert found.ways == ()
    assert len(found.left) == found.count.acts == 5


def test_what_was_struck_out_is_in_no_way_and_all_of_it_leaves_none() -> None:
    free = ways("demo_line").ways[0]
    gone = free.steps[0].move.option.key
    again = ways("demo_line", struck=(gone,))
    assert all(step.move.option.key != gone for way in again.ways for step in way.steps)
    every = tuple(move.option.key for move in moves_for(demo_rig(), demo_shop(), [0]))
    nothing = ways("demo_line", struck=every)
    assert (nothing.ways, nothing.possible) == ((), 0)
    assert nothing.left


def test_a_shop_without_parts_and_no_shop_at_all_have_ways_too() -> None:
    bare = check_shop({"format": "fenwick-shop", "version": 1, "name": "Bare", "room": {"width_m": 4, "depth_m": 4}})
    for shop in (None, bare):
        found = ways_to(demo_rig(), shop, WayAsked(30.0, 4.0))
        assert found.ways
        assert not [use for way in found.ways for step in way.steps for use in step.move.option.uses]


def test_the_weeks_work_is_that_of_the_jobs_or_an_hour_at_each_tool() -> None:
    rig = demo_rig("demo_bench")
    line = build_line(rig)
    jobs, none = works_of(rig, demo_shop(), line), works_of(rig, None, line)
    assert len(none) == len(line.leaves)
    assert none != jobs
    for work in none:
        rate = line.leaves[work.port].port.dust_rate
        assert work.mass == (1.0 if rate is None else pytest.approx(float(rate) * 3600.0))


def test_a_separator_that_cannot_be_made_with_the_tools_there_are_is_bought_or_left_out() -> None:
    shop = check_shop({**demo_shop().model_dump(mode="json"), "cutting": [{"id": "drill", "kind": "drill"}]})
    moves = moves_for(demo_rig(), shop, [0])
    made = [move for move in moves if move.option.key.endswith("~made")]
    assert made
    assert all(move.option.tools for move in made)
    found = ways_to(demo_rig(), shop, WayAsked(40.0, 12.0))
    assert not [s for way in found.ways for s in way.steps if s.move.option.key.endswith("~made")]
    assert set(found.lacking) == {tool for move in moves for tool in move.option.tools}


def test_where_it_stands_is_told_as_it_goes_and_it_ends_when_told_to() -> None:
    states = list(search_ways(demo_rig(), demo_shop(), WayAsked(10.0, 2.0)))
    tried = [state.tried for state in states]
    assert tried == sorted(tried)
    assert len(states) > 4
    assert [state.found is not None for state in states] == [False] * (len(states) - 1) + [True]
    *_, stopped = search_ways(demo_rig(), demo_shop(), WayAsked(10.0, 2.0), stop=lambda: True)
    assert stopped.found is not None
    assert stopped.found.ways == ()


def test_a_step_that_helps_only_later_says_what_it_prepares() -> None:
    rig, shop = demo_rig(), demo_shop()
    works = works_of(rig, shop, build_line(rig))
    moves = {move.option.key: move for move in moves_for(rig, shop, [0])}
    idle = next(key for key in moves if key.startswith("straight~"))
    worse = next(key for key in moves if key.startswith("bore~hose-a"))
    first, last = steps_of(rig, [moves[worse], moves["plate~drum-sander"]], works, shop)
    assert first.prepares in (None, "plate~drum-sander")
    assert last.prepares is None
    lowers = first.count.figures < whole_count(rig, works, shop).count.figures  # type: ignore[union-attr]
    assert (first.prepares is None) is lowers
    assert steps_of(rig, [moves[idle]], works, shop)[0].prepares is None


def test_what_there_is_to_act_on_is_what_the_checks_count(session: Session) -> None:
    state = line_state(session, 1)
    found = ways_to(state.rig, state.owned, WayAsked(0.0, 0.0))
    assert found.count.acts == tally(checked(session, state)).act == 5
    without = ways_to(demo_rig(), None, WayAsked(0.0, 0.0))
    assert without.count.acts == without.today.acts == 4  # what only the shop knows is left out


@settings(max_examples=20)
@given(rigs())
def test_any_line_has_its_moves_and_a_search_that_can_be_stopped(rig: Rig) -> None:
    try:
        *_, last = search_ways(rig, demo_shop(), WayAsked(30.0, 4.0), stop=lambda: True)
    except CoreError:  # it does not settle as it stands, and says so
        return
    assert last.found is not None
    assert last.found.ways == ()


def test_a_filter_is_not_cleaned_that_another_vacuum_does_not_have() -> None:
    bare = demo_shop().model_dump(mode="json")
    for vacuum in bare["vacuums"]:
        vacuum["filter"] = vacuum["bag"] = None
    found = ways_to(demo_rig(), check_shop(bare), WayAsked(0.0, 2.0))
    assert found.ways
    for way in found.ways:
        keys = {step.move.option.key.partition("~")[0] for step in way.steps}
        assert not keys >= {"vacuum", "clean"}


def test_a_line_without_a_separator_is_offered_one_over_a_bin_of_the_shop() -> None:
    document = demo_rig().model_dump(mode="json")
    document["line"]["elements"] = [one for one in document["line"]["elements"] if one["kind"] != "separator"]
    bare = check_rig(document)
    assert [check.id for check in solve(bare).found.checks if check.id == "kept" and int(check.level[0]) == ACT]
    found = ways_to(bare, demo_shop(), WayAsked(60.0, 12.0))
    way = found.ways[-1]
    assert [step.move.option.key for step in way.steps if step.move.option.key.startswith("separator~")]
    assert [one for one in way.rig.line.elements if isinstance(one, SeparatorPart)]
    assert way.count.past < 0.3 * found.count.past
    alone = ways_to(bare, None, WayAsked(60.0, 12.0)).ways[-1]
    first = next(step.move.option for step in alone.steps if step.move.option.key.startswith("separator~"))
    assert first.cost > 25.0  # the bin is bought, too
    assert not first.uses


def test_of_dust_that_nobody_knows_no_mass_is_told() -> None:
    nobody = check_rig({**demo_rig().model_dump(mode="json"), "dust": None})
    told = plans_document(ways_to(nobody, demo_shop(), WayAsked(20.0, 4.0)), "€", voice_for(nobody, "metric"))
    weeks = [told["week_today"], *(plan["week"] for plan in told["plans"])]
    assert all((week["lost_kg"], week["past_bin_kg"]) == (None, None) for week in weeks)
    assert told["plans"][-1]["week"]["acts"] < told["week_today"]["acts"]


def test_more_may_be_spent_and_no_way_gets_worse() -> None:
    ends = [ways("demo_cyclone", spend=spend, hours=12.0).ways[-1].count for spend in (0.0, 10.0, 40.0, 1e9)]
    for cheaper, dearer in pairwise(ends):
        assert not cheaper.better_than(dearer)
