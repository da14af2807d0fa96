"""Several branches: momentum at the junction, balance between branches, gates."""

from dataclasses import replace
from math import radians

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.elements import Branch, Gate, Hose, Port
from fenwick.core.components.vacuum import Nameplate, Vacuum
from fenwick.core.line.line import Line
from fenwick.core.line.operating import operating_point

VACUUM = Vacuum(Nameplate(18e3, 0.062))


def wye(*branches: Branch, trunk: float = 0.063) -> Line:
    """Branches into one trunk hose."""
    return Line(VACUUM, None, branches, (Hose("trunk", trunk, 2.0),))


def branch(name: str, bore: float = 0.038, length: float = 2.0, **more: object) -> Branch:
    """A port with one hose."""
    return Branch(name, Port(name, bore), (Hose(f"hose-{name}", bore, length),), **more)  # type: ignore[arg-type]


def test_equal_branches_share_equally_and_together_pass_more_than_one() -> None:
    both = operating_point(wye(branch("a"), branch("b")))
    assert both.port_flow[0, 0] == pytest.approx(both.port_flow[1, 0], rel=1e-9)
    alone = operating_point(Line(VACUUM, None, (branch("a"),), (Hose("trunk", 0.063, 2.0),)))
    assert both.port_flow[:, 0].sum() > alone.port_flow[0, 0] > both.port_flow[0, 0]


@given(st.floats(0.02, 0.06), st.floats(0.02, 0.06), st.floats(0.5, 8.0), st.floats(0.0, 90.0), st.floats(0.05, 1.0))
def test_mass_and_suction_balance_at_any_junction(a: float, b: float, length: float, angle: float, gate: float) -> None:
    line = wye(branch("a", a, length, join_angle=radians(angle)), branch("b", b, gate_opening=gate))
    point = operating_point(line)
    assert point.port_flow[:, 0].sum() * point.room_density[0] == pytest.approx(point.mass_flow[0], rel=1e-6)
    made = line.vacuum.curve.suction(point.mass_flow / point.room_density, point.room_density)
    assert point.suction[0] == pytest.approx(float(made[0]), abs=1.0)
    # both branches end in the junction's one static suction
    ends = [point.stations.index("hose-a"), point.stations.index("b:gate")]
    assert point.stations.static_suction[ends[0], 0] == pytest.approx(
        point.stations.static_suction[ends[1], 0], abs=2.0
    )


def test_the_longer_branch_gets_less_and_closing_one_helps_the_other() -> None:
    point = operating_point(wye(branch("near", length=0.5), branch("far", length=8.0)))
    assert point.port_flow[0, 0] > point.port_flow[1, 0]
    opening = np.array([1.0, 0.5, 0.2, 0.0])
    throttled = operating_point(wye(branch("near", gate_opening=opening), branch("far")))
    assert np.all(np.diff(throttled.port_flow[0]) < 0)
    assert np.all(np.diff(throttled.port_flow[1]) > 0)
    assert throttled.port_flow[0, -1] < 0.05 * throttled.port_flow[1, -1]


def test_a_shallow_wye_passes_more_than_a_tee() -> None:
    flows = [
        operating_point(wye(branch("a", join_angle=angle), branch("b", join_angle=angle), trunk=0.05)).mass_flow[0]
        for angle in (radians(30), radians(45), radians(90))
    ]
    assert flows[0] > flows[1] > flows[2]


def test_a_gate_in_the_trunk_throttles_all() -> None:
    line = wye(branch("a"), branch("b"))
    throttled = replace(line, trunk=(*line.trunk, Gate("main", 0.063, 0.2)))
    assert operating_point(throttled).mass_flow[0] < 0.8 * operating_point(line).mass_flow[0]
