"""A test of two builds from the question to the verdict, and on to the line that it was made on."""

from __future__ import annotations

import csv
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.looking import OVERLAPS, overflow
from tests.browser.test_runs import go_on

#: of each state, what bin and catch weigh after its runs [g]
MADE = {
    "Drum sander line": ((2160.4, 97.2), (2161.0, 96.9)),
    "Drum sander, cyclone": ((2182.0, 75.6), (2181.2, 76.3)),
}
BIN, CATCH, FED = 2100.0, 58.0, 100.0  #: before each run, and what is fed [g]


def asked(page: Page, server: str) -> None:
    """What one wants to know and has got, to the plan that is proposed."""
    page.goto(f"{server}lines/1/tests")
    page.get_by_role("link", name="What do you want to know?").click()
    page.get_by_label("What do you want to know?").select_option(label="Which of two builds keeps more?")
    expect(page.get_by_label("Against which line")).to_be_visible()
    page.wait_for_load_state("networkidle")
    page.get_by_label("Against which line").select_option(label="Drum sander, cyclone")
    page.wait_for_load_state("networkidle")
    page.get_by_label("A finer scale").fill("0.1")
    page.keyboard.press("Tab")
    best = page.locator(".proposal").first
    expect(best).to_contain_text("± 2 g")
    expect(best).to_contain_text("the scale that shows 0.1 g")
    page.wait_for_load_state("networkidle")
    best.get_by_role("link", name="Plan this").click()
    expect(page.locator(".expects-card")).to_contain_text("Drum sander, cyclone")


def test_two_builds_from_the_question_to_the_verdict_and_the_reading(bench: Page, server: str, tmp_path: Path) -> None:
    asked(bench, server)
    assert bench.evaluate(OVERLAPS, ".expects-card") == []
    bench.get_by_label("Runs of each").fill("2")
    bench.keyboard.press("Tab")
    expect(bench.locator(".run-order li")).to_have_count(4)
    bench.wait_for_load_state("networkidle")
    bench.get_by_label("Fed over").fill("1")
    bench.keyboard.press("Tab")
    bench.wait_for_load_state("networkidle")
    expect(bench.get_by_label("Fed over")).to_have_value("1")
    bench.get_by_role("button", name="Plan it").click()
    expect(bench.locator(".held-card")).to_contain_text("What the model expects")

    bench.get_by_role("link", name="Begin run 1").click()
    state = bench.locator(".run-number b").inner_text()
    bench.get_by_role("button", name="Begin run 1").click()
    go_on(bench, "Before")
    bench.get_by_label("Bin, before").fill(str(BIN))
    bench.locator("#e-past_before").fill(str(CATCH))
    go_on(bench, "Weigh out the feed")
    expect(bench.locator(".step-card .what")).to_contain_text("± 2")
    bench.get_by_label("Fed", exact=True).fill(str(FED))
    go_on(bench, "Feed")
    bench.get_by_role("button", name="Start").click()
    expect(bench.locator(".clock-words")).to_have_text("time is up")
    go_on(bench, "Let it run on")
    go_on(bench, "After")
    after = MADE[state][0]
    bench.get_by_label("Bin, after").fill(str(after[0]))
    bench.locator("#e-past_after").fill(str(after[1]))
    go_on(bench, "Look and note")
    bench.locator(".go-on").click()
    expect(bench.locator(".shows-card")).to_be_visible()

    table = tmp_path / "runs.csv"
    write_runs(table)
    bench.get_by_label("Runs out of a CSV").set_input_files(str(table))
    bench.get_by_role("button", name="Add them").click()
    expect(bench.locator(".headline .state")).to_contain_text("real: better")
    expect(bench.locator(".held-card")).to_contain_text("Drum sander, cyclone")
    expect(bench.locator(".runs-chart .believed")).to_have_count(2)
    assert bench.evaluate(OVERLAPS, ".runs-chart") == []

    bench.get_by_role("button", name=re.compile("^Drum sander, cyclone: as a reading")).click()
    expect(bench.locator(".undo-line")).to_contain_text("of “Drum sander, cyclone” now")
    bench.get_by_role("link", name="Tune the line to it").click()
    expect(bench).to_have_url(re.compile("/lines/3/test$"))


def write_runs(path: Path) -> None:
    """Runs that were made elsewhere, as the table of a test has its columns."""
    with path.open("w", newline="") as file:
        table = csv.writer(file)
        table.writerow(
            ["state", "bin_before (g)", "past_before (g)", "fed_feed (g)", "bin_after (g)", "past_after (g)"]
        )
        table.writerows([state, BIN, CATCH, FED, *after] for state, runs in MADE.items() for after in runs)


def test_what_to_test_reads_on_a_phone(bench: Page, server: str) -> None:
    bench.set_viewport_size({"width": 390, "height": 844})
    bench.goto(f"{server}lines/1/tests/propose?want=builds&scale_step=1&minutes=60")
    assert overflow(bench) <= 0
    form, first = bench.locator(".propose-form").bounding_box(), bench.locator(".proposal").first.bounding_box()
    assert form
    assert first
    assert form["y"] < first["y"], "what is asked comes before what is answered"
