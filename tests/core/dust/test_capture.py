"""What a port catches: chips that are thrown arrive, fine dust as the air draws it, both without a jump."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Branch, Hose, Port
from fenwick.core.components.hood import ExtraFan, OpenHood
from fenwick.core.components.vacuum import FilterMedium, Nameplate
from fenwick.core.dust.capture import Capture
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.catch import HoodLaw, dust_load, dust_rate, floating_caught, thrown_caught
from fenwick.core.line.line import Line
from tests.lines import disc_line

STEEP = 0.35  #: of the shares, the most that a step of 2 % may move one


def at_tool(kind: str, bore: float, **port: object) -> Line:
    """A tool of the catalogue on a port of some bore, a 63 mm hose behind it."""
    tool = TOOLS[kind]
    hood = OpenHood(
        distance=tool.distance, release=tool.release, thrown_share=tool.thrown_share, built_in=tool.hood == "built-in"
    )
    line = disc_line()
    given = Port(tool.label, bore, hood=hood, dust_rate=tool.dust_rate, machine=tool.machine)
    branch = replace(line.branches[0], port=replace(given, **port), elements=(Hose("hose", 0.0635, 2.0),))  # type: ignore[arg-type]
    return replace(line, branches=(branch,), dust=DUSTS[tool.dust])


def caught(line: Line) -> Capture:
    """What its only open port catches."""
    (found,) = assess(line).captures
    return found


def law_of(line: Line, **hood: object) -> HoodLaw:
    """Its hood's law, some of the hood otherwise."""
    leaf = line.leaves[0]
    assert leaf.port.hood is not None
    return HoodLaw(leaf, replace(leaf.port.hood, **hood), line)  # type: ignore[arg-type]


@pytest.mark.parametrize("kind", ["planer", "table-saw", "lathe"])
@pytest.mark.parametrize("flow", [0.03, 0.045, 0.06])
def test_on_a_wide_port_most_of_what_is_aimed_at_it_goes_in(kind: str, flow: float) -> None:
    """It is thrown there: a hundred millimetres wide takes 4 to 8 m/s, far below what carries it off."""
    air = law_of(at_tool(kind, 0.100)).at(np.array([flow]))
    assert float(air.mouth[0]) < 8.0
    assert float(air.thrown[0]) > 0.95 * TOOLS[kind].thrown_share


def test_a_planer_catches_what_it_throws_and_not_a_thousandth_of_it() -> None:
    found = caught(at_tool("planer", 0.100))
    assert 0.7 < float(found.total[0]) < 0.85


@pytest.mark.parametrize("kind", ["planer", "table-saw", "bandsaw", "drum-sander"])
def test_two_sizes_that_are_sold_side_by_side_hardly_differ(kind: str) -> None:
    shares = [float(caught(at_tool(kind, bore)).total[0]) for bore in (0.073, 0.080)]
    assert abs(shares[0] - shares[1]) < 0.03


@given(st.sampled_from(sorted(TOOLS)), st.floats(0.03, 0.15))
def test_nothing_jumps_with_the_bore(kind: str, bore: float) -> None:
    bores = bore * np.array([1.0, 1.02])
    line = at_tool(kind, 0.1)
    branch = line.branches[0]
    assert branch.port is not None
    totals = caught(replace(line, branches=(replace(branch, port=replace(branch.port, bore=bores)),))).total
    assert abs(float(totals[1] - totals[0])) < STEEP * 0.02 / 0.02 * 0.06


@given(st.floats(0.001, 0.4), st.floats(1.001, 3.0), st.sampled_from(sorted(TOOLS)))
def test_more_air_catches_more_and_so_does_a_port_that_is_nearer(flow: float, more: float, kind: str) -> None:
    line = at_tool(kind, 0.1)
    slow, fast = law_of(line).at(np.array([flow])), law_of(line).at(np.array([flow * more]))
    assert np.all(fast.drawn_in >= slow.drawn_in)
    assert np.all(fast.thrown >= slow.thrown)
    far = law_of(line, distance=TOOLS[kind].distance * more).at(np.array([flow]))
    assert np.all(far.drawn_in <= slow.drawn_in)


@given(st.lists(st.floats(0.0, 1.0), min_size=1, max_size=4), st.lists(st.floats(0.0, 1.0), min_size=1, max_size=4))
def test_together_ports_catch_no_less_than_any_of_them_alone(drawn: list[float], thrown: list[float]) -> None:
    line = disc_line()
    whole = float(floating_caught([np.array([share]) for share in drawn], line)[0])
    assert whole >= 0.98 * max(drawn) - 1e-12
    assert whole <= 0.98
    assert float(thrown_caught([np.array([share]) for share in thrown])[0]) >= max(thrown) - 1e-12


