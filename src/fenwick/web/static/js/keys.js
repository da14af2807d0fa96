/* Single-key shortcuts; they stay out of the way while something is typed. */
(function () {
  "use strict";

  function step(by) {
    const seen = [];
    document.querySelectorAll("#bench a[data-part]").forEach(function (link) {
      if (link.checkVisibility()) seen.push(link);
    });
    if (!seen.length) return;
    const editor = document.querySelector("#editor");
    const here = seen.findIndex(function (link) { return link.classList.contains("picked") || link.hasAttribute("aria-current"); });
    const next = seen[(Math.max(here, editor ? 0 : -1) + by + seen.length) % seen.length];
    window.fenwick.pick(next);
  }

  function press(id) {
    const button = document.getElementById(id);
    if (button && !button.disabled) button.click();
  }

  const actions = {
    u: function () { press("undo"); },
    r: function () { press("redo"); },
    n: function () { step(+1); },
    p: function () { step(-1); },
    m: function () { press("units"); },
    s: function () { press("save-rig"); },
    e: function () { const field = document.querySelector("#editor .fields input[inputmode=decimal]") || document.querySelector("#editor .fields input, #editor .fields select"); if (field) field.focus(); },
    d: function () { press("part-duplicate"); },
    "[": function () { press("part-back"); },
    "]": function () { press("part-forward"); },
    Delete: function () { press("part-remove"); },
    x: function () { const swap = document.getElementById("swap-part"); if (swap) swap.focus(); },
    t: function () { press("part-tool"); },
    a: function () { const add = document.getElementById("add-part"); if (add) add.focus(); },
    h: function () { press("panel-hookup"); },
    g: function () { press("panel-measure"); },
    c: function () { press("checks-pill"); },
    "?": function () { document.getElementById("keys").togglePopover(); },
  };

  document.addEventListener("keydown", function (event) {
    const typing = event.target.closest("input, select, textarea");
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !typing) {
      event.preventDefault();
      press(event.shiftKey ? "redo" : "undo");
      return;
    }
    if (typing && event.key === "Escape") { typing.blur(); return; } /* out of the field, back to the single keys */
    if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
    const action = actions[event.key];
    if (action) { event.preventDefault(); action(); }
  });
})();
