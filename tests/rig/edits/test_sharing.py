"""Tools that share a line: together, by gates, or by one hose that is moved."""

import json
from typing import Any

import pytest

from fenwick.core.judging.alone import each_alone
from fenwick.core.line.operating import operating_point
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line, check_rig, edit_rig, write_rig
from fenwick.rig.edits.branches import remove_tool
from fenwick.rig.edits.ports import alone
from fenwick.rig.result import solve_rig
from fenwick.rig.voice import voice_for
from fenwick.services.ports import port_studies, together_studies
from fenwick.wording.ports import port_row, together_row


def swapped() -> Rig:
    rig = edit_rig(demo_rig("demo_bench"), {"line.use": "swap"})
    found = alone(rig, "bandsaw")
    assert found is not None
    return found


def single(rig: Rig, port: str) -> Rig:
    """The same line with that tool alone, as a file of its own."""
    document: dict[str, Any] = json.loads(write_rig(rig))
    way = next(way for way in rig.line.ways if way[0].id == port)
    elements = [e.model_dump(mode="json", exclude_none=True) for branch in way for e in branch.elements]
    assert way[0].port is not None
    document["line"]["branches"] = [
        {"id": port, "elements": elements, "port": way[0].port.model_dump(mode="json", exclude_none=True)}
    ]
    for shared in ("use", "combinations"):
        document["line"].pop(shared, None)
    return check_rig(document)


@pytest.mark.parametrize("port", ["bandsaw", "sander"])
def test_one_moved_hose_is_the_line_of_its_tool_alone(port: str) -> None:
    rig = alone(swapped(), port)
    assert rig is not None
    line = build_line(rig)
    at = [leaf.id for leaf in line.leaves].index(port)
    moved = float(operating_point(line).port_flow[at, 0])
    by_itself = float(operating_point(build_line(single(rig, port))).port_flow[0, 0])
    assert moved == pytest.approx(by_itself, rel=0.01)
    others = [float(flow) for i, flow in enumerate(operating_point(line).port_flow[:, 0]) if i != at]
    assert max(others) < 1e-5


def test_a_moved_hose_gets_more_air_than_gates_let_through() -> None:
    by_gates = each_alone(build_line(demo_rig("demo_bench"))).flow
    by_hose = each_alone(build_line(swapped())).flow
    assert (by_hose > by_gates).all()


def test_tools_used_together_share_the_air() -> None:
    rig = edit_rig(demo_rig("demo_bench"), {"line.combinations": [{"ports": ["bandsaw", "sweep"]}]})
    voice = voice_for(rig, "metric")
    (study,) = together_studies(rig)
    row = together_row(study.line, study.found, study.ports, voice)
    assert row.name == "Bandsaw + Floor sweep"
    alone_rows = {
        row.id: float(row.flow.split()[0])
        for s in port_studies(rig, None)
        for row in [port_row(s.line, s.found, s.port, s.best, voice)]
    }
    shared = [float(part.split()[-2]) for part in row.flows.split(", ")]
    assert shared[0] < alone_rows["bandsaw"]
    assert shared[1] < alone_rows["sweep"]
    assert sum(shared) > alone_rows["bandsaw"]
    assert remove_tool(rig, "sweep").line.combinations == ()


@pytest.mark.parametrize("ports", [["bandsaw", "nobody"], ["bandsaw", "bandsaw"], ["bandsaw"], ["bandsaw", "bench"]])
def test_a_combination_names_tool_ports_each_once(ports: list[str]) -> None:
    with pytest.raises(RigError, match=r"line\.combinations"):
        edit_rig(demo_rig("demo_bench"), {"line.combinations": [{"ports": ports}]})


def test_the_result_says_how_long_to_run_on() -> None:
    ports = {port["id"]: port for port in solve_rig(demo_rig("demo_bench"))["ports"]}
    assert 1.0 < ports["bandsaw"]["clearing_time_s"] < 5.0
    assert "clearing_time_s" not in ports["router"]
