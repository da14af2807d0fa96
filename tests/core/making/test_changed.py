"""What becomes of finished parts when the design changes."""

from __future__ import annotations

import pytest

from fenwick.core.making.changed import AFTER_CUT, NOT_NEEDED, SCRAP, SERVES, fate_of
from fenwick.core.making.parts import SawnHole, Stock
from fenwick.core.making.pieces import disc

PLY = Stock("plywood", 0.012)
THEN = {"d_m": 0.356, "centre_hole_d_m": 0.067, "groove_radius_m": 0.171, "slot_area_m2": 0.01}


def roof(d: float = 0.356, hole: float = 0.067, groove: float = 0.171, stock: Stock = PLY):  # type: ignore[no-untyped-def]
    return disc("roof", stock, d, holes=[SawnHole("centre_hole", hole)], dims={"groove_radius_m": groove})


@pytest.mark.parametrize(
    ("now", "fate", "dim"),
    [
        (roof(), SERVES, ""),
        (roof(d=0.3562), SERVES, ""),
        (roof(d=0.34), AFTER_CUT, "d_m"),
        (roof(d=0.37), SCRAP, "d_m"),
        (roof(hole=0.08), AFTER_CUT, "centre_hole_d_m"),
        (roof(hole=0.05), SCRAP, "centre_hole_d_m"),
        (roof(groove=0.16), SCRAP, "groove_radius_m"),
        (roof(d=0.34, groove=0.18), SCRAP, "groove_radius_m"),
        (roof(stock=Stock("mdf", 0.012)), SCRAP, ""),
        (roof(stock=Stock("plywood", 0.018)), SCRAP, ""),
        (None, NOT_NEEDED, ""),
    ],
)
def test_an_edge_shrinks_a_hole_grows_and_a_groove_stays(now: object, fate: str, dim: str) -> None:
    found = fate_of("roof", THEN, PLY, now)  # type: ignore[arg-type]
    assert (found.fate, found.dim) == (fate, dim)
