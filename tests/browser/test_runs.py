"""Tests as they are made: planned, run with a scale that is read live or with a ruler alone, judged, and never lost."""

from __future__ import annotations

import os
import re
import signal
import subprocess
import sys
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.looking import SLOW


def started(*arguments: str) -> tuple[subprocess.Popen[str], str]:
    """A program of Fenwick's that runs by itself, and the address it says."""
    command = [sys.executable, "-m", "fenwick", *arguments]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
    assert process.stdout is not None
    found = re.search(r"(?:http|socket)://[^\s(]+", process.stdout.readline())
    assert found is not None
    return process, found[0]


def killed(process: subprocess.Popen[str]) -> None:
    """Without a word of warning."""
    os.kill(process.pid, signal.SIGKILL)
    process.wait()
    if process.stdout is not None:
        process.stdout.close()


@pytest.fixture
def scale() -> Iterator[str]:
    """Address of a simulated scale in a process of its own, with all that scales do wrong."""
    process, address = started("device", "scale", "--rate", "25", "--seed", "5")
    yield address
    killed(process)


def go_on(page: Page, title: str) -> None:
    """To the step that is called so."""
    page.locator(".go-on").click()
    expect(page.locator(".step-card h2")).to_contain_text(title)


def at_the_first_weighing(page: Page, address: str) -> None:
    """A new test, its first run at the step where things are weighed."""
    page.goto(address + "lines/1/tests/plan?kind=separation")
    page.get_by_role("button", name="Plan it").click()
    page.get_by_role("link", name="Begin run 1").click()
    page.get_by_role("button", name="Begin run 1").click()
    go_on(page, "Before")


def from_scale(page: Page, field: str) -> None:
    """Take a figure from the scale once it has come to rest; on a busy machine it may have to be asked again."""
    entry = page.get_by_label(field, exact=True)
    for _ in range(3):
        entry.locator("xpath=..").get_by_role("button", name="From kitchen scale").click()
        with suppress(AssertionError):
            expect(entry).not_to_have_value("", timeout=6_000)
            break
    expect(entry).not_to_have_value("")
    expect(page.locator("#kept-line")).to_have_text("kept")


def spread(page: Page, column: int) -> float:
    """Half-width of the interval of what is kept: column 0 as described, 1 tuned."""
    text = page.locator(".before-after tbody tr").first.locator("td").nth(column).inner_text()
    found = re.search(r"([\d.]+) to ([\d.]+)", text)
    assert found is not None
    return 0.5 * (float(found[2]) - float(found[1]))


def test_planned_run_with_a_scale_judged_and_the_line_tuned_to_it(bench: Page, scale: str) -> None:
    bench.get_by_role("link", name="Test", exact=True).click()
    bench.get_by_role("link", name="Devices").click()
    bench.get_by_label("Name", exact=True).fill("Kitchen scale")
    bench.get_by_label("Port or address").fill(scale)
    bench.get_by_role("button", name="Add it").click()
    expect(bench.locator("[data-state]")).to_contain_text("reading")
    expect(bench.locator(".strip canvas")).to_be_visible()

    bench.get_by_role("link", name="Tests", exact=True).click()
    bench.get_by_role("link", name=re.compile("^How much is kept Of what goes in")).click()
    with bench.expect_response(re.compile("/tests/plan")):
        bench.get_by_label("Runs of each").fill("2")
        bench.keyboard.press("Tab")
    expect(bench.locator(".run-order li")).to_have_count(2)
    bench.wait_for_load_state("networkidle")
    bench.get_by_label("Fed over").fill("2")
    bench.keyboard.press("Tab")
    bench.wait_for_load_state("networkidle")
    expect(bench.get_by_label("Fed over")).to_have_value("2")
    bench.get_by_role("button", name="Plan it").click()
    for number in (1, 2):
        bench.get_by_role("link", name=f"Begin run {number}").click()
        bench.get_by_role("button", name=f"Begin run {number}").click()
        go_on(bench, "Before")
        from_scale(bench, "Bin, before")
        from_scale(bench, "The whole vacuum, before")
        go_on(bench, "Weigh out the feed")
        bench.get_by_label("Fed", exact=True).fill("100")
        go_on(bench, "Feed")
        bench.get_by_role("button", name="Start").click()
        expect(bench.locator(".clock-words")).to_have_text("time is up")
        go_on(bench, "Let it run on")
        go_on(bench, "After")
        from_scale(bench, "Bin, after")
        from_scale(bench, "The whole vacuum, after")
        expect(bench.locator(".run-outcome")).to_contain_text("kept in the bin")
        go_on(bench, "Look and note")
        bench.locator(".go-on").click()
        expect(bench.locator(".shows-card")).to_be_visible()
    expect(bench.locator(".runs-chart .run")).to_have_count(2)
    expect(bench.locator(".shows-card .states-said")).to_contain_text("2 runs")

    bench.get_by_role("button", name="As a reading of the line").click()
    bench.get_by_role("link", name="Tune the line to it").click()
    assert spread(bench, 1) < 0.8 * spread(bench, 0)
    bench.get_by_role("button", name="Tune the line to its readings").click()
    expect(bench.locator(".tuned-mark")).to_be_visible()


