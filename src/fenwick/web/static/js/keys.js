/* Single-key shortcuts; they stay out of the way while something is typed. */
(() => {
  /* on a line that is drawn whole: the way looked at in the order of the air, then the rest */
  function place(link) {
    return Number(link.dataset.number) + (link.classList.contains("quiet") ? 1000 : 0);
  }

  function step(by) {
    const seen = [];
    document.querySelectorAll("#bench a[data-part]").forEach((link) => {
      if (link.checkVisibility()) seen.push(link);
    });
    if (!seen.length) return;
    if (seen.every((link) => link.closest(".tree-drawing"))) seen.sort((one, other) => place(one) - place(other));
    const editor = document.querySelector("#editor");
    const here = seen.findIndex((link) => link.classList.contains("picked") || link.hasAttribute("aria-current"));
    const next = seen[(Math.max(here, editor ? 0 : -1) + by + seen.length) % seen.length];
    window.fenwick.pick(next);
  }

  function press(id) {
    const button = document.getElementById(id);
    if (button && !button.disabled) button.click();
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
    if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
    const action = actions[event.key];
    if (action) {
      event.preventDefault();
      action();
    }
  });
})();
