"""Stacks, doors and steps, walls that are not judged, hoses that go flat, water that meets an outlet."""

from __future__ import annotations

from dataclasses import replace
from math import atan, degrees
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.bins import Bin, Lid, Sides
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Hose
from fenwick.core.components.hood import ExtraFan, OpenHood
from fenwick.core.components.separator import Slot, Stand
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.stand import caster_share
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, OK, WATCH, Check
from fenwick.core.judging.passage import run_on_seconds
from fenwick.core.judging.review import review
from fenwick.core.judging.standing import full_mass, leg_length, stands_across, stands_tall
from fenwick.core.line.line import Line
from tests.lines import disc_line


def found(line: Line) -> dict[str, Check]:
    """Its checks by name."""
    return {check.id: check for check in review(line, assess(line))}


def level(line: Line, name: str) -> int | None:
    """How bad one of its checks is; None where there is none."""
    check = found(line).get(name)
    return None if check is None else int(check.level[0])


def with_bin(**changes: Any) -> Line:
    """The usual line over another bin."""
    line = disc_line()
    stage = line.separators[0]
    return replace(line, trunk=(stage.changed(bin=replace(stage.bin, **changes)), *line.trunk[1:]))


def stood(**stand: Any) -> Line:
    """The usual line on some stand."""
    line = disc_line()
    return replace(line, trunk=(line.separators[0].changed(stand=Stand(**stand)), *line.trunk[1:]))


BOX = (Sides(0.30, 0.50), Sides(0.36, 0.56))


def box(**changes: Any) -> Bin:
    """A rectangular bin."""
    return Bin((0.0, 0.5), (0.30, 0.36), sides=BOX, wall=0.003, material="hdpe", **changes)


def test_a_box_holds_what_its_sides_enclose() -> None:
    bin_ = box()
    whole = 0.5 / 6.0 * (0.15 + 4 * 0.33 * 0.53 + 0.36 * 0.56)
    assert float(bin_.volume_to(0.5)) == pytest.approx(whole)
    assert float(bin_.area_at(0.25)) == pytest.approx(0.33 * 0.53)
    assert float(bin_.diameter_at(0.0)) == pytest.approx(4 * 0.15 / 1.6)
    assert float(bin_.narrow_at(0.5)) == 0.36
    assert bin_.widest == 0.56


@given(st.floats(0.1, 0.8), st.floats(0.1, 0.8), st.floats(0.1, 1.0))
def test_a_round_bin_is_a_stack_of_frusta(low: float, high: float, tall: float) -> None:
    bin_ = Bin((0.0, tall), (low, high))
    by_hand = np.pi / 12.0 * tall * (low * low + low * high + high * high)
    assert float(bin_.volume_to(tall)) == pytest.approx(by_hand)
    assert float(bin_.volume_to(0.5 * tall)) < by_hand


def test_flat_walls_and_upright_ribs_are_not_judged_and_that_is_said() -> None:
    flat, ribbed = with_bin(sides=BOX), with_bin(ribs="upright")
    for line in (flat, ribbed):
        checks = found(line)
        assert "bin-collapse" not in checks
        assert int(checks["wall-not-judged"].level[0]) == WATCH
        assert assess(line).collapse is None
    assert "wall-not-judged" not in found(disc_line())
    assert "bin-collapse" in found(disc_line())


def test_a_lid_weighs_what_it_weighs() -> None:
    plain = box()
    lidded = box(lid=Lid("plywood", 0.018))
    area = 0.36 * 0.56
    assert float(lidded.shell_mass or 0.0) - float(plain.shell_mass or 0.0) == pytest.approx(
        area * (0.018 * 650.0 - 0.003 * 950.0)
    )


@pytest.mark.parametrize(("sight", "bad"), [("clear", OK), ("window", OK), ("lamp", OK), ("opaque", WATCH)])
def test_how_the_fill_is_seen(sight: str, bad: int) -> None:
    assert level(with_bin(sight=sight), "fill-seen") == bad
    assert level(disc_line(), "fill-seen") is None


def test_a_stack_stands_as_high_as_what_is_under_it() -> None:
    floor, stack = stood(headroom=1.0), stood(headroom=1.0, on="deck", base_height=0.6)
    assert stands_tall(stack.separators[0], stack) == pytest.approx(stands_tall(floor.separators[0], floor) + 0.6)
    assert level(floor, "headroom") == OK
    assert level(stack, "headroom") == ACT


