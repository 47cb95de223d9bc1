import { desk, layerPlan } from "./cursor.js";
import { focusAfter } from "../web/focus.js";
import { draggable } from "../web/drag.js";
import { typing } from "../web/page.js";

// --- Zones on the layer plan: drawn, dragged, nudged, ranked -------------------------------------------------
const nudges = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
const chosenZone = () => document.querySelector("svg.layer-plan[data-layer] .zone.chosen[data-zone]");
export const post = (path, values) => htmx.ajax("POST", `/plans/${desk().dataset.plan}/${path}`, { source: "#desk", target: "#desk", swap: "outerHTML", values });

/** Where a pointer is, in mm of the model: the drawing's own matrix knows. */
export function millimetres(plan, event) {
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(plan.querySelector(".mm").getScreenCTM().inverse());
  return { x: at.x.toFixed(3), y: at.y.toFixed(3) };
}

let corners = null;

function startPolygon() {
  corners = [];
  document.body.classList.add("drawing");
  document.getElementById("piece").textContent = "Click the corners; Enter closes the polygon, Esc gives it up.";
}

function addCorner(plan, event) {
  const at = millimetres(plan, event);
  corners.push(at);
  const dot = document.createElementNS("http://www.w3.org/2000/svg", "circle");
  const here = new DOMPoint(event.clientX, event.clientY).matrixTransform(plan.getScreenCTM().inverse());
  dot.setAttribute("class", "corner");
  dot.setAttribute("r", "3.5");
  dot.setAttribute("cx", here.x);
  dot.setAttribute("cy", here.y);
  plan.append(dot);
}

function finishPolygon(keep) {
  const given = corners;
  corners = null;
  document.body.classList.remove("drawing");
  document.querySelectorAll(".corner").forEach((dot) => dot.remove());
  document.getElementById("piece").textContent = "";
  if (keep) {
    post("regions/polygon", { corners: given.map((c) => `${c.x} ${c.y}`).join(", "), spool: document.getElementById("region-spool").value });
  }
}

/** The list shows the winner first, the order ends with it. */
function rankRegion(row, by) {
  const from = Number(row.dataset.index);
  rankRegionTo(row, from - by);
}

function rankRegionTo(row, to) {
  const list = row.closest(".region-list");
  const from = Number(row.dataset.index);
  if (to < 0 || to >= list.children.length || to === from) return;
  focusAfter(`region-${to}`);
  post(`regions/${from}/move`, { to });
}

draggable(".zone.chosen[data-zone]", {
  take(event, zone) {
    const plan = zone.closest("svg.layer-plan[data-layer]");
    return plan && !corners ? { zone, plan, from: millimetres(plan, event), start: { x: event.clientX, y: event.clientY } } : null;
  },
  move(event, { zone, plan, start }) {
    const scale = plan.getScreenCTM().a;
    zone.setAttribute("transform", `translate(${(event.clientX - start.x) / scale} ${(event.clientY - start.y) / scale})`);
  },
  drop(event, { zone, plan, from }) {
    const to = millimetres(plan, event);
    const dx = to.x - from.x;
    const dy = to.y - from.y;
    if (Math.hypot(dx, dy) >= 0.05) post(`regions/${zone.dataset.zone}/drag`, { dx, dy });
    else zone.removeAttribute("transform");
  },
  giveUp: ({ zone }) => zone.removeAttribute("transform"),
});

document.addEventListener("keydown", (event) => {
  const region = event.target.closest(".region-row");
  if (region && event.altKey && !event.shiftKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
    rankRegion(region, event.key === "ArrowUp" ? -1 : 1);
    event.preventDefault();
    return;
  }
  if (corners && (event.key === "Enter" || event.key === "Escape")) {
    finishPolygon(event.key === "Enter");
    event.preventDefault();
    return;
  }
  if (!layerPlan() || typing(event.target)) return;
  if (event.shiftKey && nudges[event.key] && chosenZone()) {
    const by = event.altKey ? 0.1 : 0.5;
    const [dx, dy] = nudges[event.key];
    post(`regions/${chosenZone().dataset.zone}/nudge`, { dx: dx * by, dy: dy * by });
    event.preventDefault();
  }
});

document.addEventListener("click", (event) => {
  const { target } = event;
  const rank = target.closest("[data-rank]");
  if (rank) rankRegion(rank.closest(".region-row"), Number(rank.dataset.rank));
  if (target.closest("#draw-polygon")) startPolygon();
  const plan = target.closest("svg.layer-plan[data-layer]");
  if (plan && corners) addCorner(plan, event);
  else if (plan && target.closest(".plastic")) {
    const at = millimetres(plan, event);
    htmx.ajax("GET", `/plans/${desk().dataset.plan}/piece?layer=${plan.dataset.layer}&x=${at.x}&y=${at.y}`, { source: "#layer-plan", target: "#piece", swap: "outerHTML" });
  }
});

document.addEventListener("row-dropped", (event) => {
  const { row, over } = event.detail;
  if (row.dataset.index !== undefined) rankRegionTo(row, Number(over.dataset.index));
});
