/* Traced grains over the drawing: played, paused, slowed; still, with their whole ways, where motion is not wanted. */
(() => {
  const COLOURS = { bin: "#94591a", back: "#a63d2f", past: "#1f6f78", afloat: "#5c6a70" };
  const FINE = 0.2; /* radians between points of a curve */
  const TAIL = 14,
    SLOW = 0.06,
    REAL = 0.3; /* places in a tail; shares of the real speed */
  const still = window.matchMedia("(prefers-reduced-motion: reduce)");
  let data = null,
    playing = false,
    slow = false,
    clock = 0,
    last = 0;

  function canvas() {
    return document.getElementById("motion");
  }
  function button(name) {
    return document.getElementById(`motion-${name}`);
  }

  function mark(pen, x, y, end, size) {
    pen.beginPath();
    if (end === "past") pen.rect(x - size, y - size, 2 * size, 2 * size);
    else if (end === "back") {
      pen.moveTo(x, y - size * 1.3);
      pen.lineTo(x + size * 1.2, y + size);
      pen.lineTo(x - size * 1.2, y + size);
      pen.closePath();
    } else pen.arc(x, y, size, 0, 2 * Math.PI);
    if (end === "afloat") pen.stroke();
    else pen.fill();
  }

  /* a place is [radius, angle from the inlet, depth]; the side is seen across the inlet, the plan from above */
  function fromSide(place) {
    return [data.side.x - place[0] * data.side.scale * Math.cos(place[1]), data.side.y + place[2] * data.side.scale];
  }
  function fromAbove(place) {
    return [
      data.plan.x + place[0] * data.plan.scale * Math.sin(place[1]),
      data.plan.y - place[0] * data.plan.scale * Math.cos(place[1]),
    ];
  }
  function along(pen, view, from, to) {
    const parts = Math.max(1, Math.ceil(Math.abs(to[1] - from[1]) / FINE));
    for (let k = 0; k <= parts; k++) {
      const t = k / parts,
        at = view([0, 1, 2].map((n) => from[n] + t * (to[n] - from[n])));
      pen.lineTo(at[0], at[1]);
    }
  }

  function draw() {
    const view = canvas();
    if (!view || !data) return;
    const box = view.parentElement.getBoundingClientRect(),
      dense = window.devicePixelRatio || 1;
    view.width = box.width * dense;
    view.height = box.height * dense;
    const pen = view.getContext("2d");
    pen.scale(view.width / data.width, view.height / data.height);
    const at = Math.floor(clock / data.seconds);
    const seen = new Set();
    data.ways.forEach((way) => {
      if (still.matches && seen.has(way.size + way.end)) return; /* a still picture has room for one of each */
      seen.add(way.size + way.end);
      const n = way.places.length,
        here = still.matches ? n - 1 : at % (n + 30);
      const end = Math.min(here, n - 1),
        start = still.matches ? 0 : Math.max(0, end - TAIL);
      pen.strokeStyle = pen.fillStyle = COLOURS[way.end];
      pen.lineWidth = still.matches ? 0.7 : 1.2;
      pen.globalAlpha = still.matches ? 0.5 : 0.85;
      [fromSide, fromAbove].forEach((view) => {
        pen.beginPath();
        for (let i = start; i < end; i++) along(pen, view, way.places[i], way.places[i + 1]);
        pen.stroke();
        const there = view(way.places[end]);
        mark(pen, there[0], there[1], way.end, 2.6);
      });
      pen.globalAlpha = 1;
    });
  }

  function frame(now) {
    if (!playing || !canvas()) return;
    clock += Math.min(Math.max(now - last, 0) / 1000, 0.1) * (slow ? SLOW : REAL);
    last = now;
    draw();
    requestAnimationFrame(frame);
  }
  function play(on) {
    playing = on && !still.matches;
    button("play").textContent = playing ? "Pause" : "Play";
    if (playing) {
      last = performance.now();
      requestAnimationFrame(frame);
    } else draw();
  }
  function key() {
    const list = document.getElementById("motion-key"),
      sizes = {};
    data.ways.forEach((way) => {
      sizes[way.end] ??= new Set();
      sizes[way.end].add(way.size);
    });
    list.replaceChildren();
    Object.keys(data.ends).forEach((end) => {
      const item = document.createElement("li");
      item.className = `end-is-${end}`;
      item.textContent = `${data.ends[end]}: ${Array.from(sizes[end]).join(", ")}`;
      list.append(item);
    });
    list.hidden = false;
  }
  function show(on) {
    canvas().hidden = !on;
    document.getElementById("motion-key").hidden = !on;
    button("show").setAttribute("aria-pressed", String(on));
    button("play").hidden = button("slow").hidden = !on || still.matches;
    if (!on) {
      playing = false;
      return;
    }
    fetch(document.querySelector(".motion-tools").dataset.url)
      .then((answer) => answer.json())
      .then((found) => {
        data = found;
        clock = 0;
        key();
        play(true);
      });
  }

  document.addEventListener("click", (event) => {
    const pressed = event.target.closest(".motion-tools button");
    if (!pressed) return;
    if (pressed.id === "motion-show") show(canvas().hidden);
    if (pressed.id === "motion-play") play(!playing);
    if (pressed.id === "motion-slow") {
      slow = !slow;
      pressed.setAttribute("aria-pressed", String(slow));
    }
  });
  window.addEventListener("resize", () => {
    if (canvas() && !canvas().hidden) draw();
  });
})();
