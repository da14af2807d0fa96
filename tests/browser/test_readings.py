"""Readings taken by hand, the line tuned and its prediction better; a fault hunted down with two checks."""

import re

from playwright.sync_api import Page, expect

from tests.browser.looking import OVERLAPS


def read(page: Page, kind: str, value: str, where: str = "") -> None:
    """Take a reading."""
    chosen = page.get_by_label("What was read")
    if chosen.input_value() != kind:
        with page.expect_response(re.compile("kind=")):
            chosen.select_option(kind)
        page.wait_for_load_state("networkidle")
    if where:
        expect(page.get_by_label("Where")).to_be_visible()
        page.get_by_label("Where").select_option(where)
    page.locator("#f-value").fill(value)
    rows = page.locator(".readings-card tbody tr")
    before = rows.count()
    page.get_by_role("button", name="Add the reading").click()
    expect(rows).to_have_count(before + 1)


def spread(page: Page, column: int) -> float:
    """Half-width of the interval of what is kept: column 0 as described, 1 tuned."""
    text = page.locator(".before-after tbody tr").first.locator("td").nth(column).inner_text()
    found = re.search(r"([\d.]+) to ([\d.]+)", text)
    assert found
    return 0.5 * (float(found[2]) - float(found[1]))


def test_readings_tune_the_line_and_its_prediction_gets_sharper(bench: Page) -> None:
    air = bench.locator('[data-row="air"] .figure b').inner_text()
    bench.get_by_role("link", name="Test", exact=True).click()
    bench.get_by_role("link", name="Readings and tuning").click()
    read(bench, "suction", "2.85", "hose-a")
    read(bench, "suction", "4.9", "link")
    read(bench, "sealed", "16.0")
    read(bench, "kept", "74")
    expect(bench.locator(".factors li").first).to_contain_text("Fixed by")
    assert spread(bench, 1) < 0.3 * spread(bench, 0)
    bench.get_by_role("button", name="Tune the line to its readings").click()
    expect(bench.locator(".tuned-mark")).to_be_visible()
    bench.get_by_role("link", name="Line", exact=True).click()
    expect(bench.locator('[data-row="air"] .figure b')).not_to_have_text(air)
    expect(bench.locator("#undo .what")).to_have_text("Tuned to 4 readings")
    bench.locator("#undo").click()
    expect(bench.locator('[data-row="air"] .figure b')).to_have_text(air)
    expect(bench.locator(".tuned-mark")).to_have_count(0)


def test_a_fault_is_hunted_down_with_two_checks(bench: Page) -> None:
    bench.get_by_role("link", name="Test", exact=True).click()
    bench.get_by_role("link", name="Fault finder").click()
    bench.get_by_label("There is dust in the vacuum that should be in the bin").check()
    expect(bench.locator(".suspects li").first).to_be_visible()
    bench.get_by_label("The bin's wall moves or creaks").check()
    expect(bench.locator(".suspects .leading")).to_contain_text("The bin is drawn in")
    look = bench.locator(".next-checks li", has_text="Switched off: is the bin's wall drawn in anywhere?")
    look.get_by_role("button", name="Yes").click()
    expect(bench.locator(".suspects .leading .state")).to_have_text("most likely")
    expect(bench.locator(".suspects .leading")).to_contain_text("hands off")
    expect(bench.locator(".checked li")).to_have_count(1)
    bench.get_by_role("button", name="Begin anew").click()
    expect(bench.locator(".checked li")).to_have_count(0)


def test_a_reading_is_taken_at_its_hole_on_the_drawing(bench: Page, server: str) -> None:
    bench.goto(f"{server}lines/1/test")
    assert bench.evaluate(OVERLAPS, ".holes-box.only-wide .holes") == []
    bench.locator(".holes-box.only-wide a.hole").filter(has_text="5.6").click()
    expect(bench.get_by_label("Where")).to_have_value("link")
    expect(bench.locator(".holes-box.only-wide a.hole-here")).to_have_count(1)
    bench.locator("#f-value").fill("22 in of water")
    bench.get_by_role("button", name="Add the reading").click()
    expect(bench.locator(".readings-card")).to_contain_text("behind Link hose")
    expect(bench.locator(".holes-box.only-wide a.hole .hole-read").filter(has_text="5.")).to_have_count(1)
    bench.set_viewport_size({"width": 390, "height": 844})
    assert bench.evaluate(OVERLAPS, ".holes-box.only-narrow .holes") == []
