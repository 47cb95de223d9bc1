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

// The clock of this browser is as a rule the one beside the machine, and its owner counts hours as it does.
function proposeClock() {
  const browser = Intl.DateTimeFormat(undefined, { hour: "numeric" }).resolvedOptions();
  propose("zone", browser.timeZone, browser.timeZone);
  propose("hours", browser.hour12 ? "HOURS_12" : "HOURS_24", browser.hour12 ? "12 hours" : "24 hours");
}
function propose(id, value, words) {
  const button = document.getElementById(`browser-${id}`);
  const field = document.getElementById(id);
  if (!button || !value || field.value === value) return;
  button.hidden = false;
  button.textContent = `Use ${words}, as this browser does`;
  button.onclick = () => { field.value = value; field.form.requestSubmit(); };
}
proposeClock();
document.addEventListener("htmx:afterSettle", proposeClock);
