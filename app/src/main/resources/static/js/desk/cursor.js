// The cursor: one layer that all drawings show.
import { typing } from "../web/page.js";

export const desk = () => document.getElementById("desk");
export const layerPlan = () => document.getElementById("layer-plan");

// Pieces of this plan in other windows are cut where the cursor stands.
const windows = new BroadcastChannel("tranche-cursor");

let wanted = null;
let underway = false;

export const here = () => wanted ?? Number(layerPlan().dataset.layer);

export function goTo(layer) {
  const plan = layerPlan();
  if (!plan) return;
  wanted = Math.max(1, Math.min(Number(plan.dataset.of), layer));
  if (!underway) fetchCursor();
}

function fetchCursor() {
  const layer = wanted;
  const zoom = document.getElementById("score")?.dataset.zoom || 1;
  underway = true;
  htmx.ajax("GET", `/plans/${desk().dataset.plan}/cursor?at=${layer}&zoom=${zoom}`, {
    source: "#layer-plan", target: "#layer-plan", swap: "outerHTML",
  }).finally(() => {
    underway = false;
    address(layer);
    windows.postMessage({ plan: desk().dataset.plan, layer });
    if (wanted !== layer) fetchCursor(); else wanted = null;
  });
}

const shown = (name) => document.querySelector(`#desk-state [name=${name}]`).value;

/** What is shown stands in the address, so that a reload or a bookmark finds it again. */
function address(layer) {
  const said = new URLSearchParams({ layer });
  if (shown("beside")) said.set("beside", shown("beside"));
  if (shown("side") !== "heights") said.set("side", shown("side"));
  history.replaceState(history.state, "", `?${said}`);
}

document.addEventListener("htmx:afterSettle", (event) => {
  if (event.target.id === "desk" && (new URLSearchParams(location.search).get("side") ?? "heights") !== shown("side")) address(here());
});

/** Keeps a layer in sight beside the one under the cursor, or, with nothing, puts it away. */
function keepBeside(layer) {
  document.getElementById("cursor-beside").value = layer;
  goTo(here());
}

/** To the height where a colour is to start, which stands with the colours by height. */
function startHere() {
  const height = document.getElementById("start-height");
  if (height) {
    height.select();
    return;
  }
  document.addEventListener("htmx:afterSettle", function arrived() {
    if (!document.getElementById("start-height")) return;
    document.removeEventListener("htmx:afterSettle", arrived);
    document.getElementById("start-height").select();
  });
  document.getElementById("side-heights").click();
}

document.addEventListener("keydown", (event) => {
  if (event.defaultPrevented || !layerPlan() || typing(event.target)) return;
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const moves = {
    ArrowUp: () => here() + 1, ArrowDown: () => here() - 1,
    PageUp: () => here() + 10, PageDown: () => here() - 10,
    Home: () => 1, End: () => Number(layerPlan().dataset.of),
    "[": () => Number(layerPlan().dataset.lower || here()), "]": () => Number(layerPlan().dataset.higher || here()),
  };
  if (moves[event.key]) {
    goTo(moves[event.key]());
    event.preventDefault();
  } else if (event.key === "b") {
    keepBeside(document.getElementById("cursor-beside").value ? "" : String(here()));
    event.preventDefault();
  } else if (event.key === "s") {
    startHere();
    event.preventDefault();
  }
});

document.addEventListener("click", (event) => {
  const { target } = event;
  const keep = target.closest("[data-keep]");
  if (keep) keepBeside(keep.dataset.keep);
  const go = target.closest("[data-go]");
  if (go) goTo(Number(go.dataset.go));
  const move = target.closest("[data-move]");
  if (move) goTo(here() + Number(move.dataset.move));
  const drawn = target.closest("[data-drawn]");
  if (drawn) {
    document.getElementById("drawn").value = drawn.dataset.drawn;
    goTo(here());
  }
  const even = target.closest("[data-even]");
  if (even) {
    document.getElementById("even").value = even.dataset.even;
    document.body.dispatchEvent(new Event("desk-stale"));
  }
  const chip = target.closest("[data-start]");
  if (chip) {
    document.getElementById("start-height").value = chip.dataset.start;
    document.getElementById("start-spool").focus();
  }
});
