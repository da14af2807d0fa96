"""The search over combinations: what each comes to, what may be done together, and that nothing better is missed."""

from __future__ import annotations

from itertools import pairwise

import pytest
from bench.soak.ways import compared
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.line.line import Line
from fenwick.core.search.changes import Candidate
from fenwick.core.search.way.count import NOTHING, Counter, WayCount, combination, places_of
from fenwick.core.search.way.options import WayLimits, WayOption, excluded
from fenwick.core.search.way.search import in_order, pruned, search_way
from fenwick.core.search.work import PortWork
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line
from tests.lines import disc_line

SEALED = Candidate("seal-bin", "sep")
UPRIGHT = Candidate("upright", "sep")
OPTIONS = (
    WayOption("seal", "sep", "seal", 8.0, 0.5, (SEALED,)),
    WayOption("empty", "sep", "empty", 0.0, 0.1, (Candidate("empty", "sep"),)),
    WayOption("50", "hose", "size", 20.0, 0.25, (Candidate("bore", "hose", 0.05),)),
    WayOption("32", "hose", "size", 0.0, 0.25, (Candidate("bore", "hose", 0.032),), uses=("blue",)),
    WayOption("blue-link", "link", "size-link", 0.0, 0.25, (Candidate("bore", "link", 0.032),), uses=("blue",)),
    WayOption("nearer", "tool", "nearer", 0.0, 0.75, (Candidate("nearer", "tool", 0.025),)),
    WayOption("strap", "sep", "strap", 0.0, 0.25, clears=1, still=True),
)


def counter(still: int = 1, options: tuple[WayOption, ...] = OPTIONS) -> Counter:
    """On one sander with a leaking bin."""
    line = disc_line(leak=2e-5)
    return Counter(lambda _: line, options, [PortWork(0, 1.0)], still)


@given(st.sets(st.integers(0, 200)))
def test_a_combination_is_told_by_its_places(places: set[int]) -> None:
    assert places_of(combination(places)) == tuple(sorted(places))


def test_what_needs_one_thing_or_goes_in_one_slot_is_not_done_together() -> None:
    shut = excluded(OPTIONS)
    assert all(shut[i] >> i & 1 for i in range(len(OPTIONS)))
    apart = {(i, j) for i in range(len(OPTIONS)) for j in range(i) if shut[i] >> j & 1}
    assert apart == {(3, 2), (4, 3)}  # two bores of one hose; the blue hose in two places
    assert all(bool(shut[i] >> j & 1) == bool(shut[j] >> i & 1) for i in range(7) for j in range(7))


def test_a_combination_counts_as_the_line_with_all_its_changes_does() -> None:
    some = counter()
    both, seal = some.count([combination((0, 5)), combination((0,))])
    assert both is not None
    assert seal is not None
    (alone,) = Counter(
        lambda _: disc_line(leak=0.0, distance=0.025), OPTIONS, [PortWork(0, 1.0)], 1
    ).count([NOTHING])  # fmt: skip
    assert alone is not None
    assert both.lost == pytest.approx(alone.lost, rel=1e-6)
    assert both.past == pytest.approx(alone.past, rel=1e-6)
    assert both.acts == alone.acts
    assert (both.cost, both.hours) == (8.0, 1.25)
    assert both.lost < seal.lost


def test_a_strap_clears_what_no_air_tells_and_changes_nothing_else() -> None:
    loose, tied = counter().count([NOTHING, combination((6,))])
    assert loose is not None
    assert tied is not None
    assert tied.acts == loose.acts - 1
    assert (tied.lost, tied.past) == (loose.lost, loose.past)
    (nothing_loose,) = counter(still=0).count([combination((6,))])
    assert nothing_loose is not None
    assert nothing_loose.acts == tied.acts  # it clears no more than there is


