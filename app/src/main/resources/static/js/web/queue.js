// --- One thing after another ---------------------------------------------------------------------------------
// What is asked of a page while an answer is on its way waits for it, and is then asked by what stands for the same
// thing on the page that arrived: the element that was clicked is gone by then, and another may have its place. The
// very same asked again is a double click, and is asked once; but for what is marked data-repeats.
const PAGES = "#desk, #rig, main[hx-target]";
const waiting = [];
let answering = null;

const own = (elt, verb) => elt.getAttribute(`hx-${verb}`)?.replace(/([?&])seen=\d+/, "$1");
const label = (elt) => elt.localName === "button" && elt.dataset.repeats === undefined ? (elt.getAttribute("aria-label") ?? elt.textContent).trim() : "";
const FIELDS = "input, select, textarea";
const said = (elt) => (elt.matches(FIELDS) ? [elt] : [...elt.querySelectorAll(FIELDS)])
  .map((field) => ["checkbox", "radio"].includes(field.type) ? field.checked : field.value).join("\n");

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
  if (event.detail.failed && event.detail.xhr.status === 0) waiting.length = 0;
  queueMicrotask(askNext);
}

function askNext() {
  while (!answering && waiting.length) {
    const next = waiting.shift();
    const source = standIn(next);
    if (source) htmx.ajax(next.verb, next.declared ? source.getAttribute(`hx-${next.verb}`) : next.path, { ...next.context, source });
  }
}

document.addEventListener("htmx:afterRequest", answered);
document.addEventListener("htmx:onLoadError", answered);

// --- Typing goes on while an answer arrives ------------------------------------------------------------------
// What was typed and not yet sent outlives the replacement of its page, and is sent afterwards.
let unsent = [];

document.addEventListener("htmx:beforeSwap", (event) => {
  const target = event.detail.target;
  if (!target.matches(PAGES)) return;
  const { elt, parameters: sent } = event.detail.requestConfig;
  const sender = elt.closest("form");
  const all = elt.getAttribute("hx-include") === "this";
  const wasSent = (field) => field === elt || (all && elt.contains(field)) || (sender !== null && field.form === sender);
  unsent = [...target.querySelectorAll("input[id]:not([type=checkbox]):not([type=radio]):not([type=hidden]):not([type=file]), textarea[id]")]
    .filter((field) => field.value !== (wasSent(field) ? sent[field.name] : field.defaultValue))
    .map((field) => ({ id: field.id, value: field.value, at: field.selectionStart }));
});

document.addEventListener("htmx:afterSettle", () => {
  for (const { id, value, at } of unsent.splice(0)) {
    const field = document.getElementById(id);
    if (!field) continue;
    field.value = value;
    const send = () => { if (field.value !== field.defaultValue) field.dispatchEvent(new Event("change", { bubbles: true })); };
    if (document.activeElement === field) {
      field.setSelectionRange?.(at, at);
      field.addEventListener("blur", send, { once: true });
    } else {
      send();
    }
  }
});
