"""`make screenshots`: the pictures of docs/screenshots, from the demo shop and made-up data alone."""

from __future__ import annotations

import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

import pypdfium2 as pdfium
from playwright.sync_api import Page, sync_playwright

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
CHROMIUM = shutil.which("chromium-headless-shell") or "/usr/bin/chromium"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]
VIEWS = (  # name, address, width, height, whole page
    ("line", "", 1280, 800, False),
    ("separator", "lines/1/separator", 1280, 800, True),
    ("build", "lines/1/build", 1280, 800, False),
    ("build-390", "lines/1/build/steps/dry-fit-inlet?what=sep", 390, 844, True),
    ("ports", "lines/2/ports", 1280, 760, False),
    ("hood", "lines/1/ports/drum-sander/hood", 1280, 800, False),
    ("dust", "lines/1/dust", 1280, 800, False),
    ("ageing", "lines/1/ageing", 1280, 800, False),
    ("checks", "lines/1/checks", 1280, 800, True),
    ("result", "tests/2", 1280, 800, True),
    ("compare", "lines/1/compare/3", 1280, 800, True),
    ("working", "lines/1/workings/kept#sep.cut", 1280, 800, False),
    ("shop", "shop", 1280, 800, False),
    ("line-390", "lines/2?part=main", 390, 844, False),
)


def prepare(page: Page, server: str) -> None:
    """A variant from the drawer (line 4), and a first verdict with nothing known (lines 5 and 6)."""
    page.goto(server + "lines/1/drawer")
    page.get_by_role("button", name=re.compile("^Make a variant")).first.click()
    page.goto(server + "start")
    page.get_by_role("button", name="Show the first verdict").click()
    page.wait_for_load_state("networkidle")


def take(page: Page, server: str) -> None:
    """One PNG for each view."""
    for name, address, width, height, whole in VIEWS:
        page.set_viewport_size({"width": width, "height": height})
        page.goto(server + address, wait_until="networkidle")
        page.screenshot(path=FOLDER / f"{name}.png", full_page=whole)
        print(f"docs/screenshots/{name}.png")


def take_template(page: Page, server: str) -> None:
    """A page of the templates as it is printed."""
    pdf = page.request.get(f"{server}lines/1/build/files/templates.pdf?what=sep").body()
    pdfium.PdfDocument(pdf)[8].render(scale=1.0).to_pil().save(FOLDER / "template.png")


def take_search(page: Page, server: str) -> None:
    """The view that takes more than an address: a search."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(server + "lines/1/separator/find?part=sep")
    page.get_by_label("Stands at most").fill("900")
    page.get_by_label("The bin", exact=True).select_option("mended")
    page.get_by_role("button", name="Find", exact=True).click()
    page.locator(".tradeoff").first.wait_for(timeout=60_000)
    page.screenshot(path=FOLDER / "finder.png", full_page=True)


def take_start(page: Page, server: str) -> None:
    """The five questions, two of them answered."""
    page.set_viewport_size({"width": 1280, "height": 930})
    page.goto(server + "start")
    for tool in ("Planer", "Mitre saw"):
        page.locator(".pick", has_text=tool).click()
    page.get_by_label("Electric power").fill("1000")
    page.get_by_label("Electric power").press("Tab")
    page.locator("#label-said", has_text="1000 W").wait_for()
    page.screenshot(path=FOLDER / "start.png")


def take_run(page: Page, server: str) -> None:
    """The view that takes a device: a run with a simulated scale beside it."""
    command = [sys.executable, "-m", "fenwick", "device", "scale", "--rate", "20"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        found = re.search(r"socket://[^\s(]+", process.stdout.readline())
        assert found is not None
        page.goto(server + "lines/3/devices")
        page.get_by_label("Name", exact=True).fill("Kitchen scale")
        page.get_by_label("Port or address").fill(found[0])
        page.get_by_role("button", name="Add it").click()
        page.goto(server + "lines/3/tests")
        page.locator(".live-run").click()
        for step in ("Let it run on", "After"):
            page.locator(".go-on").click()
            page.locator(".step-card h2", has_text=step).wait_for()
        for button in page.locator(".take-live").all()[:2]:
            button.click()
            page.wait_for_timeout(5000)
        page.screenshot(path=FOLDER / "run.png")
        process.terminate()


def take_way(page: Page, server: str) -> None:
    """The view that looks by itself: the ways to a better bench line."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(server + "lines/2/way")
    page.locator(".way-card").first.wait_for(timeout=60_000)
    page.wait_for_load_state("networkidle")
    page.screenshot(path=FOLDER / "way.png", full_page=True)


def main() -> None:
    """Serve a fresh demo shop and photograph it."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "fenwick", "demo", "--home", folder, "--port", "0"]
        with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process, sync_playwright() as playwright:
            assert process.stdout is not None
            found = re.search(r"http://\S+/", process.stdout.readline())
            assert found is not None
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            page = browser.new_context(reduced_motion="reduce").new_page()
            try:
                for picture in (prepare, take, take_template, take_search, take_run, take_way, take_start):
                    picture(page, found[0])
            finally:
                browser.close()
                process.terminate()


if __name__ == "__main__":
    main()
