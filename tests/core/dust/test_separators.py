"""Separators of every kind on a whole line: conservation, order, limits, stages in series."""

from collections.abc import Callable
from dataclasses import replace
from math import radians

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.bins import Bin
from fenwick.core.components.chambers import ElbowLid, OneBody, RimInlet
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Hose
from fenwick.core.components.separator import Separator, Slot, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.doubt.uncertainty import MODEL, rule_words, spread_values, sureness
from fenwick.core.dust.separation import fill_mark
from fenwick.core.dust.traces import traces
from fenwick.core.formulas.cyclone import FAMILIES
from fenwick.core.formulas.swirl import cut_size_orbit, loss_coefficient_orbit, swirl_velocities
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.line.line import Line
from fenwick.core.rules import rule
from fenwick.core.search.effects import effects, sweeps
from fenwick.wording.separator import NOT_MODELLED, unmodelled_rows
from tests.lines import disc_line

SLOTS = (Slot(0.03, radians(240.0)),)


def bin_of(**changes: object) -> Bin:
    """A straight bin, clamp-ring lid."""
    return replace(Bin((0.0, 0.45), (0.34, 0.34), leak_area=0.0, fill_height=0.05), **changes)  # type: ignore[arg-type]


MAKERS: dict[str, Callable[[Bin], Separator]] = {
    "cyclone": lambda box: Cyclone("sep", FAMILIES["high-efficiency"].of(0.15), "smooth", box),
    "shop-built cyclone": lambda box: Cyclone("sep", FAMILIES["conventional"].of(0.2), "shop-built", box),
    "disc on top": lambda box: SlottedDisc("sep", 0.34, 0.12, 0.05, 0.063, 0.06, SLOTS, box),
    "disc in the bin": lambda box: SlottedDisc("sep", 0.33, 0.12, 0.05, 0.063, 0.06, SLOTS, box, hung=True),
    "elbow lid": lambda box: ElbowLid("sep", 0.05, 0.05, 0.06, box),
    "rim inlet": lambda box: RimInlet("sep", 0.05, 0.05, 0.08, box),
    "one body": lambda box: OneBody("sep", 0.34, 0.12, 0.05, 0.063, 0.06, SLOTS, box, window_area=0.0019),
}


def line_of(separator: Separator, dust: str = "sanding-p120", rate: float = 0.0) -> Line:
    """A drum sander's line with that separator."""
    line = disc_line(rate=rate)
    return replace(line, dust=DUSTS[dust], trunk=(separator, Hose("link", 0.05, 1.2)))


def kept(found: Assessment) -> np.ndarray:
    """What all stages keep."""
    assert found.kept is not None
    return found.kept


@pytest.mark.parametrize("kind", MAKERS)
def test_dust_is_conserved_and_shares_are_shares(kind: str) -> None:
    found = assess(line_of(MAKERS[kind](bin_of())))
    (stage,) = found.separations
    assert stage.grades is not None
    for grades in stage.models.values():
        assert np.all((grades.kept >= 0.0) & (grades.kept <= 1.0))
    assert found.fate is not None
    ends = (found.fate.bin, found.fate.filter, found.fate.exhaust, found.fate.room_air, found.fate.floor)
    assert float(sum(ends)[0]) == pytest.approx(1.0, abs=1e-9)
    assert found.point.residual[0] < 1.0


@pytest.mark.parametrize("kind", MAKERS)
def test_leak_fill_and_tilt_only_cost(kind: str) -> None:
    made = MAKERS[kind](bin_of())
    for changed in (
        made.changed(bin=replace(made.bin, leak_area=np.linspace(0.0, 2e-4, 7))),
        made.changed(bin=replace(made.bin, fill_height=np.linspace(0.0, 0.45, 7))),
        made.changed(tilt=np.linspace(0.0, 1.2, 7)),
    ):
        shares = kept(assess(line_of(changed)))
        assert np.all(np.diff(shares) <= 1e-9)
        assert shares[-1] < shares[0]


@given(st.sampled_from(sorted(MAKERS)), st.sampled_from(sorted(DUSTS)), st.floats(0.0, 0.44), st.floats(0.0, 5e-4))
def test_a_share_kept_is_always_a_share(kind: str, dust: str, fill: float, leak: float) -> None:
    found = assess(line_of(MAKERS[kind](bin_of(fill_height=fill, leak_area=leak)), dust))
    assert 0.0 <= kept(found)[0] <= 1.0
    assert found.fate is not None
    assert float(found.fate.bin[0]) <= 1.0


