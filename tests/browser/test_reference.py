"""The page of assumptions is searched, and what a word cites is a link to its place there."""

from __future__ import annotations

from playwright.sync_api import Page, expect


def test_assumptions_are_found_as_one_types(bench: Page, server: str) -> None:
    bench.goto(f"{server}assumptions")
    opened = bench.locator(".fold[open]")
    expect(opened).to_have_count(0)
    bench.get_by_label("Look for").fill("leak clamp")
    expect(opened).to_have_count(1)
    expect(bench.locator("#find-said")).to_have_text("1 row")
    expect(opened.locator("tbody tr:visible")).to_contain_text("clamp-ring lid")
    bench.get_by_label("Look for").fill("no such thing at all")
    expect(bench.locator("#find-said")).to_have_text("0 rows")
    expect(bench.locator(".fold:visible")).to_have_count(0)
    bench.get_by_label("Look for").fill("")
    assert bench.locator(".fold:visible").count() > 20


def test_what_a_word_cites_is_unfolded_where_the_link_leads(bench: Page, server: str) -> None:
    bench.goto(f"{server}terms")
    bench.get_by_role("link", name="Industrial ventilation practice").first.click()
    expect(bench.locator("#air-speed-needed-where-the-dust-is-made")).to_have_attribute("open", "")


def test_the_question_mark_searches_all_that_is_told(bench: Page, server: str) -> None:
    bench.goto(f"{server}log")
    bench.get_by_role("button", name="Help and keyboard shortcuts").click()
    field = bench.locator("#keys").get_by_label("Find a page, a word, a rule of thumb or an equation")
    field.fill("dalla valle")
    field.press("Enter")
    opened = bench.locator(".guide-place[open]:visible")
    expect(opened).not_to_have_count(0)
    expect(bench.locator(".guide-more[open] tbody tr:visible").first).to_be_visible()
    bench.locator("#find-page").fill("")
    expect(bench.locator(".guide-more[open]")).to_have_count(0)
    expect(bench.locator(".guide-place[open]").first).to_be_visible()


def test_the_guide_prints_on_one_sheet(bench: Page, server: str) -> None:
    bench.goto(f"{server}guide")
    told = bench.pdf(format="A4")
    assert told.count(b"/Type /Page") - told.count(b"/Type /Pages") == 1
