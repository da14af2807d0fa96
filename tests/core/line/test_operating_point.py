"""What must hold for any line: conservation, balance, order, limits."""

from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.elements import Branch, Hose, Leak, Port
from fenwick.core.components.site import Site
from fenwick.core.components.vacuum import FilterMedium, Nameplate
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.fittings import plate_loss
from fenwick.core.formulas.orifice import orifice_flow
from fenwick.core.line.line import Line
from fenwick.core.line.operating import CHUNK, operating_point
from tests.lines import disc_line, lines, plain_line, trees


@given(lines() | trees())
def test_mass_is_conserved_and_suction_balances(line: Line) -> None:
    point = operating_point(line)
    entering = point.port_flow.sum(axis=0) + point.leak_flow.sum(axis=0)
    assert entering[0] * point.room_density[0] == pytest.approx(point.mass_flow[0], rel=1e-6)
    made = line.vacuum.curve.suction(point.mass_flow / point.room_density, point.room_density)
    assert point.suction[0] == pytest.approx(float(made[0]), abs=1.0)
    assert point.residual[0] < 1.0


@given(lines())
def test_every_loss_is_a_loss_and_total_suction_never_falls_ahead_of_leaks(line: Line) -> None:
    stations = operating_point(line).stations
    assert np.all(stations.loss >= 0)
    assert np.all(stations.static_suction >= stations.total_suction)
    if not any(isinstance(part, Leak) for part in (*line.branches[0].elements, *line.trunk)) and not line.separators:
        assert np.all(np.diff(stations.total_suction[:, 0]) >= -1e-9)
        assert stations.loss[:, 0].sum() == pytest.approx(stations.total_suction[-1, 0], rel=1e-9)


@given(lines(), st.floats(1.05, 3.0))
def test_a_stronger_fan_moves_more_air(line: Line, factor: float) -> None:
    curve = line.vacuum.curve
    stronger = Nameplate(curve.sealed_suction, curve.open_flow * factor, curve.exponent)
    more = operating_point(replace(line, vacuum=replace(line.vacuum, curve=stronger)))
    assert more.mass_flow[0] >= operating_point(line).mass_flow[0] * (1 - 1e-6)


def test_beside_a_leak_wider_than_the_pipe_the_flow_is_found_too() -> None:
    port = Port("Tool", 0.0117)
    line = replace(
        plain_line(1e3, 0.125, 0.0117, 1.0, 1e-4), branches=(Branch("tool", port, ()),), trunk=(Leak("gap", 0.0078),)
    )
    flows = []
    for open_flow in (0.125, 0.1375, 0.1875, 0.25, 0.375, 1.25):  # one by one: a batch is as good as its slowest
        fan = Nameplate(1e3, open_flow, 3.0)
        flows.append(operating_point(replace(line, vacuum=replace(line.vacuum, curve=fan))).mass_flow[0])
    assert np.all(np.diff(flows) >= 0.0)
    assert flows == pytest.approx(flows[-1:] * len(flows), rel=1e-4)  # the pipe behind the leak limits it


def test_a_flow_that_is_small_beside_a_leak_is_the_same_alone_and_in_a_batch() -> None:
    def of(bore: float | np.ndarray) -> np.ndarray:
        tool = Branch("tool", Port("Tool", 0.0625), (Hose("hose", bore, 1.0),))
        saw = Branch("saw", Port("Saw", 0.0625), ())
        line = replace(plain_line(500.0, 0.06, 0.0625, 1.0, 1e-4), branches=(tool, saw))
        behind = (Hose("narrow", 0.0156, 1.0), Hose("wide", 0.0625, 1.0), Leak("gap", 0.004))
        return operating_point(replace(line, trunk=(*line.trunk, *behind))).port_flow[0]

    alone, together = of(0.0156), of(np.array([0.0156, 0.005, 0.03, 0.1]))
    assert together[0] == pytest.approx(alone[0], rel=1e-3)  # 4 % apart where 0.01 Pa alone ends the passes


