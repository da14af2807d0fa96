"""Scripts that look at a page as a reader would."""

from contextlib import suppress

from playwright.sync_api import Error, Page

#: what breaks a rule alone: of all that keeps the rules axe would make a list, at twice the time
VIOLATIONS = {"resultTypes": ["violations"]}

#: how long a search may take on a machine that has other things to do [ms]; alone it takes ten seconds
A_SEARCH = 300_000

#: texts of a drawing that lie on one another; takes the drawing's selector
OVERLAPS = """(where) => {
  const seen = t => t.checkVisibility() && t.textContent.trim();
  const texts = [...document.querySelectorAll(where + ' text')].filter(seen);
  const boxes = texts.map(t => [t.textContent, t.getBoundingClientRect()]);
  const found = [];
  for (let i = 0; i < boxes.length; i++) for (let j = i + 1; j < boxes.length; j++) {
    const [a, b] = [boxes[i][1], boxes[j][1]];
    const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left);
    const tall = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
    if (wide > 1 && tall > 4) found.push(boxes[i][0] + ' / ' + boxes[j][0]);
  }
  return found;
}"""

#: every answer takes its time, as on an old laptop
SLOW = """const send = XMLHttpRequest.prototype.send;
XMLHttpRequest.prototype.send = function (...said) { setTimeout(() => send.apply(this, said), 600); };"""


def overflow(page: Page) -> int:
    """How far a page scrolls sideways [px]; one that leads on by itself meanwhile is asked again where it leads."""
    for _ in range(3):
        with suppress(Error):
            return int(page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth"))
        page.wait_for_load_state()
    raise AssertionError("the page never came to rest")
