"""Words for the separator: what each says follows from its figures."""

from dataclasses import replace

import numpy as np
import pytest

from fenwick.core.components.cyclone import Cyclone
from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.dust.stream import kept_by_models
from fenwick.core.formulas.cyclone import FAMILIES
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.search.contrast import Shift
from fenwick.core.search.effects import Effect, effects, with_stage
from fenwick.wording.bin import bin_words, dip_rod
from fenwick.wording.claims import claim_rows
from fenwick.wording.contrast import difference, judgement
from fenwick.wording.say import Voice
from fenwick.wording.separator import EFFECT_WORDS, drop_checks, effect_row, model_rows, stage_rows, through_the_wall
from tests.lines import disc_line

VOICE = Voice("metric", {"sep": "Chamber"})


def cyclone_line(**changes: object) -> Line:
    """The disc's line with a cyclone in its place."""
    line = disc_line()
    made = Cyclone("sep", FAMILIES["high-efficiency"].of(0.15), "smooth", line.separators[0].bin)
    return with_stage(line, made.changed(**changes))


def test_every_figure_has_its_band_and_without_bands_none() -> None:
    line = disc_line()
    found, sure = assess(line), sureness(line).stages[0]
    with_bands = stage_rows(line, line.separators[0], found, sure, VOICE)
    bare = stage_rows(line, line.separators[0], found, None, VOICE)
    assert [row.id for row in with_bands] == ["kept", "cut", "drop", "inlet"]
    assert all("is believable" in row.sentence for row in with_bands)
    assert not any("is believable" in row.sentence for row in bare)
    assert [row.value for row in with_bands] == [row.value for row in bare]
    assert "least certain" in with_bands[2].sentence
    cyclone = cyclone_line()
    assert "least certain" not in stage_rows(cyclone, cyclone.separators[0], assess(cyclone), None, VOICE)[2].sentence


def test_an_unknown_dust_leaves_kept_and_cut_out() -> None:
    line = replace(disc_line(), dust=None)
    rows = stage_rows(line, line.separators[0], assess(line), sureness(line).stages[0], VOICE)
    assert [row.id for row in rows] == ["kept", "drop", "inlet"]
    assert rows[0].value == "not known"


def test_models_are_listed_with_the_headline_first() -> None:
    line = cyclone_line()
    found = assess(line)
    assert line.dust is not None
    kept_by = kept_by_models(found.separations[0], line.dust.weights)
    rows = model_rows(found.separations[0], kept_by, VOICE)
    assert [row.note for row in rows].count("headline") == 1
    assert rows[0].note == "headline"
    assert len(rows) == 4
    said = drop_checks(line.separators[0], found.separations[0], 1.2, VOICE)
    assert "Shepherd" in said
    assert drop_checks(disc_line().separators[0], found.separations[0], 1.2, VOICE) == ""


def test_every_effect_has_its_words() -> None:
    line = disc_line(leak=2e-5, tilt=0.1)
    faults, sizes = effects(line, line.separators[0])
    for effect in (*faults, *sizes):
        row = effect_row(effect, VOICE)
        assert row.sentence
        assert row.points[0] in "+−±"
    assert {effect.id for effect in (*faults, *sizes)} <= set(EFFECT_WORDS)
    nothing = effect_row(Effect("arc-longer", 0.9, 0.0, np.pi / 2), VOICE)
    assert (nothing.points, nothing.level) == ("±0", "")
    assert "90°" in nothing.sentence


@pytest.mark.parametrize(
    ("line", "words"),
    [
        (disc_line(fill=0.02), "lies still"),
        (disc_line(fill=0.40), "it is time to empty"),
        (disc_line(fill=0.45), "goes straight on to the vacuum"),
        (disc_line(leak=6e-5), "like fog"),
        (cyclone_line(), "turn lazily"),
        (cyclone_line(shape=replace(FAMILIES["high-efficiency"].of(0.15), height=0.3)), "the vortex reaches the bin"),
        (cyclone_line(swapped=True), "the hoses are swapped"),
    ],
)
def test_what_is_seen_through_the_wall_follows_the_state(line: Line, words: str) -> None:
    said = through_the_wall(line, line.separators[0], assess(line).separations[0], VOICE)
    assert any(words in sentence for sentence in said)
    assert len(said) == len(set(said))


def test_the_bin_by_hand() -> None:
    line = disc_line(fill=0.1)  # 340 mm wide, 450 mm high: 40.9 L; 9.1 L at 100 mm; P120 lies at 260 kg/m³
    said = " ".join(bin_words(line, line.separators[0], VOICE))
    assert "It holds 40.9 L to the brim; 9.1 L lie in it now, about 2.4 kg" in said
    marks = dip_rod(line, line.separators[0], VOICE)
    assert len(marks) == 6
    volumes = [float(mark.volume.split()[0]) for mark in marks]
    assert np.diff(volumes) == pytest.approx(volumes[0], abs=0.2)  # a straight bin: even marks
    unknown = replace(line, dust=None)
    assert all(mark.mass == "" for mark in dip_rod(unknown, unknown.separators[0], VOICE))
    flat = replace(line.separators[0].bin, heights=(0.0, 0.06), fill_height=0.0)
    shallow = with_stage(line, line.separators[0].changed(bin=flat))
    assert dip_rod(shallow, shallow.separators[0], VOICE) == []
    assert "too shallow" in " ".join(bin_words(shallow, shallow.separators[0], VOICE))


def test_a_claim_says_what_the_line_drives_of_it() -> None:
    claimed = {"flow_m3_s": 0.06, "suction_pa": 1200.0, "efficiency": 0.99}
    rows = claim_rows(claimed, 0.03, 1500.0, 0.8, VOICE)
    assert [row.title for row in rows] == ["Airflow", "Suction it costs", "Kept in the bin"]
    assert "50 %" in rows[0].note
    assert (rows[2].claimed, rows[2].modelled) == ("99 %", "80 %")
    assert claim_rows({"flow_m3_s": None}, 0.03, 1500.0, None, VOICE) == []


def shift(figure: str, low: float, middle: float, high: float) -> Shift:
    """A difference."""
    return Shift(figure, 0.8, 0.8 + middle, low, high)


def test_a_difference_across_nothing_is_not_told() -> None:
    assert "cannot tell" in judgement((shift("kept", -0.01, 0.02, 0.05),), "a", "b")
    assert judgement((shift("kept", 0.01, 0.02, 0.05),), "a disc", "a cone") == "A cone: keeps more."
    both = (shift("kept", 0.01, 0.02, 0.05), shift("air", -0.004, -0.003, -0.002))
    assert judgement(both, "a disc", "a cone") == "A disc: more air. A cone: keeps more."
    less = (shift("exhaust", -0.02, -0.01, -0.005),)
    assert judgement(less, "a", "b") == "B: less blown back into the room."


def test_a_difference_is_said_with_its_band() -> None:
    assert difference(shift("kept", -0.01, 0.024, 0.05), VOICE) == "+2.4 points (−1.0 to +5.0)"
    assert difference(shift("air", 0.0, 0.0, 0.0), VOICE) == "0 L/s (0 to 0)"
    assert difference(shift("folding", 0.5, 0.8, 1.1), VOICE) == "+0.8 × (+0.5 to +1.1)"