@given(trees())
def test_a_tree_settles_in_few_passes(line: Line) -> None:
    assert operating_point(line).passes <= 40


def test_a_path_in_laminar_flow_is_no_slower_than_the_rest() -> None:
    still = Branch("still", Port("Gauge", 0.004), (Hose("thin", 0.004, 8.0),))
    line = plain_line(18e3, 0.062, 0.038, 3.0, 1e-4)
    beside = operating_point(replace(line, branches=(*line.branches, still)))
    assert beside.port_flow[1, 0] * 4.0 / (np.pi * 0.004 * 1.5e-5) < 2000.0  # laminar
    assert beside.passes <= 8  # 17 where each pass but halves the error


@pytest.mark.parametrize("bore", [0.001, 0.002, 0.003, 0.005])
@pytest.mark.parametrize("suction", [1e3, 18e3, 45e3])
def test_a_bore_that_chokes_settles_alone_and_beside_others(bore: float, suction: float) -> None:
    alone = operating_point(disc_line(bore=bore, suction=suction))
    together = operating_point(disc_line(bore=np.array([bore, 0.05, 0.0015]), suction=suction))
    assert alone.residual[0] < 0.01
    assert alone.passes <= 30  # plain steps swing for ever here
    assert together.port_flow[0, 0] == pytest.approx(alone.port_flow[0, 0], rel=1e-3)
    assert together.mass_flow[1] > together.mass_flow[0]


def test_longer_rougher_narrower_passes_less() -> None:
    for change in (
        plain_line(18e3, 0.062, 0.038, np.linspace(0.5, 20, 12), 1e-4),
        plain_line(18e3, 0.062, 0.038, 3.0, np.geomspace(1e-5, 4e-4, 12)),
        plain_line(18e3, 0.062, np.linspace(0.08, 0.01, 12), 3.0, 1e-4),
    ):
        assert np.all(np.diff(operating_point(change).port_flow[0]) < 0)


def test_limits_a_wide_open_line_nears_open_flow_and_a_blocked_one_nears_sealed_suction() -> None:
    wide = operating_point(plain_line(18e3, 0.062, 0.5, 0.1, 1e-4))
    assert wide.port_flow[0, 0] == pytest.approx(0.062, rel=1e-3)
    shut = operating_point(plain_line(18e3, 0.062, 0.002, 10.0, 1e-4))
    assert shut.port_flow[0, 0] < 1e-4
    assert shut.suction[0] == pytest.approx(shut.sealed_suction[0], rel=2e-3)


def test_a_leak_obeys_the_orifice_at_its_static_suction() -> None:
    line = plain_line(18e3, 0.062, 0.038, 3.0, 1e-4)
    leaky = replace(line, trunk=(*line.trunk, Leak("gap", 40e-6), Hose("end", 0.038, 1.0)))
    point = operating_point(leaky)
    static = point.stations.static_suction[point.stations.index("hose"), 0]
    assert point.leak_flow[0, 0] == pytest.approx(orifice_flow(40e-6, static, point.room_density[0]), rel=1e-3)
    assert point.port_flow[0, 0] < operating_point(line).port_flow[0, 0]


def test_a_leak_of_no_area_changes_nothing() -> None:
    line = plain_line(18e3, 0.062, 0.038, 3.0, 1e-4)
    for at in (0, 1):
        trunk = [line.trunk[0]]
        trunk.insert(at, Leak("gap", 0.0))  # type: ignore[arg-type]
        point = operating_point(replace(line, trunk=tuple(trunk)))
        assert point.port_flow[0, 0] == pytest.approx(operating_point(line).port_flow[0, 0], rel=1e-5)
        assert point.leak_flow[0, 0] == 0.0


def test_a_leak_at_the_vacuum_costs_more_leaked_air_than_one_at_the_tool() -> None:
    hose = plain_line(18e3, 0.062, 0.038, 3.0, 1e-4).trunk[0]
    base = plain_line(18e3, 0.062, 0.038, 3.0, 1e-4)
    near_tool = operating_point(replace(base, trunk=(Leak("gap", 40e-6), hose)))
    near_vacuum = operating_point(replace(base, trunk=(hose, Leak("gap", 40e-6))))
    assert near_vacuum.leak_flow[0, 0] > 1.3 * near_tool.leak_flow[0, 0]


