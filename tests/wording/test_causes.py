"""The cause before the remedy: what is amiss, where, and by how much."""

from __future__ import annotations

import pytest

from fenwick.core.judging.assess import assess
from fenwick.core.search.changes import candidates
from fenwick.core.search.whatif import ChangeOutcome, try_all
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, build_line, edit_rig
from fenwick.rig.start import Answers, start_line
from fenwick.rig.voice import voice_for
from fenwick.units import INCH, METRIC
from fenwick.wording.causes import PortFound, amiss_words, cause_words


def advice(rig: Rig, port: int = 0, system: str = METRIC) -> dict[str, tuple[str, ChangeOutcome]]:
    """Cause and outcome of every single change that gains something, by its kind, the best of each."""
    line = build_line(rig)
    here = PortFound(line, assess(line), port, voice_for(rig, system))
    found: dict[str, tuple[str, ChangeOutcome]] = {}
    for outcome in try_all(line, port, candidates(line, port)):
        found.setdefault(outcome.candidate.kind, (cause_words(outcome, here), outcome))
    return found


def test_each_remedy_of_the_demo_line_is_told_after_its_cause() -> None:
    told = {kind: cause for kind, (cause, _) in advice(demo_rig()).items()}
    assert told["seal-bin"] == "3.5 % of the air leaks in below"
    assert told["stiffen"] == "A blocked hose folds the bin: 0.8 ×"
    assert told["narrower"] == "Dust lies in hose B: 11.7 m/s"


def test_chips_that_lie_down_in_a_wide_port_are_the_cause() -> None:
    rig = start_line(Answers(tools=("planer",), hose_bore=0.035, stands="disc")).planned
    weak = edit_rig(rig, {"line.branches[0].port.hood.thrown_share": 0.1})
    line = build_line(weak)
    said = [amiss_words("caught", PortFound(line, assess(line), 0, voice_for(weak, one))) for one in (METRIC, INCH)]
    assert said[0].startswith("Chips lie down in the 100 mm port: 3.")
    assert "in the 3.94 in port" in said[1]


@pytest.mark.parametrize("figure", ["flow", "caught", "speed", "kept", "folding"])
def test_every_figure_to_act_on_has_words_or_none(figure: str) -> None:
    for name in ("demo_line", "demo_bench", "demo_cyclone"):
        rig = demo_rig(name)
        line = build_line(rig)
        assert "nan" not in amiss_words(figure, PortFound(line, assess(line), 0, voice_for(rig, METRIC)))


def test_a_full_bin_is_the_cause_where_emptying_helps() -> None:
    rig = demo_rig()
    full = edit_rig(rig, {"line.elements[0].bin.fill_height_m": 0.4})
    cause, _ = advice(full)["empty"]
    assert cause.startswith("Only ")
    assert cause.endswith("free over the dust")


def test_what_only_makes_good_better_may_have_no_cause_but_never_a_wrong_one() -> None:
    for name in ("demo_line", "demo_bench", "demo_cyclone"):
        for cause, outcome in advice(demo_rig(name)).values():
            assert "nan" not in cause
            assert len(cause) < 60, cause
            if cause.startswith("Dust lies"):
                assert outcome.helps("speed")


@pytest.mark.parametrize("dust", [None, "planer"])
def test_unknown_dust_has_causes_of_the_air_alone(dust: str | None) -> None:
    rig = edit_rig(demo_rig(), {"dust": None if dust is None else {"kind": dust}})
    for cause, _ in advice(rig).values():
        assert dust is not None or "Dust lies" not in cause
