/* A long page of folded tables is searched as one types: what matches is unfolded, the rest is out of the way. */
(() => {
  const field = document.querySelector("[data-finds]");
  if (!field) return;
  field.closest(".needs-script").hidden = false;
  const began = new Map();
  const folds = [...document.querySelectorAll(field.dataset.finds)];
  const said = document.getElementById("find-said");

  function look() {
    const words = field.value.toLowerCase().split(/\s+/).filter(Boolean);
    let found = 0;
    for (const fold of folds) {
      const title = fold.querySelector("summary").textContent.toLowerCase();
      let here = 0;
      for (const row of fold.querySelectorAll("tbody tr")) {
        const text = `${title} ${row.textContent.toLowerCase()}`;
        const matches = words.every((word) => text.includes(word));
        row.hidden = words.length > 0 && !matches;
        here += matches ? 1 : 0;
      }
      fold.hidden = words.length > 0 && here === 0;
      fold.open = words.length > 0 ? here > 0 : began.get(fold);
      found += here;
    }
    said.textContent = words.length ? `${found} row${found === 1 ? "" : "s"}` : "";
  }

  for (const fold of folds) began.set(fold, fold.open);
  field.addEventListener("input", look);
  if (field.value) look(); /* the address may bring the words along */
  /* a link to one of the tables finds it open */
  function unfold() {
    const there = document.getElementById(location.hash.slice(1));
    if (there?.matches("details")) there.open = true;
  }
  window.addEventListener("hashchange", unfold);
  unfold();
})();
