"""Every kind of single change: offered where it makes sense, in a batch what it is by itself, not offered twice."""

from __future__ import annotations

from typing import Any

import pytest

from fenwick.core.arrays import one_value
from fenwick.core.judging.assess import assess
from fenwick.core.judging.review import review
from fenwick.core.search import whatif
from fenwick.core.search.changes import KINDS, MENDS, SHORTEST, SHUT, Candidate, candidates, mending
from fenwick.core.search.figures import figures_at
from fenwick.rig import Rig, build_line, check_rig
from fenwick.rig.edits.changes import EDITS, apply_candidate

STILL = {"release": "slow", "thrown_share": 0.0, "rebound": False}
ONCE = ("seal", "taper", "clean-inline", "seal-bin", "empty", "upright", "clean", "clean-bag")
FIGURES = ("flow", "speed", "kept", "in_bin", "folding")


@pytest.fixture
def worn(document: dict[str, Any]) -> Rig:
    """A line on which every kind of change has something to mend."""
    line, vacuum = document["line"], document["vacuum"]
    separator = next(part for part in line["elements"] if part["kind"] == "separator")
    separator["tilt_deg"] = 12.0
    line["elements"] += [
        {"id": "bag", "kind": "filter", "bore_m": 0.063, "medium": "bag", "area_m2": 0.4, "held_kg": 0.01},
        {"id": "step", "kind": "reducer", "bore_in_m": 0.063, "bore_out_m": 0.05, "length_m": 0.0},
        {"id": "gap", "kind": "leak", "area_m2": 2e-5},
    ]
    vacuum["bag"] = {"area_m2": 0.5, "held_kg": 0.05}
    port = line["branches"][0]["port"]
    port |= {"entry": "plain", "hood": {"kind": "opening", "distance_m": 0.12, **STILL}}
    hose = {"id": "beside-hose", "kind": "hose", "bore_m": 0.05, "length_m": 2.0, "wall": "smooth"}
    box = {"kind": "enclosure", "openings": [{"name": "Table", "area_m2": 0.01, "share": 1.0}], **STILL}
    beside = {"name": "Saw", "bore_m": 0.05, "entry": "flanged", "hood": box, "dust_rate_kg_s": 1e-4}
    bend = {"id": "turn", "kind": "elbow", "bore_m": 0.05, "style": "short"}
    line["branches"][0]["elements"].insert(0, bend)
    line["branches"].append({"id": "beside", "gate": {"opening": 1.0}, "elements": [hose], "port": beside})
    return check_rig(document)


