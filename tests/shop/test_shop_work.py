"""Jobs of the shop on its lines, and the circuits its tools hang on; what is missing is said where it is."""

from __future__ import annotations

import copy
from typing import Any

import pytest

from fenwick.core.hours.work import room_in_bin, week
from fenwick.core.rules import RuleBook
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import RigError, build_line, edit_rig
from fenwick.shop import ShopFile, edit_shop
from fenwick.shop.read import check_shop
from fenwick.shop.supply import supplies_of
from fenwick.shop.work import HOUR, jobs_on_line, port_of_tool, room_of_shop, tool_of_port

RULES = RuleBook()


def shop(**changes: Any) -> ShopFile:
    """The demo shop with some values replaced."""
    return edit_shop(demo_shop(), changes)


def refused(document: dict[str, Any]) -> tuple[str, str]:
    """(path, rule) of what is wrong first."""
    with pytest.raises(RigError) as caught:
        check_shop(document)
    problem = caught.value.problems[0]
    return problem.path, problem.sentence("metric")


def test_jobs_follow_their_tool_to_its_line() -> None:
    rig = demo_rig("demo_bench")
    jobs, left = jobs_on_line(demo_shop(), rig, RULES)
    assert [job.id for job in jobs] == ["resaw", "finish", "binding"]
    assert [name for name, _ in left] == ["Thickness plates"]
    resaw, finish, _ = jobs
    assert resaw.mass == pytest.approx(0.0012 * 0.2 * 0.6 * 780.0)
    assert resaw.unit == "cut"
    assert resaw.seconds == pytest.approx(resaw.mass / 5e-4)
    assert finish.mass == pytest.approx(4e-5 * HOUR)
    assert finish.times == 4.0


def test_a_week_adds_up_and_fills_the_bin() -> None:
    rig = demo_rig("demo_bench")
    line = build_line(rig)
    jobs, _ = jobs_on_line(demo_shop(), rig, RULES)
    found = week(line, jobs)
    assert sum(found.ends.values()) == pytest.approx(found.made)
    assert found.made == pytest.approx(sum(one.mass_a_week for one in found.jobs))
    left = room_in_bin(line)
    assert left is not None
    for one in found.jobs:
        assert one.heap is not None
        assert one.until_full == pytest.approx(left / one.heap)
    assert found.bin_lasts is not None
    assert found.heap is not None
    assert week(line, []).made == 0.0


def test_planed_boards_by_hand() -> None:
    jobs, _ = jobs_on_line(demo_shop(), demo_rig(), RULES)
    (board,) = jobs
    assert board.mass == pytest.approx(0.2 * 0.0006 * 0.55 * 560.0)
    assert (board.unit, board.times) == ("board", 24.0)
    (soft,) = jobs_on_line(shop(**{"jobs[1].wood_kg_m3": None}), demo_rig(), RULES)[0]
    assert soft.mass == pytest.approx(board.mass / 560.0 * 600.0)


def test_a_job_whose_tool_makes_nobody_knows_what_is_left_out_by_name() -> None:
    rig = edit_rig(demo_rig(), {"line.branches[0].port.dust_rate_kg_s": None})
    bare = demo_shop().model_dump(mode="json")
    for tool in bare["tools"]:
        tool["ports"][0]["dust_rate_kg_s"] = None
    bare["jobs"] = [{"id": "sand", "name": "Sand", "tool": "drum-sander", "hours_a_week": 1.0}]
    jobs, left = jobs_on_line(check_shop(bare), rig, RULES)
    assert jobs == []
    assert left == [("Sand", "what the drum sander makes in a minute is not known")]


def test_a_job_without_a_tool_and_a_circuit_of_nothing_are_refused_at_their_keys() -> None:
    document = demo_shop().model_dump(mode="json")
    jobless = copy.deepcopy(document)
    del jobless["jobs"][0]["tool"]
    assert refused(jobless)[0] == "jobs[0].tool"
    unknown = copy.deepcopy(document)
    unknown["jobs"][0]["tool"] = "nobody"
    assert refused(unknown) == ("jobs[0].tool", "names no tool of this shop")
    dead = copy.deepcopy(document)
    dead["circuits"][0]["rating_a"] = 0.0
    assert refused(dead)[0] == "circuits[0].rating_a"
    half = copy.deepcopy(document)
    half["jobs"][0]["length_m"] = None
    path, said = refused(half)
    assert path == "jobs[0].length_m"
    assert "how much dust this job makes" in said


def test_the_room_of_a_shop_and_what_is_assumed_of_it() -> None:
    room = room_of_shop(demo_shop(), RULES)
    assert room.volume == pytest.approx(5.0 * 3.6 * 2.4)
    assert float(room.rate) == pytest.approx(0.5 / HOUR)
    shut = room_of_shop(shop(**{"room.air_changes_per_h": None}), RULES)
    assert float(shut.rate) == pytest.approx(0.5 / HOUR)
    cleaned = room_of_shop(demo_shop(), RULES, 0.1)
    assert float(cleaned.rate) == pytest.approx(0.5 / HOUR + 0.1 / room.volume)


def test_tools_are_found_by_the_names_of_their_ports() -> None:
    rig, owned = demo_rig("demo_bench"), demo_shop()
    for i, way in enumerate(rig.line.ways):
        tool = tool_of_port(owned, rig, i)
        if tool is not None:
            assert port_of_tool(rig, tool) == i
            assert way[0].port is not None
            assert tool.ports[0].name.lower() == way[0].port.name.lower()
    assert tool_of_port(None, rig, 0) is None


def test_supplies_come_from_circuits_that_tool_and_vacuum_share() -> None:
    rig = demo_rig()
    (supply,) = supplies_of(demo_shop(), rig, build_line(rig))
    assert supply.circuit == "North wall"
    assert (supply.tool, supply.vacuum) == (5.0, 5.7)
    assert (supply.breaker, supply.switch, supply.run_on) == (16.0, 10.0, 3.0)
    assert supply.clears is not None
    apart = shop(**{"tools[1].circuit": "bench-outlet"})
    (elsewhere,) = supplies_of(apart, rig, build_line(rig))
    assert elsewhere.circuit is None
    by_power = shop(**{"vacuums[0].current_a": None})
    (watts,) = supplies_of(by_power, rig, build_line(rig))
    assert watts.vacuum == pytest.approx(1300.0 / 230.0)
    assert supplies_of(None, rig, build_line(rig)) == ()
