// Spools taken up from their row: dragged onto what is to be printed in them, or pressed and put where one presses next.
import { STIRRED } from "../web/drag.js";
import { here } from "./cursor.js";
import { layerAt, show } from "./section.js";
import { millimetres, post } from "./zones.js";

let carried = null;

function takeUp(dab, event) {
  letGo();
  const ghost = document.createElement("span");
  ghost.className = "carried";
  ghost.style.background = dab.dataset.hex;
  carried = { spool: dab.dataset.spool, ghost, from: event, over: null, dragged: false };
}

function letGo() {
  if (!carried) return;
  mark(null);
  carried.ghost.remove();
  document.body.classList.remove("carrying");
  document.querySelectorAll("#dabs [aria-pressed=true]").forEach((dab) => dab.setAttribute("aria-pressed", "false"));
  carried = null;
}

/** Keeps it in hand until it is put somewhere. */
function hold(dab) {
  document.body.classList.add("carrying");
  dab.setAttribute("aria-pressed", "true");
}

function mark(over) {
  if (carried.over?.elt !== over?.elt) {
    carried.over?.elt.classList.remove("takes-dab");
    over?.elt.classList.add("takes-dab");
  }
  show(over?.layer ? over.layer : null, true);
  carried.over = over;
}

const choose = (menu, spool) => {
  menu.dispatchEvent(new Event("pointerover", { bubbles: true }));
  menu.value = spool;
  menu.dispatchEvent(new Event("change", { bubbles: true }));
};

/** What lies under the pointer that can be printed in a spool, and how that is asked for. */
function underneath(event) {
  const elt = document.elementFromPoint(event.clientX, event.clientY);
  const row = elt?.closest(".stratum-list li, .region-row");
  const menu = row?.querySelector("select[name=spool]");
  if (menu) return { elt: row, put: (spool) => choose(menu, spool) };
  const part = elt?.closest(".part-row");
  if (part) {
    const box = part.querySelector("[name=parts]");
    return { elt: part, put: (spool) => post("parts/colour", { parts: box.checked ? chosen() : [box.value], spool }) };
  }
  const plan = elt?.closest("svg.layer-plan[data-layer]");
  if (plan && elt.closest(".plastic, .zone")) {
    const at = millimetres(plan, event);
    return { elt: elt.closest(".plastic, .zone"), put: (spool) => post("piece", { ...at, spool }) };
  }
  const layer = elt?.closest("#section") && layerAt(event);
  if (layer) {
    return { elt: document.getElementById("section"), layer, put: (spool) => post(`bands/${layer.layer}`, { spool }) };
  }
  return null;
}

const chosen = () => [...document.querySelectorAll(".part-row [name=parts]:checked")].map((box) => box.value);

function put(over) {
  const { spool } = carried;
  letGo();
  over.put(spool);
}

document.addEventListener("pointerdown", (event) => {
  const dab = event.target.closest?.("#dabs .dab");
  if (!dab || event.button !== 0) return;
  const again = carried?.spool === dab.dataset.spool;
  takeUp(dab, event);
  carried.again = again;
  carried.dab = dab;
  // A finger that rests on it is not to scroll the page.
  if (dab.hasPointerCapture?.(event.pointerId)) dab.releasePointerCapture(event.pointerId);
});

document.addEventListener("pointermove", (event) => {
  if (!carried?.dab && !document.body.classList.contains("carrying")) return;
  if (carried.dab && !carried.dragged) {
    if (Math.hypot(event.clientX - carried.from.clientX, event.clientY - carried.from.clientY) < STIRRED) return;
    carried.dragged = true;
    document.body.append(carried.ghost);
    document.body.classList.add("carrying");
  }
  carried.ghost.style.transform = `translate(${event.clientX + 8}px, ${event.clientY + 8}px)`;
  mark(underneath(event));
});

document.addEventListener("pointerup", (event) => {
  if (!carried?.dab || !carried.dragged) return;
  const over = underneath(event);
  if (over) put(over); else letGo();
});
document.addEventListener("pointercancel", letGo);

// What is pressed while a spool is in hand takes it, and does nothing else.
document.addEventListener("click", (event) => {
  const dab = event.target.closest?.("#dabs .dab");
  if (dab) {
    const again = carried?.again ?? dab.getAttribute("aria-pressed") === "true";
    if (carried?.spool !== dab.dataset.spool || !carried) takeUp(dab, event);
    if (again) letGo(); else { hold(dab); carried.dab = null; }
    return;
  }
  if (!carried) return;
  const over = underneath(event);
  if (over) {
    event.preventDefault();
    event.stopPropagation();
    put(over);
  } else if (!event.target.closest("#layer-plan, #section, .strata")) letGo();
}, true);

// A desk that was replaced shows what is still in hand.
document.addEventListener("htmx:afterSettle", () => {
  if (!carried || carried.dragged) return;
  const dab = document.getElementById(`take-${carried.spool}`);
  if (dab) dab.setAttribute("aria-pressed", "true"); else letGo();
});

document.addEventListener("keydown", (event) => {
  if (!carried) return;
  if (event.key === "Escape") letGo();
  else if (event.key === "Enter" && event.target.id === "section") {
    event.preventDefault();
    const { spool } = carried;
    letGo();
    post(`bands/${here()}`, { spool });
  }
});
