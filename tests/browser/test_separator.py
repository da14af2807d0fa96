"""The separator by hand: a disc designed by dragging its knobs, with the mouse and with the keys; dust in motion."""

import re

from playwright.sync_api import Page, expect

from tests.browser.looking import A_SEARCH


def pull(page: Page, key: str, dx: float, dy: float) -> None:
    """Drag the knob of a dimension."""
    box = page.locator(f'.dimension[data-key="{key}"] .knob').bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx / 2, y + dy / 2, steps=3)
    page.mouse.move(x + dx, y + dy, steps=3)


def value(page: Page, key: str) -> float:
    """What a field holds."""
    return float(page.locator(f'#editor [name$="{key}"]').input_value())


def test_a_disc_is_designed_by_dragging(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    row = bench.locator('[data-row="cut"] .figure')
    before, cut = value(bench, ".outlet_length_m"), row.inner_text()
    pull(bench, "outlet_length_m", 0.0, -16.0)
    expect(row).not_to_have_text(cut)  # the figures follow while the knob is held
    bench.mouse.up()
    expect(bench.locator("#undo .what")).to_contain_text("outlet hangs")
    assert value(bench, ".outlet_length_m") < before

    pull(bench, "slots[0].arc_deg", -20.0, -60.0)
    bench.mouse.up()
    expect(bench.locator("#undo .what")).to_contain_text("slot arc")
    assert value(bench, "slots[0].arc_deg") > 250.0

    bench.locator('.dimension[data-key="bin.fill_height_m"] .grip').focus()
    bench.keyboard.press("Shift+ArrowDown")
    bench.keyboard.press("Shift+ArrowDown")
    expect(bench.locator("#undo .what")).to_contain_text("dust height")
    assert value(bench, "fill_height_m") == 150.0
    expect(bench.get_by_role("slider", name="dust stands")).to_be_focused()

    undo = bench.locator("#undo")
    while (last := undo.get_attribute("title")) != "Nothing to undo":
        undo.click()
        expect(undo).not_to_have_attribute("title", str(last))
    assert value(bench, ".outlet_length_m") == before


def test_what_does_not_fit_is_said_and_escape_lets_go(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    before = value(bench, ".outlet_length_m")
    pull(bench, "outlet_length_m", 0.0, 90.0)
    expect(bench.locator("#drag-note")).to_contain_text("Must not reach below the disc")
    expect(bench.locator(".section-drawing")).to_be_visible()
    bench.keyboard.press("Escape")
    bench.mouse.up()
    expect(bench.locator("#drag-note")).to_be_empty()
    assert value(bench, ".outlet_length_m") == before
    expect(bench.locator("#undo")).to_be_disabled()


def test_dust_moves_is_paused_and_stands_still_where_that_is_preferred(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    bench.get_by_role("button", name="Dust in motion").click()
    expect(bench.locator("#motion-key li")).not_to_have_count(0)
    expect(bench.locator("#motion-play")).to_be_hidden()  # this browser prefers reduced motion

    bench.emulate_media(reduced_motion="no-preference")
    bench.get_by_role("button", name="Dust in motion").click()
    bench.get_by_role("button", name="Dust in motion").click()
    expect(bench.locator("#motion-play")).to_have_text("Pause")
    ink = "() => { const c = document.getElementById('motion'); return c.toDataURL().length }"
    bench.wait_for_function(f"({ink})() > 3000")
    bench.locator("#motion-play").click()
    expect(bench.locator("#motion-play")).to_have_text("Play")
    still = bench.evaluate(ink)
    bench.wait_for_timeout(200)
    assert bench.evaluate(ink) == still


def test_another_kind_is_chosen_and_drawn(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    bench.get_by_label("Kind").select_option("cyclone")
    expect(bench.locator('.dimension[data-key="total_height_m"]')).to_be_visible()
    expect(bench.get_by_text("The four published models, one by one")).to_be_visible()
    bench.get_by_role("link", name=re.compile("^in the")).click()
    expect(bench.locator(".line-drawing .part-separator").first).to_be_visible()


def test_a_cyclone_under_a_bench_of_600_mm_is_found_and_taken_over(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    bench.get_by_role("link", name="Find a better one").click()
    expect(bench.locator(".tradeoff:visible")).to_be_visible(timeout=A_SEARCH)  # it begins by itself
    for kind in (
        "Slotted disc, on top",
        "Slotted disc, in the bin",
        "Two elbows in a lid",
        "Tall bin, inlet at the rim",
    ):
        bench.locator(".ask-form").get_by_label(kind).uncheck()
    bench.get_by_label("Stands at most").fill("600")
    bench.get_by_label("The bin", exact=True).select_option("mended")
    bench.get_by_role("button", name="Find", exact=True).click()
    expect(bench.locator(".tradeoff:visible")).to_be_visible(timeout=A_SEARCH)
    expect(bench.locator(".found-table")).to_contain_text("Today: Slot chamber")
    spot = bench.locator(".tradeoff:visible .spot").nth(3)
    spot.focus()
    bench.keyboard.press("Enter")
    expect(bench.locator(".tradeoff:visible .spot.picked")).to_have_count(1)
    high = bench.locator(".found-table tr.picked td").nth(5).inner_text()
    assert float(high.split()[0]) <= 600.0
    bench.get_by_role("button", name="Make it a variant").click()
    expect(bench.get_by_label("Kind")).to_have_value("cyclone")
    assert value(bench, ".total_height_m") + 420.0 <= 600.5


def test_floor_sweepings_are_mixed_by_hand(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    kept = bench.locator('[data-row="kept"] .figure')
    before = kept.inner_text()
    bench.get_by_label("Dust", exact=True).select_option("mixture")
    expect(bench.get_by_label("Parts by mass 2")).to_be_visible()
    expect(kept).not_to_have_text(before)
    mixed = kept.inner_text()
    bench.get_by_label("Parts by mass 2").fill("8")
    bench.get_by_label("Parts by mass 2").press("Tab")
    expect(kept).not_to_have_text(mixed)
    bench.get_by_role("button", name="Add a kind of dust").click()
    expect(bench.get_by_label("Parts by mass 3")).to_be_visible()
    bench.get_by_label("Kind 3").select_option("metal-turnings")
    expect(bench.get_by_text("sparks and hot metal set it on fire")).to_be_visible()
    expect(bench.locator("#undo .what")).to_have_text("Dust: kind added")


def test_a_bought_cyclone_is_typed_in_and_a_misprint_stays(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    bench.get_by_role("link", name="Ready-made…").click()
    for label, text in (("Called", "Small one"), ("Inlet bore", "50"), ("Body wide", "60"), ("Cyclone high", "400")):
        bench.get_by_label(label).fill(text)
    bench.get_by_label("Claimed airflow").fill("55")
    bench.get_by_role("button", name="Put it in the line").click()
    expect(bench.get_by_text("Must not reach past the body's centre")).to_be_visible()
    expect(bench.get_by_label("Called")).to_have_value("Small one")
    bench.get_by_label("Body wide").fill("140")
    bench.get_by_role("button", name="Put it in the line").click()
    expect(bench.get_by_role("heading", name="Small one")).to_be_visible()
    expect(bench.get_by_text("of what it is sold for")).to_be_visible()
    expect(bench.locator(".stage-form .guess").first).to_be_visible()


def test_schools_come_one_by_one_and_one_is_taken(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    bench.get_by_role("link", name="Where makers disagree").click()
    expect(bench.locator(".school .judgement")).to_have_count(10, timeout=A_SEARCH)
    bench.get_by_role("button", name="Variant: a cyclone").click()
    expect(bench.get_by_label("Kind")).to_have_value("cyclone")
    expect(bench.locator(".sub")).to_contain_text("a cyclone")


def test_a_search_is_watched_and_stopped(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    bench.get_by_role("link", name="Find a better one").click()
    expect(bench.locator(".tradeoff:visible")).to_be_visible(timeout=A_SEARCH)  # it begins by itself
    bench.get_by_label("Designs", exact=True).fill("60000")
    bench.get_by_role("button", name="Find", exact=True).click()
    expect(bench.get_by_role("progressbar")).to_be_visible()
    bench.get_by_role("button", name="Stop, and take what is found").click()
    expect(bench.locator(".tradeoff:visible")).to_be_visible(timeout=A_SEARCH)
    tried = bench.locator(".tradeoff-card header small").inner_text().split(" ")[0]
    assert int(tried.replace(",", "")) <= 60_000


def test_two_stages_stand_one_behind_the_other(bench: Page) -> None:
    bench.locator("svg.line-drawing .part-separator").first.click()
    expect(bench.locator("#panel-part")).to_have_text("Slot chamber")
    bench.get_by_label("Add a part behind Slot chamber").select_option("separator")
    expect(bench.locator(".only-wide svg.line-drawing .part-separator")).to_have_count(2)
    bench.get_by_role("link", name="Section, bin, finder…").click()
    bench.get_by_label("Kind").select_option("cyclone")
    expect(bench.locator('.dimension[data-key="total_height_m"]')).to_be_visible()
    bench.get_by_role("link", name="Slot chamber", exact=True).click()
    expect(bench.get_by_label("Kind")).to_have_value("slotted-disc")


def test_without_javascript_the_separator_can_be_changed(browser, server: str) -> None:  # type: ignore[no-untyped-def]
    context = browser.new_context(java_script_enabled=False)
    page = context.new_page()
    page.goto(server + "lines/1/separator")
    page.locator('#editor [name$="fill_height_m"]').fill("100")
    page.get_by_role("button", name="Change", exact=True).first.click()
    expect(page.locator("#undo .what")).to_contain_text("dust height 170 mm → 100 mm")
    page.get_by_label("Kind").select_option("elbow-lid")
    page.get_by_role("button", name="Take it").click()
    expect(page.locator(".sub-title")).to_have_text("Two elbows in a lid")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator(".sub-title")).to_have_text("Slot chamber")
    context.close()


def test_a_knob_moved_by_keys_does_not_take_the_focus_back_from_a_field(bench: Page) -> None:
    bench.get_by_role("link", name="Separator", exact=True).click()
    before = value(bench, "bin.fill_height_m")
    bench.locator('.dimension[data-key="bin.fill_height_m"] .grip').focus()
    bench.keyboard.press("Shift+ArrowDown")
    other = bench.locator('#editor [name$=".outlet_length_m"]')
    other.focus()
    expect(bench.locator("#undo .what")).to_contain_text("dust height")  # taken a moment after the last key
    bench.wait_for_timeout(300)
    expect(other).to_be_focused()
    assert value(bench, "bin.fill_height_m") != before
