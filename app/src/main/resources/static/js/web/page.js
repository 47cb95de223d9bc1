// What every page has: theme, the list of keys, messages, folds.
export const typing = (target) => target.closest("input, select, textarea, dialog[open]");

let focusNext = null;

/** Once the next answer has arrived, the focus goes to the element of this id. */
export function focusAfter(id) {
  focusNext = id;
}

document.addEventListener("htmx:afterSettle", () => {
  const control = focusNext && document.getElementById(focusNext);
  if (control) (control.disabled ? control.closest(".step-row")?.querySelector("input[name=on]") : control)?.focus();
  focusNext = null;
});

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

document.addEventListener("click", (event) => {
  const { target } = event;
  target.closest(".dismiss")?.closest("#notice").replaceChildren();
  const abort = target.closest("[data-abort]");
  if (abort) htmx.trigger(abort.form, "htmx:abort");
  if (target.closest("#print-page")) window.print();
  document.querySelectorAll("details.step[open]").forEach((step) => {
    if (!step.contains(target)) step.open = false;
  });
});

document.addEventListener("keyup", (event) => {
  if (event.key === "Escape") document.querySelectorAll("details.step[open]").forEach((step) => { step.open = false; });
});

// A sentence that was said is gone once the next thing worked; but not when it says that the page was stale.
document.addEventListener("htmx:beforeSwap", (event) => {
  const notice = document.getElementById("notice");
  if (event.detail.xhr.status === 200 && (event.target.id === "desk" || event.target.id === "rig") && event.detail.requestConfig.triggeringEvent?.type !== "desk-stale") {
    notice.replaceChildren();
  }
});
const say = (sentence) => {
  const box = document.createElement("div");
  box.className = "notice";
  box.setAttribute("role", "alert");
  box.append(sentence);
  document.getElementById("notice").replaceChildren(box);
};
document.addEventListener("htmx:sendError", () => say("Tranche does not answer; start it again. Nothing you typed is lost."));
document.addEventListener("htmx:responseError", (event) => {
  if (event.detail.xhr.status >= 500) say("Something went wrong in Tranche itself; nothing was changed. The log has the details.");
  if (event.detail.xhr.status === 403) say("This page has grown old; reload it and do it again. Nothing was changed.");
});

// What is folded out stays so when its page is sent again.
let foldedOut = [];
document.addEventListener("htmx:beforeSwap", (event) => {
  foldedOut = [...event.detail.target.querySelectorAll("details.told[open]")].map((one) => one.id);
});
document.addEventListener("htmx:afterSwap", () => {
  foldedOut.forEach((id) => { const one = document.getElementById(id); if (one) one.open = true; });
});