def test_variants_solved_together_are_those_solved_one_by_one_across_chunks() -> None:
    bores = np.linspace(0.02, 0.09, CHUNK + 7)
    together = operating_point(disc_line(bore=bores))
    for i in (0, CHUNK - 1, CHUNK, CHUNK + 6):
        alone = operating_point(disc_line(bore=float(bores[i])))
        assert together.port_flow[0, i] == pytest.approx(alone.port_flow[0, 0], rel=1e-4)
        assert together.stations.static_suction[:, i] == pytest.approx(alone.stations.static_suction[:, 0], rel=2e-4)


def test_variants_that_disagree_in_number_are_refused() -> None:
    with pytest.raises(ValueError, match=r"disagree in number: \[2, 3\]"):
        operating_point(plain_line(np.full(2, 18e3), 0.062, np.full(3, 0.038), 3.0, 1e-4))


def test_thin_air_and_a_caked_filter_weaken_the_vacuum() -> None:
    line = disc_line()
    high = operating_point(replace(line, site=Site(293.15, 2000.0)))
    assert high.sealed_suction[0] < 0.82 * operating_point(line).sealed_suction[0]
    flows = [
        operating_point(disc_line(filter=FilterMedium("paper", 0.6, held))).port_flow[0, 0] for held in (0, 0.1, 0.3)
    ]
    assert flows[0] > flows[1] > flows[2]


@given(st.sampled_from(["plain", "flanged", "tapered", "bellmouth"]))
def test_a_better_entry_moves_more_air(entry: str) -> None:
    line = plain_line(18e3, 0.062, 0.038, 1.0, 1e-4)
    better = replace(line, branches=(Branch("tool", Port("Tool", 0.038, entry)),))
    assert operating_point(better).mass_flow[0] >= operating_point(line).mass_flow[0] * (1 - 1e-9)


def test_a_gate_throttles_and_shut_lets_only_its_leak_past() -> None:
    line = plain_line(18e3, 0.062, 0.038, 1.0, 1e-4)
    opening = np.array([1.0, 0.5, 0.25, 0.0])
    flow = operating_point(replace(line, branches=(replace(line.branches[0], gate_opening=opening),))).port_flow[0]
    assert np.all(np.diff(flow) < 0)
    assert 0 < flow[-1] < 0.0015


def test_a_stage_whose_water_the_fan_cannot_press_down_lets_no_air_through() -> None:
    """2 m of water hold 19.6 kPa; this fan reaches 18."""
    flows = []
    for deep in (0.1, 1.0, 1.7, 1.83, 1.84, 1.9, 2.0, 3.0):
        line = disc_line()
        point = operating_point(replace(line, trunk=(*line.trunk, WetStage("wet", 0.05, deep, 0.4, 20.0))))
        flows.append(float(point.port_flow[0, 0]))
        assert point.suction[0] <= point.sealed_suction[0] * (1.0 + 1e-9)
    assert all(one > after for one, after in pairwise(flows))
    assert flows[0] > 0.02
    assert flows[-1] < 2e-5


@pytest.mark.parametrize("wall", ["smooth", "corrugated"])
@pytest.mark.parametrize("rough", [None, 0.0, 0.0005, 0.003])
def test_a_bore_of_a_millimetre_is_solved_however_rough(wall: str, rough: float | None) -> None:
    line = disc_line()
    hose = Hose("hose", 0.001, 1.3, wall, (), rough)
    point = operating_point(replace(line, branches=(replace(line.branches[0], elements=(hose,)),)))
    assert 0.0 < point.port_flow[0, 0] < 1e-4


def test_a_window_that_is_shut_lets_a_trace_through() -> None:
    assert np.isfinite(plate_loss(0.05, 0.0))
    assert plate_loss(0.05, 0.0) > 1e4 * plate_loss(0.05, 1e-4)
