"""What it stands on: tray, cart, shelf, deck, cams that lift the bin, what hangs on it."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from math import atan2, cos, hypot, pi, radians
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.separator import Separator, Stand
from fenwick.core.making.cams import cam_parts
from fenwick.core.making.given import MakingChoices, making_of
from fenwick.core.making.holders import nozzle_board
from fenwick.core.making.outlines import area
from fenwick.core.making.parts import MadeParts
from fenwick.core.making.stand import bin_foot, stand_parts
from fenwick.core.making.work import stand_work
from fenwick.core.rules import RuleBook
from tests.core.making.test_geometry import chamber

MAKING = making_of(MakingChoices(), RuleBook())
KINDS = ("floor", "cart", "shelf", "deck")


def on(closure: str = "clamp-ring", **stand: Any) -> Separator:
    """A chamber on some stand."""
    stage = chamber()
    return stage.changed(stand=Stand(**stand), bin=replace(stage.bin, closure=closure))  # type: ignore[no-any-return]


def made(closure: str = "clamp-ring", **stand: Any) -> MadeParts:
    return stand_parts(on(closure, **stand), MAKING, 24.0)


def dims(parts: MadeParts, name: str) -> dict[str, float]:
    found = parts.get(name)
    assert found is not None, name
    return dict(found.dims)


def troubles(parts: MadeParts) -> set[str]:
    return {one.key for one in parts.troubles}


@pytest.mark.parametrize("kind", KINDS)
def test_every_stand_holds_bin_hose_cord_and_nozzles(kind: str) -> None:
    parts = made(on=kind, base_height=0.7, vacuum_height=0.5, vacuum_width=0.4, wheels=kind != "shelf")
    names = [part.id for part in parts.parts]
    assert {"bin-rest", "straps", "hose-holder", "cord-cleats", "nozzle-board"} <= set(names)
    assert len(names) == len(set(names))
    assert ("casters" in names) == (kind != "shelf")
    assert not troubles(parts)
    steps = stand_work(parts, MAKING, 2.0)
    told = {part for step in steps for part in step.parts}
    assert set(names) <= told, set(names) - told


def test_a_cart_takes_the_vacuum_beside_the_bin() -> None:
    foot = bin_foot(on(), MAKING)
    tray = dims(made(on="cart", vacuum_width=0.45, wheels=True), "tray")
    assert tray["width_m"] == pytest.approx(foot + 0.45 + 3 * 0.06)
    assert tray["height_m"] == pytest.approx(max(foot, 0.45) + 2 * 0.06)
    fillet = made(on="cart", vacuum_width=0.45).get("vacuum-fillet")
    assert fillet is not None
    assert fillet.count == 2
    assert fillet.dims["width_m"] == 0.45


def test_what_is_not_known_of_the_vacuum_is_said_and_not_made_up() -> None:
    assert troubles(made(on="cart")) == {"vacuum-wide"}
    assert troubles(made(on="shelf", base_height=0.7)) == {"vacuum-height"}
    assert troubles(made(on="deck", base_height=0.7)) == {"vacuum-height"}
    assert "vacuum-fillet" not in {part.id for part in made(on="cart").parts}


def test_a_cart_wider_than_the_door_says_so() -> None:
    assert troubles(made(on="cart", vacuum_width=0.7, doorway=0.75)) == {"cart-door"}
    assert not troubles(made(on="cart", vacuum_width=0.4, doorway=0.75))


def test_legs_reach_over_the_vacuum_and_its_lifted_head() -> None:
    leg = dims(made(on="deck", base_height=0.7, vacuum_height=0.5, head_lift=0.2), "leg")
    assert leg["clear_m"] == pytest.approx(0.7)
    assert leg["height_m"] == pytest.approx(0.7 / cos(radians(5.0)))


def test_what_is_fixed_to_a_machine_has_brackets_for_it() -> None:
    assert made(fixed=True).get("machine-brackets") is not None
    assert made().get("machine-brackets") is None
    assert made(on="shelf", base_height=0.7, vacuum_height=0.5).get("wall-brackets") is not None


@pytest.mark.parametrize("nozzles", [1, 3, 12])
def test_nozzles_hang_in_a_row_with_land_between(nozzles: int) -> None:
    board = nozzle_board(MAKING, 0.05, nozzles)
    assert len(board.outline) == 1 + nozzles
    d = board.dims["hole_d_m"]
    assert d == pytest.approx(0.05 + 2 * 0.002 + 0.0005)
    net = sum(area(loop) for loop in board.outline)
    plain = board.dims["width_m"] * board.dims["height_m"]
    hair = nozzles * pi * d * 0.02e-3  # as far as chords stay from their arcs
    assert net == pytest.approx(plain - nozzles * pi / 4 * d * d, abs=hair)
    middles = sorted(one.x for one in board.rounds)
    assert all(b - a - d == pytest.approx(0.01) for a, b in pairwise(middles))


def test_what_can_stand_on_the_floor_needs_no_stand() -> None:
    assert troubles(made()) == {"not-needed"}
    assert not troubles(made(wheels=True))
    assert not troubles(made(fixed=True))


def test_none_to_hang_up_is_no_board() -> None:
    assert made(nozzles=0).get("nozzle-board") is None


class TestCams:
    def test_only_a_bin_that_is_lifted_has_them(self) -> None:
        assert cam_parts(on(), MAKING, 0.3).parts == ()
        assert {"lift-tray", "cam", "cam-lever", "cam-axle"} <= {part.id for part in made("cam-tray", tied=True).parts}

    def test_half_a_turn_drops_the_bin_and_gives_the_gasket_back_what_it_was_pressed(self) -> None:
        cam = made("cam-tray", tied=True).get("cam")
        assert cam is not None
        (axle,) = cam.drills
        turns = np.linspace(0.0, 2.0 * pi, 721)
        heights = cam.dims["d_m"] / 2.0 + axle.x * np.cos(turns)  # of the tray over the axle
        assert float(np.ptp(heights)) == pytest.approx(0.008 + 0.002)
        assert float(np.ptp(heights)) == pytest.approx(cam.dims["lift_m"])

    @given(st.floats(4e-3, 30e-3), st.floats(6e-3, 16e-3))
    def test_the_axle_keeps_its_land(self, drop: float, axle: float) -> None:
        rules = RuleBook().with_values({"make.cam-drop": drop, "make.axle": axle})
        cam = cam_parts(on("cam-tray", tied=True), making_of(MakingChoices(), rules), 0.3).parts[1]
        (bore,) = cam.drills
        left = cam.dims["d_m"] / 2.0 - hypot(bore.x, bore.y) - bore.d / 2.0
        assert left >= 0.01 - 0.0005
        assert atan2(bore.y, bore.x) == 0.0

    @pytest.mark.parametrize(("stand", "loose"), [({}, True), ({"tied": True}, False), ({"fixed": True}, False)])
    def test_what_is_lifted_presses_against_something_that_is_held(self, stand: dict[str, bool], loose: bool) -> None:
        assert ("cams-want-frame" in troubles(made("cam-tray", **stand))) == loose

    def test_cams_are_bored_before_they_are_shaped_and_fitted_last(self) -> None:
        steps = [step.id for step in stand_work(made("cam-tray", tied=True), MAKING, 2.0)]
        assert steps.index("bore-cams") < steps.index("shape-cams") < steps.index("fit-cams")
