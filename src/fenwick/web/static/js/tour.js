/* What a tour speaks of is framed, and brought into sight; gone with the first click on it. */
(() => {
  const shows = document.querySelector(".tour")?.dataset.shows;
  if (!shows) return;
  const there = [...document.querySelectorAll(shows)].find((one) => one.getClientRects().length > 0);
  if (!there) return;
  there.classList.add("tour-shown");
  const box = there.getBoundingClientRect();
  if (box.top > window.innerHeight * 0.6) there.scrollIntoView({ block: "center" });
  there.addEventListener("pointerdown", () => there.classList.remove("tour-shown"), { once: true });
})();
