// --- Copies, parts and a tower on the bed: dragged, nudged, turned --------------------------------------------------------------
import { draggable } from "../web/drag.js";

const plate = () => document.getElementById("plate");
const steps = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
const post = (thing, values) => htmx.ajax("POST", `/plans/${plate().dataset.plan}/plate/${thing.dataset.by}/by`, {
  source: "#plate", target: "#content", select: "#content", swap: "outerHTML", values,
});

/** Where a pointer is, in mm on the bed: the drawing's own matrix knows. */
const millimetres = (event) => new DOMPoint(event.clientX, event.clientY).matrixTransform(plate().querySelector(".mm").getScreenCTM().inverse());

/** What is moved stays chosen on the page that comes back. */
document.addEventListener("htmx:configRequest", (event) => {
  if (document.getElementById("moving-parts")?.checked) event.detail.parameters.moving = "parts";
});

draggable(".plate [data-by]", {
  take(event, thing) {
    thing.focus();
    return { thing, from: millimetres(event), start: { x: event.clientX, y: event.clientY } };
  },
  move(event, { thing, start }) {
    const scale = plate().getScreenCTM().a;
    thing.setAttribute("transform", `translate(${(event.clientX - start.x) / scale} ${(event.clientY - start.y) / scale})`);
  },
  drop(event, { thing, from }) {
    const to = millimetres(event);
    const dx = (to.x - from.x).toFixed(2);
    const dy = (to.y - from.y).toFixed(2);
    if (Math.hypot(dx, dy) >= 0.1) post(thing, { dx, dy });
    else thing.removeAttribute("transform");
  },
  giveUp: ({ thing }) => thing.removeAttribute("transform"),
});

document.addEventListener("keydown", (event) => {
  const thing = event.target.closest?.(".plate [data-by]");
  if (!thing || event.ctrlKey || event.metaKey) return;
  const by = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
  if (steps[event.key]) {
    const [dx, dy] = steps[event.key];
    post(thing, { dx: dx * by, dy: dy * by });
  } else if (event.key === "t" || event.key === "T") {
    post(thing, { dturn: event.shiftKey ? -15 : 15 });
  } else return;
  event.preventDefault();
});