def test_a_full_bin_keeps_nothing_whatever_stands_on_it() -> None:
    for make in MAKERS.values():
        assert kept(assess(line_of(make(bin_of(fill_height=0.45)))))[0] == 0.0


@pytest.mark.parametrize(
    ("share", "expected"), [(0.0, 0.999), (0.05, 0.76), (0.10, 0.40), (0.15, 0.08)]
)  # published, for a cyclone not described
def test_sawdust_in_a_cyclone_that_leaks_below(share: float, expected: float) -> None:
    leaks = np.linspace(0.0, 6e-4, 241)
    cyclone = Cyclone("sep", FAMILIES["high-efficiency"].of(0.15), "smooth", bin_of(leak_area=leaks, fill_height=0.0))
    found = assess(line_of(cyclone, "saw"))
    kept_there = np.interp(share, found.separations[0].leak_share, kept(found))
    assert kept_there == pytest.approx(expected, abs=0.03)


def test_a_cyclone_is_told_by_four_models_and_a_disc_by_one() -> None:
    cyclone = assess(line_of(MAKERS["cyclone"](bin_of()))).separations[0]
    assert set(cyclone.models) == {"orbit", "lapple", "leith-licht", "iozia-leith"}
    assert set(assess(line_of(MAKERS["disc on top"](bin_of()))).separations[0].models) == {"orbit"}


def test_swapped_hoses_keep_less_and_are_named() -> None:
    right = MAKERS["cyclone"](bin_of())
    wrong = assess(line_of(right.changed(swapped=True)))
    assert kept(wrong)[0] == pytest.approx(0.6 * kept(assess(line_of(right)))[0])
    (check,) = [check for check in wrong.checks if check.id == "swapped-hoses"]
    assert LEVEL_WORDS[int(check.level[0])] == "act"


def test_a_long_vortex_stirs_the_bin_and_is_named() -> None:
    for height, level in ((0.3, "watch"), (2.0, "ok")):
        shape = replace(FAMILIES["high-efficiency"].of(0.15), height=height)
        found = assess(line_of(Cyclone("sep", shape, "smooth", bin_of())))
        (check,) = [check for check in found.checks if check.id == "vortex-tail"]
        assert LEVEL_WORDS[int(check.level[0])] == level


def test_stages_in_series_combine_size_by_size() -> None:
    first, second = MAKERS["disc on top"](bin_of()), MAKERS["cyclone"](bin_of()).changed(id="two")
    line = line_of(first)
    both = replace(line, trunk=(first, Hose("mid", 0.05, 0.5), second, Hose("link", 0.05, 1.2)))
    found = assess(both)
    one, two = (stage.grades.kept for stage in found.separations if stage.grades)
    assert line.dust is not None
    assert found.arriving is not None
    entering = found.arriving.entering
    past = entering * (1 - one) * (1 - two)
    assert kept(found)[0] == pytest.approx(1.0 - float(past.sum() / entering.sum()))
    assert kept(found)[0] > found.efficiency[0][0]
    assert found.point.port_flow[0, 0] < assess(line).point.port_flow[0, 0]


def test_a_hung_disc_leaves_less_room_and_a_gap_lets_more_through() -> None:
    box = bin_of()
    tight = SlottedDisc("sep", 0.34, 0.12, 0.05, 0.063, 0.06, SLOTS, box, hung=True)
    loose = replace(tight, chamber_diameter=0.32)
    on_top = replace(tight, hung=False)
    assert tight.free_height == pytest.approx(float(on_top.free_height) - 0.12)
    assert float(tight.gap) == 0.0
    assert float(loose.gap) == pytest.approx(0.01)
    assert loose.opening > tight.opening
    assert fill_mark(tight, disc_line().rules)[0] == pytest.approx(
        fill_mark(on_top, disc_line().rules)[0] - 0.12, abs=2e-3
    )


def test_a_narrow_window_costs_air() -> None:
    wide, narrow = (
        assess(line_of(replace(MAKERS["one body"](bin_of()), window_area=area))).point.port_flow[0, 0]  # type: ignore[type-var]
        for area in (0.004, 0.0005)
    )
    assert narrow < 0.9 * wide


