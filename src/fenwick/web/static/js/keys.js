/* Single-key shortcuts; they stay out of the way while something is typed. */
(() => {
  /* on a line that is drawn whole: the way looked at in the order of the air, then the rest */
  function place(link) {
    return Number(link.dataset.number) + (link.classList.contains("quiet") ? 1000 : 0);
  }

  /* Presses that come quicker than answers wait for them, one after the other. */
  const ENDS = ["htmx:afterSettle", "htmx:responseError", "htmx:sendError"];
  const MOST_WAIT = 5000; /* ms */
  const CARRIED = 40; /* ms after an answer in which what was typed meanwhile is sent */
  let waiting = Promise.resolve();
  function in_turn(action) {
    waiting = waiting
      .then(quiet)
      .then(action)
      .catch(() => {});
  }

  /* until what forms have sent is answered, and what was typed meanwhile is sent and answered, too */
  async function quiet() {
    let form = document.querySelector("form.htmx-request");
    while (form) {
      await answered(form);
      await new Promise((done) => setTimeout(done, CARRIED));
      form = document.querySelector("form.htmx-request");
    }
  }

  /* the answer to this form, and to no other, is on the page */
  function answered(form) {
    return new Promise((done) => {
      const heard = (event) => {
        if (event.detail.requestConfig?.elt !== form) return;
        for (const name of ENDS) document.removeEventListener(name, heard);
        done();
      };
      for (const name of ENDS) document.addEventListener(name, heard);
      setTimeout(done, MOST_WAIT);
    });
  }

  function step(by) {
    in_turn(() => step_now(by));
  }

  function step_now(by) {
    const seen = [];
    document.querySelectorAll("#bench a[data-part]").forEach((link) => {
      if (link.checkVisibility()) seen.push(link);
    });
    if (!seen.length) return undefined;
    if (seen.every((link) => link.closest(".tree-drawing"))) seen.sort((one, other) => place(one) - place(other));
    const editor = document.querySelector("#editor");
    const here = seen.findIndex((link) => link.classList.contains("picked") || link.hasAttribute("aria-current"));
    const next = seen[(Math.max(here, editor ? 0 : -1) + by + seen.length) % seen.length];
    return window.fenwick.pick(next);
  }

  function press(id) {
    in_turn(() => {
      const button = document.getElementById(id);
      if (!button || button.disabled) return undefined;
      if (button.matches("[data-panel]")) return window.fenwick.pick(button);
      const form = button.closest("form[hx-post]");
      const answer = form ? answered(form) : undefined;
      button.click();
      return answer;
    });
  }

  const actions = {
    u: () => {
      press("undo");
    },
    r: () => {
      press("redo");
    },
    n: () => {
      step(+1);
    },
    p: () => {
      step(-1);
    },
    m: () => {
      press("units");
    },
    s: () => {
      press("save-rig");
    },
    e: () => {
      const field =
        document.querySelector("#editor .fields input[inputmode=decimal]") ||
        document.querySelector("#editor .fields input, #editor .fields select");
      if (field) field.focus();
    },
    d: () => {
      press("part-duplicate");
    },
    "[": () => {
      press("part-back");
    },
    "]": () => {
      press("part-forward");
    },
    Delete: () => {
      press("part-remove");
    },
    x: () => {
      const swap = document.getElementById("swap-part");
      if (swap) swap.focus();
    },
    t: () => {
      press("part-tool");
    },
    a: () => {
      const add = document.getElementById("add-part");
      if (add) add.focus();
    },
    h: () => {
      press("panel-hookup");
    },
    g: () => {
      press("panel-measure");
    },
    c: () => {
      press("checks-pill");
    },
    "?": () => {
      document.getElementById("keys").togglePopover();
    },
  };

  document.addEventListener("keydown", (event) => {
    const typing = event.target.closest("input, select, textarea");
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !typing) {
      event.preventDefault();
      press(event.shiftKey ? "redo" : "undo");
      return;
    }
    if (typing && event.key === "Escape") {
      typing.blur();
      return;
    } /* out of the field, back to the single keys */
    if (event.key === "Escape" && document.getElementById("close-sheet")?.checkVisibility()) {
      press("close-sheet");
      return;
    }
    if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
    const action = actions[event.key];
    if (action) {
      event.preventDefault();
      action();
    }
  });
})();
