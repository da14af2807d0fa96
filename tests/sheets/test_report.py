"""The report of a test as a PDF: what it says can be read out of it again, without a page or a shop."""

import base64
import dataclasses
import re
import zlib

from fenwick.core.bench.trials.expect import Expected
from fenwick.drawing.runs_chart import RunMark, StateRow, runs_scene
from fenwick.sheets.report import Budget, Report, ReportedRun, write_report
from fenwick.wording.say import Voice

METRIC = Voice("metric", {})

REPORT = Report(
    title="How much is kept",
    kind="separation",
    where="Willow Yard, drum sander; planned 2026-02-03; read with: scale",
    headline="93.5 ± 0.4 %",
    of_what="kept in the bin",
    verdicts=("More than asked for.",),
    states=(("as described", "93.5 %"),),
    held=("found 93.5 %, expected 91 %",),
    scene=None,
    runs=(
        ReportedRun(1, "as described", "93.4 % kept", "counts"),
        ReportedRun(2, "as described", "-", "kept apart: hose blocked"),
    ),
    budgets=(Budget("", (("the scale", "0.1 %"), ("from run to run", "0.4 %"))),),
    resets=("Bin emptied outdoors",),
    caution="Wear a respirator.",
)


def text_of(pdf: bytes) -> str:
    """Every string that a PDF shows, in one line."""
    found = []
    for stream in re.findall(rb"stream\r?\n(.*?)endstream", pdf, re.DOTALL):
        try:
            shown = zlib.decompress(base64.a85decode(stream.strip().removesuffix(b"~>")))
        except (ValueError, zlib.error):
            continue  # a font, or a picture
        found += re.findall(rb"\(((?:[^()\\]|\\.)*)\) Tj", shown)
    return re.sub(r"\\(\d{3})", lambda octal: chr(int(octal[1], 8)), " ".join(s.decode("cp1252") for s in found))


def test_everything_that_was_found_is_on_paper() -> None:
    said = text_of(write_report(REPORT))
    for words in (REPORT.title, REPORT.headline, REPORT.of_what, *REPORT.verdicts, *REPORT.held, REPORT.caution):
        assert words in said
    assert "kept apart: hose blocked" in said
    assert "± 0.4 %" in said
    assert "no certificate" in said


def test_a_test_without_runs_says_that_nothing_counts_yet() -> None:
    empty = dataclasses.replace(REPORT, headline="", runs=(), budgets=(), verdicts=(), states=(), held=())
    said = text_of(write_report(empty))
    assert "Nothing that counts yet." in said
    assert "What the uncertainty is made of" not in said


def test_what_its_letters_lack_is_spelled() -> None:
    said = text_of(write_report(dataclasses.replace(REPORT, held=("≤ 5 µm → the bin, −3 °C, 漢",))))
    assert "at most 5 µm to the bin, -3 °C, ?" in said


def test_the_picture_of_the_runs_is_drawn_with_its_key() -> None:
    states = [
        StateRow(
            "leaning", (RunMark(1, 0.93, True), RunMark(2, 0.95, False)), 0.93, 0.92, 0.94, Expected(0.91, 0.85, 0.95)
        )
    ]
    scene = runs_scene(states, "share", METRIC, (0.0, 1.0))
    assert scene is not None
    drawn = text_of(write_report(dataclasses.replace(REPORT, scene=scene)))
    assert "Each dot a run" in drawn
    assert "leaning" in drawn
    assert all(text in drawn for _, text in scene.ticks)
    assert "Each dot a run" not in text_of(write_report(REPORT))
