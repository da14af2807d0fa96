"""Lines with several tools: branches of branches, gates, and every way a vacuum's curve can be given."""

import copy
from typing import Any

import pytest

from fenwick.core.dust.cakes import settled_point
from fenwick.core.judging.alone import each_alone
from fenwick.core.line.ports import line_alone
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line, check_rig, read_rig, write_rig
from fenwick.rig.edits.ports import alone
from fenwick.rig.result import solve_rig


@pytest.fixture
def bench() -> Rig:
    """The demo's line of four tools."""
    return demo_rig("demo_bench")


@pytest.fixture
def tree(bench: Rig) -> dict[str, Any]:
    """The same as parsed JSON."""
    return copy.deepcopy(bench.model_dump(mode="json"))


def test_every_port_is_reported_in_the_order_of_the_file(bench: Rig) -> None:
    result = solve_rig(bench)
    assert [port["id"] for port in result["ports"]] == ["bandsaw", "router", "sander", "sweep"]
    assert [port["open"] for port in result["ports"]] == [True, False, False, False]
    assert "capture" in result["ports"][0]
    assert "capture" not in result["ports"][1]
    assert sum(result["fate"].values()) == pytest.approx(1.0)
    assert result["ports"][1]["flow_m3_s"] < 0.001  # a shut gate leaks
    stations = {station["element"]: station for station in result["stations"]}
    assert "carrying" not in stations["router-hose"]  # nobody uses it now
    assert "carrying" in stations["main"]


def test_a_tree_survives_its_file(bench: Rig) -> None:
    assert read_rig(write_rig(bench)) == bench


def test_opening_one_alone_shuts_the_others_and_gives_it_the_flow_of_the_batch(bench: Rig) -> None:
    line = build_line(bench)
    flows = each_alone(line).flow
    for i, leaf in enumerate(line.leaves):
        opened = alone(bench, leaf.id)
        assert opened is not None
        result = solve_rig(opened)
        assert [port["open"] for port in result["ports"]] == [other.id == leaf.id for other in line.leaves]
        assert result["ports"][i]["flow_m3_s"] == pytest.approx(float(flows[i]), rel=1e-4)
        assert settled_point(line_alone(line, i)).port_flow[i, 0] == pytest.approx(float(flows[i]), rel=1e-4)
    assert alone(bench, "nothing") is None


def test_two_open_tools_share_the_air_and_their_dust_adds_up(tree: dict[str, Any]) -> None:
    one = solve_rig(check_rig(tree))["ports"][0]["flow_m3_s"]
    tree["line"]["branches"][2]["gate"]["opening"] = 1.0
    both = solve_rig(check_rig(tree))
    assert both["ports"][0]["flow_m3_s"] < one
    assert sum(both["fate"].values()) == pytest.approx(1.0)
    del tree["line"]["branches"][2]["port"]["dust_rate_kg_s"]
    assert "fate" not in solve_rig(check_rig(tree))  # whose dust weighs what is not known


def test_a_branch_needs_a_port_or_branches_and_not_both(tree: dict[str, Any]) -> None:
    tree["line"]["branches"][1]["port"] = tree["line"]["branches"][0]["port"]
    with pytest.raises(RigError, match=r"line.branches\[1\].branches: must be left out"):
        check_rig(tree)
    tree["line"]["branches"][1]["branches"] = []
    assert check_rig(tree).line.branches[1].port is not None


def test_a_separator_in_a_branch_and_a_doubled_id_deep_down_are_named(tree: dict[str, Any]) -> None:
    inner = tree["line"]["branches"][1]["branches"][0]
    inner["id"] = "sander"
    with pytest.raises(RigError, match=r"line.branches\[1\].branches\[1\].id: “sander” is taken"):
        check_rig(tree)
    inner["id"] = "router"
    inner["elements"] = [tree["line"]["elements"][1]]
    with pytest.raises(RigError, match=r"branches\[1\].branches\[0\].elements\[0\].kind: a separator belongs"):
        check_rig(tree)


CURVES = {
    "points": {
        "kind": "points",
        "points": [{"flow_m3_s": q, "suction_pa": p} for q, p in ((0, 18e3), (0.03, 9e3), (0.06, 0))],
    },
    "holes": {
        "kind": "holes",
        "rows": [{"hole_diameter_m": 0.02, "holes": n, "suction_pa": p} for n, p in ((1, 16e3), (3, 9e3), (6, 4e3))],
    },
}


@pytest.mark.parametrize("kind", sorted(CURVES))
def test_every_kind_of_curve_solves(tree: dict[str, Any], kind: str) -> None:
    tree["vacuum"]["curve"] = CURVES[kind]
    rig = check_rig(tree)
    assert read_rig(write_rig(rig)) == rig
    assert solve_rig(rig)["ports"][0]["flow_m3_s"] > 0.01


def test_a_hole_plate_reads_back_its_own_suction(tree: dict[str, Any]) -> None:
    tree["vacuum"]["curve"] = CURVES["holes"]
    line = build_line(check_rig(tree))
    density = float(line.site.density)
    flow = 0.61 * 3 * 3.14159265 / 4 * 0.02**2 * (2 * 9e3 / density) ** 0.5  # hand
    assert float(line.vacuum.curve.suction(flow, density)) == pytest.approx(9e3, rel=1e-6)


def test_a_curve_that_rises_is_refused_by_its_key(tree: dict[str, Any]) -> None:
    tree["vacuum"]["curve"] = copy.deepcopy(CURVES["points"])
    tree["vacuum"]["curve"]["points"][1]["suction_pa"] = 19e3
    with pytest.raises(RigError, match=r"^vacuum\.curve\.points\[1\].suction_pa: must fall in suction as flow rises"):
        check_rig(tree)


def test_elbows_plates_and_filters_cost_suction(tree: dict[str, Any]) -> None:
    base = solve_rig(check_rig(tree))["ports"][0]["flow_m3_s"]
    for part in (
        {"kind": "elbow", "bore_m": 0.05, "style": "mitre"},
        {"kind": "elbow", "bore_m": 0.05, "style": "long-sweep", "radius_m": 0.1},
        {"kind": "plate", "bore_m": 0.05, "holes": [{"diameter_m": 0.01, "count": 12}]},
        {"kind": "filter", "bore_m": 0.05, "medium": "bag", "area_m2": 0.2, "held_kg": 0.02},
    ):
        longer = copy.deepcopy(tree)
        longer["line"]["elements"].append({"id": "extra", **part})
        assert solve_rig(check_rig(longer))["ports"][0]["flow_m3_s"] < base
