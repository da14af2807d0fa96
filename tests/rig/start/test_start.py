"""Five answers, or none at all, come to a line that can be solved and that says what it guessed."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.core.components.bins import CLOSURES, MATERIALS
from fenwick.core.components.dust import DUSTS
from fenwick.core.dust.separation import fill_mark
from fenwick.core.formulas.fan import peak_air_power_share
from fenwick.core.judging.assess import assess
from fenwick.rig import RigError, build_line, read_rig, write_rig
from fenwick.rig.edits.kinds import kind_of
from fenwick.rig.format.curve import NameplatePart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.result import solve_rig
from fenwick.rig.start import Answers, start_line
from fenwick.rig.start.answers import SHARING, STANDS
from fenwick.units import METRIC


def curve(rig: Rig) -> NameplatePart:
    assert isinstance(rig.vacuum.curve, NameplatePart)
    return rig.vacuum.curve


def marked(rig: Rig) -> set[str]:
    return {f"{guess.part}.{guess.key}" for guess in rig.guesses}


def test_nothing_known_is_a_whole_line_with_every_figure_marked() -> None:
    started = start_line(Answers())
    assert started.as_found is not None
    found = assess(build_line(started.planned))
    assert 0.01 < found.point.port_flow[0, 0] < 0.06
    assert found.fate is not None
    assert found.efficiency
    guessed = marked(started.planned)
    assert {"vacuum.curve.sealed_suction_pa", "hose.bore_m", "hose.wall", "sep.bin.material", "dust.kind"} <= guessed
    assert not any(guess.startswith("sep") for guess in marked(started.as_found))
    assert "proposal" in " ".join(one.sentence(METRIC) for one in started.said)
    assert read_rig(write_rig(started.planned)) == started.planned  # the marks are part of the file


def test_answers_are_taken_as_they_are_and_not_marked() -> None:
    answers = Answers(
        tools=("drum-sander",),
        dust="mdf-sanding",
        sealed_suction=19e3,
        open_flow=0.055,
        hose_bore=0.032,
        hose_length=3.0,
        hose_wall="smooth",
        link_bore=0.05,
        link_length=1.0,
        bin_top=0.4,
        bin_bottom=0.35,
        bin_height=0.5,
        bin_material="steel",
        bin_closure="latch-gasket",
        stands="disc",
    )
    started = start_line(answers)
    rig = started.planned
    assert started.as_found is None
    assert (curve(rig).sealed_suction_pa, curve(rig).open_flow_m3_s) == (19e3, 0.055)
    assert rig.dust is not None
    assert rig.dust.kind == "mdf-sanding"
    left = marked(rig)
    assert not left & {
        "vacuum.curve.sealed_suction_pa",
        "vacuum.curve.open_flow_m3_s",
        "hose.bore_m",
        "hose.wall",
        "sep.bin.closure",
        "dust.kind",
    }
    assert {"sep.slots[0].width_m", "sep.bin.wall_m", "tool.port.bore_m"} <= left  # it stands there, unmeasured


def test_peak_power_is_not_used() -> None:
    started = start_line(Answers(electrical_power=4500.0))
    assert started.planned.vacuum.electrical_power_w is None
    assert any("peak power" in one.words for one in started.said)
    guess = next(g for g in started.planned.guesses if g.key == "curve.sealed_suction_pa")
    assert guess.low is not None
    assert guess.low < 0.65 * curve(started.planned).sealed_suction_pa  # wide: not even the class is known


@pytest.mark.parametrize("given_figure", ["sealed_suction", "open_flow"])
def test_air_watts_and_one_figure_give_the_other(given_figure: str) -> None:
    figure = {"sealed_suction": 20e3, "open_flow": 0.05}[given_figure]
    started = start_line(Answers(air_watts=250.0, **{given_figure: figure}))
    plate = curve(started.planned)
    power = plate.sealed_suction_pa * plate.open_flow_m3_s * float(peak_air_power_share(1.0))
    assert power == pytest.approx(250.0, rel=0.005)
    assert len([guess for guess in started.planned.guesses if guess.key.startswith("curve.")]) == 1


def test_three_figures_that_cannot_be_are_named() -> None:
    with pytest.raises(RigError) as refused:
        start_line(Answers(sealed_suction=20e3, open_flow=0.05, air_watts=950.0))
    assert refused.value.problems[0].path == "vacuum.curve.air_watts"
    assert "too high" in str(refused.value)


def test_a_refused_dust_stops_here() -> None:
    with pytest.raises(RigError, match="licensed work"):
        start_line(Answers(dust="silica"))


def test_litres_that_would_stand_higher_than_any_bin_are_left_out() -> None:
    started = start_line(Answers(bin_bottom=0.21875, bin_volume=0.125))
    assert any("litres do not go with them" in one.words for one in started.said)


def maybe(strategy: st.SearchStrategy) -> st.SearchStrategy:  # type: ignore[type-arg]
    return st.none() | strategy


ANSWERS = st.builds(
    Answers,
    tools=st.lists(st.sampled_from(sorted(set(TOOLS) - {"bench-grinder"})), max_size=4, unique=True).map(tuple),
    dust=maybe(st.sampled_from(sorted(DUSTS))),
    vacuum=maybe(st.sampled_from(sorted(VACUUMS))),
    sealed_suction=maybe(st.floats(2e3, 30e3)),
    open_flow=maybe(st.floats(0.01, 0.4)),
    current=maybe(st.floats(2.0, 16.0)),
    hose_bore=maybe(st.floats(0.02, 0.1)),
    hose_length=maybe(st.floats(0.3, 10.0)),
    link_bore=maybe(st.floats(0.02, 0.1)),
    bin_top=maybe(st.floats(0.2, 0.6)),
    bin_bottom=maybe(st.floats(0.2, 0.6)),
    bin_height=maybe(st.floats(0.15, 1.0)),
    bin_volume=maybe(st.floats(0.015, 0.2)),
    electrical_power=maybe(st.floats(150.0, 4000.0)),
    share=maybe(st.sampled_from(sorted(SHARING))),
    bin_material=maybe(st.sampled_from(sorted(MATERIALS))),
    bin_closure=maybe(st.sampled_from(sorted(CLOSURES))),
    stands=maybe(st.sampled_from(sorted(STANDS))),
)


@settings(max_examples=60, deadline=None)
@given(ANSWERS)
def test_any_answers_come_to_a_line_that_solves(answers: Answers) -> None:
    started = start_line(answers)
    for rig in (started.planned, started.as_found):
        if rig is None:
            continue
        line = build_line(rig)
        found = assess(line)
        assert found.point.residual[0] < 1.0
        for disc in line.separators:
            height, volume = fill_mark(disc, line.rules)
            assert 0.0 <= height < disc.bin.height
            assert volume <= float(disc.bin.volume_to(disc.bin.height))
        for guess in rig.guesses:
            if guess.low is not None and guess.high is not None:
                assert guess.low <= guess.high


@pytest.mark.parametrize(
    ("stands", "kind"),
    [("hung", "hung-disc"), ("cyclone", "cyclone"), ("elbows", "elbow-lid"), ("disc", "slotted-disc")],
)
def test_what_stands_there_is_drawn_as_its_kind_with_every_size_a_guess(stands: str, kind: str) -> None:
    found = start_line(Answers(stands=stands))
    part = next(element for element in found.planned.line.elements if element.id == "sep")
    assert isinstance(part, SeparatorPart)
    assert kind_of(part) == kind
    assert found.as_found is None
    keys = {guess.key for guess in found.planned.guesses if guess.part == "sep"}
    assert "outlet_length_m" in keys
    assert solve_rig(found.planned)["separators"][0]["efficiency"] > 0.3


def said_of(answers: Answers) -> str:
    """Everything that was concluded."""
    return " ".join(one.sentence(METRIC) for one in start_line(answers).said)


def test_what_a_label_moves_is_said_with_its_figures() -> None:
    drum = {"vacuum": "drum"}
    assert "1000 W move it to 15.8 kPa shut and 54.4 L/s open; its class makes 18 kPa and 62 L/s." in said_of(
        Answers(electrical_power=1000.0, **drum)  # type: ignore[arg-type]
    )
    assert "1300 W come to 18 kPa shut and 62 L/s open." in said_of(Answers(electrical_power=1300.0, **drum))  # type: ignore[arg-type]
    assert "moves nothing" not in said_of(Answers(**drum))  # type: ignore[arg-type]
    whole = said_of(Answers(sealed_suction=20e3, open_flow=0.05, electrical_power=1000.0))
    assert (
        "1000 W move nothing, as suction and flow are both known: 25 % of it becomes air power, which can be." in whole
    )
    assert "no fan does" in said_of(Answers(sealed_suction=30e3, open_flow=0.1, electrical_power=1000.0))


def test_a_pail_in_litres_is_a_bin_of_usual_proportions() -> None:
    started = start_line(Answers(bin_volume=0.02, stands="disc"))
    part = next(e for e in started.planned.line.elements if isinstance(e, SeparatorPart))
    volume = build_line(started.planned).separators[0].bin
    assert float(volume.volume_to(volume.height)) == pytest.approx(0.02, rel=0.02)
    assert {"sep.bin.profile[1].d_m", "sep.bin.profile[1].height_m"} <= marked(started.planned)
    assert part.bin.profile[1].d_m > part.bin.profile[0].d_m  # type: ignore[operator]
    assert "A bin of 20 L was taken to be" in said_of(Answers(bin_volume=0.02))


@pytest.mark.parametrize(
    "ruled",
    [{"bin_height": 0.4}, {"bin_top": 0.35}, {"bin_bottom": 0.3}, {"bin_top": 0.36, "bin_height": 0.4}],
)
def test_litres_and_some_of_the_ruler_give_the_rest(ruled: dict[str, float]) -> None:
    started = start_line(Answers(bin_volume=0.035, stands="disc", **ruled))  # type: ignore[arg-type]
    bin_ = build_line(started.planned).separators[0].bin
    assert float(bin_.volume_to(bin_.height)) == pytest.approx(0.035, rel=0.02)
    part = next(e for e in started.planned.line.elements if isinstance(e, SeparatorPart))
    kept = {"bin_top": part.bin.profile[1].d_m, "bin_bottom": part.bin.profile[0].d_m, "bin_height": bin_.height}
    for name, value in ruled.items():
        assert kept[name] == pytest.approx(value), name


@pytest.mark.parametrize(
    "ruled", [{"bin_top": 0.4, "bin_bottom": 0.35, "bin_height": 0.5}, {"bin_top": 0.4, "bin_height": 1.0}]
)
def test_litres_that_contradict_the_ruler_are_left_out_and_that_is_said(ruled: dict[str, float]) -> None:
    answers = Answers(bin_volume=0.012, **ruled)  # type: ignore[arg-type]
    assert "were left out" in said_of(answers)
    assert start_line(answers).planned == start_line(Answers(**ruled)).planned  # type: ignore[arg-type]


@pytest.mark.parametrize(("share", "use"), [(None, "swap"), ("swap", "swap"), ("gates", "gates")])
def test_several_tools_share_one_hose_or_have_one_each(share: str | None, use: str) -> None:
    started = start_line(Answers(tools=("planer", "mitre-saw"), share=share))
    rig = started.planned
    assert rig.name == "Planer and mitre saw with a disc"
    assert rig.line.use == use
    assert [way[0].id for way in rig.line.ways] == ["planer", "mitre-saw"]
    assert [way[0].gate.opening for way in rig.line.ways if way[0].gate] == [1.0, 0.0]
    assert [way[0].port.dust for way in rig.line.ways if way[0].port] == [None, "saw"]
    hoses = [len(way[0].elements) for way in rig.line.ways]
    assert hoses == ([0, 0] if use == "swap" else [1, 1])
    assert {guess.part for guess in rig.guesses} >= {"planer", "mitre-saw", "vacuum"}
    assert solve_rig(rig)["ports"][0]["flow_m3_s"] > 0.01


def test_sparks_and_wood_on_one_line_stop_here() -> None:
    with pytest.raises(RigError):
        start_line(Answers(tools=("bench-grinder", "table-saw"), stands="disc"))


@pytest.mark.parametrize(("flow", "believed"), [(0.03, True), (0.12, False)])
def test_start_and_checks_believe_the_same_labels(flow: float, believed: bool) -> None:
    answers = Answers(sealed_suction=20e3, open_flow=flow, electrical_power=1000.0)
    found = assess(build_line(start_line(answers).planned)).checks
    check = next(one for one in found if one.id == "fan-believable")
    assert (int(check.level[0]) == 0) == believed
    assert ("which can be" in said_of(answers)) == believed
