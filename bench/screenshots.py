"""`make screenshots`: the pictures of docs/screenshots, from the demo shop and made-up data alone."""

from __future__ import annotations

import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from fenwick.phone.scenes import scene

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
PHOTO_SEED = 7
CHROMIUM = shutil.which("chromium-headless-shell") or "/usr/bin/chromium"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]
SHOP_VIEWS = (  # of the demo as it begins
    ("home", "", 1280, 800, True),
    ("log-390", "log", 390, 844, False),
    ("due", "log/due", 1280, 800, False),
    ("trend", "log/trend", 1280, 800, False),
)
VIEWS = (  # name, address, width, height, whole page
    ("line", "lines/2", 1280, 800, False),
    ("separator", "lines/1/separator", 1280, 800, True),
    ("build", "lines/1/build", 1280, 800, False),
    ("dust", "lines/1/dust", 1280, 800, False),
    ("checks", "lines/1/checks", 1280, 800, True),
    ("result", "tests/13", 1280, 800, False),
    ("readings", "lines/3/test", 1280, 800, False),
    ("compare", "lines/1/compare/3", 1280, 800, True),
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


def take_shop(page: Page, server: str) -> None:
    """The shop before anything is added to it."""
    _take(page, server, SHOP_VIEWS)


def take(page: Page, server: str) -> None:
    """One PNG for each view."""
    _take(page, server, VIEWS)


def _take(page: Page, server: str, views: tuple[tuple[str, str, int, int, bool], ...]) -> None:
    for name, address, width, height, whole in views:
        page.set_viewport_size({"width": width, "height": height})
        page.goto(server + address, wait_until="networkidle")
        page.screenshot(path=FOLDER / f"{name}.png", full_page=whole)
        print(f"docs/screenshots/{name}.png")


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


def take_way(page: Page, server: str) -> None:
    """The view that looks by itself: the ways to a better bench line."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(server + "lines/2/way")
    page.locator(".way-card").first.wait_for(timeout=60_000)
    page.wait_for_load_state("networkidle")
    page.screenshot(path=FOLDER / "way.png", full_page=True)


def take_phone(page: Page, server: str) -> None:
    """A stand-in of a bin's photo, read."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(server + "lines/2/phone?kind=depth")
    photo = {"name": "bin.jpg", "mimeType": "image/jpeg", "buffer": scene("depth", PHOTO_SEED).data}
    page.get_by_label("Photos, up to 6").set_input_files(photo)  # type: ignore[arg-type]
    page.get_by_role("button", name="Read it").click()
    page.locator(".phone-value").wait_for()
    page.wait_for_load_state("networkidle")
    page.screenshot(path=FOLDER / "phone.png")


def take_lesson(page: Page, server: str) -> None:
    """A lesson that has been answered."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(server + "lessons/leak-below")
    page.locator(".lesson-answers button, main form button").first.click()
    page.wait_for_load_state("networkidle")
    page.screenshot(path=FOLDER / "lesson.png", full_page=True)


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
                for picture in (take_shop, prepare, take, take_search, take_way, take_start, take_phone, take_lesson):
                    picture(page, found[0])
            finally:
                browser.close()
                process.terminate()


if __name__ == "__main__":
    main()