def test_a_line_that_cannot_be_made_counts_as_none_and_takes_no_other_with_it() -> None:
    whole = disc_line()
    made: dict[tuple[int, ...], Line | None] = {(): whole, (0,): None}
    options = (WayOption("box", "tool", "box", 15.0, 3.0), *OPTIONS[:2])
    bad, good = Counter(made.__getitem__, options, [PortWork(0, 1.0)]).count([combination((0, 1)), combination((1,))])
    assert bad is None
    assert good is not None


def test_it_keeps_to_its_limits_and_more_money_is_never_worse() -> None:
    some = counter()
    limits = [WayLimits(0.0, 1.0), WayLimits(10.0, 2.0), WayLimits(), WayLimits(None, None, 1)]
    *_, found = search_way(some, limits)
    for within, best in zip(limits, found.best, strict=True):
        assert all(within.allows(one.count.cost, one.count.hours) for one in best)
        assert all(one.chosen.bit_count() <= within.changes for one in best)
        assert [one.count.rank for one in best] == sorted(one.count.rank for one in best)
    first = [best[0].count.rank for best in found.best[:3]]
    assert all(dearer <= cheaper for cheaper, dearer in pairwise(first))
    assert first[2] < first[0]


def test_it_stops_when_it_is_told_to_and_still_says_what_it_has() -> None:
    (last,) = search_way(counter(), [WayLimits()], stop=lambda: True)
    assert last.tried == 1
    assert [one.chosen for one in last.best[0]] == [NOTHING]


def test_nothing_that_nobody_would_notice_stays_in_a_way() -> None:
    options = (*OPTIONS, WayOption("polish", "link", "polish", 30.0, 2.0, (Candidate("straight", "link"),)))
    some = counter(options=options)
    *_, found = search_way(some, [WayLimits()])
    best = found.best[0][0]
    short = pruned(some, best)
    assert 7 not in places_of(short.chosen)
    assert short.count.as_good_as(best.count)
    assert short.chosen & ~best.chosen == 0


def test_what_lowers_the_count_most_is_done_first() -> None:
    some = counter()
    order = in_order(some, combination((0, 1, 5, 6)))
    assert sorted(order) == [0, 1, 5, 6]
    counts = some.count([combination(order[:i]) for i in range(5)])
    for place, at in enumerate(order):
        others = some.count([combination([*order[:place], one]) for one in order[place:]])
        assert counts[place + 1] == min((one for one in others if one is not None), key=lambda one: one.rank), at


def test_the_first_thing_that_counts_decides() -> None:
    base = WayCount(2, 1.0, 0.5, 0.0, 0.0, 1.0)
    assert WayCount(1, 2.0, 2.0, 90.0, 9.0, 1.0).better_than(base)
    assert WayCount(2, 0.9, 2.0, 90.0, 9.0, 1.0).better_than(base)
    assert WayCount(2, 1.001, 0.4, 90.0, 9.0, 1.0).better_than(base)  # a gram in a kilogram is nothing
    assert not WayCount(2, 0.999, 0.499, 0.0, 0.0, 1.0).better_than(base)
    assert not WayCount(3, 0.0, 0.0, 0.0, 0.0, 1.0).better_than(base)
    assert WayCount(2, 1.001, 0.501, 0.0, 0.0, 1.0).as_good_as(base)
    assert not WayCount(2, 1.1, 0.0, 0.0, 0.0, 1.0).as_good_as(base)


def test_several_tools_are_weighed_by_their_work() -> None:
    line = build_line(demo_rig("demo_bench"))
    works = [PortWork(0, 2.0), PortWork(2, 0.5)]
    (both,) = Counter(lambda _: line, (), works).count([NOTHING])
    first, second = (Counter(lambda _: line, (), [work]).count([NOTHING])[0] for work in works)
    assert both is not None
    assert first is not None
    assert second is not None
    assert both.lost == pytest.approx(first.lost + second.lost)
    assert both.past == pytest.approx(first.past + second.past)
    assert both.made == 2.5
    assert max(first.acts, second.acts) <= both.acts <= first.acts + second.acts


def test_on_small_cases_it_finds_what_looking_at_every_combination_finds() -> None:
    same, of = compared(40)
    assert of == 40
    assert same >= 38
