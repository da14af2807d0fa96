"""Every reason not to switch on: each check bites when it should, and is released by what its words ask for."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from fenwick.core.components.bins import MATERIALS, Bin, Lid, Material, Relief
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.separator import Stand
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.shell import section_stiffness
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, OK, WATCH, Check
from fenwick.core.judging.review import review
from fenwick.core.judging.strength import fan_flow, relief_that_would_do
from fenwick.core.judging.supply import Supply, supply_checks
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from tests.lines import disc_line


def found(line: Line, *supplies: Supply) -> dict[str, Check]:
    """Every check by its id."""
    return {check.id: check for check in review(line, assess(line), supplies)}


def level(line: Line, name: str) -> int | None:
    """How bad a check is; None where the line has none of that id."""
    check = found(line).get(name)
    return None if check is None else int(check.level[0])


def with_bin(**changes: Any) -> Line:
    """The usual line over another bin."""
    line = disc_line()
    stage = line.separators[0]
    return replace(line, trunk=(stage.changed(bin=replace(stage.bin, **changes)), *line.trunk[1:]))


def with_stage(**changes: Any) -> Line:
    """The usual line with its separator otherwise."""
    line = disc_line()
    return replace(line, trunk=(line.separators[0].changed(**changes), *line.trunk[1:]))


def with_vacuum(line: Line | None = None, **changes: Any) -> Line:
    """The usual line with its vacuum otherwise."""
    line = line or disc_line()
    return replace(line, vacuum=replace(line.vacuum, **changes))


def making(kind: str, **vacuum: Any) -> Line:
    """The usual line with another dust."""
    return with_vacuum(replace(disc_line(), dust=DUSTS[kind]), **vacuum)


def test_a_thin_bin_folds_until_a_valve_lets_air_in_in_time() -> None:
    thin = with_bin(wall=0.0015)
    assert level(thin, "bin-collapse") == ACT
    point = assess(thin).point
    would = relief_that_would_do(thin.separators[0], thin, point)
    assert would is not None
    opens_at, area = float(would.opens_at), float(would.area)
    assert area > 0.0
    assert fan_flow(thin, np.array([opens_at]))[0] == pytest.approx(0.062 * (1.0 - opens_at / 18e3), rel=0.02)
    saved = with_bin(wall=0.0015, relief=Relief(opens_at, 1.05 * area))
    assert level(saved, "bin-collapse") == OK
    assert level(saved, "relief") == OK
    small = with_bin(wall=0.0015, relief=Relief(opens_at, 0.5 * area))
    assert level(small, "bin-collapse") == ACT
    assert level(small, "relief") == ACT
    late = with_bin(wall=0.0015, relief=Relief(17e3, 1.0))
    assert level(late, "relief") == ACT
    assert relief_that_would_do(with_bin(wall=0.01).separators[0], thin, point) is None


def test_a_ring_must_be_stiff_enough_itself() -> None:
    flimsy, stout = (
        float(section_stiffness(MATERIALS[key].youngs_modulus, *size))
        for key, size in (("hdpe", (0.003, 0.003)), ("steel", (0.02, 0.003)))
    )
    for stiffness, expected in ((flimsy, ACT), (stout, OK)):
        assert level(with_bin(stiffeners=(0.22,), ring_stiffness=(stiffness,)), "ring-stiff") == expected
    assert level(with_bin(stiffeners=(0.22,), ring_stiffness=(None,)), "ring-stiff") is None
    assert level(with_bin(stiffeners=(0.22,)), "ring-stiff") is None


def test_a_lid_is_stiffened_by_a_disc_and_by_its_rim() -> None:
    def drawn(**lid: Any) -> float:
        return float(found(with_bin(lid=Lid(**lid)))["lid-bends"].value[0])

    bare = drawn(material="pp", thickness=0.003)
    assert drawn(material="pp", thickness=0.003, rim_held=True) < bare
    assert drawn(material="pp", thickness=0.003, stiffener=("plywood", 0.012)) < bare
    assert level(with_bin(lid=Lid("pp", 0.003)), "lid-bends") == ACT
    assert level(with_bin(lid=Lid("plywood", 0.018)), "lid-bends") == OK


def test_a_nested_bucket_and_a_material_of_ones_own() -> None:
    one, two = (float(found(with_bin(nested=nested))["bin-collapse"].value[0]) for nested in (False, True))
    assert two == pytest.approx(2.0 * one)
    own = with_bin(material=None, own_material=Material("Own", 0.9e9, 0.42))
    assert float(found(own)["bin-collapse"].value[0]) == pytest.approx(one)
    assert level(with_bin(material=None), "bin-collapse") is None


def test_sheet_bent_cold_is_judged_where_its_limit_is_known() -> None:
    assert level(with_stage(body=("polycarbonate", 0.001)), "sheet-bends") == OK
    assert level(with_stage(body=("polycarbonate", 0.003)), "sheet-bends") == WATCH
    assert level(with_stage(body=("polycarbonate", 0.008)), "sheet-bends") == ACT
    assert level(with_stage(body=("acrylic", 0.0002)), "sheet-bends") == OK
    assert level(with_stage(body=("acrylic", 0.0008)), "sheet-bends") == WATCH
    assert level(with_stage(body=("acrylic", 0.003)), "sheet-bends") == ACT
    assert level(with_stage(body=("hdpe", 0.001)), "sheet-bends") == OK
    assert level(with_stage(body=("hdpe", 0.008)), "sheet-bends") == ACT


def test_plywood_is_judged_by_its_radius_steel_bends_freely_and_the_rest_is_not_judged() -> None:
    assert level(with_stage(body=("plywood", 0.0015)), "sheet-radius") == OK
    assert level(with_stage(body=("plywood", 0.006)), "sheet-radius") == WATCH
    for material in ("pp", "abs", "mdf", "fibre-drum"):
        assert level(with_stage(body=(material, 0.002)), "sheet-not-judged") == OK
        assert level(with_stage(body=(material, 0.002)), "sheet-bends") is None
    steel = found(with_stage(body=("steel", 0.001)))
    assert not {"sheet-bends", "sheet-radius", "sheet-not-judged"} & set(steel)


def test_it_fits_stands_and_can_be_lifted_or_is_not_judged() -> None:
    bare = found(disc_line())
    assert not {"headroom", "footprint", "tips", "rolls-apart"} & set(bare)
    for room, expected in ((0.6, ACT), (0.75, WATCH), (1.0, OK)):
        assert level(with_stage(stand=Stand(headroom=room)), "headroom") == expected
    assert level(with_stage(stand=Stand(space=0.3)), "footprint") == ACT
    assert level(with_stage(stand=Stand(space=0.4)), "footprint") == OK
    assert level(with_stage(stand=Stand(mass=1.0)), "tips") == ACT
    assert level(with_stage(stand=Stand(mass=1.0, tied=True)), "tips") == OK
    assert level(with_stage(stand=Stand(mass=5.0, base=2.0)), "tips") == OK
    assert level(with_stage(stand=Stand(wheels=True)), "rolls-apart") == WATCH
    assert level(with_stage(stand=Stand(wheels=True, tied=True)), "rolls-apart") is None
    tips = found(with_stage(stand=Stand(mass=1.0)))["tips"]
    assert tips.notes[0] > float(tips.value[0])  # full it stands firmer
    assert 0.0 < tips.notes[1] < np.pi / 2.0


def test_a_full_bin_weighs_bin_and_dust_by_hand() -> None:
    line = disc_line()
    check = found(line)["full-weight"]
    box: Bin = line.separators[0].bin
    wall = np.pi * 0.34 * 0.45 + 0.5 * np.pi * 0.34**2
    assert box.shell_mass == pytest.approx(wall * 0.002 * 950.0)
    assert float(check.value[0]) == pytest.approx(float(box.shell_mass or 0.0) + check.notes[0])
    assert found(with_bin(wall=None))["full-weight"].about == ("dust-alone",)
    assert level(replace(line, dust=DUSTS["steel-grinding"]), "full-weight") == ACT
    unknown = replace(DUSTS["saw"], bulk_density=None)
    assert level(replace(line, dust=unknown), "full-weight") is None


def test_wood_then_grinding_is_stopped_until_emptied_and_cleaned() -> None:
    assert level(making("steel-grinding"), "last-held") == WATCH  # nobody has said
    assert level(making("steel-grinding", last_held="saw"), "last-held") == ACT
    assert level(making("steel-grinding", last_held="saw", emptied=True), "last-held") == OK
    assert level(making("saw", last_held="steel-grinding"), "last-held") == ACT
    assert level(making("saw", last_held="bandsaw"), "last-held") is None
    assert level(making("plaster", last_held="saw"), "last-held") is None


def test_sparks_and_wood_never_share_a_line_even_behind_a_shut_gate() -> None:
    line = disc_line()
    branch = line.branches[0]
    assert branch.port is not None
    grinder = replace(branch, id="grinder", elements=(), gate_opening=0.0)
    grinder = replace(grinder, port=replace(branch.port, dust=DUSTS["steel-grinding"]))
    check = found(replace(line, branches=(branch, grinder)))["dust-meets"]
    assert int(check.level[0]) == ACT
    assert check.about == ("steel-grinding", "sanding-p120")
    assert level(line, "dust-meets") is None


def test_fibre_species_static_and_filters() -> None:
    assert level(making("fibre-composite"), "fibre") == ACT
    hepa = FilterMedium("hepa", 0.5)
    assert level(making("fibre-composite", filter=hepa), "fibre") == WATCH
    assert level(making("mdf-sanding"), "species") == WATCH
    oak = replace(DUSTS["saw"], species="beech-oak")
    assert level(replace(disc_line(), dust=oak), "species") == WATCH
    assert level(disc_line(), "species") is None
    assert level(disc_line(), "static") == WATCH
    assert level(replace(disc_line(), earthed=True), "static") == OK
    assert level(making("steel-grinding"), "static") is None
    assert level(with_vacuum(filter=None), "no-filter") == ACT
    assert level(with_vacuum(filter=None, exhaust_outdoors=True), "no-filter") == WATCH
    shares = [
        float(found(with_vacuum(filter=FilterMedium(kind, 0.5)))["filter-class"].value[0]) for kind in ("paper", "hepa")
    ]
    assert shares[1] < shares[0]


def test_the_motor_wants_air_no_dust_and_no_water() -> None:
    choked = disc_line(bore=0.012)
    assert level(choked, "motor-starved") == ACT
    assert level(with_vacuum(choked, own_cooling=True), "motor-starved") != ACT
    assert level(disc_line(), "motor-starved") == OK
    assert level(with_vacuum(filter=None), "motor-dusty") == ACT
    assert level(with_vacuum(filter=None, own_cooling=True), "motor-dusty") == WATCH
    wet = WetStage("wet", 0.04, 0.05, 0.4, 5.0)
    for takes, expected in ((False, ACT), (None, WATCH), (True, OK)):
        line = making("steel-grinding", takes_water=takes)
        assert level(replace(line, trunk=(*line.trunk, wet)), "water") == expected
    rainy = replace(disc_line(), site=replace(disc_line().site, outdoors=True))
    assert level(rainy, "rain") == WATCH


@pytest.mark.parametrize(
    ("tool", "vacuum", "breaker", "switch", "expected"),
    [
        (4.0, 5.0, 16.0, 10.0, {"circuit": OK, "switch": OK, "start-up": OK}),
        (8.0, 5.7, 16.0, 10.0, {"circuit": WATCH, "switch": ACT, "start-up": OK}),
        (9.0, 8.0, 10.0, None, {"circuit": ACT, "start-up": OK}),
    ],
)
def test_a_circuit_by_hand(
    tool: float, vacuum: float, breaker: float, switch: float | None, expected: dict[str, int]
) -> None:
    checks = supply_checks((Supply("saw", "North", tool, vacuum, breaker, switch),), RuleBook())
    assert {check.id: int(check.level[0]) for check in checks} == expected
    assert float(checks[0].value[0]) == pytest.approx(tool + vacuum)


def test_the_worst_tool_is_told_and_unknown_currents_are_left_out() -> None:
    supplies = (Supply("a", "North", 3.0, 5.0, 16.0), Supply("b", "North", 7.0, 5.0, 16.0))
    (circuit, _) = supply_checks(supplies, RuleBook())
    assert circuit.part == "b"
    assert supply_checks((Supply("a", None, 3.0, 5.0, 16.0), Supply("b", "N", None, 5.0, 16.0)), RuleBook()) == []
    (late,) = supply_checks((Supply("a", None, None, None, run_on=3.0, clears=5.0),), RuleBook())
    assert int(late.level[0]) == WATCH
