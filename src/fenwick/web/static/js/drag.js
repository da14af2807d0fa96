/* Dragging a part along the line puts it behind the part it is dropped after; the keys [ and ] do the same in steps. */
(() => {
  const START = 9; /* pixels before a press becomes a drag */
  const FIXED = ["part-vacuum", "part-junction", "part-gate-mark"];
  let drag = null;

  /* on a line that is drawn whole a tool joins the run that it is dropped on */
  function movable(link) {
    if (!link || FIXED.some((name) => link.classList.contains(name))) return false;
    return !link.classList.contains("part-tool") || link.closest(".tree-drawing") !== null;
  }

  function middle(link) {
    const box = link.getBoundingClientRect();
    return box.left + box.width / 2;
  }

  /* on a line that is drawn whole, the part that the pointer is over, or nearest to */
  function nearest(x, y) {
    let found = null,
      least = Number.POSITIVE_INFINITY;
    for (const link of drag.svg.querySelectorAll("a[data-part]")) {
      if (link === drag.link || link.classList.contains("part-vacuum")) continue;
      if (drag.link.classList.contains("part-tool") && link.classList.contains("part-tool")) continue;
      const box = (link.querySelector(".hit") || link).getBoundingClientRect();
      const dx = Math.max(box.left - x, 0, x - box.right),
        dy = Math.max(box.top - y, 0, y - box.bottom);
      if (Math.hypot(dx, dy) < least) {
        least = Math.hypot(dx, dy);
        found = link;
      }
    }
    return found;
  }

  /* the part that stands before the place of the pointer, in the order of the air */
  function before(x) {
    const others = Array.from(drag.svg.querySelectorAll("a[data-part]")).filter(
      (link) =>
        link !== drag.link && !link.classList.contains("part-vacuum") && !link.classList.contains("part-gate-mark"),
    );
    const left = others.filter((link) => middle(link) <= x);
    const found = left.length ? left[left.length - 1] : others[0];
    return found?.classList.contains("part-junction") ? null : found;
  }

  document.addEventListener("dragstart", (event) => {
    if (event.target.closest("svg.line-drawing")) event.preventDefault();
  });

  document.addEventListener("pointerdown", (event) => {
    const link = event.target.closest("svg.line-drawing a[data-part]");
    if (!movable(link) || event.button !== 0) return;
    drag = { link: link, svg: link.ownerSVGElement, x: event.clientX, y: event.clientY, on: false, after: null };
  });

  document.addEventListener("pointermove", (event) => {
    if (!drag) return;
    const dx = event.clientX - drag.x,
      dy = event.clientY - drag.y;
    if (!drag.on && Math.hypot(dx, dy) < START) return;
    drag.on = true;
    const scale = drag.svg.viewBox.baseVal.width / drag.svg.getBoundingClientRect().width;
    drag.link.classList.add("dragged");
    drag.link.setAttribute("transform", `translate(${dx * scale} ${dy * scale})`);
    if (drag.after) drag.after.classList.remove("drop-after");
    drag.after = drag.svg.classList.contains("tree-drawing")
      ? nearest(event.clientX, event.clientY)
      : before(event.clientX);
    if (drag.after) drag.after.classList.add("drop-after");
  });

  function release(send) {
    if (!drag) return;
    const done = drag;
    drag = null;
    if (!done.on) return;
    done.link.classList.remove("dragged");
    done.link.removeAttribute("transform");
    if (done.after) done.after.classList.remove("drop-after");
    const swallow = (event) => {
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener("click", swallow, { capture: true, once: true }); /* a drop is no click */
    setTimeout(() => {
      document.removeEventListener("click", swallow, { capture: true });
    }, 50);
    if (!send || !done.after) return;
    const port = document.querySelector("#editor input[name=port]");
    const values = { after: done.after.dataset.part };
    if (port) values.port = port.value;
    const moved = encodeURIComponent(done.link.dataset.part);
    htmx.ajax("POST", document.getElementById("bench").dataset.behind.replace("-part-", moved), {
      target: "#bench",
      swap: "outerHTML",
      values: values,
    });
  }

  document.addEventListener("pointerup", () => {
    release(true);
  });
  document.addEventListener("pointercancel", () => {
    release(false);
  });
  document.addEventListener("keydown", (event) => {
    if (event.key === "Escape") release(false);
  });
})();
