"""Faults simulated through the model: each does what it should and is found; the next check tells suspects apart."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest

from fenwick.core.bench.faults.hunt import LOOK, Case, hunt, next_checks
from fenwick.core.bench.faults.kinds import FAULTS, HEALTHY, LOOKS, SYMPTOMS, possible, symptom_likelihood
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import spreads
from fenwick.core.tuning.fit import KEYS
from fenwick.core.tuning.readings import BLOCKED, FLOW, KEPT, SEALED, SUCTION, Reading, expected
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

PORT = "drum-sander"
CANDIDATES = (
    *(Reading(SUCTION, 0.0, 60.0, PORT, place) for place in ("hose-a", "hose-b", "sep", "link")),
    Reading(BLOCKED, 0.0, 100.0, PORT, "link"),
    Reading(SEALED, 0.0, 100.0),
    Reading(FLOW, 0.0, 1e-3, PORT),
    Reading(KEPT, 0.0, 0.01, PORT),
    *(Reading(LOOK, 0.0, 0.25, "", fault) for fault in LOOKS),
)
TUNED = np.diag((0.3 * spreads(KEYS)) ** 2)  #: what a tuned line leaves open


@pytest.fixture(scope="module")
def line() -> Line:
    """The demo line."""
    return build_line(demo_rig())


@pytest.fixture(scope="module")
def bench() -> Line:
    """A line of four tools."""
    return build_line(demo_rig("demo_bench"))


def with_fault(line: Line, key: str, degree: int = -1) -> Line:
    """The line with a fault, its worst degree unless said."""
    fault = FAULTS[key]
    changed = fault.change(line, fault.degrees[degree])
    assert changed is not None, key
    return changed


def test_every_symptom_and_look_names_faults_there_are() -> None:
    for likely in SYMPTOMS.values():
        assert set(likely) <= set(FAULTS)
        assert all(0.0 < share < 1.0 for share in likely.values())
    assert set(LOOKS) <= set(FAULTS)
    assert symptom_likelihood("whistle", "tilted") < symptom_likelihood("whistle", "leak-link")


@pytest.mark.parametrize(
    "key", ["caked-filter", "blocked-hose", "blocked-port", "worn-motor", "leak-hose", "leak-link"]
)
def test_faults_of_the_air_cost_air(line: Line, key: str) -> None:
    sound = float(assess(line).point.port_flow[0, 0])
    flows = [float(assess(with_fault(line, key, i)).point.port_flow[0, 0]) for i in range(len(FAULTS[key].degrees))]
    assert all(flow < sound for flow in flows)
    assert all(a > b for a, b in pairwise(flows))


@pytest.mark.parametrize("key", ["overfull-bin", "slot-bridged", "leak-lid", "swapped-hoses", "folded-bin", "tilted"])
def test_faults_of_the_separator_cost_what_is_kept(line: Line, key: str) -> None:
    sound, sick = assess(line).kept, assess(with_fault(line, key)).kept
    assert sound is not None
    assert sick is not None
    assert float(sick[0]) < float(sound[0]) - 0.05


def test_a_line_has_only_the_faults_it_can_have(line: Line, bench: Line) -> None:
    keys = {one.fault for one in possible(line)}
    assert HEALTHY in keys
    assert "full-bag" not in keys  # it has no bag
    assert "gate-open" not in keys  # nor a second tool
    assert "gate-open" in {one.fault for one in possible(bench)}
    bagged = replace(line, vacuum=replace(line.vacuum, bag=FilterMedium("bag", 0.3)))
    assert "full-bag" in {one.fault for one in possible(bagged)}
    bare = replace(line, trunk=line.trunk[1:], vacuum=replace(line.vacuum, filter=None))
    assert not {"caked-filter", "tilted", "leak-lid"} & {one.fault for one in possible(bare)}


def test_an_open_gate_steals_air(bench: Line) -> None:
    at = next(i for i, leaf in enumerate(bench.leaves) if leaf.open)
    stolen = with_fault(bench, "gate-open")
    assert assess(stolen).point.port_flow[at, 0] < 0.9 * assess(bench).point.port_flow[at, 0]


def test_symptoms_alone_order_the_suspects(line: Line) -> None:
    case = Case.of(line)
    nothing = hunt(case, [], [])
    assert sum(one.share for one in nothing.suspects) == pytest.approx(1.0)
    moved = hunt(case, [], ["bin-moves", "dust-in-vacuum"])
    assert moved.suspects[0].fault == "folded-bin"
    weak = hunt(case, [], ["weak", "pitch-high"])
    assert {one.fault for one in weak.suspects[:3]} <= {"blocked-hose", "blocked-port", "caked-filter"}


@pytest.mark.parametrize(
    "key",
    ["caked-filter", "blocked-hose", "leak-lid", "overfull-bin", "swapped-hoses", "worn-motor", "leak-link", "tilted"],
)
def test_a_good_hunt_finds_the_fault_among_the_first_three(line: Line, key: str) -> None:
    rng = np.random.default_rng(sum(map(ord, key)))
    sick, case = with_fault(line, key), Case.of(line, TUNED)
    symptoms = [s for s in SYMPTOMS if symptom_likelihood(s, key) >= 0.7][:2]
    readings: list[Reading] = []
    found = hunt(case, readings, symptoms)
    for _ in range(3):
        done = {(one.kind, one.station) for one in readings}
        checks = next_checks(case, found, [c for c in CANDIDATES if (c.kind, c.station) not in done])
        if not checks:  # nothing parts those that are left
            break
        best = checks[0].reading
        seen = float(best.station == key) if best.kind == LOOK else float(expected(sick, [best])[0, 0])
        readings.append(replace(best, value=seen + (0.0 if best.kind == LOOK else best.sd) * rng.standard_normal()))
        found = hunt(case, readings, symptoms)
    assert key in [one.fault for one in found.suspects[:3]]
    assert found.explained


def test_a_sound_line_that_reads_sound_is_called_sound(line: Line) -> None:
    case = Case.of(line, TUNED)
    readings = [
        replace(r, value=float(v)) for r, v in zip(CANDIDATES[:8], expected(line, CANDIDATES[:8])[:, 0], strict=True)
    ]
    found = hunt(case, readings, [])
    assert found.suspects[0].fault == HEALTHY
    assert found.explained


def test_readings_that_nothing_explains_are_said_so(line: Line) -> None:
    case = Case.of(line, TUNED)
    mad = [Reading(SUCTION, 50.0, 60.0, PORT, "hose-a"), Reading(SEALED, 30e3, 100.0), Reading(KEPT, 0.02, 0.01, PORT)]
    assert not hunt(case, mad, []).explained


def test_a_look_settles_what_it_shows(line: Line) -> None:
    case = Case.of(line)
    symptoms = ["dust-in-vacuum"]
    before = {one.fault: one.share for one in hunt(case, [], symptoms).suspects}
    seen = hunt(case, [Reading(LOOK, 1.0, 0.25, "", "swapped-hoses")], symptoms)
    assert seen.suspects[0].fault == "swapped-hoses"
    assert seen.suspects[0].share > 0.95
    clear = {
        one.fault: one.share for one in hunt(case, [Reading(LOOK, 0.0, 0.25, "", "swapped-hoses")], symptoms).suspects
    }
    assert clear["swapped-hoses"] < 0.05 * before["swapped-hoses"]


def test_a_tuned_line_tells_more_than_a_believed_one(line: Line) -> None:
    reading = [
        replace(CANDIDATES[3], value=float(expected(with_fault(line, "blocked-hose", 0), [CANDIDATES[3]])[0, 0]))
    ]
    believed = {one.fault: one.share for one in hunt(Case.of(line), reading, []).suspects}
    known = {one.fault: one.share for one in hunt(Case.of(line, TUNED), reading, []).suspects}
    assert known[HEALTHY] < believed[HEALTHY]


def test_checks_are_ranked_and_priced(line: Line) -> None:
    case = Case.of(line)
    found = hunt(case, [], ["weak"])
    checks = next_checks(case, found, CANDIDATES)
    assert 0 < len(checks) < len(CANDIDATES)
    assert checks[0].apart > checks[-1].apart
    for check in checks:  # none that its gauge shows alike for any two of the suspects
        assert check.leading != check.other
        assert check.reading.kind == LOOK or abs(check.first - check.second) >= 2.0 * check.reading.sd
    assert all(check.minutes > 0.0 for check in checks)
    assert next_checks(case, found, []) == []
