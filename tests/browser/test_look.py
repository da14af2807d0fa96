"""How it looks and reads: nothing overlaps or overflows, axe finds nothing, at 1280 and at 390 pixels."""

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.looking import OVERLAPS, VIOLATIONS

#: every place, as it is first seen
PAGES = (
    "",
    "lines/1?part=vacuum",
    "lines/2/vacuum",
    "lines/2/vacuum?way=holes",
    "lines/1/joints",
    "lines/1/drawer",
    "lines/2/ports",
    "lines/1/ports/drum-sander/hood",
    "lines/2/ports/sweep/hood",
    "lines/1/dust",
    "lines/2/dust?of=week",
    "lines/3/dust",
    "lines/1/ageing",
    "lines/1/checks",
    "lines/3/tests",
    "lines/1/tests/plan?kind=tilt",
    "lines/1/tests/propose?want=builds",
    "lines/1/tests/plan?kind=builds",
    "tests/13",
    "tests/2",
    "tests/5",
    "tests/8/sheet",
    "runs/62",
    "lines/1/air",
    "lines/3/devices",
    "lines/1/practice?seed=7",
    "lines/1/practice?seed=7&r=sealed~&named=leak-lid",
    "lines/1/practice?seed=7&level=two",
    "lines/1/test",
    "lines/1/test/fault?s=weak",
    "lines/2/test/fault?s=weak&since=emptied",
    "lines/1/compare/2",
    "lines/1/build",
    "lines/3/build?what=stand",
    "lines/1/build/parts/slotted-disc",
    "lines/1/build/steps",
    "lines/1/build/steps/wrap-dry",
    "lines/1/build/sheets",
    "lines/1/separator",
    "lines/1/separator/find",
    "lines/1/separator/ready-made",
    "lines/1/separator/schools?all=1",
    "log",
    "log/new?kind=emptied",
    "log/due",
    "log/trend",
    "log/money",
    "log/emptying",
    "lines/2/phone",
    "lines/2/phone?kind=pitch",
    "lines/1/phone/inside",
    "lessons",
    "lessons/leak-below",
    "guide",
    "backups",
    "shop",
    "shop?list=room",
    "start",
    "assumptions",
)


@pytest.mark.parametrize("share", range(3))
def test_axe_finds_nothing_on_any_page(bench: Page, server: str, share: int) -> None:
    every = (*PAGES, "lines/1?part=sep", "lines/1?panel=hookup", "terms", "pieces")
    for address in every[share::3]:
        bench.goto(server + address)
        found = Axe().run(bench, options=VIOLATIONS).response["violations"]
        assert [(address, v["id"], v["nodes"][0]["html"][:200]) for v in found] == []


@pytest.mark.parametrize("share", range(2))
def test_axe_finds_nothing_in_the_dark(bench: Page, server: str, share: int) -> None:
    bench.emulate_media(color_scheme="dark")
    every = (*PAGES, "pieces", "terms")
    for address in every[share::4]:
        bench.goto(server + address)
        found = Axe().run(bench, options=VIOLATIONS).response["violations"]
        assert [(address, v["id"], v["nodes"][0]["html"][:200]) for v in found] == []


@pytest.mark.parametrize("address", ["lines/1", "lines/2"])
def test_in_colours_of_the_users_own_the_drawing_keeps_its_lines(bench: Page, server: str, address: str) -> None:
    bench.emulate_media(forced_colors="active")
    bench.goto(server + address)
    body = bench.locator(".line-drawing:visible .body").first
    stroke, fill = (body.evaluate(f"one => getComputedStyle(one).{key}") for key in ("stroke", "fill"))
    assert stroke != fill


def test_axe_finds_nothing_beside_an_error(bench: Page) -> None:
    bench.get_by_role("textbox", name="Bore mm").fill("x")
    bench.keyboard.press("Tab")
    expect(bench.locator(".field .error")).to_be_visible()
    expect(bench.locator("#suggest.pending")).to_have_count(0)  # old advice is pale while the new is on its way
    assert Axe().run(bench, options=VIOLATIONS).response["violations"] == []


def test_the_line_fits_1280_by_800_without_scrolling(bench: Page) -> None:
    assert bench.evaluate("document.documentElement.scrollHeight") <= 800
    assert bench.evaluate("document.documentElement.scrollWidth") <= 1280


@pytest.mark.parametrize("units", ["metric", "inch"])
def test_no_text_lies_on_another(bench: Page, units: str) -> None:
    if units == "inch":
        bench.locator("#units").click()
        expect(bench.locator(".port b")).to_contain_text("CFM")
    assert bench.evaluate(OVERLAPS, ".line-drawing") == []


def test_in_the_shop_at_390_pixels(bench: Page) -> None:
    bench.set_viewport_size({"width": 390, "height": 844})
    assert bench.evaluate("document.documentElement.scrollWidth") <= 390
    assert bench.locator("svg.line-drawing:visible").count() == 1
    bench.locator(".parts a", has_text="Link hose").click()
    expect(bench.locator("#editor h3")).to_have_text("Link hose")
    small = bench.evaluate(
        """() => [...document.querySelectorAll('.parts a, #editor input, #editor select, .history-button, .pill')]
             .filter(e => e.checkVisibility() && e.getBoundingClientRect().height < 40).map(e => e.outerHTML)"""
    )
    assert small == []


def test_no_page_scrolls_sideways_on_a_phone(bench: Page, server: str) -> None:
    bench.set_viewport_size({"width": 390, "height": 844})
    for address in PAGES:
        bench.goto(server + address)
        assert bench.evaluate("document.documentElement.scrollWidth") <= 390, address


def test_focus_is_visible_on_the_drawing(bench: Page) -> None:
    bench.locator('.line-drawing:visible a[data-part="hose-a"]').focus()
    bench.keyboard.press("Tab")
    bench.keyboard.press("Shift+Tab")
    stroke = bench.locator('.line-drawing:visible a[data-part="hose-a"] .hose-wall').evaluate(
        "e => getComputedStyle(e).stroke"
    )
    assert stroke == "rgb(185, 119, 43)"
