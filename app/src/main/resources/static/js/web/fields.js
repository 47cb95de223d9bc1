// --- What is typed ---------------------------------------------------------------------------------------------
// A field that is left sends itself, or, where it belongs to a form that is applied as a whole (data-whole), that form
// goes when the hand leaves it. What is refused is said at the field, which keeps what was typed; Escape brings back
// what holds.
import { beside } from "./beside.js";
import { placeOf, standingAt } from "./places.js";

export const FIELDS = "input:not([type=hidden]):not([type=file]), select, textarea";

export const holds = (field) => {
  if (field.type === "checkbox" || field.type === "radio") return field.defaultChecked;
  if (field.localName !== "select") return field.defaultValue;
  return ([...field.options].find((option) => option.defaultSelected) ?? field.options[0])?.value;
};
export const shows = (field) => field.type === "checkbox" || field.type === "radio" ? field.checked : field.value;
export const put = (field, what) => {
  if (typeof what === "boolean") field.checked = what; else field.value = what;
};
export const isChanged = (field) => shows(field) !== holds(field);

// Which field of a form was touched last: what is refused is as a rule about that one.
const touched = new WeakMap();
document.addEventListener("input", (event) => {
  if (event.target.form) touched.set(event.target.form, event.target);
  if (refused && standingAt(refused.place) === event.target) show(false);
});

// --- Forms that are applied as a whole
const asked = (form, event) => {
  if (form.contains(event.relatedTarget) || form.contains(document.activeElement)) return;
  if (form.isConnected && [...form.querySelectorAll(FIELDS)].some((field) => isChanged(field) && field.getAttribute("aria-invalid") !== "true")) {
    if (form.checkValidity()) form.requestSubmit(); else refuseFirst(form);
  }
};
const refuseFirst = (form) => {
  const field = form.querySelector(":invalid:not(fieldset)");
  if (field) refuse(field, field.validationMessage);
};
document.addEventListener("htmx:validation:halted", (event) => refuseFirst(event.target.closest("form") ?? event.target.parentElement));
document.addEventListener("focusout", (event) => {
  const form = event.target.form;
  // Leaving the window leaves no form.
  if (form?.matches("[data-whole]") && event.target.matches(FIELDS) && document.hasFocus()) setTimeout(() => asked(form, event));
});

// --- What was refused, and where
let refused = null;
const bubble = () => document.getElementById("refused");
const show = (shown) => { if (bubble().matches(":popover-open") !== shown) bubble().togglePopover(); };

function lay() {
  const field = refused && standingAt(refused.place);
  const box = bubble();
  if (!field || !field.getClientRects().length) { show(false); return; }
  show(true);
  beside(box, field);
}
addEventListener("scroll", () => { if (refused) lay(); }, true);
addEventListener("resize", () => { if (refused) lay(); });

function mark(field) {
  field.setAttribute("aria-invalid", "true");
  field.setAttribute("aria-describedby", "refused");
}

export function refuse(field, sentence) {
  settle();
  show(false);
  refused = { place: placeOf(field), typed: shows(field) };
  mark(field);
  bubble().replaceChildren(Object.assign(document.createElement("i"), { className: "bi bi-exclamation-triangle", ariaHidden: "true" }), ` ${sentence} `,
    Object.assign(document.createElement("span"), { className: "caption", textContent: "Esc brings back what holds." }));
  lay();
}

/** Whether the field of this place was refused what it is to show. */
export const wasRefused = (place, typed) => refused && typed === refused.typed && JSON.stringify(refused.place) === JSON.stringify(place);

/** Nothing is refused any more. */
function settle() {
  const field = refused && standingAt(refused.place);
  field?.removeAttribute("aria-invalid");
  field?.removeAttribute("aria-describedby");
  refused = null;
  show(false);
}

/** The field that a request came from: the one that changed, or the one of its form that was touched last. */
function asking({ triggeringEvent, elt }) {
  const target = triggeringEvent?.target;
  if (target?.matches?.(FIELDS) && triggeringEvent.type !== "click") return target.isConnected ? target : standingAt(places.get(triggeringEvent));
  const form = elt.matches("form") ? elt : elt.closest("form");
  const last = form && touched.get(form);
  return last?.isConnected ? last : null;
}
const places = new WeakMap();
document.addEventListener("change", (event) => places.set(event, placeOf(event.target)), true);

document.addEventListener("htmx:beforeSwap", (event) => {
  const { xhr, requestConfig } = event.detail;
  const field = asking(requestConfig);
  const said = xhr.status >= 400 && xhr.status < 500 && xhr.status !== 409 && field
    ? new DOMParser().parseFromString(xhr.responseText, "text/html").querySelector(".notice span")?.textContent : null;
  if (said) {
    event.detail.shouldSwap = false;
    refuse(field, said);
  } else if (xhr.status < 400 && refused && requestConfig.verb !== "get") {
    const now = standingAt(refused.place);
    if (!now || now === field || now.form === field?.form || !isChanged(now)) settle();
  }
});
document.addEventListener("htmx:afterSettle", () => {
  const field = refused && standingAt(refused.place);
  if (!field) return;
  if (shows(field) === refused.typed) mark(field); else settle();
  if (refused) lay();
});

document.addEventListener("keydown", (event) => {
  const field = event.target.closest?.(FIELDS);
  if (event.key !== "Escape" || !field || field.closest("dialog") || !(isChanged(field) || field.getAttribute("aria-invalid"))) return;
  put(field, holds(field));
  if (field.getAttribute("aria-invalid")) settle();
  if (field.type === "search") field.dispatchEvent(new Event("input", { bubbles: true }));
  field.select?.();
  event.preventDefault();
  event.stopPropagation();
  swallowed = true;
}, true);
// The same Escape closes no fold.
let swallowed = false;
document.addEventListener("keyup", (event) => {
  if (event.key === "Escape" && swallowed) { swallowed = false; event.stopPropagation(); event.stopImmediatePropagation(); }
}, true);
