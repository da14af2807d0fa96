"""A newcomer's journey: tools picked on Start, the verdict, the way kept in part; the same shop on a phone."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.looking import A_SEARCH

PHONE = {"width": 390, "height": 844}


def _to_the_verdict(page: Page, server: str) -> None:
    page.goto(f"{server}start")
    for tool in ("Planer", "Mitre saw"):
        page.locator(".pick", has_text=tool).click()
    page.get_by_label("Electric power").fill("1000")
    page.get_by_label("Electric power").press("Tab")
    expect(page.locator("#label-said")).to_contain_text("1000 W come to")
    page.get_by_label("or it holds").fill("30")
    page.get_by_label("Time you have").select_option(label="A weekend")
    page.get_by_label("Money you have").fill("60")
    page.get_by_role("button", name="Show the first verdict").click()
    expect(page.locator(".verdict-card")).to_be_visible()


@pytest.mark.parametrize("phone", [False, True])
def test_a_planer_and_a_mitre_saw_from_start_to_a_way_kept_in_part(bench: Page, server: str, phone: bool) -> None:
    if phone:
        bench.set_viewport_size(PHONE)  # type: ignore[arg-type]
    _to_the_verdict(bench, server)
    assert bench.evaluate("document.documentElement.scrollWidth") <= bench.evaluate("innerWidth")
    expect(bench.locator(".said-line", has_text="A bin of 30 L")).to_be_visible()
    bench.get_by_role("link", name="What to do with 60 € and a weekend").click()
    expect(bench.get_by_role("button", name=re.compile("^Take this way")).first).to_be_visible(timeout=A_SEARCH)
    bench.get_by_role("button", name=re.compile("^Take this way")).first.click()
    kept = bench.locator(".way-kept .way-steps li")
    expect(kept.first).to_be_visible()
    before = kept.count()
    for _ in range(min(before, 2)):
        bench.get_by_role("button", name=re.compile("^Done: ")).first.click()
        expect(bench.locator(".way-done")).to_be_visible()
    assert bench.locator(".way-done li").count() == min(before, 2)
    bench.get_by_role("link", name="Drawing").first.click()
    expect(bench.locator(".verdict-card")).to_be_visible()


def test_a_part_opens_its_sheet_over_the_drawing_and_a_trial_its_figures(bench: Page, server: str) -> None:
    bench.set_viewport_size(PHONE)  # type: ignore[arg-type]
    bench.goto(f"{server}lines/2")
    sheet = bench.locator(".part-sheet")
    expect(sheet).to_have_count(0)
    expect(bench.locator(".editor-strip")).not_to_be_visible()
    bench.locator('.only-narrow a[data-part="main"]').first.click()
    expect(sheet.locator(".sheet-head")).to_contain_text("Main hose")
    picked, over = bench.locator(".only-narrow .picked").bounding_box(), sheet.bounding_box()
    assert picked
    assert over
    assert picked["y"] < over["y"], "the part that it is about is seen over it"
    sheet.get_by_role("link", name="76 mm").click()
    trial = bench.locator(".trial")
    expect(trial).to_contain_text("Main hose in 76 mm")
    expect(trial.locator(".trial-figures li", has_text="Slowest speed")).to_contain_text(
        re.compile(r"\d+\.\d m/s → \d\.\d\s+m/s")  # of the line as its log has it today
    )
    trial.get_by_role("link", name="Back").click()
    expect(sheet.locator(".sheet-head")).to_contain_text("Main hose")
    bench.get_by_role("link", name="Close").click()
    expect(sheet).to_have_count(0)
    bench.locator('.only-narrow a[data-part="main"]').first.click()
    sheet.get_by_role("link", name="63.5 mm").click()
    trial.get_by_role("button", name="Keep").click()
    expect(bench.locator("#undo")).to_contain_text("Main hose in 63.5 mm")


def test_quick_presses_are_all_done_and_a_panel_takes_the_focus(bench: Page) -> None:
    bore = bench.locator("#editor").get_by_label("Bore")
    for value in ("50", "40", "45"):
        bore.fill(value)
        bore.press("Tab")
        expect(bench.locator("#undo .what")).to_contain_text("bore")
        expect(bore).to_have_value(value)
        bench.keyboard.press("Escape")
    for _ in range(3):
        bench.keyboard.press("u")
    expect(bore).to_have_value("63")
    bench.keyboard.press("h")
    expect(bench.locator(".panel-strip")).to_be_visible()
    expect(bench.locator(".panel-strip:focus, .panel-strip :focus")).to_have_count(1)


def test_a_thing_on_the_plan_is_changed_where_it_is_clicked(bench: Page, server: str) -> None:
    bench.goto(f"{server}shop?list=hoses")
    bench.locator('[data-item="bandsaw"] .shape').first.click()
    row = bench.locator('[data-owned="bandsaw"]')
    expect(row.locator("details")).to_have_attribute("open", "")
    expect(row.locator("input:focus")).to_have_count(1)
    bench.goto(f"{server}shop")
    bench.locator('[data-item="drum-sander"]').focus()
    bench.keyboard.press("Enter")
    expect(bench.locator('[data-owned="drum-sander"] details')).to_have_attribute("open", "")
    bench.get_by_role("button", name="Make a line of it").click()
    expect(bench.locator(".drawing-card h2").first).to_have_text("6 tools, one vacuum")


def test_two_lines_stand_side_by_side_and_their_marks_agree(bench: Page, server: str) -> None:
    bench.goto(f"{server}lines/1/compare/3")
    numbers = bench.locator(".compare-parts .part-mark").all_inner_texts()
    assert numbers
    for drawing in bench.locator(".compare-drawings .drawing-card").all():
        marks = set(drawing.locator(".only-wide .badge.mark text").all_text_contents())
        assert marks
        assert marks <= set(numbers)
    bench.get_by_role("link", name="The other way round").click()
    expect(bench.locator(".compare-head h1")).to_have_text("Drum sander, cyclone beside Drum sander line")
    expect(bench.locator(".told-worse").first).to_be_visible()