def test_a_wet_stage_takes_fine_steel_and_costs_suction() -> None:
    dry = MAKERS["disc on top"](bin_of())
    wet = WetStage("wet", 0.03, 0.03, 0.3, 5.0)
    line = line_of(dry, "steel-grinding")
    washed = assess(replace(line, trunk=(dry, Hose("mid", 0.05, 0.5), wet, Hose("link", 0.05, 1.2))))
    assert washed.fate is not None
    assert 0.0 < float(washed.fate.wet[0]) < 1.0
    assert kept(washed)[0] > kept(assess(line))[0]
    row = washed.point.stations.index("wet")
    assert washed.point.stations.loss[row, 0] > 998 * 9.81 * 0.03
    (check,) = [check for check in washed.checks if check.id == "carry-over"]
    assert check.limit[0] == 1.5


def test_the_bands_hold_the_figures_repeat_and_name_what_drives_them() -> None:
    line = line_of(MAKERS["cyclone"](bin_of()))
    found, again = sureness(line), sureness(line)
    assert found == again
    (stage,) = found.stages
    models = [grades.cut_size[0] for grades in assess(line).separations[0].models.values()]
    assert stage.cut_size is not None
    assert min(models) * 0.9 < stage.cut_size.low < stage.cut_size.median < stage.cut_size.high < max(models) * 1.3
    drivers = dict(stage.cut_size.drivers)
    assert max(drivers, key=lambda key: drivers[key]) == MODEL
    for band in (stage.kept, stage.pressure_drop, stage.inlet_velocity):
        assert band is not None
        assert band.low <= band.median <= band.high
        assert all(rule_words(key) for key, _ in band.drivers)


def test_a_measured_leak_is_surer_than_a_guessed_lid() -> None:
    loose = sureness(line_of(MAKERS["cyclone"](bin_of(leak_area=None, closure="loose")))).kept
    known = sureness(line_of(MAKERS["cyclone"](bin_of(leak_area=100e-6)))).kept
    assert loose is not None
    assert known is not None
    assert loose.high - loose.low > known.high - known.low


def test_what_a_fault_costs_is_what_mending_it_gains() -> None:
    made = MAKERS["disc on top"](bin_of(leak_area=30e-6, fill_height=0.2)).changed(tilt=0.2)
    line = line_of(made)
    faults, sizes = effects(line, made)
    assert {effect.id for effect in faults} == {"empty", "seal", "upright"}
    assert all(effect.gain > 0.0 for effect in faults)
    sealed = kept(assess(line_of(made.changed(bin=replace(made.bin, leak_area=0.0)))))[0]
    seal = next(effect for effect in faults if effect.id == "seal")
    assert seal.kept == pytest.approx(float(sealed))
    assert {"slot-wider", "outlet-longer", "deeper-bin"} <= {effect.id for effect in sizes}


@pytest.mark.parametrize("kind", MAKERS)
def test_sweeps_start_where_nothing_is_wrong_and_only_fall(kind: str) -> None:
    made = MAKERS[kind](bin_of(leak_area=10e-6))
    for sweep in sweeps(line_of(made), made):
        assert np.all(np.diff(sweep.value) > 0.0)
        assert np.all(np.diff(sweep.kept) <= 1e-9)
        assert sweep.value[0] == pytest.approx(0.0, abs=1e-6)
    fill = sweeps(line_of(made), made)[0]
    assert fill.kept[-1] == 0.0


@pytest.mark.parametrize("kind", MAKERS)
def test_traced_grains_agree_with_the_grade_curve(kind: str) -> None:
    made = MAKERS[kind](bin_of())
    line = line_of(made)
    found = assess(line)
    followed = traces(made, line, found.point, found.separations[0])
    assert found.separations[0].grades is not None
    cut = float(found.separations[0].grades.cut_size[0])
    for trace in followed:
        assert np.all(trace.radius > 0.0)
        assert np.all(np.diff(trace.angle) >= -1e-9)
        if trace.size < 0.5 * cut:
            assert trace.end == "past" or trace.end == "afloat"
        if trace.size > 1.9 * cut:
            assert trace.end in ("bin", "back")
    assert traces(made, replace(line, dust=None), found.point, replace(found.separations[0], grades=None)) == ()


