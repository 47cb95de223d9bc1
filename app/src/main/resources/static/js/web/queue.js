// --- One thing after another ---------------------------------------------------------------------------------
// What is asked of a page while an answer is on its way waits for it, and is then asked by what stands for the same
// thing on the page that arrived: the element that was clicked is gone by then, and another may have its place. The
// very same asked again is a double click, and is asked once; but for what is marked data-repeats.
import { FIELDS, holds, put, shows, wasRefused } from "./fields.js";
import { placeOf, standingAt } from "./places.js";

const PAGES = "#desk, #rig, main[hx-target]";
const waiting = [];
let answering = null;

const own = (elt, verb) => elt.getAttribute(`hx-${verb}`)?.replace(/([?&])seen=\d+/, "$1");
const label = (elt) => elt.localName === "button" && elt.dataset.repeats === undefined ? (elt.getAttribute("aria-label") ?? elt.textContent).trim() : "";
const said = (elt) => (elt.matches(FIELDS) ? [elt] : [...elt.querySelectorAll(FIELDS)]).map(shows).join("\n");

function standIn({ elt, verb, declared }) {
  if (elt.isConnected) return elt;
  if (!declared) return document.getElementById(elt.id);
  return [...document.querySelectorAll(elt.localName)].find((e) => own(e, verb) === own(elt, verb)
    && e.getAttribute("hx-vals") === elt.getAttribute("hx-vals") && label(e) === label(elt));
}

document.addEventListener("htmx:confirm", (event) => {
  const { elt, verb, path, triggeringEvent, etc } = event.detail;
  if (!answering || !elt.closest(PAGES)) return;
  event.preventDefault();
  const declared = elt.getAttribute(`hx-${verb}`) === path;
  const again = (before) => before.elt === elt && before.said === said(elt);
  if (declared && elt.dataset.repeats === undefined && (again(answering) || waiting.some(again))) return;
  if (triggeringEvent?.type === "change" && waiting.some((w) => w.elt.id === elt.id && w.path === path)) return;
  const button = triggeringEvent?.submitter;
  const values = { ...etc.values, ...(button?.name ? { [button.name]: button.value } : {}) };
  const target = etc.targetOverride && `#${etc.targetOverride.id}`;
  const context = { event: triggeringEvent, values, target, swap: etc.swapOverride, select: etc.select };
  waiting.push({ elt, verb, path, declared, said: said(elt), context });
});

document.addEventListener("htmx:beforeRequest", (event) => {
  const { elt, xhr } = event.detail;
  if (elt.closest(PAGES)) answering = { xhr, elt, said: said(elt) };
});

function answered(event) {
  if (event.detail.xhr !== answering?.xhr) return;
  answering = null;
  queueMicrotask(askNext);
}

function askNext() {
  while (!answering && waiting.length) {
    const next = waiting.shift();
    const source = standIn(next);
    if (source) htmx.ajax(next.verb, next.declared ? source.getAttribute(`hx-${next.verb}`) : next.path, { ...next.context, source });
  }
  if (!answering && leaving) location.assign(leaving);
}

/** Asks when what was asked before has been answered. */
export function askLater(request) {
  waiting.push(request);
  askNext();
}

document.addEventListener("htmx:afterRequest", answered);
document.addEventListener("htmx:onLoadError", answered);

// A page is left only when what was said on it has arrived.
let leaving = null;
document.addEventListener("click", (event) => {
  const link = event.target.closest?.("a[href]");
  const elsewhere = event.defaultPrevented || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey;
  if (!answering || elsewhere || !link || link.target || link.hasAttribute("hx-get") || link.hasAttribute("download") || link.getAttribute("href").startsWith("#")) return;
  event.preventDefault();
  leaving = link.href;
});

// --- Typing goes on while an answer arrives ------------------------------------------------------------------
// What was typed, ticked or chosen and not yet sent outlives the replacement of its page, and is sent afterwards.
let unsent = [];

document.addEventListener("htmx:beforeSwap", (event) => {
  const target = event.detail.target;
  if (!target.matches(PAGES) || !event.detail.shouldSwap) return;
  const { elt, parameters: sent } = event.detail.requestConfig;
  const sender = elt.closest("form");
  const all = elt.getAttribute("hx-include") === "this";
  const wasSent = (field) => field === elt || (all && elt.contains(field)) || (sender !== null && field.form === sender);
  const values = (name) => [sent[name] ?? []].flat();
  const nth = (field) => field.form ? [...field.form.querySelectorAll(`[name="${CSS.escape(field.name)}"]`)].indexOf(field) : 0;
  const before = (field) => {
    if (["checkbox", "radio"].includes(field.type)) return values(field.name).includes(field.value) || (!wasSent(field) && holds(field));
    return wasSent(field) ? values(field.name)[nth(field)] ?? holds(field) : holds(field);
  };
  unsent = [...target.querySelectorAll(FIELDS)].filter((field) => field.name && shows(field) !== before(field))
    .map((field) => ({ place: placeOf(field), value: shows(field), at: field.selectionStart }));
});

document.addEventListener("htmx:afterSettle", () => {
  for (const { place, value, at } of unsent.splice(0)) {
    const field = standingAt(place);
    if (!field || field.disabled || shows(field) === value) continue;
    if (field.localName === "select") field.dispatchEvent(new Event("focusin", { bubbles: true }));
    put(field, value);
    if (wasRefused(place, value)) continue;
    const send = () => { if (shows(field) !== holds(field)) field.dispatchEvent(new Event("change", { bubbles: true })); };
    if (document.activeElement === field && typeof value === "string" && field.localName !== "select") {
      field.setSelectionRange?.(at, at);
      field.addEventListener("blur", send, { once: true });
    } else {
      send();
    }
  }
});