def test_a_test_with_a_ruler_alone(bench: Page, server: str) -> None:
    bench.goto(server + "lines/1/tests/plan?kind=separation")
    with bench.expect_response(re.compile("/tests/plan")):
        bench.get_by_label("Read with").select_option("ruler")
    expect(bench.locator(".pairs .cannot").first).to_contain_text("cannot tell 80 from 90 %")
    with bench.expect_response(re.compile("/tests/plan")):
        bench.get_by_label("Runs of each").fill("1")
        bench.keyboard.press("Tab")
    expect(bench.locator(".run-order li")).to_have_count(1)
    bench.get_by_role("button", name="Plan it").click()
    bench.get_by_role("link", name="Begin run 1").click()
    bench.get_by_role("button", name="Begin run 1").click()
    bench.get_by_label("Bin emptied outdoors").check()
    expect(bench.get_by_label("Bin emptied outdoors")).to_be_checked()
    go_on(bench, "Before")
    for i, depth in enumerate((298, 302, 300, 300), start=1):
        bench.get_by_label(f"Rim to dust, point {i}").fill(str(depth))
    go_on(bench, "Weigh out the feed")
    bench.locator(".go-on").click()
    expect(bench.locator("#e-fed_volume-error")).to_have_text("Not read yet: by the measure, or weighed.")
    bench.get_by_label("Fed, by the measure").fill("4")
    bench.keyboard.press("Enter")
    expect(bench.locator(".step-card h2")).to_contain_text("Feed")
    bench.locator(".go-on").click()
    expect(bench.locator(".step-card .error")).to_contain_text("The clock has not run down")
    bench.get_by_role("button", name="Go on without").click()
    expect(bench.locator(".step-card h2")).to_contain_text("Let it run on")
    go_on(bench, "After")
    for i, depth in enumerate((270, 272, 268, 270), start=1):
        bench.get_by_label(f"Rim to dust, point {i}").fill(str(depth))
    expect(bench.locator(".run-outcome")).to_contain_text("kept in the bin")
    go_on(bench, "Look and note")
    bench.locator(".go-on").click()
    expect(bench.locator(".headline .big")).to_contain_text("%")
    expect(bench.locator(".shows-card .states-said")).to_contain_text("one run")


def test_going_on_before_a_tick_is_answered_goes_on(bench: Page, server: str) -> None:
    bench.add_init_script(SLOW)
    bench.goto(server + "lines/1/tests/plan?kind=separation")
    bench.get_by_role("button", name="Plan it").click()
    bench.get_by_role("link", name="Begin run 1").click()
    bench.get_by_role("button", name="Begin run 1").click()
    bench.get_by_label("Bin emptied outdoors").check()
    go_on(bench, "Before")
    bench.get_by_role("button", name="Set back").click()
    expect(bench.get_by_label("Bin emptied outdoors")).to_be_checked()