def test_legs_are_as_long_as_the_vacuum_is_high_with_room_to_lift_its_head() -> None:
    rules = disc_line().rules
    assert leg_length(Stand(vacuum_height=0.55, head_lift=0.2), rules) == pytest.approx(0.75)
    assert leg_length(Stand(vacuum_height=0.55), rules) == pytest.approx(0.70)
    assert leg_length(Stand(), rules) is None
    levels = [level(stood(on="deck", base_height=h, vacuum_height=0.55), "legs") for h in (0.5, 0.6, 0.75)]
    assert levels == [ACT, WATCH, OK]
    assert level(stood(vacuum_height=0.55), "legs") is None  # beside it, on the floor


def test_casters_bear_a_third_of_the_full_unit_each() -> None:
    line = stood(mass=2.0, on="cart", wheels=True, vacuum_mass=9.0, caster_bears=30.0)
    check = found(line)["casters"]
    whole = full_mass(line.separators[0], line)
    assert whole is not None
    assert float(check.value[0]) == pytest.approx(whole / 3.0)
    for rating, bad in ((0.9, ACT), (1.2, WATCH), (1.6, OK)):
        assert level(stood(mass=2.0, wheels=True, caster_bears=rating * _share(on="floor")), "casters") == bad
    assert level(stood(mass=2.0, wheels=True), "casters") is None
    assert level(stood(mass=2.0, caster_bears=1.0), "casters") is None  # nothing rolls


def _share(**stand: Any) -> float:
    line = stood(mass=2.0, wheels=True, **stand)
    whole = full_mass(line.separators[0], line)
    assert whole is not None
    return whole / 3.0


def test_a_vacuum_beside_it_on_one_cart_steadies_it() -> None:
    alone, cart = stood(mass=2.0), stood(mass=2.0, on="cart", vacuum_mass=9.0)
    assert float(found(cart)["tips"].value[0]) > float(found(alone)["tips"].value[0])
    floor = float(alone.separators[0].bin.narrow_at(0.0))
    assert stands_across(cart.separators[0], cart.rules) == pytest.approx(floor + 0.12)
    assert stands_across(alone.separators[0], alone.rules) == pytest.approx(floor)
    door = found(stood(mass=2.0, on="cart", wheels=True, doorway=floor + 0.1))["doorway"]
    assert int(door.level[0]) == ACT


def test_what_hangs_at_a_wall_does_not_tip() -> None:
    assert level(stood(mass=0.1, on="shelf", base_height=0.8), "tips") == OK
    assert level(stood(on="shelf", base_height=0.5, vacuum_height=0.55), "legs") == ACT


@given(st.floats(1.0, 200.0), st.floats(1.0, 200.0))
def test_a_caster_never_bears_more_than_the_whole(mass: float, rating: float) -> None:
    assert 0.0 < float(caster_share(mass)) < mass


def test_a_heavy_vacuum_below_keeps_a_stack_upright() -> None:
    alone = stood(mass=2.0, on="deck", base_height=0.6, base=0.4)
    over = stood(mass=2.0, on="deck", base_height=0.6, base=0.4, vacuum_height=0.5, vacuum_mass=9.0)
    light, heavy = found(alone)["tips"], found(over)["tips"]
    assert float(heavy.value[0]) > float(light.value[0])
    assert heavy.notes[1] > light.notes[1]  # it leans farther before it goes
    ground = found(stood(mass=2.0, base=0.4))["tips"]
    assert float(light.value[0]) < float(ground.value[0])
    assert int(found(stood(mass=2.0, fixed=True))["tips"].level[0]) == OK


def test_a_rolling_unit_meets_doors_steps_and_tugs() -> None:
    rolls = {"wheels": True, "mass": 5.0}
    assert level(stood(**rolls, doorway=0.3), "doorway") == ACT
    assert level(stood(**rolls, doorway=0.7), "doorway") == OK
    assert level(stood(**rolls, doorway=0.7, base=0.8), "doorway") == ACT
    assert level(stood(**rolls, step=0.03, wheel=0.05), "step") == WATCH
    assert level(stood(**rolls, step=0.03, wheel=0.15), "step") == OK
    assert level(stood(**rolls, step=0.03), "step") is None  # nobody has said how large its wheels are
    assert level(stood(**rolls), "rolls-apart") == WATCH
    assert level(stood(wheels=True, mass=400.0), "rolls-apart") == OK
    assert level(stood(**rolls, tied=True), "rolls-apart") is None


def test_one_body_stands_as_high_as_the_head_on_it_and_bends_no_hose() -> None:
    line = disc_line()
    bin_ = line.separators[0].bin
    slots = (Slot(0.03, 4.0),)
    body = OneBody("sep", 0.34, 0.12, 0.05, 0.063, 0.06, slots, bin_, head_height=0.3, head_width=0.5,
                   stand=Stand(space=0.45))  # fmt: skip
    whole = replace(line, trunk=(body,))
    assert stands_tall(body, whole) == pytest.approx(bin_.height + 0.12 + 0.3)
    assert level(whole, "footprint") == ACT
    unknown = replace(whole, trunk=(replace(body, head_height=None),))
    assert stands_tall(unknown.separators[0], unknown) == pytest.approx(bin_.height + 0.12 + 0.25)


