/* What is typed while an answer is on its way is not in that answer: it is carried into the new fields, and sent. */
(() => {
  const TYPED = "input[id]:not([type=hidden], [type=checkbox], [type=radio], [type=file]), textarea[id]";
  let unsent = [],
    leads = null;

  function said(field, request) {
    const mine = field.form === request.elt.closest("form") && request.formData?.has(field.name);
    return mine ? request.formData.getAll(field.name) : [field.defaultValue];
  }

  function stash(page) {
    return `fenwick-typed-${page.pathname}`;
  }

  function send(field) {
    field.dispatchEvent(new Event("change", { bubbles: true }));
  }

  /* one that is still being typed in is sent when it is left, if the browser does not do that by itself */
  function send_when_left(field) {
    let sent = false;
    field.addEventListener("change", () => (sent = true), { once: true });
    field.addEventListener("blur", () => sent || send(field), { once: true });
  }

  /* An answer to a piece that another answer has renewed meanwhile goes to the piece that stands there now. */
  document.addEventListener("htmx:beforeRequest", (event) => {
    let asked = event.detail.target;
    if (!asked?.id) return;
    Object.defineProperty(event.detail, "target", {
      enumerable: true,
      get: () => (asked.isConnected ? asked : document.getElementById(asked.id) || asked),
      set: (other) => (asked = other),
    });
  });

  document.addEventListener("htmx:beforeSwap", (event) => {
    const { target, requestConfig } = event.detail;
    if (!target || !requestConfig) return;
    unsent = [...target.querySelectorAll(TYPED)]
      .filter((field) => field.form?.matches("[hx-post], [hx-get]"))
      .filter((field) => !said(field, requestConfig).includes(field.value))
      .map((field) => ({ id: field.id, value: field.value }));
  });

  /* An answer that leads to another page, as when a search has ended, must not lose what is being typed elsewhere. */
  document.addEventListener("htmx:beforeOnLoad", (event) => {
    const to = event.detail.xhr.getResponseHeader("HX-Redirect");
    if (to) leads = { to: new URL(to, location.href), sent: event.detail.elt.closest("form") };
  });

  /* at the last moment: one can go on typing until the other page stands there */
  window.addEventListener("pagehide", () => {
    if (!leads) return;
    const typed = [...document.querySelectorAll(TYPED)]
      .filter((field) => field.form && field.form !== leads.sent && field.value !== field.defaultValue)
      .map((field) => ({ id: field.id, value: field.value }));
    if (typed.length) sessionStorage.setItem(stash(leads.to), JSON.stringify(typed));
  });

  document.addEventListener("DOMContentLoaded", () => {
    const key = stash(location),
      kept = sessionStorage.getItem(key);
    if (!kept) return;
    sessionStorage.removeItem(key);
    for (const { id, value } of JSON.parse(kept)) {
      const field = document.getElementById(id);
      if (field) field.value = value;
    }
  });

  document.addEventListener("htmx:afterSettle", () => {
    const carried = unsent;
    unsent = [];
    for (const { id, value } of carried) {
      const field = document.getElementById(id);
      if (!field || field.value === value) continue;
      field.value = value;
      if (field === document.activeElement) send_when_left(field);
      else send(field);
    }
  });
})();
