/* Picking a part on the drawing swaps the bench; without this script the same links load the page. */
(() => {
  document.documentElement.classList.add("js"); /* a change is taken at once: no button needed */

  /* What an answer has replaced gets the focus back, unless a key pressed meanwhile has taken it elsewhere. */
  function focus_again(before, element) {
    const now = document.activeElement;
    if (now !== before && now !== document.body) return;
    if (element?.checkVisibility()) element.focus({ preventScroll: true });
  }

  function pick(link) {
    const address = link.getAttribute("href");
    const again_for =
      "try" in link.dataset
        ? ".trial button"
        : link.dataset.panel
          ? `.strip-tabs [data-panel="${link.dataset.panel}"]`
          : link.dataset.part
            ? `.part[data-part="${CSS.escape(link.dataset.part)}"]`
            : ".port.here";
    const before = document.activeElement;
    return htmx.ajax("GET", address, { target: "#bench", swap: "outerHTML" }).then(() => {
      if (!("try" in link.dataset)) history.replaceState(null, "", address);
      if (link.dataset.panel && into_panel(before)) return;
      focus_again(before, document.querySelector(`#bench ${again_for}`));
      above_sheet();
    });
  }

  /* A panel that is opened by its key is where one goes on: its first field, or itself. */
  function into_panel(before) {
    const panel = document.querySelector(".panel-strip");
    if (!panel) return false;
    panel.tabIndex = -1;
    focus_again(before, panel.querySelector("input:not([type=hidden]), select, a.btn") || panel);
    return true;
  }

  /* The part that a sheet on a phone is about stands over it. */
  function above_sheet() {
    const sheet = document.querySelector(".part-sheet, .trial");
    const part = document.querySelector(".only-narrow .picked");
    if (!sheet || !part || getComputedStyle(sheet).position !== "fixed") return;
    const at = part.getBoundingClientRect();
    const free = sheet.getBoundingClientRect().top;
    window.scrollBy(0, at.top + Math.min(at.height, free) / 2 - free / 2);
  }

  document.addEventListener("click", (event) => {
    const link = event.target.closest(
      "#bench a[data-part], #bench a[data-port], #bench a[data-try], #bench a[data-panel]",
    );
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0) return;
    event.preventDefault();
    pick(link);
  });

  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-print]")) window.print();
  });

  /* What is slower than the eye follows by itself; an answer that another change has overtaken is dropped. */
  let coming = null;
  function fetch_late() {
    const late = document.getElementById("late");
    if (!late || late.dataset.asked) return;
    late.dataset.asked = "1";
    coming?.abort();
    coming = new AbortController();
    document.getElementById("suggest")?.classList.add("pending");
    fetch(late.dataset.url, { headers: { "HX-Request": "true" }, signal: coming.signal })
      .then((answer) => (answer.ok ? answer.text() : ""))
      .then((text) => {
        if (!late.isConnected) return;
        if (text) htmx.swap(document.body, text, { swapStyle: "none" });
        else cannot_advise(); /* no advice is better than that of another line */
        late.remove();
      })
      .catch(() => {}); /* overtaken, or the page is left: nothing is missing that matters */
  }
  function cannot_advise() {
    const there = document.getElementById("suggest");
    if (!there) return;
    const words = document.createElement("p");
    words.className = "quiet";
    words.textContent = "What would change it could not be worked out for this line.";
    there.classList.remove("pending");
    there.replaceChildren(words);
  }
  document.addEventListener("htmx:afterSwap", fetch_late);
  fetch_late();

  function say(sentence) {
    const notice = document.getElementById("notice");
    notice.replaceChildren();
    if (!sentence) return;
    const p = document.createElement("p");
    p.className = "notice";
    p.textContent = sentence;
    notice.append(p);
  }

  document.addEventListener("htmx:sendError", () => {
    say("Fenwick does not answer; the last change was not saved. Check that it is still running, then try again.");
  });
  document.addEventListener("htmx:beforeRequest", () => {
    say("");
  });

  window.fenwick = { pick, focus_again };
})();
