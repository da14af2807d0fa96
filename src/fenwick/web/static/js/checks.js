/* The checks slide in over any place; without this script the pill is a plain link to their page. */
(() => {
  document.addEventListener("click", (event) => {
    const pill = event.target.closest("#checks-pill");
    if (
      !pill ||
      event.ctrlKey ||
      event.metaKey ||
      event.shiftKey ||
      event.button !== 0 ||
      document.getElementById("checks")
    )
      return;
    event.preventDefault();
    const panel = document.getElementById("checks-panel");
    htmx.ajax("GET", pill.dataset.panelUrl, { target: "#checks-inside", swap: "outerHTML" }).then(() => {
      panel.showPopover();
    });
  });
  /* what was changed in the panel may have changed the place under it */
  document.addEventListener("htmx:beforeRequest", (event) => {
    const form = event.target.closest?.("#checks-inside form");
    if (form) document.getElementById("checks-panel").dataset.changed = "1";
  });
  const panel = document.getElementById("checks-panel");
  if (panel)
    panel.addEventListener("toggle", (event) => {
      if (event.newState === "closed" && panel.dataset.changed) {
        delete panel.dataset.changed;
        window.location.reload();
      }
    });
})();
