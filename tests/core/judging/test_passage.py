"""Large pieces: lifted, let through, and out in time."""

from dataclasses import replace

import numpy as np
import pytest

from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Gate, Hose, Reducer
from fenwick.core.formulas.sizes import SIZES, terminal_velocity
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, OK, WATCH, Check
from fenwick.core.judging.passage import clearing_time, largest_piece
from fenwick.core.line.line import Line
from fenwick.core.line.operating import operating_point
from tests.lines import disc_line


def checked(line: Line, name: str) -> list[Check]:
    return [check for check in assess(line).checks if check.id == name]


def with_hose(line: Line, **changes: object) -> Line:
    branch = line.branches[0]
    hose = next(e for e in branch.elements if isinstance(e, Hose))
    return replace(line, branches=(replace(branch, elements=(replace(hose, **changes),)),))


def test_the_largest_piece_is_the_chip_or_nearly_the_coarsest_grain() -> None:
    assert largest_piece(DUSTS["planer"]) == 0.025
    fine = largest_piece(DUSTS["sanding-p240"])
    share = float(DUSTS["sanding-p240"].weights[SIZES[:, 0] <= fine].sum())
    assert 0.99 <= share < 0.999


def test_only_a_rising_hose_is_asked_to_lift() -> None:
    assert checked(disc_line(dust="router"), "vertical-lift") == []
    lifting = with_hose(disc_line(dust="router"), rise=2.0)
    (check,) = checked(lifting, "vertical-lift")
    assert check.part == "hose"
    falls = terminal_velocity(0.012, 550.0, 1.15, 1.81e-5)
    assert check.limit[0] == pytest.approx(float(falls), rel=0.1)
    assert check.level[0] == OK


def test_a_wide_hose_lets_the_pieces_fall_back() -> None:
    levels = []
    for bore in (0.038, 0.063, 0.1, 0.15):
        (check,) = checked(with_hose(disc_line(dust="planer", suction=6e3), rise=2.0, bore=bore), "vertical-lift")
        levels.append(int(check.level[0]))
    assert levels == sorted(levels)
    assert levels[-1] == ACT


@pytest.mark.parametrize(("bore", "level"), [(0.08, OK), (0.06, WATCH), (0.02, ACT)])
def test_chips_bridge_below_three_of_their_lengths(bore: float, level: int) -> None:
    line = disc_line(dust="planer")  # chips of 25 mm
    wide = replace(line, branches=(replace(line.branches[0], port=replace(line.branches[0].port, bore=0.1)),))
    disc = replace(line.separators[0], inlet_bore=0.1)
    line = replace(with_hose(wide, bore=bore), trunk=(disc, *line.trunk[1:]))
    (check,) = checked(line, "bridging")
    assert check.level[0] == level
    assert check.value[0] == pytest.approx(bore)
    assert check.part == "hose"


def test_a_half_shut_gate_or_a_narrow_adapter_is_the_tight_place() -> None:
    line = disc_line(dust="router")
    branch = line.branches[0]
    gated = replace(line, branches=(replace(branch, elements=(*branch.elements, Gate("g", 0.05, 0.3))),))
    (check,) = checked(gated, "bridging")
    assert (check.part, float(check.value[0])) == ("g", pytest.approx(0.015))
    necked = replace(line, branches=(replace(branch, elements=(*branch.elements, Reducer("r", 0.038, 0.02))),))
    (check,) = checked(necked, "bridging")
    assert (check.part, float(check.value[0])) == ("r", pytest.approx(0.02))
    assert checked(disc_line(dust="sanding-p120"), "bridging") == []


def test_the_time_to_clear_by_hand_and_never_in_a_blocked_line() -> None:
    line = disc_line()
    point = operating_point(line)
    speed = float(point.stations.velocity[point.stations.index("hose"), 0])
    assert clearing_time(line, point, 0)[0] == pytest.approx(1.0 + 2.5 / (0.7 * speed))
    longer = with_hose(line, length=5.0)
    assert clearing_time(longer, operating_point(longer), 0)[0] > clearing_time(line, point, 0)[0]


def test_a_batch_is_judged_variant_by_variant() -> None:
    bores = np.array([0.03, 0.05, 0.08])
    line = with_hose(disc_line(dust="router"), bore=bores, rise=1.0)
    (lift,) = checked(line, "vertical-lift")
    (tight,) = checked(line, "bridging")
    assert lift.level.shape == tight.level.shape == (3,)
    assert tight.value.tolist() == pytest.approx([0.03, 0.05, 0.05])