@given(st.sampled_from(sorted(MAKERS)), st.sampled_from(["saw", "sanding-p120", "plaster"]), st.integers(0, 50))
def test_bands_are_ordered_shares_of_shares_add_up_and_hold_the_figure(kind: str, dust: str, seed: int) -> None:
    line = line_of(MAKERS[kind](bin_of(leak_area=None)), dust)
    found, (stage,) = assess(line), sureness(line, draws=200, seed=seed).stages
    (result,) = found.separations
    assert result.grades is not None
    figures = (found.efficiency[0], result.grades.cut_size, result.pressure_drop, result.inlet_velocity)
    bands = (stage.kept, stage.cut_size, stage.pressure_drop, stage.inlet_velocity)
    for band, figure in zip(bands, figures, strict=True):
        assert band is not None
        near = 1e-4 * abs(float(figure[0]))
        assert band.low - near <= figure[0] <= band.high + near  # by itself: nothing widens a band to hold it
        assert band.low <= band.median <= band.high
        shares = [share for _, share in band.drivers]
        assert shares == sorted(shares, reverse=True)
        assert all(0.0 < share <= 1.0 for share in shares)
    assert stage.kept is not None
    assert 0.0 <= stage.kept.low <= stage.kept.high <= 1.0


def test_more_draws_move_a_band_little() -> None:
    line = line_of(MAKERS["cyclone"](bin_of(leak_area=None)))
    few, many = sureness(line).kept, sureness(line, draws=8000).kept
    assert few is not None
    assert many is not None
    assert few.median == pytest.approx(many.median, abs=0.01)
    assert few.low == pytest.approx(many.low, abs=0.05)
    assert few.high == pytest.approx(many.high, abs=0.01)


def test_a_rule_is_drawn_with_its_range_as_the_middle_nine_tenths() -> None:
    normal = np.random.default_rng(1).standard_normal(20_000)
    for key in ("swirl.cut", "bin.exchange-disc", "swirl.friction-smooth"):
        row = rule(key)
        drawn = spread_values(row, normal)
        assert np.median(drawn) == pytest.approx(row.value, rel=0.02)
        assert np.quantile(drawn, 0.05) == pytest.approx(row.low, rel=0.05)
        assert np.quantile(drawn, 0.95) == pytest.approx(row.high, rel=0.05)
    nothing = rule("closure.screwed-gasket")
    assert nothing.low == 0.0
    assert np.all(spread_values(nothing, normal) > 0.0)


def test_what_enters_no_formula_is_not_called_nothing() -> None:
    made = MAKERS["disc on top"](bin_of(leak_area=10e-6))
    _, sizes = effects(line_of(made), made)
    assert not {effect.id for effect in sizes} & {"slot-turned", "slots-placed"}
    (row,) = unmodelled_rows(made)
    assert row.points == NOT_MODELLED
    assert unmodelled_rows(MAKERS["cyclone"](bin_of())) == []


@pytest.mark.parametrize("kind", ["disc on top", "disc in the bin", "one body"])
def test_a_rectangular_inlet_of_the_same_area_moves_the_same_air(kind: str) -> None:
    made = MAKERS[kind](bin_of())
    assert isinstance(made, SlottedDisc)
    side = float(made.geometry.inlet_height)
    flat = made.changed(inlet_rectangle=(side * 1.4, side / 1.4))
    assert flat.hose_bore == pytest.approx(float(made.hose_bore))
    round_one, other = (assess(line_of(one)) for one in (made, flat))
    assert other.separations[0].inlet_velocity[0] == pytest.approx(round_one.separations[0].inlet_velocity[0], rel=0.02)
    assert round_one.separations[0].grades is not None
    assert other.separations[0].grades is not None
    assert other.separations[0].grades.cut_size[0] != round_one.separations[0].grades.cut_size[0]


@given(st.floats(0.6, 1.8), st.floats(0.01, 0.06))
def test_a_swirl_that_is_weaker_cuts_coarser_and_costs_less(factor: float, flow: float) -> None:
    geometry = MAKERS["rim inlet"](bin_of()).geometry
    weak, strong = (
        (
            float(cut_size_orbit(geometry, swirl_velocities(geometry, flow, 0.02, 0.0, f), flow, 650.0, 1.2, 1.8e-5)),
            float(loss_coefficient_orbit(geometry, 0.02, 0.0, f)),
        )
        for f in (0.5 * factor, factor)
    )
    assert weak[0] > strong[0]
    assert weak[1] < strong[1]
