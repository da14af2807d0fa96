"""What a shop owns, put into a line: a hose, an adapter, a vacuum, a tool; and a shop changed thing by thing."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.catalogue.parts import HOSE_BORES
from fenwick.core.judging.assess import assess
from fenwick.core.search.changes import EXCHANGE, Candidate
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import Rig, RigError, build_line, check_rig
from fenwick.rig.format.elements import HosePart, ReducerPart
from fenwick.shop import ShopFile, edit_shop
from fenwick.shop.edit import WORK_BEGINS, add_item, duplicate_item, find_item, remove_item
from fenwick.shop.into_line import (
    OWN_KEYS,
    apply_change,
    put_bin,
    put_fitting,
    put_hose,
    put_vacuum,
    swap,
    with_other_vacuums,
)
from fenwick.shop.making import OwnedBin
from fenwick.shop.model import GROUPS

SHOP = demo_shop()
TOOL = "drum-sander"


def part_of(rig: Rig, name: str) -> Any:
    """An element anywhere on the line."""
    every = [*rig.line.elements, *(part for _, branch in rig.line.walk() for part in branch.elements)]
    return next(part for part in every if part.id == name)


def flow(rig: Rig) -> float:
    """At the first port [m^3/s]."""
    return float(assess(build_line(rig)).point.port_flow[0, 0])


@pytest.mark.parametrize("hose", SHOP.hoses, ids=lambda hose: hose.id)
@pytest.mark.parametrize("turned", [False, True])
def test_an_owned_hose_takes_the_place_and_keeps_the_bends(rig: Rig, hose: Any, turned: bool) -> None:
    changed = part_of(put_hose(rig, "hose-a", hose, turned=turned), "hose-a")
    assert isinstance(changed, HosePart)
    assert (changed.bore_m, changed.length_m, changed.wall) == (hose.bore_m, hose.length_m, hose.wall)
    assert changed.bends == part_of(rig, "hose-a").bends
    assert changed.tool_end == (hose.other_end if turned else hose.one_end)


@pytest.mark.parametrize("fitting", SHOP.fittings, ids=lambda fitting: fitting.id)
def test_an_adapter_goes_in_the_way_round_that_fits_better(rig: Rig, fitting: Any) -> None:
    old, new = part_of(rig, "cuff"), part_of(put_fitting(rig, "cuff", fitting), "cuff")
    assert isinstance(new, ReducerPart)
    assert {new.bore_in_m, new.bore_out_m} == {fitting.one_bore_m, fitting.other_bore_m}

    def apart(bore_in: float, bore_out: float) -> float:
        return abs(bore_in - old.bore_in_m) + abs(bore_out - old.bore_out_m)

    assert apart(new.bore_in_m, new.bore_out_m) <= apart(new.bore_out_m, new.bore_in_m)


@pytest.mark.parametrize("vacuum", SHOP.vacuums, ids=lambda vacuum: vacuum.id)
def test_a_vacuum_brings_its_curve_and_leaves_its_place_behind(rig: Rig, vacuum: Any) -> None:
    changed = put_vacuum(rig, vacuum)
    assert changed.vacuum.curve == vacuum.curve
    assert changed.line == rig.line
    assert not (OWN_KEYS - {"of_shop"}) & set(changed.vacuum.model_dump())
    assert changed.vacuum.of_shop == vacuum.id  # lines with the same one share what the log says of it


def test_another_vacuum_forgets_what_was_read_of_the_old_one_and_keeps_the_rest(document: dict[str, Any]) -> None:
    document["tuning"] = {"on": True, "fan": 0.8, "leak": 1.3, "cake": 1.5}
    rig = check_rig(document)
    other = next(one for one in SHOP.vacuums if one.name != rig.vacuum.name)
    tuning = put_vacuum(rig, other).tuning
    assert tuning is not None
    assert (tuning.fan, tuning.cake, tuning.leak) == (1.0, 1.0, 1.3)
    same = next(one for one in SHOP.vacuums if one.name == rig.vacuum.name)
    kept = put_vacuum(rig, same).tuning
    assert kept is not None
    assert kept.fan == 0.8


def test_every_other_vacuum_is_tried_and_its_own_is_not(rig: Rig) -> None:
    tried = with_other_vacuums(rig, SHOP)
    assert set(tried) == {one.id for one in SHOP.vacuums if one.name != rig.vacuum.name}
    assert with_other_vacuums(rig, None) == {}


@pytest.mark.parametrize("tool", SHOP.tools, ids=lambda tool: tool.id)
def test_a_tool_comes_with_all_its_ports_and_its_dust(rig: Rig, tool: Any) -> None:
    changed = swap(rig, TOOL, f"tool:{tool.id}", SHOP)
    assert [way[0].port.name for way in changed.line.ways if way[0].port] == [port.name for port in tool.ports]
    assert changed.dust is not None
    assert changed.dust.kind == tool.dust
    assert flow(changed) > 0.0


def test_beside_other_tools_the_dust_of_the_line_stays() -> None:
    bench = demo_rig("demo_bench")
    first = bench.line.ways[0][0].id
    assert swap(bench, first, f"tool:{SHOP.tools[0].id}", SHOP).dust == bench.dust


@pytest.mark.parametrize("bore", HOSE_BORES)
@pytest.mark.parametrize("wall", ["smooth", "wire-helix"])
def test_a_sold_hose_is_as_long_as_the_one_it_replaces(rig: Rig, bore: float, wall: str) -> None:
    changed = part_of(swap(rig, "hose-a", f"sold:{bore:g}:{wall}", SHOP), "hose-a")
    assert (changed.bore_m, changed.wall, changed.length_m) == (bore, wall, part_of(rig, "hose-a").length_m)


@pytest.mark.parametrize(
    ("part", "what"),
    [
        ("hose-a", "hose:nobody-has-it"),
        ("hose-a", "sold:0.05:velvet"),
        ("hose-a", "sold:0.0501:smooth"),
        ("hose-a", "vacuum:" + SHOP.vacuums[0].id),
        ("sep", "hose:" + SHOP.hoses[0].id),
        ("sep", "fitting:" + SHOP.fittings[0].id),
        ("hose-a", "nonsense"),
        ("hose-a", ""),
        ("vacuum", "vacuum:none"),
    ],
)
def test_what_cannot_be_put_there_is_refused_in_a_sentence(rig: Rig, part: str, what: str) -> None:
    with pytest.raises(RigError) as caught:
        swap(rig, part, what, SHOP)
    assert caught.value.problems[0].sentence("metric")


def test_a_bin_goes_under_the_separator_empty_and_sound(rig: Rig) -> None:
    owned = OwnedBin(id="b", name="Drum", top_d_m=0.4, bottom_d_m=0.36, height_m=0.6, material="steel")
    changed = put_bin(rig, "sep", owned)
    bin_ = part_of(changed, "sep").bin
    assert [(point.height_m, point.d_m) for point in bin_.profile] == [(0.0, 0.36), (0.6, 0.4)]
    assert (bin_.material, bin_.fill_height_m, bin_.leak_area_m2, bin_.ledges) == ("steel", 0.0, None, ())
    with pytest.raises(RigError, match="only a separator stands on a bin"):
        put_bin(rig, "vacuum", owned)


def test_a_single_change_may_be_another_vacuum_of_the_shop(rig: Rig) -> None:
    other = next(one for one in SHOP.vacuums if one.name != rig.vacuum.name)
    assert apply_change(rig, Candidate(EXCHANGE, other.id), SHOP).vacuum.name == other.name
    with pytest.raises(KeyError):
        apply_change(rig, Candidate(EXCHANGE, other.id), None)
    with pytest.raises(RigError):
        apply_change(rig, Candidate(EXCHANGE, "sold"), SHOP)


@pytest.mark.parametrize("group", GROUPS)
def test_a_thing_is_added_copied_and_taken_away_again(group: str) -> None:
    more, name = add_item(SHOP, group)
    assert find_item(more, name) == (group, len(getattr(SHOP, group)))
    twice, twin = duplicate_item(more, name)
    assert find_item(twice, twin) == (group, len(getattr(SHOP, group)) + 1)
    assert remove_item(remove_item(twice, twin), name) == SHOP


def test_what_referred_to_a_thing_goes_or_is_loosened_with_it() -> None:
    job = SHOP.jobs[0]
    without = remove_item(SHOP, job.tool)
    assert all(one.tool != job.tool for one in without.jobs)
    circuit = SHOP.circuits[0].id
    loose = remove_item(SHOP, circuit)
    assert all(one.circuit != circuit for one in (*loose.vacuums, *loose.tools))


def test_a_job_without_tools_is_refused_and_an_unknown_list_named() -> None:
    bare = SHOP
    for tool in SHOP.tools:
        bare = remove_item(bare, tool.id)
    with pytest.raises(RigError, match="needs a tool"):
        add_item(bare, "jobs")
    with pytest.raises(RigError, match="no list called"):
        add_item(SHOP, "attic")
    for what in (find_item, duplicate_item, remove_item):
        with pytest.raises(RigError, match="no such thing"):
            what(SHOP, "gone")


@pytest.mark.parametrize("work", sorted(WORK_BEGINS))
def test_a_job_counted_otherwise_begins_with_something_sensible(work: str) -> None:
    changed = edit_shop(SHOP, {"jobs[0].work": work})
    for key in WORK_BEGINS[work]:
        assert getattr(changed.jobs[0], key) is not None


@pytest.mark.parametrize(
    "path", ["nowhere", "tools[99].name", "room.width_m.deep", "tools[0].ports[9].bore_m", "jobs[-1].x"]
)
def test_a_path_that_is_not_in_the_shop_is_refused(path: str) -> None:
    with pytest.raises(RigError):
        edit_shop(SHOP, {path: 1.0})


@given(st.lists(st.sampled_from(GROUPS), min_size=1, max_size=6))
def test_whatever_is_added_has_an_id_of_its_own(groups: list[str]) -> None:
    shop: ShopFile = SHOP
    names = []
    for group in groups:
        shop, name = add_item(shop, group)
        names.append(name)
    every = [thing.id for group in GROUPS for thing in getattr(shop, group)]
    assert len(every) == len(set(every))
    assert set(names) <= set(every)
