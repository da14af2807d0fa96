/* Devices read live: one stream of events each, drawn as a strip that runs along. */
(() => {
  const SPAN = 60,
    MOST = 1500; /* seconds shown, points held */
  const streams = new Map(); /* address → its stream, its points, its place on the page */

  function colour(name) {
    return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  }

  function plot(box, one) {
    const tall = box.classList.contains("strip-tall");
    const grid = { stroke: colour("--rule-soft"), width: 1 };
    const size = { width: Math.max(box.clientWidth, 120), height: tall ? 210 : 110 };
    return new uPlot(
      {
        width: size.width,
        height: size.height,
        legend: { show: false },
        cursor: { show: false },
        padding: [8, 8, 0, 0],
        scales: { x: { time: false } },
        axes: [
          {
            size: 30,
            space: 64,
            incrs: [1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 1800, 3600],
            stroke: colour("--muted"),
            grid: grid,
            ticks: grid,
            values: (_u, ticks) => ticks.map((t) => `${Math.round(t)} s`),
          },
          { size: 52, stroke: colour("--muted"), grid: grid, ticks: grid },
        ],
        series: [{}, { stroke: colour("--air"), width: 1.6, points: { show: false } }],
      },
      [one.times, one.values],
      box,
    );
  }

  function redraw(one) {
    const box = one.place?.querySelector("[data-strip]");
    if (!box) return;
    if (!one.plot || one.plot.root.parentNode !== box) {
      if (one.plot) one.plot.destroy();
      box.replaceChildren();
      one.plot = plot(box, one);
    }
    const last = one.times[one.times.length - 1];
    one.plot.setData([one.times, one.values], true);
    if (last !== undefined)
      one.plot.setScale("x", { min: Math.max(one.times[0], last - SPAN), max: Math.max(last, one.times[0] + 1) });
  }

  function take(one, body) {
    body.points.forEach((point) => {
      const last = one.times[one.times.length - 1];
      if (last !== undefined && point[0] < last) {
        one.times.length = 0;
        one.values.length = 0;
      } /* its clock went back */
      one.times.push(point[0]);
      one.values.push(point[1]);
    });
    if (one.times.length > MOST) {
      one.times.splice(0, one.times.length - MOST);
      one.values.splice(0, one.values.length - MOST);
    }
    const value = one.place.querySelector("[data-value]"),
      state = one.place.querySelector("[data-state]");
    if (body.shown !== "") value.textContent = `${body.shown} ${body.unit}`;
    state.textContent = body.state;
    state.className = `live-state live-${body.level}`;
    weigh(one.place, body);
    redraw(one);
  }

  /* what is weighed out: how much is still to go, as long as the scale shows the unit that is asked for */
  function weigh(place, body) {
    const goal = place.querySelector("[data-weigh]"),
      shown = Number(String(body.shown).replace(",", "."));
    if (!goal || body.shown === "" || body.unit !== goal.dataset.unit || Number.isNaN(shown)) return;
    const left = Number(goal.dataset.weigh) - shown,
      near = Number(goal.dataset.near),
      size = `${Math.abs(left).toFixed(near < 1 ? 2 : near < 5 ? 1 : 0)} ${body.unit}`;
    goal.textContent =
      Math.abs(left) <= near ? "That is it: within what it must be." : left > 0 ? `${size} to go` : `${size} too much`;
    goal.classList.toggle("live-right", Math.abs(left) <= near);
  }

  function attach() {
    const seen = new Set();
    document.querySelectorAll("[data-live]").forEach((place) => {
      const address = place.dataset.live;
      seen.add(address);
      let one = streams.get(address);
      if (!one) {
        one = { times: [], values: [], plot: null, source: new EventSource(address) };
        one.source.onmessage = (event) => {
          take(one, JSON.parse(event.data));
        };
        one.source.onerror = () => {
          const state = one.place?.querySelector("[data-state]");
          if (state && one.source.readyState !== EventSource.OPEN && !one.times.length)
            state.textContent = "asking again…";
        };
        streams.set(address, one);
      }
      one.place = place;
      if (one.times.length) redraw(one);
    });
    streams.forEach((one, address) => {
      if (!seen.has(address)) {
        one.source.close();
        streams.delete(address);
      }
    });
  }

  document.addEventListener("DOMContentLoaded", attach);
  document.addEventListener("htmx:afterSettle", attach);
  window.addEventListener("pagehide", () => {
    streams.forEach((one) => {
      one.source.close();
    });
  });
})();
