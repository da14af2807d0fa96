"""Two lines side by side: tools matched, the week's work, and figures without a band."""

from __future__ import annotations

import json

import pytest

from fenwick.core.search.apart import BETTER, CANNOT_TELL, SAME, WORSE
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import Rig, edit_rig
from fenwick.rig.edits.ports import alone
from fenwick.rig.result import solve_rig
from fenwick.services.checks import acts_of
from fenwick.services.side_by_side import line_price, matched_ports, side_by_side

BENCH, SHOP = "demo_bench", demo_shop()


def test_tools_are_matched_by_id_then_by_name_and_a_lone_one_with_a_lone_one() -> None:
    bench = demo_rig(BENCH)
    assert matched_ports(bench, bench) == ((0, 0), (1, 1), (2, 2), (3, 3))
    assert matched_ports(demo_rig(), demo_rig("demo_cyclone")) == ((0, 0),)
    renamed = json.loads(bench.model_dump_json().replace('"id":"bandsaw"', '"id":"another"'))
    other = Rig.model_validate({**renamed, "line": {**renamed["line"], "combinations": []}})
    assert matched_ports(bench, other)[0] == (0, 0), "its name is the same"
    assert (None, 0) in matched_ports(bench, demo_rig())
    assert sum(pair[1] is None for pair in matched_ports(bench, demo_rig())) == 4


def test_each_port_s_figures_are_those_of_the_port_alone() -> None:
    bench = demo_rig(BENCH)
    for port in side_by_side(bench, bench, None).ports:
        assert port.left is not None
        own = bench.line.ways[port.left][0].id
        lone = alone(bench, own)
        assert lone is not None
        solved = next(one for one in solve_rig(lone)["ports"] if one["id"] == own)
        left = port.figures["flow"].left
        assert left is not None
        assert left.now == pytest.approx(solved["flow_m3_s"], rel=1e-6)


def test_a_fuller_bin_gives_back_and_the_week_shows_it() -> None:
    bench = demo_rig(BENCH)
    height = bench.line.elements[1].bin.profile[-1].height_m  # type: ignore[union-attr]
    full = edit_rig(bench, {"line.elements[1].bin.fill_height_m": 0.95 * height})
    found = side_by_side(bench, full, SHOP)
    assert found.weighed
    assert found.whole["week_in_bin"].verdict == WORSE
    assert found.whole["mark"].verdict == SAME, "where to empty it is a matter of the bin"
    assert found.tally[WORSE] > found.tally[BETTER] == 0


def test_acts_are_those_that_every_page_counts() -> None:
    one, other = demo_rig(), demo_rig("demo_cyclone")
    acts = side_by_side(one, other, SHOP).whole["acts"]
    assert acts.left is not None
    assert acts.right is not None
    assert (acts.left.now, acts.right.now) == (acts_of(one, SHOP), acts_of(other, SHOP))


def test_round_prices_tell_only_what_they_can() -> None:
    rig = demo_rig()
    assert side_by_side(rig, edit_rig(rig, {"line.elements[0].price": 60.0}), None).whole["price"].verdict == (
        CANNOT_TELL
    )
    dear = edit_rig(rig, {"line.elements[0].price": 900.0})
    assert side_by_side(rig, dear, None).whole["price"].verdict == WORSE
    assert line_price(dear) - line_price(rig) == pytest.approx(900.0 - 45.0)


def _with_loudness(rig: Rig, level: float | None) -> Rig:
    return edit_rig(rig, {"vacuum.loudness_dba": level})


def test_loudness_is_compared_only_where_both_were_read() -> None:
    rig = demo_rig()
    loud, quiet = _with_loudness(rig, 84.0), _with_loudness(rig, 78.0)
    assert "loudness" not in side_by_side(rig, rig, None).whole
    assert side_by_side(rig, quiet, None).whole["loudness"].verdict is None
    assert side_by_side(loud, quiet, None).whole["loudness"].verdict == BETTER


def test_the_height_is_told_and_not_judged() -> None:
    height = side_by_side(demo_rig(), demo_rig("demo_cyclone"), None).whole["height"]
    assert height.verdict is None
    assert height.left is not None
    assert height.right is not None
    assert height.left.now < height.right.now


def test_a_line_without_a_separator_has_no_mark_and_no_height() -> None:
    rig = demo_rig()
    document = rig.model_dump(mode="json")
    document["line"]["elements"] = [e for e in document["line"]["elements"] if e["kind"] != "separator"]
    bare = Rig.model_validate(document)
    found = side_by_side(bare, bare, None)
    assert not {"mark", "height", "cut_size", "folding"} & set(found.whole)
    half = side_by_side(rig, bare, None).whole["mark"]
    assert half.right is None
    assert half.verdict is None