def port_for(kind: str) -> int:
    """The box is at the second port."""
    return 1 if kind == "close-in" else 0


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_every_kind_is_offered_where_there_is_something_to_mend(worn: Rig, kind: str) -> None:
    found = [one for one in candidates(build_line(worn), port_for(kind)) if one.kind == kind]
    assert found
    assert len(found) == len(set(found))
    for one in found:
        assert apply_candidate(worn, one) != worn  # each of them changes the file


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_in_the_batch_a_change_comes_to_what_it_is_when_made(
    worn: Rig, kind: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(whatif, "ranked", tuple)  # those too that gain nothing
    port = port_for(kind)
    line = build_line(worn)
    for told in whatif.try_all(line, port, tuple(one for one in candidates(line, port) if one.kind == kind)):
        candidate = told.candidate
        changed = build_line(apply_candidate(worn, candidate))
        made = figures_at(changed, assess(changed), port)
        for name in FIGURES:
            pair, figure = getattr(told, name), getattr(made, name)
            assert (pair is None) == (figure is None), name
            if pair is not None:
                assert pair[1] == pytest.approx(one_value(figure), rel=2e-3, abs=1e-6), (candidate, name)
        assert told.acts[1] == int(made.acts[0])


@pytest.mark.parametrize(
    "kind",
    ["seal", "taper", "clean-inline", "seal-bin", "empty", "upright", "clean", "clean-bag", "straight", "smooth"],
)
def test_what_is_mended_is_not_offered_again(worn: Rig, kind: str) -> None:
    for candidate in [one for one in candidates(build_line(worn), 0) if one.kind == kind]:
        mended = build_line(apply_candidate(worn, candidate))
        assert (kind, candidate.part) not in {(one.kind, one.part) for one in candidates(mended, 0)}


def test_a_hose_is_cut_until_it_is_short_and_no_further(worn: Rig) -> None:
    rig = worn
    for _ in range(12):
        cut = [one for one in candidates(build_line(rig), 0) if one.kind == "shorter" and one.part == "hose-a"]
        if not cut:
            break
        assert all(one.value >= SHORTEST for one in cut)
        rig = apply_candidate(rig, min(cut, key=lambda one: one.value))
    assert not cut


def test_only_an_open_neighbour_is_offered_to_be_shut(worn: Rig) -> None:
    def shut(rig: Rig, port: int) -> list[str]:
        return [one.part for one in candidates(build_line(rig), port) if one.kind == SHUT]

    assert shut(worn, 0) == ["beside"]
    assert shut(worn, 1) == []  # the first tool has no gate
    closed = apply_candidate(worn, Candidate(SHUT, "beside"))
    assert shut(closed, 0) == []


def test_changes_of_another_way_are_not_offered(worn: Rig) -> None:
    parts = {one.part for one in candidates(build_line(worn), 0)}
    assert "beside-hose" not in parts
    assert "hose-a" not in {one.part for one in candidates(build_line(worn), 1)}


def test_checks_are_mended_by_a_change_that_the_table_knows(worn: Rig) -> None:
    line = build_line(worn)
    checks = review(line, assess(line))
    for check in checks:
        change = mending(line, check)
        assert (change is not None) <= (check.id in MENDS)
        if change is not None:
            assert change.kind == MENDS[check.id]
            assert change.part == check.part
            assert change in candidates(line, 0)
    assert {check.id for check in checks if mending(line, check)} >= {"bin-leak"}


def test_a_change_to_what_is_not_there_is_refused(worn: Rig) -> None:
    for candidate in (Candidate("bore", "nowhere", 0.05), Candidate("magic", "hose-a", 1.0), Candidate("clean", "sep")):
        with pytest.raises(KeyError):
            apply_candidate(worn, candidate)


def test_every_kind_of_the_core_can_be_made_in_the_file(worn: Rig) -> None:
    by_hand = {"entry", "close-in", "stiffen", "clean", "clean-bag", "narrower", "step-down"}
    assert set(EDITS) | by_hand == set(KINDS)


def test_a_ring_alone_can_be_asked_for(worn: Rig) -> None:
    line = build_line(worn)
    rings = tuple(one for one in candidates(line, 0) if one.kind == "stiffen")
    (told,) = whatif.try_all(line, 0, rings)
    assert told.folding is not None
    assert told.folding[1] > told.folding[0]
    assert told.flow[0] == told.flow[1]


def test_a_flange_is_given_up_for_a_bellmouth_only_where_that_is_worth_it(worn: Rig) -> None:
    """It lets more air pass, and the flange reached farther."""
    flanged = apply_candidate(worn, Candidate("entry", "drum-sander", 0.49))
    told = {one.candidate.value: one for one in whatif.try_all(build_line(flanged), 0, bellmouths(flanged))}
    for one in told.values():
        assert one.in_bin is None or one.in_bin[1] > one.in_bin[0]
    near = apply_candidate(worn, Candidate("nearer", "drum-sander", 0.06))
    (plain,) = whatif.try_all(build_line(near), 0, (Candidate("entry", "drum-sander", 0.49),))
    assert next(move.figure for move in plain.moves if move.gains) == "in_bin"


def bellmouths(rig: Rig) -> tuple[Candidate, ...]:
    """Better entries for the first port."""
    return tuple(one for one in candidates(build_line(rig), 0) if one.kind == "entry")
