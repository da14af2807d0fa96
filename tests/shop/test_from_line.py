"""A shop filled from a line, and a line made of a shop."""

from __future__ import annotations

import pytest

from fenwick.core.judging.assess import assess
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.shop import add_item, edit_shop
from fenwick.shop.from_line import filled_from, line_of, not_listed
from fenwick.shop.read import empty_shop


def test_an_empty_shop_gets_all_that_a_line_has_but_its_bin() -> None:
    filled = filled_from(empty_shop("New"), demo_rig("demo_bench"))
    shop = filled.file
    assert [one.name for one in shop.vacuums] == ["Drum vac 1300 W"]
    assert [one.kind for one in shop.tools] == ["bandsaw", "router-table", "hand-held-sander", "floor-sweep"]
    assert {one.name for one in shop.hoses} == {
        "Bandsaw drop", "Router hose", "Sander hose", "Sweep hose", "Bench pipe", "Main hose", "Link hose",
    }  # fmt: skip
    assert shop.bins == (), "what stands under the separator is no spare one"
    assert len(filled.added) == len(shop.vacuums) + len(shop.tools) + len(shop.hoses) + len(shop.fittings)


def test_what_is_there_already_is_not_touched_and_nothing_comes_twice() -> None:
    shop = demo_shop()
    filled = filled_from(shop, demo_rig("demo_bench"))
    assert set(filled.added) == {"Bandsaw drop", "Bench pipe", "Router hose", "Sweep hose", "Main hose"}
    assert filled.file.hoses[: len(shop.hoses)] == shop.hoses
    assert filled.file.tools == shop.tools
    assert filled.added == not_listed(shop, demo_rig("demo_bench"))
    assert not_listed(filled.file, demo_rig("demo_bench")) == ()
    assert filled_from(filled.file, demo_rig("demo_bench")).added == ()


def test_ports_of_one_tool_are_one_tool_of_the_shop() -> None:
    rig = demo_rig("demo_bench")
    saw, sweep = "line.branches[0].port", "line.branches[2].port"
    changes = {f"{one}.tool": "Combination" for one in (saw, sweep)}
    both = edit_rig(rig, {**changes, f"{sweep}.dust_rate_kg_s": None})
    tools = filled_from(empty_shop("New"), both).file.tools
    assert [len(one.ports) for one in tools if any(port.tool for port in one.ports)] == [2]


def test_a_line_of_the_shop_has_every_tool_its_vacuum_and_its_longest_hose() -> None:
    shop = demo_shop()
    rig = line_of(shop)
    assert [way[0].port.name for way in rig.line.ways if way[0].port] == [tool.ports[0].name for tool in shop.tools]
    assert rig.line.use == "swap"
    assert rig.vacuum.name == shop.vacuums[0].name
    assert rig.line.elements[0].name == max(shop.hoses, key=lambda hose: hose.length_m).name
    assert rig.guesses == ()
    assert assess(build_line(rig)).point.port_flow[0, 0] > 0.01


def test_what_the_shop_has_not_is_a_guess() -> None:
    shop, _ = add_item(empty_shop("Bare"), "tools")
    rig = line_of(shop)
    assert {guess.part for guess in rig.guesses} == {"vacuum", "hose"}


def test_a_tool_of_several_ports_gets_a_branch_for_each() -> None:
    shop, name = add_item(empty_shop("Bare"), "tools")
    port = shop.tools[0].ports[0].model_dump(mode="json")
    shop = edit_shop(shop, {"tools[0].ports": [port, {**port, "name": "Overhead"}]})
    rig = line_of(shop)
    assert [way[0].id for way in rig.line.ways] == [f"tool-{name}-1", f"tool-{name}-2"]
    assert all(way[-1].gate is not None for way in rig.line.ways)


def test_an_empty_shop_says_what_is_missing() -> None:
    with pytest.raises(RigError, match="no tool yet"):
        line_of(empty_shop("Empty"))


def test_there_and_back_again_changes_nothing() -> None:
    shop = filled_from(empty_shop("New"), demo_rig("demo_bench")).file
    rig: Rig = line_of(shop)
    assert filled_from(shop, rig).added == ()
