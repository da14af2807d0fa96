"""A line counted whole over the week's work, and the steps of a way put in an order by hand."""

from __future__ import annotations

from itertools import permutations

import pytest

from fenwick.core.judging.assess import assess
from fenwick.core.line.ports import line_alone
from fenwick.core.search.figures import figures_at
from fenwick.core.search.way.count import Counter, combination
from fenwick.core.search.work import PortWork
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import build_line
from fenwick.services.moves import moves_for, with_moves
from fenwick.services.way_kept import kept_steps, moves_of, resumed, with_steps
from fenwick.services.way_steps import steps_of, whole_count

WORKS = (PortWork(0, 2.0), PortWork(2, 0.5))


def test_every_port_counts_by_what_is_made_at_it() -> None:
    rig = demo_rig("demo_bench")
    line = build_line(rig)
    whole = whole_count(rig, WORKS, None)
    assert whole is not None
    lost = past = 0.0
    for work, port in zip(WORKS, whole.ports, strict=True):
        lone = line_alone(line, work.port)
        figures = figures_at(lone, assess(lone), work.port)
        assert figures.lost is not None
        assert figures.in_bin is not None
        assert port.id == line.leaves[work.port].id
        assert port.flow == pytest.approx(float(figures.flow[0]))
        assert port.in_bin == pytest.approx(float(figures.in_bin[0]))
        lost += work.mass * float(figures.lost[0])
        past += work.mass * (1.0 - float(figures.in_bin[0]) - float(figures.lost[0]))
    assert (whole.count.lost, whole.count.past) == (pytest.approx(lost), pytest.approx(past))
    assert whole.count.made == 2.5
    assert whole.count.acts == len(whole.acting)
    acting, watching = ({(one.id, one.part) for one in checks} for checks in (whole.acting, whole.watching))
    assert not acting & watching


def test_what_is_screened_is_what_is_solved_whole() -> None:
    rig, shop = demo_rig("demo_bench"), demo_shop()
    moves = [move for move in moves_for(rig, shop, [0, 2]) if not move.option.tools][::7]
    counter = Counter(
        lambda chosen: None if (made := with_moves(rig, [moves[i] for i in chosen])) is None else build_line(made),
        [move.option for move in moves], WORKS,
    )  # fmt: skip
    pairs = [(i, j) for i in range(len(moves)) for j in range(i)][::5]
    for pair, count in zip(pairs, counter.count([combination(pair) for pair in pairs]), strict=True):
        changed = with_moves(rig, [moves[i] for i in pair])
        if changed is None or count is None:
            continue
        whole = whole_count(changed, WORKS, None)
        assert whole is not None
        near = 0.03 if any(moves[i].option.key.startswith("smooth~") for i in pair) else 1e-3  # bends keep a surcharge
        assert count.lost == pytest.approx(whole.count.lost, rel=near, abs=1e-4)
        assert count.past == pytest.approx(whole.count.past, rel=10 * near, abs=2e-3)


def test_whatever_the_order_the_steps_end_in_the_same_line() -> None:
    rig, shop = demo_rig(), demo_shop()
    known = moves_of(rig, shop)
    keys = ["tie~sep", "plate~drum-sander", "seal-bin~sep~0"]
    ends = []
    for order in permutations(keys):
        steps = steps_of(rig, [known[key] for key in order], (PortWork(0, 1.0),), shop)
        assert [step.move.option.key for step in steps] == list(order)
        ends.append(steps[-1].rig)
    assert all(end == ends[0] for end in ends)


def test_a_way_is_resumed_on_the_line_as_it_stands() -> None:
    rig, shop = demo_rig(), demo_shop()
    keys = ("tie~sep", "plate~drum-sander", "not~known~0")
    found = resumed(rig, shop, keys)
    assert [step.move.option.key for step in found.steps] == list(keys[:2])
    assert found.gone == ("not~known~0",)
    assert found.end == found.steps[-1]
    made = with_steps(rig, shop, keys[:1])
    assert made is not None
    later = resumed(made, shop, keys)
    assert [step.move.option.key for step in later.steps] == ["plate~drum-sander"]
    assert later.gone == ("tie~sep", "not~known~0")
    assert resumed(rig, shop, ()).end is None


def test_steps_that_a_line_does_not_take_make_no_line() -> None:
    rig, shop = demo_rig(), demo_shop()
    assert with_steps(rig, shop, []) is None
    assert with_steps(rig, shop, ["tie~sep", "nothing"]) is None


def test_steps_are_kept_with_what_they_take_and_as_they_read() -> None:
    rig, shop = demo_rig(), demo_shop()
    steps = resumed(rig, shop, ("tie~sep", "seal-bin~sep~0")).steps
    kept = kept_steps(steps, ["Tie it", "x" * 400])
    assert [(one.key, one.cost, one.hours) for one in kept] == [
        (step.move.option.key, step.move.option.cost, step.move.option.hours) for step in steps
    ]
    assert kept[0].words == "Tie it"
    assert len(kept[1].words) == 300
    assert all(one.done is None for one in kept)
