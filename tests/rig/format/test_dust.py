"""Dust of one's own and mixtures: read, mixed by mass and volume, refused where it is dangerous or half described."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.dust import DUSTS, GLOWING, mixed
from fenwick.core.formulas.sizes import all_densities
from fenwick.rig import RigError, build_line, check_rig, read_rig, write_rig
from fenwick.rig.format.dust import DustPart, begun, build_dust, own_from
from fenwick.rig.result import solve_rig

WOOD = sorted(kind for kind in DUSTS if kind not in GLOWING)


@given(st.lists(st.tuples(st.sampled_from(WOOD), st.floats(0.1, 10.0)), min_size=1, max_size=5))
def test_a_mixture_keeps_mass_and_lies_between_its_parts(parts: list[tuple[str, float]]) -> None:
    dust = mixed([(DUSTS[kind], share) for kind, share in parts])
    assert float(np.sum(dust.weights)) == pytest.approx(1.0)
    densities = [DUSTS[kind].particle_density for kind, _ in parts]
    assert min(densities) - 1e-6 <= dust.particle_density <= max(densities) + 1e-6
    assert dust.conveying[0] == max(DUSTS[kind].conveying[0] for kind, _ in parts)
    total = sum(share for _, share in parts)
    by_hand = sum(share / total * DUSTS[kind].weights for kind, share in parts)
    assert all_densities(dust.weights) == pytest.approx(np.asarray(by_hand))
    assert dust.weights.shape == dust.sizes.shape == dust.grain_density.shape
    for density in set(densities):  # every part keeps the density of its grains
        mine = sum(share for kind, share in parts if DUSTS[kind].particle_density == density)
        assert float(np.sum(dust.weights[dust.grain_density == density])) == pytest.approx(mine / total)


def test_equal_parts_of_shavings_and_sawdust_by_hand() -> None:
    dust = mixed([(DUSTS["planer"], 1.0), (DUSTS["saw"], 1.0)])
    assert dust.particle_density == pytest.approx(2.0 / (1 / 400 + 1 / 600))  # hand: 480
    assert dust.bulk_density == pytest.approx(2.0 / (1 / 90 + 1 / 210))  # hand: 126
    assert dust.longest_chip == 25e-3


@pytest.mark.parametrize("kind", DUSTS)
def test_ones_own_starts_as_the_kind_it_came_from(kind: str) -> None:
    own = build_dust(DustPart.model_validate(own_from(DUSTS[kind])))
    assert own.weights == pytest.approx(DUSTS[kind].weights, abs=2e-4)
    assert own.conveying == DUSTS[kind].conveying
    assert own.longest_chip == DUSTS[kind].longest_chip


def test_every_change_of_kind_begins_as_something_whole() -> None:
    for kind in ("mixture", "own", "saw"):
        for now in (None, DustPart(kind="planer"), DustPart(kind="steel-grinding")):
            assert build_dust(DustPart.model_validate(begun(kind, now)))


MIX = {"kind": "mixture", "kinds": [{"kind": "saw", "parts": 2.0}, {"kind": "sanding-p120", "parts": 1.0}]}


def test_a_mixture_travels_in_the_file_and_solves(document: dict[str, Any]) -> None:
    document["dust"] = MIX
    rig = check_rig(document)
    assert read_rig(write_rig(rig)) == rig
    result = solve_rig(rig)
    fine, coarse = (
        solve_rig(check_rig({**document, "dust": {"kind": kind}}))["separators"][0]["efficiency"]
        for kind in ("sanding-p120", "saw")
    )
    assert fine < result["separators"][0]["efficiency"] < coarse
    assert build_line(rig).dust.label == "Mixture"  # type: ignore[union-attr]


OWN = own_from(DUSTS["saw"])


@pytest.mark.parametrize(
    ("dust", "message"),
    [
        ({"kind": "mixture"}, "dust.kinds: is missing: a mixture has kinds"),
        ({"kind": "saw", "kinds": MIX["kinds"]}, "dust.kinds: must be left out: it is no mixture"),
        ({"kind": "saw", "name": "Mine"}, "dust.name: must be left out: a generic kind has its own"),
        ({**OWN, "modes": []}, "dust.modes: is missing"),
        ({**OWN, "particle_density_kg_m3": None}, "dust.particle_density_kg_m3: is missing"),
        ({**OWN, "carries_above_m_s": 5.0}, "dust.carries_above_m_s: must not be below the speed at which it settles"),
        ({**MIX, "kinds": [{"kind": "asbestos", "parts": 1}]}, "dust.kinds[0].kind: asbestos is not for this"),
        ({**MIX, "kinds": [{"kind": "flour", "parts": 1.0}]}, "dust.kinds[0].kind: must be one of planer"),
        (
            {**MIX, "kinds": [{"kind": "saw", "parts": 1.0}, {"kind": "metal-turnings", "parts": 1.0}]},
            "dust.kinds[1].kind: must not go with other dust: sparks and hot metal set it on fire",
        ),
        ({**MIX, "kinds": [{"kind": "saw", "parts": 0.0}]}, "dust.kinds[0].parts: must be above 0"),
    ],
)
def test_what_is_half_described_or_dangerous_is_refused(
    document: dict[str, Any], dust: dict[str, Any], message: str
) -> None:
    document["dust"] = dust
    with pytest.raises(RigError) as caught:
        check_rig(document)
    assert message in str(caught.value)