def with_hose(**hose: Any) -> Line:
    """The usual line with another hose ahead."""
    line = disc_line()
    first = Hose("hose", 0.05, 2.5, **hose)
    return replace(line, branches=(replace(line.branches[0], elements=(first,)),))


def test_a_plain_hose_goes_flat_where_its_wall_is_known_and_is_not_judged_else() -> None:
    assert level(with_hose(wall="smooth", wall_thickness=0.0005), "hose-flat") == ACT
    assert level(with_hose(wall="smooth", wall_thickness=0.005), "hose-flat") == OK
    assert level(with_hose(wall="wire-helix", wall_thickness=0.0005), "hose-flat") is None
    unknown = found(with_hose(wall="smooth"))
    assert "hose-flat" not in unknown
    assert int(unknown["hose-not-judged"].level[0]) == OK


def test_plastic_is_brittle_in_the_cold_crazes_and_charges_up() -> None:
    warm = with_bin(material="polycarbonate", sight="window")
    cold = replace(warm, site=replace(warm.site, temperature=272.0))
    assert level(warm, "brittle") == OK
    assert level(cold, "brittle") == WATCH
    assert level(warm, "solvent") == OK
    assert level(warm, "window-static") == WATCH
    assert level(replace(warm, earthed=True), "window-static") == OK
    assert level(with_bin(material="steel", sight="opaque"), "window-static") is None


def wet(water: float, outlet: float | None = 0.4, dust: str = "steel-grinding") -> Line:
    """A wet stage behind the disc."""
    line = disc_line(dust=dust)
    stage = WetStage("wet", 0.03, 0.03, 0.3, water, outlet)
    return replace(line, trunk=(line.trunk[0], stage, *line.trunk[1:]))


def test_water_has_a_level_a_line_and_a_lean_by_hand() -> None:
    stage = WetStage("wet", 0.03, 0.03, 0.3, 10.0, 0.4)
    high = 10.0 / (998.0 * np.pi / 4.0 * 0.09)
    assert float(stage.level) == pytest.approx(high)
    assert float(stage.lean or 0.0) == pytest.approx(atan((0.4 - high) / 0.15))
    checks = found(wet(10.0))
    assert float(checks["wet-overfull"].limit[0]) == pytest.approx(0.34)
    assert float(checks["wet-lean"].value[0]) == pytest.approx(degrees(atan((0.4 - high) / 0.15)))
    assert [level(wet(kg), "wet-overfull") for kg in (10.0, 25.0, 30.0)] == [OK, WATCH, ACT]
    assert level(wet(27.0), "wet-lean") == WATCH
    assert level(wet(10.0, None), "wet-overfull") is None


def test_wood_and_water_are_an_act_check_wherever_the_wood_comes_from() -> None:
    line = wet(10.0)
    assert level(line, "wet-dust") is None
    port = line.branches[0].port
    assert port is not None
    sawn = replace(line, branches=(replace(line.branches[0], port=replace(port, dust=DUSTS["saw"])),))
    assert level(sawn, "wet-dust") == ACT
    held = replace(line, vacuum=replace(line.vacuum, last_held="saw"))
    assert level(held, "wet-dust") == ACT
    assert level(replace(held, vacuum=replace(held.vacuum, emptied=True)), "wet-dust") is None


def test_ash_wants_metal() -> None:
    ash = replace(disc_line(), dust=DUSTS["ash"])
    assert level(ash, "ash-bin") == ACT  # it is of plastic
    steel = with_bin(material="steel")
    assert level(replace(steel, dust=DUSTS["ash"]), "ash-bin") == OK
    assert level(replace(with_bin(material=None), dust=DUSTS["ash"]), "ash-bin") == WATCH


def test_the_motor_of_an_extra_fan_is_asked_after() -> None:
    def with_fan(where: bool | None) -> Line:
        line = disc_line()
        port = line.branches[0].port
        assert port is not None
        hood = OpenHood(distance=0.05, release="active", thrown_share=0.5, extra_fan=ExtraFan(0.1, motor_in_air=where))
        return replace(line, branches=(replace(line.branches[0], port=replace(port, hood=hood)),))

    assert [level(with_fan(where), "fan-motor") for where in (True, None, False)] == [ACT, WATCH, OK]
    assert level(disc_line(), "fan-motor") is None


@given(st.floats(0.0, 500.0))
def test_a_run_on_is_never_too_short(seconds: float) -> None:
    whole = run_on_seconds(seconds)
    assert whole == int(whole)
    assert seconds - 1e-6 <= whole < seconds + 1.0
