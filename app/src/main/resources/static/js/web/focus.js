// --- The hand stays where it was -------------------------------------------------------------------------------
// When a page is replaced, what had the focus has it again, or what came into its place; and the fold it was in stays
// open. Escape closes a fold and leaves the hand at what opened it.
import { nearest, placeOf, standingAt } from "./places.js";

const FOLDS = "details.step, details.told, details[data-stays]";
const ways = "a[href], button:not(:disabled), input:not(:disabled):not([type=hidden]), select:not(:disabled), textarea:not(:disabled), summary, [tabindex='0']";

// So many that can be pressed after the one in hand, and before it, are remembered, for when it is gone; what is disabled
// now may come to life. Fields are none of them: in one, keys would write.
const NEIGHBOURS = 12;
const pressed = "a[href], button, summary";

let named = null;
let hand = null;
let open = [];

/** Once the next answer has arrived, the focus goes to the element of this id. */
export function focusAfter(id) {
  named = { id };
}

document.addEventListener("htmx:beforeSwap", (event) => {
  const { target } = event.detail;
  if (!event.detail.shouldSwap) return;
  const active = document.activeElement;
  if (target.contains(active) && active !== document.body) {
    const fold = active.closest("details.step");
    const list = active.closest("li[id], tr[id]")?.parentElement ?? active.closest("ol, ul, tbody");
    const all = [...target.querySelectorAll(pressed)];
    const at = all.indexOf(active);
    const beside = at < 0 ? [] : [...all.slice(at + 1, at + 1 + NEIGHBOURS), ...all.slice(Math.max(0, at - NEIGHBOURS), at).reverse()];
    hand = { place: placeOf(active), beside: beside.map(placeOf), disabled: active.id === "undo" ? "redo" : active.id === "redo" ? "undo" : null, fold: placeOf(fold), list: placeOf(list), row: list ? [...list.children].findIndex((row) => row.contains(active)) : -1 };
  }
  open = [...target.querySelectorAll(FOLDS)].filter((one) => one.open && (!one.matches("details.step") || one.contains(active))).map(placeOf);
});

function back() {
  const rowOf = (list) => list?.children[Math.min(hand.row, list.children.length - 1)];
  const control = nearest(hand.place);
  const row = rowOf(standingAt(hand.list));
  const one = [control, row?.querySelector(ways), standingAt({ id: hand.disabled ?? "" }), standingAt(hand.fold)?.querySelector("summary"), ...hand.beside.map(standingAt)]
    .find((elt) => elt && !elt.disabled && elt.getClientRects().length);
  one?.focus({ preventScroll: true });
  return Boolean(one);
}

document.addEventListener("htmx:afterSwap", () => {
  open.forEach((place) => { const one = standingAt(place); if (one) one.open = true; });
  open = [];
});

document.addEventListener("htmx:afterSettle", () => {
  if (named) {
    const control = standingAt(named);
    if (control) (control.disabled ? control.closest(".step-row")?.querySelector("input[name=on]") : control)?.focus();
    named = hand = null;
  } else if (hand && (!document.activeElement || document.activeElement === document.body)) {
    if (back()) hand = null;
  } else {
    hand = null;
  }
});

document.addEventListener("click", ({ target }) => {
  document.querySelectorAll("details.step[open]").forEach((step) => {
    if (!step.contains(target) && target.isConnected) step.open = false;
  });
});

document.addEventListener("keyup", (event) => {
  if (event.key !== "Escape") return;
  document.querySelectorAll("details.step[open]").forEach((step) => {
    const inside = step.contains(document.activeElement) || document.activeElement === document.body;
    step.open = false;
    if (inside) step.querySelector("summary").focus();
  });
});
