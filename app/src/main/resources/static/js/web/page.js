// What every page has: theme, the list of keys, undo.
export const typing = (target) => target.closest("input, select, textarea, dialog[open]");

document.getElementById("night")?.addEventListener("click", () => {
  const next = document.documentElement.dataset.bsTheme === "dark" ? "light" : "dark";
  document.documentElement.dataset.bsTheme = next;
  localStorage.setItem("tranche-theme", next);
});
document.getElementById("keys-button")?.addEventListener("click", () => document.getElementById("keys").showModal());

document.addEventListener("keydown", (event) => {
  if (typing(event.target)) return;
  if (event.key === "?") {
    document.getElementById("keys").showModal();
    event.preventDefault();
    return;
  }
  const undo = document.getElementById(event.shiftKey ? "redo" : "undo");
  if (undo && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
    undo.click();
    event.preventDefault();
  }
});

document.addEventListener("click", ({ target }) => {
  const abort = target.closest("[data-abort]");
  if (abort) htmx.trigger(abort.form, "htmx:abort");
  if (target.closest("#print-page")) window.print();
});

// A chooser of colours beside a field that takes their names and numbers.
document.addEventListener("input", ({ target }) => {
  if (target.dataset?.colourOf) document.getElementById(target.dataset.colourOf).value = target.value.toUpperCase();
});
document.addEventListener("click", ({ target }) => {
  const closer = target.closest?.("[data-closes]");
  if (closer) document.getElementById(closer.dataset.closes).close();
});
// What leads to another page once it is done.
document.addEventListener("htmx:afterRequest", ({ detail }) => {
  if (detail.successful && detail.elt.dataset?.then) location.assign(detail.elt.dataset.then);
});

// The clock of this browser is as a rule the one beside the machine.
function proposeZone() {
  const propose = document.getElementById("browser-zone");
  const field = document.getElementById("zone");
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  if (!propose || !zone || field.value === zone) return;
  propose.hidden = false;
  propose.textContent = `Use ${zone}, as this browser does`;
  propose.onclick = () => { field.value = zone; field.form.requestSubmit(); };
}
proposeZone();
document.addEventListener("htmx:afterSettle", proposeZone);
