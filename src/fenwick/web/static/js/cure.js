// A cure that goes on: what is left of it, counted from when it was ticked, so that a reload loses nothing.
for (const clock of document.querySelectorAll(".cure-clock")) {
  const end = Date.parse(clock.dataset.since) + 1000 * Number(clock.dataset.lasts);
  const show = () => {
    const left = Math.round((end - Date.now()) / 60000);
    if (left <= 0) {
      clock.textContent = "Cured: it may be loaded.";
      return;
    }
    const hours = Math.floor(left / 60);
    clock.textContent = `Cures for another ${hours > 0 ? `${hours} h ` : ""}${left % 60} min`;
    setTimeout(show, 30000);
  };
  show();
}
