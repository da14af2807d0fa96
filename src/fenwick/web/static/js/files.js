/* A file that is too large is told before it is sent: what is cut off on its way tells nobody why. */
(() => {
  document.addEventListener("change", (event) => {
    const input = event.target;
    const most = Number(input.dataset?.most);
    if (input.type !== "file" || !most) return;
    const file = input.files[0];
    const over = file && file.size > most;
    input.setCustomValidity(
      over ? `${file.name} has ${Math.ceil(file.size / 1e6)} MB; at most ${most / 1e6} MB can be taken.` : "",
    );
    input.reportValidity();
  });
})();
