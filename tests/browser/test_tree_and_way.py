"""The whole line clicked at, and a way to a better one found, tried, taken up and gone; on a laptop and on a phone."""

from __future__ import annotations

import re

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.looking import A_SEARCH, VIOLATIONS

PHONE = {"width": 390, "height": 844}


def undo_says(page: Page, words: str) -> None:
    """The last change, as the bar tells it."""
    expect(page.locator("#undo .what")).to_have_text(words)


@pytest.mark.parametrize("size", [{"width": 1280, "height": 800}, PHONE])
def test_gates_are_clicked_on_the_tree(bench: Page, server: str, size: dict[str, int]) -> None:
    bench.set_viewport_size(size)  # type: ignore[arg-type]
    bench.goto(f"{server}lines/2" if server.endswith("/") else f"{server}/lines/2")
    tree = bench.locator(".tree-drawing:visible")
    expect(tree.locator("a.gate.is-open")).to_have_count(1)
    tree.locator('a[data-gate="sweep"] .frame').click()
    expect(bench.locator(".tree-drawing:visible a.gate.is-open")).to_have_count(2)
    bench.locator('.tree-drawing:visible a[data-gate="bandsaw"]').focus()
    bench.keyboard.press("Space")
    expect(bench.locator('.tree-drawing:visible a[data-gate="bandsaw"]')).to_have_class(re.compile("is-shut"))
    bench.locator("#undo").click()
    expect(bench.locator('.tree-drawing:visible a[data-gate="bandsaw"]')).to_have_class(re.compile("is-open"))


def test_a_tool_is_looked_at_and_its_hose_put_on_another_branch(bench: Page, server: str) -> None:
    bench.goto(f"{server}/lines/2".replace("//lines", "/lines"))
    bench.locator('.tree-drawing:visible a.part-tool[data-part="sweep"]').click()
    expect(bench.locator(".verdict-card h2")).to_contain_text("floor sweep")
    hose = bench.locator('.tree-drawing:visible a[data-part="router-hose"] .flow')
    there = bench.locator('.tree-drawing:visible a.part-tool[data-part="sweep"]')
    start, end = hose.bounding_box(), there.bounding_box()
    assert start is not None
    assert end is not None
    bench.mouse.move(start["x"] + start["width"] / 2, start["y"] + 0.6 * start["height"])
    bench.mouse.down()
    bench.mouse.move(start["x"] + 30, start["y"] + 40, steps=4)
    bench.mouse.move(end["x"] + 12, end["y"] + end["height"] / 3, steps=6)
    bench.mouse.up()
    undo_says(bench, "Router hose moved behind Floor sweep")


def test_a_way_is_found_taken_up_and_gone_step_by_step(bench: Page, server: str) -> None:
    bench.goto(f"{server}/lines/1/way".replace("//lines", "/lines"))
    expect(bench.locator(".way-card").first).to_be_visible(timeout=A_SEARCH)  # it looks by itself
    assert bench.locator(".way-card .way-steps li").count() >= 3
    assert Axe().run(bench, options=VIOLATIONS).response["violations"] == []
    bench.get_by_role("button", name=re.compile("^Take this way: for")).click()
    mine = bench.locator(".way-kept .way-steps li")
    expect(mine.first).to_be_visible()
    first = mine.first.locator("b").inner_text()
    mine.first.get_by_role("link", name="Try").click()
    expect(bench.locator(".trial")).to_contain_text(first)
    bench.locator(".trial").get_by_role("button", name="Keep").click()
    expect(bench.locator(".way-done li b").first).to_have_text(first)
    left = mine.count()
    second = mine.first.locator("b").inner_text()
    bench.get_by_role("button", name=f"Done: {second}").click()
    expect(bench.locator(".way-done li")).to_have_count(2)
    if left > 1:
        bench.get_by_role("button", name=re.compile("^Strike out")).first.click()
        expect(bench.locator(".struck-card li")).to_have_count(1)
    bench.goto(f"{server}/lines/1".replace("//lines", "/lines"))
    undo_says(bench, second)


def test_on_a_phone_a_sum_that_cannot_be_read_stays_and_another_is_taken(bench: Page, server: str) -> None:
    bench.set_viewport_size(PHONE)  # type: ignore[arg-type]
    bench.goto(f"{server}/lines/1/way".replace("//lines", "/lines"))
    money = bench.get_by_role("textbox", name=re.compile("Money"))
    money.fill("a lot")
    bench.locator(".ask-form").get_by_role("button", name="Find the way").click()
    expect(money).to_have_value("a lot")
    expect(bench.locator(".ask-form .error, .ask-form .invalid-feedback").first).to_be_visible()
    money.fill("0")
    bench.locator(".ask-form").get_by_role("button", name="Find the way").click()
    expect(bench.locator(".way-card").first).to_be_visible(timeout=A_SEARCH)
    width = bench.evaluate("document.documentElement.scrollWidth")
    assert width <= PHONE["width"]


def test_what_is_typed_while_a_search_ends_is_still_there(bench: Page, server: str) -> None:
    bench.goto(f"{server}lines/1/way")
    money = bench.get_by_role("textbox", name=re.compile("Money"))
    money.fill("85")
    expect(bench.locator(".way-card").first).to_be_visible(timeout=A_SEARCH)
    expect(money).to_have_value("85")
    bench.reload()
    expect(money).not_to_have_value("85")  # carried over once


def test_a_tool_joins_the_run_that_it_is_dropped_on(bench: Page, server: str) -> None:
    bench.goto(f"{server}lines/2")
    tree = bench.locator(".tree-drawing:visible")
    tool, run = tree.locator('a.part-tool[data-part="sweep"]'), tree.locator('a[data-part="router-hose"] .flow')
    start, end = tool.locator(".hit").bounding_box(), run.bounding_box()
    assert start
    assert end
    bench.mouse.move(start["x"] + start["width"] / 2, start["y"] + start["height"] / 2)
    bench.mouse.down()
    bench.mouse.move(end["x"] + end["width"] / 2, end["y"] + end["height"] / 2, steps=8)
    bench.mouse.up()
    undo_says(bench, "Floor sweep joins behind Router hose")
    expect(bench.locator(".tree-drawing:visible a.part-tool")).to_have_count(4)
    bench.locator("#undo").click()
    expect(bench.locator("#undo .what")).to_have_count(0)


def test_a_separator_dropped_into_a_branch_says_where_it_belongs(bench: Page, server: str) -> None:
    bench.goto(f"{server}lines/2?part=sep")
    tree = bench.locator(".tree-drawing:visible")
    body, run = tree.locator('a[data-part="sep"]'), tree.locator('a[data-part="sweep-hose"] .flow')
    start, end = body.bounding_box(), run.bounding_box()
    assert start
    assert end
    bench.mouse.move(start["x"] + start["width"] / 2, start["y"] + start["height"] * 0.6)
    bench.mouse.down()
    bench.mouse.move(end["x"] + end["width"] / 2, end["y"] + end["height"] / 2, steps=8)
    bench.mouse.up()
    expect(bench.locator(".editor .error")).to_contain_text("where all tools have joined")
