"""Every key of making has its words, in both systems; troubles tell a figure and a remedy."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from fenwick.core.making.as_cut import KEEP, RECUT, SHIM, TRIM, BuiltFigures, Following, Verdict
from fenwick.core.making.bonds import GRIPS, bond
from fenwick.core.making.changed import AFTER_CUT, NOT_NEEDED, SCRAP, PartFate
from fenwick.core.making.given import MakingChoices, making_of
from fenwick.core.making.pack import parts_of
from fenwick.core.making.parts import Trouble
from fenwick.core.making.stand import stand_parts
from fenwick.core.making.steps import Broken
from fenwick.core.rules import RuleBook
from fenwick.rig import build_line
from fenwick.rig.start.examples import EXAMPLES, example_rig
from fenwick.services.making import BuildAsked, build_pack
from fenwick.wording.making import bonds, names, progress, troubles, work
from fenwick.wording.making.facts import duration, price_words, sheet_lines, size_words, stock_words, to_buy
from fenwick.wording.making.figures import step_figures
from fenwick.wording.say import Voice

MAKING = Path(__file__).parents[3] / "src" / "fenwick" / "core" / "making"
SYSTEMS = ("metric", "inch")


def packs():  # type: ignore[no-untyped-def]
    for kind in EXAMPLES:
        for bought in (False, True):
            yield build_pack(example_rig(kind), BuildAsked("wet" if kind == "wet-stage" else None, None, bought))


def test_every_part_step_hold_caution_and_reason_has_its_words() -> None:
    for pack in packs():
        for part in pack.parts:
            assert names.part_name(part.id) != part.id
            assert part.stock.material in names.MATERIALS
        for step in pack.steps:
            assert step.id.removeprefix("stand-") in work.STEPS
            assert step.hold is None or step.hold in work.HOLDS
            assert step.last is None or step.last in work.LAST
            assert set(step.cautions) <= set(work.CAUTIONS)
            assert set(step.after.values()) <= set(work.REASONS)
            assert set(step.tools) <= set(names.TOOLS)
        for cuts in pack.cuts.values():
            for cut in cuts:
                assert cut.edge in names.EDGES
                assert cut.tool in names.TOOLS


def test_every_trouble_that_the_core_can_tell_has_its_sentence() -> None:
    text = "\n".join(path.read_text() for path in MAKING.rglob("*.py"))
    told = set(re.findall(r'Trouble\(\s*"([a-z-]+)"', text)) | {"holes-meet", "holes-near", "no-bond", "bond-unknown"}
    assert told <= set(troubles.SENTENCES), told - set(troubles.SENTENCES)


@pytest.mark.parametrize("system", SYSTEMS)
@pytest.mark.parametrize("key", sorted(troubles.SENTENCES))
def test_a_trouble_names_its_part_and_ends_with_a_remedy(key: str, system: str) -> None:
    detail = "wall|hdpe|hybrid|mechanical" if "bond" in key else "groove"
    said = troubles.trouble_sentence(Trouble(key, "roof", 0.012, 0.02, detail), Voice(system, {}))
    assert said.startswith("Roof: ")
    assert said.endswith(".")
    assert "{" not in said
    alone = troubles.trouble_sentence(Trouble(key, None, 0.012, 0.02, detail), Voice(system, {}))
    assert alone[0].isupper() or not alone[0].isalpha()


def test_every_reason_of_the_table_of_bonds_is_told() -> None:
    for sealant, grips in GRIPS.items():
        assert sealant in names.SEALANTS
        for material, grip in grips.items():
            assert material in names.MATERIALS
            assert grip.holds in bonds.HOLDS
            assert not grip.because or grip.because in bonds.BECAUSE
    assert bond("pvc", "abs", "cement").because in bonds.BECAUSE
    assert bond("petg", "petg", "pva").because in bonds.BECAUSE


@pytest.mark.parametrize("system", SYSTEMS)
def test_sizes_and_sheets_are_told_for_every_part(system: str) -> None:
    voice = Voice(system, {})
    for pack in packs():
        for part in pack.parts:
            assert "{" not in size_words(part, voice)
            lines = sheet_lines(part, "Line", "Chamber", "2026-11-28", voice)
            assert lines[0].startswith(names.part_name(part.id))
            assert lines[1] == "Chamber · Line · 2026-11-28"
            assert stock_words(part, voice) in lines[2]
        for step in pack.steps:
            assert all(line.endswith(".") for line in step_figures(step, pack.parts, pack.cuts, voice))
        bought = [part for part in pack.parts if part.how == "buy"]
        sheets = {sheet for sheet in pack.layout.sheets if not sheet.at_hand}
        glues = {joint.sealant for joint in pack.joints} | {step.glue for step in pack.steps if step.glue}
        lines = to_buy(pack.to_buy, "£", voice)
        assert len(lines) == len(bought) + len(sheets) + len(glues) + (1 if pack.to_buy else 0)
        assert all(line.endswith(" £") for line in lines)


def test_a_price_is_no_surer_than_it_is() -> None:
    assert [price_words(price, "€") for price in (None, 0.4, 1.0, 22.4)] == [
        "price not known", "under 1 €", "about 1 €", "about 22 €",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("seconds", "said"),
    [(0.0, "0 min"), (1500.0, "25 min"), (3600.0, "1 h"), (15600.0, "4 h 20"), (86400.0, "1 day"),
     (97200.0, "1 day 3 h"), (180000.0, "2 days 2 h"), (86399.0, "1 day")],
)  # fmt: skip
def test_times_are_said_as_one_says_them(seconds: float, said: str) -> None:
    assert duration(seconds) == said


class TestVerdicts:
    def verdict(self, do: str, measured: float = 0.337, shim: float = 0.0015) -> Verdict:
        return Verdict("slotted-disc", "d_m", 0.34, measured, do, "leak", shim if do == SHIM else 0.0)

    def test_each_says_what_was_cut_and_what_to_do(self) -> None:
        voice = Voice("metric", {})
        said = {do: " ".join(progress.verdict_sentences(self.verdict(do), None, voice)) for do in
                (KEEP, SHIM, RECUT, TRIM)}  # fmt: skip
        assert all("337 mm was cut, 340 mm wanted" in one for one in said.values())
        assert "within what it may be off" in said[KEEP]
        assert "1.5 mm all round" in said[SHIM]
        assert "cut it again" in said[RECUT]
        assert "trim it" in said[TRIM]
        assert len({progress.verdict_title(self.verdict(do)) for do in said}) == 4

    def test_the_model_speaks_only_where_it_makes_a_difference(self) -> None:
        voice = Voice("metric", {})
        told = progress.verdict_sentences(self.verdict(SHIM), BuiltFigures((0.744, 0.731), (1.0, 1.0)), voice)
        same = progress.verdict_sentences(self.verdict(SHIM), BuiltFigures((0.744, 0.744), (1.0, 1.0)), voice)
        assert any("73.1 % would be kept instead of 74.4 %" in one for one in told)
        assert not any("By the model" in one for one in same)

    def test_what_follows_is_named_with_its_new_figure(self) -> None:
        one = Verdict(
            "wall", "wrap_m", 1.0729, 1.076, KEEP, "", follows=(Following("roof", "groove_radius_m", 0.1712),)
        )
        said = progress.verdict_sentences(one, None, Voice("metric", {}))
        assert said[-1] == "Roof follows: radius of the groove, to its middle 171.2 mm."

    def test_the_sign_is_that_of_the_part(self) -> None:
        voice = Voice("metric", {})
        assert progress.off_words(self.verdict(SHIM), voice) == "−3"
        assert progress.off_words(self.verdict(TRIM, 0.3425), voice) == "+2.5"


@pytest.mark.parametrize("fate", [AFTER_CUT, SCRAP, NOT_NEEDED])
def test_a_part_of_an_earlier_design_is_told_what_it_is_worth(fate: str) -> None:
    said = progress.changed_sentence(PartFate("roof", fate, "d_m", 0.356, 0.34), Voice("metric", {}))
    assert said.startswith("Roof ")
    assert "was 356 mm, 340 mm is wanted" in said
    assert progress.changed_sentence(PartFate("roof", fate), Voice("metric", {})).endswith(".")


def test_what_an_order_breaks_is_told_with_its_reason() -> None:
    said = progress.broken_sentence(Broken("cut-slot", "bore-slot-ends", "ends-first"))
    assert said.startswith("“Bore the ends of the slot” comes before “Cut the slot between them”: ")
    assert said.endswith(".")


def test_every_step_stands_in_one_row_of_the_plan() -> None:
    assert {progress.phase_of(name) for name in work.STEPS} == set(progress.PHASE_TITLES)
    assert progress.phase_of("stand-fix-rest") == progress.phase_of("fix-rest")


def test_a_paper_is_printed_and_not_cut() -> None:
    parts = parts_of(build_line(example_rig("rim-inlet")).separators[0], making_of(MakingChoices(), RuleBook()))
    paper = parts.get("wall-template")
    assert paper is not None
    assert progress.part_state_words(paper, "make")[0] == "to print"
    tray = stand_parts(build_line(example_rig("cyclone")).separators[0], making_of(MakingChoices(), RuleBook()), 9.0)
    assert tray.parts[0].stock.material == "plywood"
