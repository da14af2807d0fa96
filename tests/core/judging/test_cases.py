"""Other days: each case of the batch is what the line itself computes on such a day."""

from dataclasses import replace

import numpy as np
import pytest

from fenwick.core.components.vacuum import MeasuredCurve
from fenwick.core.doubt.doubts import doubts, is_starved
from fenwick.core.dust.cakes import settled_point
from fenwick.core.judging.alone import each_alone
from fenwick.core.judging.cases import CASES, solve_cases
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line, edit_rig

POINTS = MeasuredCurve.through([(0.01, 15e3), (0.03, 10e3), (0.05, 3e3)])


@pytest.fixture(params=["nameplate", "points"])
def line(request: pytest.FixtureRequest) -> Line:
    found = build_line(demo_rig("demo_bench"))
    return replace(found, vacuum=replace(found.vacuum, curve=POINTS)) if request.param == "points" else found


def test_each_case_is_the_line_on_that_day(line: Line) -> None:
    figures = solve_cases(line)
    assert figures.flow.shape == (4, len(CASES))
    for c, case in enumerate(CASES):
        site = replace(line.site, temperature=case.temperature or line.site.temperature)
        site = replace(site, altitude=case.altitude or line.site.altitude)
        vacuum = replace(line.vacuum, curve=line.vacuum.curve.at_speed(case.speed))
        if case.filter_load is not None:
            assert vacuum.filter is not None
            vacuum = replace(vacuum, filter=replace(vacuum.filter, held=case.filter_load * vacuum.filter.area))
        for port in (0, 2):
            point = settled_point(replace(line_alone(line, port), site=site, vacuum=vacuum))
            assert figures.flow[port, c] == pytest.approx(float(point.port_flow[port, 0]), rel=1e-5)
            assert figures.sealed[c] == pytest.approx(float(point.sealed_suction[0]))


def test_thin_air_costs_suction_and_hardly_any_flow_while_wear_costs_both(line: Line) -> None:
    figures = solve_cases(line)
    at = {case.key: c for c, case in enumerate(CASES)}
    assert figures.sealed[at["high"]] < 0.9 * figures.sealed[at["today"]]
    assert figures.flow[:, at["high"]] == pytest.approx(figures.flow[:, at["today"]], rel=0.03)
    assert np.all(figures.flow[:, at["worn"]] < 0.9 * figures.flow[:, at["today"]])
    assert np.all(figures.flow[:, at["caked"]] <= figures.flow[:, at["today"]])


@pytest.mark.parametrize("share", [0.5, 0.8, 1.1])
def test_the_fan_laws(share: float) -> None:
    for curve in (build_line(demo_rig()).vacuum.curve, POINTS):
        slow = curve.at_speed(share)
        assert slow.sealed_suction == pytest.approx(curve.sealed_suction * share**2)
        assert slow.open_flow == pytest.approx(curve.open_flow * share)
        assert float(np.max(slow.peak_air_power)) == pytest.approx(
            float(np.max(curve.peak_air_power)) * share**3, rel=1e-4
        )


def test_the_points_of_the_tools_lie_on_the_curve(line: Line) -> None:
    alone = each_alone(line)
    flow, suction = alone.through, alone.suction
    assert line.vacuum.curve.suction(flow, line.site.density) == pytest.approx(suction, rel=1e-6)


def test_a_wide_hose_fan_is_starved_by_a_small_hose_and_not_by_its_own() -> None:
    collector = {"kind": "nameplate", "sealed_suction_pa": 2400.0, "open_flow_m3_s": 0.33, "exponent": 2.0}
    small = build_line(edit_rig(demo_rig(), {"vacuum.curve": collector}))
    assert "starved" in {doubt.kind for doubt in doubts(small, settled_point(small))}
    assert not is_starved(small, 0.2)
    assert not is_starved(build_line(demo_rig()), 0.005)  # an ordinary shop vacuum may be throttled
