"""An edit is answered at once; what is slower than the eye follows by itself, and nothing moves when it comes."""

from collections.abc import Callable

from playwright.sync_api import Page, Route, expect

#: where the rows of the verdict and the cards stand
PLACES = """() => [...document.querySelectorAll('.verdict-row, .card, .line-drawing, #editor')]
  .filter(e => e.checkVisibility()).map(e => { const b = e.getBoundingClientRect(); return [b.x, b.y, b.width]; })"""


def held(page: Page) -> Callable[[], None]:
    """Keep every second fragment back, until it is called."""
    waiting: list[Route] = []
    page.route("**/late*", lambda route: waiting.append(route))

    def release() -> None:
        for route in waiting:
            route.continue_()
        page.unroute("**/late*")

    return release


def shorten(page: Page, text: str) -> None:
    """Give Hose A another length."""
    length = page.get_by_role("textbox", name="Length m")
    length.fill(text)
    length.press("Tab")


def test_the_verdict_does_not_wait_for_the_band(bench: Page, server: str) -> None:
    bench.goto(server + "lines/1?part=hose-a")
    expect(bench.locator("#editor h3")).to_have_text("Hose A")
    advice = bench.locator("#suggest").inner_text()
    release = held(bench)
    shorten(bench, "1.2")
    expect(bench.locator("#undo .what")).to_contain_text("length")
    expect(bench.locator('[data-row="air"] .was')).to_be_visible()  # the figures are those of the new length
    assert bench.locator("#suggest").inner_text() == advice  # the old advice stands, marked, until there is new
    expect(bench.locator("#suggest")).to_have_class("pending")
    before = bench.evaluate(PLACES)
    release()
    expect(bench.locator("#late")).to_have_count(0)
    expect(bench.locator("#suggest")).not_to_have_class("pending")
    expect(bench.locator("#believable-kept")).to_contain_text("%")
    after = bench.evaluate(PLACES)
    assert after == before


def test_the_last_of_two_changes_has_the_last_word(bench: Page, server: str) -> None:
    bench.goto(server + "lines/1?part=hose-a")
    expect(bench.locator("#editor h3")).to_have_text("Hose A")
    for text in ("1.2", "4.5"):
        shorten(bench, text)
        expect(bench.get_by_role("textbox", name="Length m")).to_have_attribute("value", text)
    expect(bench.locator("#late")).to_have_count(0)
    advised = bench.locator("#suggest").inner_text()
    bench.reload()
    expect(bench.locator("#late")).to_have_count(0)
    assert bench.locator("#suggest").inner_text() == advised
