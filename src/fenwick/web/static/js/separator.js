/* Knobs on section and plan: dragging one, or its arrow keys, changes its field; the drawing follows, release saves. */
(() => {
  const IDLE = 600; /* milliseconds after the last key before a change is taken */
  let held = null,
    busy = false,
    again = false,
    timer = null;

  function form() {
    return document.querySelector("#separator #editor");
  }
  function fieldOf(grip) {
    const key = grip.closest(".dimension").dataset.key;
    return Array.from(form().elements).find((input) => input.name?.endsWith(`].${key}`));
  }
  function snapped(value, step) {
    return String(parseFloat((Math.round(value / step) * step).toFixed(5)));
  }

  function preview() {
    if (busy) {
      again = true;
      return;
    }
    busy = true;
    const before = document.activeElement;
    const key = before?.closest(".dimension")?.dataset.key;
    htmx
      .ajax("POST", form().dataset.preview, {
        target: "#sep-picture",
        swap: "outerHTML",
        values: Object.fromEntries(new FormData(form())),
      })
      .finally(() => {
        busy = false;
        if (key) window.fenwick.focus_again(before, gripOf(key));
        if (again) {
          again = false;
          preview();
        }
      });
  }
  function gripOf(key) {
    return document.querySelector(`.dimension[data-key="${CSS.escape(key)}"] .grip`);
  }
  function take(input) {
    if (input) input.dispatchEvent(new Event("change", { bubbles: true }));
  }

  document.addEventListener("pointerdown", (event) => {
    const grip = event.target.closest(".section-drawing .grip");
    if (!grip || event.button !== 0) return;
    const input = fieldOf(grip),
      svg = grip.ownerSVGElement;
    if (!input) return;
    event.preventDefault();
    grip.focus({ preventScroll: true });
    grip.classList.add("held");
    held = {
      axis: grip.dataset.axis,
      per: parseFloat(grip.dataset.perPx),
      step: parseFloat(grip.dataset.step),
      name: input.name,
      was: input.value,
      from: parseFloat(input.value) || 0,
      x: event.clientX,
      y: event.clientY,
      cx: parseFloat(grip.dataset.x),
      cy: parseFloat(grip.dataset.y),
      zoom: svg.viewBox.baseVal.width / svg.getBoundingClientRect().width,
      moved: false,
    };
  });
  document.addEventListener("pointermove", (event) => {
    if (!held) return;
    const input = form().elements[held.name],
      svg = document.querySelector(".section-drawing");
    let value;
    if (held.axis === "angle") {
      const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
      const angle = (Math.atan2(at.y - held.cy, at.x - held.cx) * 180) / Math.PI + 90;
      value = (((angle - held.per) % 360) + 360) % 360;
    } else {
      const pixels = (held.axis === "x" ? event.clientX - held.x : event.clientY - held.y) * held.zoom;
      value = Math.max(held.from + pixels * held.per, 0);
    }
    const text = snapped(value, held.step);
    if (text === input.value) return;
    held.moved = true;
    input.value = text;
    preview();
  });
  document.addEventListener("pointerup", () => {
    if (!held) return;
    const done = held;
    held = null;
    if (done.moved) take(form().elements[done.name]);
  });
  function letGo() {
    if (!held) return;
    form().elements[held.name].value = held.was;
    held = null;
    preview();
  }
  document.addEventListener("pointercancel", letGo);
  document.addEventListener("keydown", (event) => {
    if (event.key === "Escape") letGo();
    const grip = event.target.closest?.(".section-drawing .grip");
    const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (!grip || !way) return;
    event.preventDefault();
    const input = fieldOf(grip),
      step = parseFloat(grip.dataset.step),
      key = grip.closest(".dimension").dataset.key;
    input.value = snapped(Math.max((parseFloat(input.value) || 0) + way * step * (event.shiftKey ? 10 : 1), 0), step);
    preview();
    clearTimeout(timer);
    timer = setTimeout(() => {
      const before = document.activeElement;
      take(input);
      document.addEventListener(
        "htmx:afterSettle",
        () => {
          window.fenwick.focus_again(before, gripOf(key));
        },
        { once: true },
      );
    }, IDLE);
  });
})();
