/* Things on the floor plan are dragged, or moved with the arrow keys; both snap to the server's grid. */
(() => {
  const STEP = 0.1; /* metres for one press of an arrow key */
  let drag = null;

  function metres(svg, x, y) {
    const at = new DOMPoint(x, y).matrixTransform(svg.getScreenCTM().inverse());
    const scale = parseFloat(svg.dataset.scale),
      margin = parseFloat(svg.dataset.margin);
    return [(at.x - margin) / scale, (svg.viewBox.baseVal.height - margin - at.y) / scale];
  }

  function middle(thing) {
    const shape = thing.querySelector(".shape").getBoundingClientRect();
    return [shape.left + shape.width / 2, shape.top + shape.height / 2];
  }

  function put(thing, place) {
    const item = thing.dataset.item;
    const shop = document.getElementById("shop").dataset;
    const before = document.activeElement;
    htmx
      .ajax("POST", shop.place.replace("-item-", encodeURIComponent(item)), {
        target: "#shop",
        swap: "outerHTML",
        values: { x_m: place[0], y_m: place[1], list: shop.list, shop_state: shop.state },
      })
      .then(() => {
        window.fenwick.focus_again(before, document.querySelector(`[data-item="${CSS.escape(item)}"]`));
      });
  }

  /* its fields, beside the plan; the focus follows to the first of them */
  function change(thing) {
    const shop = document.getElementById("shop").dataset;
    const item = thing.dataset.item;
    if (item === "separator") return;
    htmx
      .ajax("GET", `${shop.show}?item=${encodeURIComponent(item)}`, { target: "#shop", swap: "outerHTML" })
      .then(() => {
        const row = document.querySelector(`[data-owned="${CSS.escape(item)}"]`);
        row?.scrollIntoView({ block: "nearest" });
        row?.querySelector("input:not([type=hidden]), select")?.focus({ preventScroll: true });
      });
  }

  document.addEventListener("pointerdown", (event) => {
    const thing = event.target.closest(".floor-plan .thing");
    if (!thing || event.button !== 0) return;
    drag = {
      thing: thing,
      svg: thing.ownerSVGElement,
      x: event.clientX,
      y: event.clientY,
      from: middle(thing),
      on: false,
    };
    thing.focus({ preventScroll: true });
    event.preventDefault();
  });
  document.addEventListener("pointermove", (event) => {
    if (!drag) return;
    const dx = event.clientX - drag.x,
      dy = event.clientY - drag.y;
    if (!drag.on && Math.hypot(dx, dy) < 4) return;
    drag.on = true;
    const zoom = drag.svg.viewBox.baseVal.width / (drag.svg.getBoundingClientRect().width - 20);
    drag.thing.classList.add("dragged");
    drag.thing.setAttribute("transform", `translate(${dx * zoom} ${dy * zoom})`);
  });
  document.addEventListener("pointerup", (event) => {
    if (!drag) return;
    const done = drag;
    drag = null;
    done.thing.classList.remove("dragged");
    done.thing.removeAttribute("transform");
    if (done.on)
      put(done.thing, metres(done.svg, done.from[0] + event.clientX - done.x, done.from[1] + event.clientY - done.y));
    else change(done.thing);
  });
  document.addEventListener("pointercancel", () => {
    if (drag) {
      drag.thing.removeAttribute("transform");
      drag.thing.classList.remove("dragged");
    }
    drag = null;
  });
  document.addEventListener("keydown", (event) => {
    const thing = event.target.closest(".floor-plan .thing");
    if (thing && event.key === "Enter") {
      event.preventDefault();
      change(thing);
      return;
    }
    const ways = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
    const way = ways[event.key];
    if (!thing || !way) return;
    event.preventDefault();
    const at = metres(thing.ownerSVGElement, ...middle(thing));
    put(thing, [at[0] + way[0] * STEP, at[1] + way[1] * STEP]);
  });
})();
