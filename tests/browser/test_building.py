"""From nothing to a first verdict, and a line of two tools built by mouse, then by keyboard alone."""

import re

from playwright.sync_api import Page, expect


def undo_says(page: Page, words: str) -> None:
    expect(page.locator("#undo .what")).to_have_text(words)


def test_every_answer_unknown_to_a_first_verdict_and_a_measurement(bench: Page) -> None:
    bench.get_by_role("link", name="Start: a first line").click()
    bench.get_by_role("button", name="Show the first verdict").click()
    expect(bench.locator(".line-drawing:visible")).to_be_visible()
    expect(bench.locator(".verdict-row")).to_have_count(5)
    expect(bench.locator(".hookup li")).to_have_count(2)
    expect(bench.locator(".mark-line")).to_contain_text("Mark the bin")
    expect(bench.locator(".measures li")).to_have_count(3)
    expect(bench.locator("#panel-measure")).to_contain_text("23 guesses")
    lid = bench.locator(".measures li", has_text="lid closure")
    lid.get_by_role("combobox").select_option("Loose lid")
    kept = bench.locator('[data-row="kept"] .figure b')
    before = float(kept.inner_text())
    lid.get_by_role("button", name="Measured").click()
    expect(bench.locator("#panel-measure")).to_contain_text("22 guesses")
    assert float(kept.inner_text()) < before - 5  # a loose lid leaks below the separator
    undo_says(bench, "Slotted disc: lid closure measured")
    bench.get_by_role("button", name=re.compile("^Undo")).click()
    expect(bench.locator("#panel-measure")).to_contain_text("23 guesses")


MIDDLE = """link => {
  const path = link.querySelector("path.hit");
  const at = path.getPointAtLength(path.getTotalLength() * 0.3).matrixTransform(path.getScreenCTM());
  return [at.x, at.y];
}"""


def on_the_hose(page: Page, part: str) -> tuple[float, float]:
    """A place on a drawn hose, on the screen."""
    x, y = page.locator(f'.line-drawing:visible [data-part="{part}"]').evaluate(MIDDLE)
    return float(x), float(y)


def test_a_line_of_two_tools_by_mouse(bench: Page) -> None:
    bench.mouse.click(*on_the_hose(bench, "hose-a"))
    bench.get_by_role("button", name="Hose A: a tool that joins here").click()
    undo_says(bench, "A tool joins behind Hose A")
    expect(bench.locator(".port")).to_have_count(2)
    name = bench.get_by_role("textbox", name="Name")
    name.fill("Bandsaw")
    name.press("Tab")
    undo_says(bench, "New tool: name New tool → Bandsaw")
    bench.get_by_role("button", name="Open it alone").click()
    expect(bench.locator(".port.here")).to_contain_text("Bandsaw")
    expect(bench.locator(".port.here")).not_to_contain_text("alone")

    bench.locator(".tree-drawing:visible a.part-tool", has_text="Drum sander").click()
    expect(bench.locator(".port.here")).to_contain_text("Drum sander")
    order = [link.get_attribute("data-part") for link in bench.locator(".line-drawing:visible [data-part]").all()]
    assert order.index("cuff") < order.index("hose-b")
    start, end = on_the_hose(bench, "hose-b"), on_the_hose(bench, "link")
    bench.mouse.move(*start)
    bench.mouse.down()
    bench.mouse.move((start[0] + end[0]) / 2, start[1], steps=4)
    bench.mouse.move(end[0] + 120, end[1], steps=4)
    bench.mouse.up()
    undo_says(bench, "Hose B moved behind Link hose")
    order = [link.get_attribute("data-part") for link in bench.locator(".line-drawing:visible [data-part]").all()]
    assert order.index("link") < order.index("hose-b") < order.index("vacuum")
    bench.reload()
    undo_says(bench, "Hose B moved behind Link hose")


def test_a_line_of_two_tools_by_keyboard_alone(bench: Page) -> None:
    keys = bench.keyboard

    def picked(title: str) -> None:
        expect(bench.locator("#editor h3")).to_have_text(title)

    bench.get_by_role("link", name="Skip to the line").focus()
    keys.press("Enter")
    for _ in range(12):  # until the tool is reached, wherever the page begins
        title = bench.locator("#editor h3").inner_text()
        if title == "Drum sander":
            break
        keys.press("p")
        expect(bench.locator("#editor h3")).not_to_have_text(title)
    picked("Drum sander")
    keys.press("t")
    undo_says(bench, "A tool added beside Drum sander")
    picked("New tool")
    keys.press("e")
    expect(bench.get_by_role("textbox", name="Port bore mm")).to_be_focused()
    keys.press("Shift+Tab")
    expect(bench.get_by_role("textbox", name="Name")).to_be_focused()
    keys.press("Control+a")
    keys.type("Floor sweep")
    keys.press("Tab")
    undo_says(bench, "New tool: name New tool → Floor sweep")
    keys.press("Escape")
    keys.press("n")
    picked("Hose")
    keys.press("a")
    expect(bench.locator("#add-part")).to_be_focused()
    keys.press("e")  # by its first letter: an elbow
    keys.press("Tab")
    undo_says(bench, "Elbow added behind Hose")
    keys.press("Escape")
    keys.press("[")
    undo_says(bench, "Elbow moved towards the tool")
    keys.press("Delete")
    undo_says(bench, "Elbow removed")
    keys.press("u")
    undo_says(bench, "Elbow moved towards the tool")
    expect(bench.locator(".port")).to_have_count(2)


def test_a_key_typed_before_the_page_has_settled_keeps_the_focus(bench: Page) -> None:
    bench.evaluate("htmx.config.defaultSettleDelay = 600")  # a slow machine
    bench.locator('.line-drawing:visible [data-part="hose-a"]').focus()
    bench.keyboard.press("n")
    expect(bench.locator("#editor h3")).to_have_text("Hose B")
    bench.keyboard.press("a")
    bench.wait_for_timeout(900)
    expect(bench.locator("#add-part")).to_be_focused()