def test_nothing_typed_is_lost_when_the_server_is_killed(page: Page, tmp_path: Path) -> None:
    """kill -9 while typing: what was answered is on disk, what was not is in the browser, and both come back."""
    process, address = started("demo", "--home", str(tmp_path), "--port", "0")
    port = address.rstrip("/").rsplit(":", 1)[1]
    at_the_first_weighing(page, address)
    page.get_by_label("Bin, before").press_sequentially("2143")
    expect(page.locator("#kept-line")).to_have_text("kept")
    killed(process)
    page.get_by_label("The whole vacuum, before").press_sequentially("6872.5")
    page.get_by_label("Notes").fill("The power went.")
    expect(page.locator("#kept-line")).to_contain_text("kept in this browser")
    run = page.url
    process, again = started("demo", "--home", str(tmp_path), "--port", port)
    assert again == address
    expect(page.locator("#kept-line")).to_have_text("kept")  # sent by itself
    killed(process)  # and it is on disk now
    page.evaluate("localStorage.clear()")
    process, again = started("demo", "--home", str(tmp_path), "--port", port)
    page.goto(run)
    expect(page.get_by_label("Bin, before")).to_have_value("2143")
    expect(page.get_by_label("The whole vacuum, before")).to_have_value("6872.5")
    expect(page.get_by_label("Notes")).to_have_value("The power went.")
    killed(process)


def test_what_was_typed_before_the_browser_was_closed_comes_back(page: Page, tmp_path: Path) -> None:
    process, address = started("demo", "--home", str(tmp_path), "--port", "0")
    port = address.rstrip("/").rsplit(":", 1)[1]
    at_the_first_weighing(page, address)
    run = page.url
    killed(process)
    page.get_by_label("Bin, before").press_sequentially("2143")
    expect(page.locator("#kept-line")).to_contain_text("kept in this browser")
    page.goto("about:blank")
    process, _ = started("demo", "--home", str(tmp_path), "--port", port)
    page.goto(run)
    expect(page.get_by_label("Bin, before")).to_have_value("2143")
    expect(page.locator("#kept-line")).to_have_text("kept")
    page.evaluate("localStorage.clear()")
    page.reload()
    expect(page.get_by_label("Bin, before")).to_have_value("2143")
    killed(process)


def test_a_hidden_fault_is_hunted_for_practice(bench: Page, server: str) -> None:
    bench.goto(server + "lines/1/practice?seed=3")
    bench.locator(".offers button", has_text="Suction of the vacuum alone").click()
    expect(bench.locator(".readings-card tbody tr")).to_have_count(1)
    expect(bench.locator(".readings-card")).to_contain_text("4 minutes so far")
    bench.goto(server + "lines/1/practice")  # left and come back to: what was read is kept
    expect(bench.locator(".readings-card tbody tr")).to_have_count(1)
    bench.locator(".offers button", has_text="Lift the lid").click()
    expect(bench.locator(".readings-card tbody tr")).to_have_count(2)
    bench.get_by_label("The fault").select_option(index=0)
    bench.get_by_role("button", name="Name it").click()
    expect(bench.locator(".answer-card")).to_contain_text("How a good hunt goes")
    expect(bench.locator(".hunt-ends").first).to_contain_text("It names")
    expect(bench.locator(".past-card li")).to_have_count(1)
    bench.get_by_role("link", name="Two at once").click()
    expect(bench.locator(".story-card")).to_contain_text("two faults are hidden")
    expect(bench.locator(".offers button").first).to_be_visible()


def test_the_step_at_hand_has_the_width_of_its_column(bench: Page, server: str) -> None:
    """Steps of a working have the same name, and once lent it their own two columns."""
    at_the_first_weighing(bench, server)
    card, column = (bench.locator(where).bounding_box() for where in (".step-card", ".steps"))
    assert card is not None
    assert column is not None
    assert card["width"] > 0.8 * column["width"]
