"""Marks on what nobody has measured: kept through edits, dropped by measurements, ranked by what hangs on them."""

import json

import pytest

from fenwick.core.arrays import batches
from fenwick.core.judging.assess import assess
from fenwick.core.search.figures import figures_at, figures_of_each
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, RigError, build_line, check_rig, edit_rig, write_rig
from fenwick.rig.edits.measure import confirm_guess, measure_next, path_of_guess
from fenwick.rig.edits.structure import duplicate_part, move_part, remove_part
from fenwick.rig.start import Answers, start_line
from fenwick.rig.voice import voice_for
from fenwick.wording.measure import how_to_measure, what_hangs_on_it


@pytest.fixture
def first() -> Rig:
    return start_line(Answers()).planned


def marks(rig: Rig) -> set[tuple[str, str]]:
    return {(guess.part, guess.key) for guess in rig.guesses}


def test_a_measurement_takes_the_mark_away(first: Rig) -> None:
    path = path_of_guess(first, "hose", "bore_m")
    assert path == "line.branches[0].elements[0].bore_m"
    measured = edit_rig(first, {path: 0.036})
    assert marks(first) - marks(measured) == {("hose", "bore_m")}
    assert marks(confirm_guess(first, "hose", "bore_m")) == marks(measured)
    assert path_of_guess(measured, "hose", "bore_m") is None
    assert confirm_guess(measured, "hose", "bore_m") is measured


def test_marks_go_with_their_part(first: Rig) -> None:
    moved = move_part(first, "hose", +1)
    assert marks(moved) == marks(first)
    assert path_of_guess(moved, "hose", "bore_m") == "line.elements[0].bore_m"
    gone = remove_part(first, "link")
    assert {part for part, _ in marks(first) - marks(gone)} == {"link"}
    twice, twin = duplicate_part(first, "link")
    assert {key for part, key in marks(twice) if part == twin} == {key for part, key in marks(first) if part == "link"}
    straight = edit_rig(first, {"line.branches[0].elements[0].bends": []})
    assert ("hose", "bends[0].angle_deg") not in marks(straight)


@pytest.mark.parametrize(
    ("mark", "where", "rule"),
    [
        ({"part": "nobody", "key": "bore_m"}, "guesses[0].part", "names no part"),
        ({"part": "link", "key": "colour"}, "guesses[0].key", "is not a key"),
        ({"part": "link", "key": "bends"}, "guesses[0].key", "single value"),
        ({"part": "link", "key": "bends[7].angle_deg"}, "guesses[0].key", "is not a key"),
    ],
)
def test_a_mark_on_nothing_is_refused(mark: dict[str, str], where: str, rule: str) -> None:
    document = json.loads(write_rig(demo_rig()))
    document["guesses"] = [mark]
    with pytest.raises(RigError) as refused:
        check_rig(document)
    assert refused.value.problems[0].path == where
    assert rule in refused.value.problems[0].rule


def test_a_rig_without_guesses_is_written_as_before() -> None:
    assert b"guesses" not in write_rig(demo_rig())
    assert measure_next(demo_rig(), 0) == []


def test_the_spread_is_what_each_end_computes_alone(first: Rig) -> None:
    effects = {(e.guess.part, e.guess.key): e for e in measure_next(first, 0)}
    effect = effects["hose", "bore_m"]
    flows = []
    for value in (effect.value, effect.guess.low, effect.guess.high):
        found = assess(build_line(edit_rig(first, {effect.path: value})))
        flows.append(float(found.point.port_flow[0, 0]))
    assert effect.spread.flow == pytest.approx((min(flows), max(flows)), rel=1e-6)
    still = effects["tool", "port.hood.distance_m"].spread
    assert still.flow[1] == pytest.approx(still.flow[0], rel=0.005)  # the hood changes the air by what it catches
    assert still.in_bin is not None
    assert still.in_bin[1] - still.in_bin[0] > 0.02


def test_the_most_telling_comes_first_and_says_how(first: Rig) -> None:
    effects = measure_next(first, 0)
    assert len(effects) == len(first.guesses)
    swings = [effect.spread.swing for effect in effects]
    assert swings == sorted(swings, reverse=True)
    assert effects[0].spread.acts[1] > effects[0].spread.acts[0]
    voice = voice_for(first, "metric")
    assert what_hangs_on_it(effects[0].spread, voice)
    for effect in effects:
        assert how_to_measure(f"{effect.guess.part}.{effect.guess.key}"), effect.guess.key


def test_lines_told_apart_by_numbers_share_a_batch(first: Rig) -> None:
    lengths = (1.0, 2.0, 5.0)
    lines = [build_line(edit_rig(first, {"line.elements[1].length_m": length})) for length in lengths]
    (batch,) = (one.together for one in batches(lines))
    assert batch.variants == 3
    together = figures_at(batch, assess(batch), 0)
    each = figures_of_each([*lines, build_line(demo_rig())], 0)
    assert len(each) == 4
    for i in range(3):
        assert each[i].flow[0] == pytest.approx(float(together.flow[i]))
        assert each[i].kept is not None
    assert [one.places for one in batches([lines[0], build_line(demo_rig())])] == [(0,), (1,)]
