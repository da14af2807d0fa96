"""Every check has a title and a sentence at every level; figures appear in the user's units."""

from __future__ import annotations

import re
from pathlib import Path

import numpy as np
import pytest

from fenwick.core.components.dust import SPECIES
from fenwick.core.judging.check import Check
from fenwick.units import SYSTEMS
from fenwick.wording.checks import CHECKS, GROUPS, check_sentence
from fenwick.wording.checks.facts import FACTS
from fenwick.wording.checks.figures import FIGURES
from fenwick.wording.checks.path import ON_ITS_WAY
from fenwick.wording.say import Voice

CORE = Path(__file__).parents[2] / "src" / "fenwick" / "core" / "judging"
QUANTITY = {
    "headroom": "length", "footprint": "length", "lid-bends": "length", "relief": "gap", "ring-stiff": "suction",
    "slot-land": "length",
    "sheet-bends": "stress", "sheet-radius": "bore", "tips": "force", "full-weight": "heap", "circuit": "current",
    "switch": "current", "casters": "heap",
    "hose-flat": "suction", "brittle": "temperature", "legs": "length", "doorway": "length", "step": "length",
    "start-up": "current", "run-on": "seconds", "motor-starved": "share", "filter-class": "share",
}  # fmt: skip
ABOUT = {
    "sheet-not-judged": ("mdf",),
    "dust-meets": ("steel-grinding", "saw"),
    "last-held": ("steel-grinding", "saw"),
    "species": ("saw", "tropical"),
    "wet-dust": ("saw", "made"),
    "wet-job": ("saw", "Ripping boards"),
    "fill-seen": ("opaque",),
    "wall-not-judged": ("flat",),
    "solvent": ("acrylic",),
    "snags": ("Mitre saw", "Mitre saw", "left"),
    "cord-crossed": ("Walkway", "feet"),
    "bond": ("inlet-block", "bin", "hybrid", "hdpe", "fatty", "mechanical"),
}

NOTES = {"cord-crossed": (1.2, 0.4)}


def check(name: str, level: int, quantity: str, *notes: float) -> Check:
    """A check as the core makes it."""
    value, limit = np.array([3.0]), np.array([2.0])
    told = notes or NOTES.get(name, ())
    return Check(name, np.array([level]), value, limit, quantity, "sep", ABOUT.get(name, ()), told)


def test_every_check_of_the_core_has_a_title_and_words() -> None:
    made = set()
    for path in (*CORE.glob("*.py"), CORE.parent / "making" / "review.py", CORE.parent / "site" / "checks.py"):
        made |= set(re.findall(r'(?:Check|fact|figure)\(\s*"([a-z-]+)"', path.read_text()))
    assert len(made) > 30
    assert made == set(CHECKS)
    assert len(CHECKS) == len(FACTS) + len(FIGURES) + len(ON_ITS_WAY)  # none is told twice
    assert {words.group for words in CHECKS.values()} == set(GROUPS)
    assert len({words.title for words in CHECKS.values()}) == len(CHECKS)


@pytest.mark.parametrize("system", SYSTEMS)
@pytest.mark.parametrize("name", sorted(FIGURES))
def test_a_figure_is_told_with_its_limit_and_a_remedy(name: str, system: str) -> None:
    voice = Voice(system, {"sep": "Chamber"})
    said = [check_sentence(check(name, level, QUANTITY[name], 1.0, 0.5), voice) for level in range(3)]
    assert all(sentence.endswith(".") and "{" not in sentence for sentence in said)
    quantity = {"length": "bore"}.get(QUANTITY[name], QUANTITY[name])
    assert all(voice.figure(3.0, quantity) in sentence for sentence in said)
    assert said[0] != said[2]


@pytest.mark.parametrize("name", sorted(FACTS))
def test_a_fact_is_told_at_every_level(name: str) -> None:
    voice = Voice("metric", {"sep": "Chamber"})
    said = {check_sentence(check(name, level, "number"), voice) for level in range(3)}
    assert all(sentence.endswith(".") for sentence in said)


def test_every_harmful_wood_says_why() -> None:
    voice = Voice("metric", {})
    said = set()
    for kind, species in [("mdf-sanding", "mdf"), *(("saw", key) for key in SPECIES)]:
        one = check("species", 1, "number")
        said.add(check_sentence(Check(**{**one.__dict__, "about": (kind, species)}), voice))
    assert len(said) >= 4
    assert all("respirator" in sentence for sentence in said)
