/* A gate on the drawing is opened and shut where it stands; by click, Enter or the space bar. */
(() => {
  function turn(link) {
    const bench = document.getElementById("bench");
    const port = document.querySelector("#editor input[name=port]");
    const values = port ? { port: port.value } : {};
    htmx.ajax("POST", bench.dataset.gate.replace("-branch-", encodeURIComponent(link.dataset.gate)), {
      target: "#bench",
      swap: "outerHTML",
      values: values,
    });
  }

  document.addEventListener("click", (event) => {
    const link = event.target.closest("svg a[data-gate]");
    if (!link || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    turn(link);
  });
  document.addEventListener("keydown", (event) => {
    const link = event.key === " " ? document.activeElement?.closest("svg a[data-gate]") : null;
    if (!link) return;
    event.preventDefault();
    turn(link);
  });
})();
