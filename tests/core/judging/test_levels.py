"""Each check swept from good to bad: it gets worse step by step, never better, and its figure never jumps."""

from __future__ import annotations

import copy
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import pytest

from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, OK, WATCH, Check
from fenwick.core.judging.review import review
from fenwick.rig import build_line, check_rig


def separator_of(document: dict[str, Any]) -> dict[str, Any]:
    """Of the demo line."""
    found: dict[str, Any] = next(part for part in document["line"]["elements"] if part["kind"] == "separator")
    return found


def hose_of(document: dict[str, Any]) -> dict[str, Any]:
    """The hose at the tool."""
    found: dict[str, Any] = document["line"]["branches"][0]["elements"][0]
    return found


def set_headroom(document: dict[str, Any], value: float) -> None:
    separator_of(document)["stand"]["headroom_m"] = value


def set_space(document: dict[str, Any], value: float) -> None:
    separator_of(document)["stand"]["space_m"] = value


def set_shell_mass(document: dict[str, Any], value: float) -> None:
    separator_of(document)["bin"]["mass_kg"] = value


def set_wall(document: dict[str, Any], value: float) -> None:
    separator_of(document)["bin"]["wall_m"] = value


def set_leak(document: dict[str, Any], value: float) -> None:
    separator_of(document)["bin"]["leak_area_m2"] = value


def set_fill(document: dict[str, Any], value: float) -> None:
    separator_of(document)["bin"]["fill_height_m"] = value


def set_bin_height(document: dict[str, Any], value: float) -> None:
    bin_ = separator_of(document)["bin"]
    bin_["profile"][-1]["height_m"] = value
    bin_["fill_height_m"] = 0.05
    bin_["mass_kg"] = 2.0


def set_hose_bore(document: dict[str, Any], value: float) -> None:
    hose_of(document)["bore_m"] = value
    separator_of(document)["bin"]["leak_area_m2"] = 0.0


def set_held(document: dict[str, Any], value: float) -> None:
    document["vacuum"]["filter"]["held_kg"] = value


def set_wide_hose(document: dict[str, Any], value: float) -> None:
    elements = document["line"]["branches"][0]["elements"]
    next(part for part in elements if part["id"] == "hose-b")["bore_m"] = value


@dataclass(frozen=True)
class Swept:
    """A check, what is changed of the demo line, and its values from good to bad."""

    check: str
    change: Callable[[dict[str, Any], float], None]
    values: Sequence[float]
    begins: int = OK
    ends: int = ACT


def away(start: float, stop: float, count: int = 24) -> tuple[float, ...]:
    """Evenly from one to the other."""
    return tuple(float(value) for value in np.linspace(start, stop, count))


SWEPT = (
    Swept("headroom", set_headroom, away(1.4, 0.3)),
    Swept("footprint", set_space, away(0.8, 0.2)),
    Swept("tips", set_shell_mass, away(60.0, 0.5)),
    Swept("bin-collapse", set_wall, away(0.02, 0.0015)),
    Swept("bin-leak", set_leak, away(0.0, 4e-4)),
    Swept("bin-full", set_fill, away(0.0, 0.42)),
    Swept("full-weight", set_bin_height, away(0.3, 2.0)),
    Swept("motor-starved", set_hose_bore, away(0.05, 0.012)),
    Swept("settling", set_wide_hose, away(0.045, 0.1)),
)


def checks_of(document: dict[str, Any]) -> list[Check]:
    """Everything that is judged."""
    line = build_line(check_rig(document))
    return list(review(line, assess(line)))


def along(document: dict[str, Any], swept: Swept) -> list[Check]:
    """The check at every value."""
    found = []
    for value in swept.values:
        changed = copy.deepcopy(document)
        swept.change(changed, value)
        mine = [one for one in checks_of(changed) if one.id == swept.check]
        assert mine, (swept.check, value)
        found.append(mine[0])
    return found


EVERY = pytest.mark.parametrize("swept", SWEPT, ids=lambda swept: swept.check)


@EVERY
def test_worse_is_never_judged_better(document: dict[str, Any], swept: Swept) -> None:
    levels = [int(check.level[0]) for check in along(document, swept)]
    assert levels == sorted(levels)
    assert (levels[0], levels[-1]) == (swept.begins, swept.ends)


@EVERY
def test_the_figure_moves_one_way_and_without_a_jump(document: dict[str, Any], swept: Swept) -> None:
    values = np.array([float(check.value[0]) for check in along(document, swept)])
    steps = np.diff(values)
    assert np.all(steps >= -1e-9) or np.all(steps <= 1e-9)
    assert np.max(np.abs(steps)) < 0.5 * np.ptp(values) + 1e-12


@EVERY
def test_the_limit_and_its_quantity_stay_what_they_are(document: dict[str, Any], swept: Swept) -> None:
    found = along(document, swept)
    assert len({check.quantity for check in found}) == 1
    assert len({check.part for check in found}) == 1
    assert all(np.isfinite(check.limit[0]) for check in found)


def test_a_thing_that_is_tied_down_neither_tips_nor_rolls(document: dict[str, Any]) -> None:
    set_shell_mass(document, 0.5)
    levels = {check.id: int(check.level[0]) for check in checks_of(document)}
    assert levels["tips"] == ACT
    assert levels["rolls-apart"] == WATCH
    separator_of(document)["stand"]["tied"] = True
    levels = {check.id: int(check.level[0]) for check in checks_of(document)}
    assert levels["tips"] == OK
    assert "rolls-apart" not in levels


def test_what_is_not_described_is_not_judged(document: dict[str, Any]) -> None:
    del separator_of(document)["stand"]
    separator_of(document)["bin"].pop("wall_m")
    names = {check.id for check in checks_of(document)}
    assert not names & {"headroom", "footprint", "tips", "rolls-apart"}
    judged = [check for check in checks_of(document) if check.id == "bin-collapse"]
    assert all(np.isnan(check.value[0]) or check.level[0] >= OK for check in judged)


def test_every_check_of_one_part_is_told_once(document: dict[str, Any]) -> None:
    keys = [(check.id, check.part, check.about) for check in checks_of(document)]
    assert len(keys) == len(set(keys))


@pytest.mark.parametrize("held", [0.0, 0.05, 0.5, 5.0])
def test_a_fuller_filter_leaves_every_figure_finite(document: dict[str, Any], held: float) -> None:
    set_held(document, held)
    for check in checks_of(document):
        if not np.isnan(check.limit[0]):
            assert np.isfinite(check.value[0]), check.id