def test_a_little_floats_past_every_hood() -> None:
    tight = at_tool("planer", 0.100, hood=OpenHood(distance=1e-4, release="still", thrown_share=1.0))
    assert float(caught(tight).airborne[0]) == pytest.approx(0.98, abs=1e-3)


def test_a_share_that_belongs_to_a_wide_mouth_is_cut_by_a_narrow_one_and_not_raised_by_a_wider() -> None:
    hood = OpenHood(distance=0.08, release="fast", thrown_share=0.8, thrown_bore=0.100)
    own, narrow, wide = (caught(at_tool("planer", bore, hood=hood)) for bore in (0.100, 0.050, 0.150))
    assert float(narrow.thrown[0]) == pytest.approx(0.4, abs=0.01)
    assert float(own.thrown[0]) == pytest.approx(0.8, abs=0.01)
    assert float(wide.thrown[0]) <= 0.8


def test_an_extra_fan_never_lowers_what_is_caught() -> None:
    for flow in (0.001, 0.02, 0.2):
        hood = OpenHood(distance=0.1, release="active", thrown_share=0.5)
        bare = caught(at_tool("bandsaw", 0.1, hood=hood))
        helped = caught(at_tool("bandsaw", 0.1, hood=replace(hood, extra_fan=ExtraFan(flow))))
        assert float(helped.total[0]) >= float(bare.total[0])
        assert float(helped.airborne[0]) >= float(bare.airborne[0])


def blown(fan: ExtraFan) -> Assessment:
    """A bandsaw with an extra fan at its hood."""
    hood = OpenHood(distance=0.1, release="active", thrown_share=0.5, extra_fan=fan)
    return assess(at_tool("bandsaw", 0.1, hood=hood))


def test_what_an_unfiltered_fan_blows_into_the_room_is_its_own_exhaust() -> None:
    none, loose = blown(ExtraFan(0.0)), blown(ExtraFan(0.2))
    for found in (none, loose):
        assert found.fate is not None
    assert none.fate.blown[0] == 0.0  # type: ignore[union-attr]
    assert loose.fate.blown[0] > 0.01  # type: ignore[union-attr]
    assert loose.fate.exhaust[0] <= none.fate.exhaust[0]  # type: ignore[union-attr]


def test_a_fan_with_a_curve_moves_what_its_filter_lets_it() -> None:
    curve = Nameplate(300.0, 0.25)
    free = ExtraFan(None, None, curve)
    caked = ExtraFan(None, FilterMedium("paper", 0.5, 0.0, cake=5e3), curve)
    line = at_tool("bandsaw", 0.1)
    flows = [float(np.ravel(law_of(line, extra_fan=fan).extra)[0]) for fan in (free, caked)]
    assert flows[0] == pytest.approx(0.25, rel=1e-6)
    assert 0.0 < flows[1] < flows[0]
    asked = (2e3 + 5e3) * flows[1] / 0.5
    assert float(np.ravel(curve.suction(flows[1], 1.2041))[0]) == pytest.approx(asked, rel=2e-3)


def test_what_enters_the_separator_is_what_is_caught_and_not_what_is_made() -> None:
    line = at_tool("planer", 0.100)
    found = assess(line)
    assert found.fate is not None
    made = float(np.ravel(dust_rate(line))[0])
    assert float(found.point.caught[0]) == pytest.approx(made * float(found.captures[0].total[0]), rel=1e-9)
    row = found.point.stations.index("sep")
    load = float(dust_load(found.point.caught, found.point.stations.mass_flow[row])[0])
    assert 0.0 < load < made / float(found.point.stations.mass_flow[row, 0])


def test_tools_with_dust_of_their_own_are_caught_each_by_its_own() -> None:
    """A planer and a sander: the shavings are thrown, the dust floats."""
    line = at_tool("planer", 0.1)
    hood = OpenHood(distance=0.05, release="active", thrown_share=0.0)
    sander = Port("Sander", 0.05, hood=hood, dust_rate=4e-5, dust=DUSTS["sanding-p120"])
    both = replace(line, branches=(*line.branches, Branch("sander", sander, (Hose("second", 0.05, 2.0),))))
    planer, sanded = assess(both).captures
    assert float(planer.total[0]) > 0.7
    assert float(sanded.total[0]) == pytest.approx(
        float(sanded.airborne[0])
        * float(np.sum(DUSTS["sanding-p120"].weights / (1 + (DUSTS["sanding-p120"].sizes / 1e-4) ** 2)))
    )
