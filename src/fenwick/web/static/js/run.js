/* A run: every keystroke is kept at once, in this browser until Fenwick has it on disk. */
(() => {
  const RETRY = 1500; /* ms */
  const waiting = new Map(); /* storage key → what is to be sent */
  let sending = false,
    again = null,
    tick = null,
    rang = false;

  function root() {
    return document.getElementById("run");
  }
  function place(run, key) {
    return `fenwick-run-${run}-${key}`;
  }
  function token() {
    return JSON.parse(document.body.getAttribute("hx-headers"))["X-CSRFToken"];
  }

  function say(words, level) {
    const line = document.getElementById("kept-line");
    if (line) {
      line.textContent = words;
      line.className = `kept-line${level ? ` kept-${level}` : ""}`;
    }
  }

  function keep(input, source) {
    const run = root();
    if (!run) return;
    const item = {
      url: run.dataset.keep,
      key: input.dataset.entry,
      text: input.value,
      system: run.dataset.system,
      source: source || "",
    };
    const name = place(run.dataset.run, item.key);
    try {
      localStorage.setItem(name, JSON.stringify(item));
    } catch (_e) {
      /* a full or forbidden store: the server still gets it */
    }
    waiting.set(name, item);
    send();
  }

  function send() {
    if (sending || !waiting.size) return;
    const [name, item] = waiting.entries().next().value;
    sending = true;
    const body = new URLSearchParams({ key: item.key, text: item.text, system: item.system, source: item.source });
    fetch(item.url, { method: "POST", body: body, headers: { "X-CSRFToken": token() }, keepalive: true })
      .then((answer) => {
        if (!answer.ok) throw new Error(answer.status);
        return answer.json();
      })
      .then((said) => {
        if (waiting.get(name) === item) {
          waiting.delete(name);
          localStorage.removeItem(name);
        }
        show(item, said);
        sending = false;
        if (waiting.size) send();
        else say("kept", "ok");
      })
      .catch(() => {
        sending = false;
        say("Fenwick does not answer: what you type is kept in this browser, and sent when it does", "bad");
        clearTimeout(again);
        again = setTimeout(send, RETRY);
      });
  }

  function show(item, said) {
    const input = document.getElementById(`e-${item.key}`);
    const run = root();
    if (!input || !run || run.dataset.keep !== item.url) return;
    const error = document.getElementById(`${input.id}-error`);
    if (error && input.value === item.text) {
      error.textContent = said.error;
      input.classList.toggle("is-invalid", said.error !== "");
    }
    const outcome = document.getElementById("run-outcome");
    if (outcome && said.outcome) outcome.innerHTML = said.outcome;
  }

  /* what was typed while Fenwick was away comes back into its field */
  function restore() {
    const run = root();
    if (!run) return;
    run.querySelectorAll("[data-entry]").forEach((input) => {
      const name = place(run.dataset.run, input.dataset.entry);
      const stored = localStorage.getItem(name);
      if (!stored || waiting.has(name)) return;
      const item = JSON.parse(stored);
      if (item.system === run.dataset.system) input.value = item.text;
      item.url = run.dataset.keep;
      waiting.set(name, item);
    });
    if (waiting.size) {
      say("what you had typed is back", "ok");
      send();
    }
  }

  document.addEventListener("input", (event) => {
    if (event.target.dataset?.entry) keep(event.target);
  });

  /* a figure from a device that has come to rest */
  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-take]");
    if (!button) return;
    const input = document.getElementById(button.dataset.for),
      words = button.textContent;
    button.disabled = true;
    button.textContent = "coming to rest…";
    fetch(button.dataset.take, {
      method: "POST",
      body: new URLSearchParams({ place: button.dataset.place || "" }),
      headers: { "X-CSRFToken": token() },
    })
      .then((answer) => answer.json())
      .then((said) => {
        const error = document.getElementById(`${input.id}-error`);
        if (said.error) {
          error.textContent = said.error;
          return;
        }
        input.value = said.text;
        error.textContent = "";
        keep(input, said.name);
      })
      .catch(() => {
        say("Fenwick does not answer", "bad");
      })
      .finally(() => {
        button.disabled = false;
        button.textContent = words;
      });
  });

  /* the clock: counted here, kept there */
  function face(seconds) {
    const left = Math.max(0, Math.ceil(seconds));
    return `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")}`;
  }

  function ring() {
    if (rang) return;
    rang = true;
    try {
      const audio = new AudioContext(),
        tone = audio.createOscillator();
      tone.frequency.value = 880;
      tone.connect(audio.destination);
      tone.start();
      tone.stop(audio.currentTime + 0.4);
    } catch (_e) {
      /* no sound here: the words say it */
    }
  }

  function clock() {
    clearInterval(tick);
    rang = false;
    const dial = document.querySelector("#run .clock");
    if (dial?.dataset.ticking !== "1") return;
    const total = Number(dial.dataset.seconds),
      counted = Number(dial.dataset.counted),
      began = performance.now();
    if (counted >= total) rang = true;
    tick = setInterval(() => {
      const left = total - counted - (performance.now() - began) / 1000;
      dial.querySelector(".clock-face").textContent = face(left);
      dial.classList.toggle("over", left <= 0);
      if (left <= 0) {
        dial.querySelector(".clock-words").textContent = "time is up";
        ring();
      }
    }, 200);
  }

  function ready() {
    restore();
    clock();
  }
  document.addEventListener("DOMContentLoaded", ready);
  document.addEventListener("htmx:afterSettle", (event) => {
    if (event.target.id === "run" || event.target.querySelector?.("#run")) ready();
  });
})();
