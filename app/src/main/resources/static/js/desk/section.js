// Pointing at layers of the section, and dragging borders. Which layer lies where is the drawing's to say: it carries the
// pixels of its bed and of its layers, and their thickness in micrometres.
import { draggable, holding } from "../web/drag.js";
import { desk, goTo } from "./cursor.js";

const drawing = () => document.querySelector("svg.section .layers-of");

/** The layer under a pointer, as the drawing's own numbers have it; nothing beside the drawing. */
export function layerAt(event) {
  const box = drawing()?.getBoundingClientRect();
  const within = box && event.clientX >= box.left && event.clientX <= box.right && event.clientY >= box.top && event.clientY <= box.bottom;
  return within ? layerAtHeightOf(event) : null;
}

/** The layer as high as a pointer, wherever beside it. */
function layerAtHeightOf(event) {
  const field = drawing();
  if (!field) return null;
  const { bottom, first, each, count, firstUm, eachUm } = field.dataset;
  const y = new DOMPoint(event.clientX, event.clientY).matrixTransform(field.getScreenCTM().inverse()).y;
  const up = bottom - y;
  const layer = Math.max(1, Math.min(Number(count), up < first ? 1 : 2 + Math.floor((up - first) / each)));
  const from = layer === 1 ? 0 : Number(firstUm) + (layer - 2) * Number(eachUm);
  const to = Number(firstUm) + (layer - 1) * Number(eachUm);
  return { layer, from: mm(from), to: mm(to), top: bottom - first - (layer - 1) * each, high: layer === 1 ? first : each };
}

const mm = (micrometres) => (micrometres / 1000).toFixed(micrometres % 10 === 0 ? 2 : 3);

export function show(at, target) {
  const mark = document.getElementById("pointed-layer");
  if (!mark) return;
  mark.classList.toggle("target", Boolean(target));
  mark.toggleAttribute("hidden", !at);
  if (at) {
    mark.setAttribute("y", at.top);
    mark.setAttribute("height", at.high);
  }
}

// The layer under the pointer is named at once, where the section's own caption stands.
let captionOfSection = null;
function name(at) {
  const caption = document.getElementById("pointed");
  if (!caption) return;
  if (at) {
    captionOfSection ??= caption.textContent;
    caption.textContent = `layer ${at.layer} (${at.layer - 1} from 0), ${at.from}–${at.to} mm`;
  } else if (captionOfSection !== null) {
    caption.textContent = captionOfSection;
    captionOfSection = null;
  }
}

function leave(handle) {
  handle.classList.remove("dragged");
  show(null);
  name(null);
}

draggable(".border-handle", {
  take(event, handle) {
    // By the line, which is as wide as the drawing, a finger scrolls the page.
    if (event.pointerType === "touch" && !event.target.closest("circle")) return null;
    handle.classList.add("dragged");
    return { handle, at: null };
  },
  move(event, dragged) {
    // The border follows at once; where it really goes is the server's to say.
    const at = layerAtHeightOf(event);
    if (!at) return;
    dragged.at = at;
    dragged.handle.setAttribute("transform", `translate(0 ${at.top + Number(at.high) - dragged.handle.dataset.y})`);
    show(at, true);
    name(at);
  },
  drop(event, { handle, at }) {
    leave(handle);
    if (at) {
      htmx.ajax("POST", `/plans/${desk().dataset.plan}/${handle.dataset.move}`, {
        source: "#desk", target: "#desk", swap: "outerHTML", values: { height: at.from },
      });
    }
  },
  giveUp({ handle }) {
    leave(handle);
    handle.removeAttribute("transform");
  },
});

document.addEventListener("pointermove", (event) => {
  if (holding()) return;
  const pointed = event.target.closest?.("#section") ? layerAt(event) : null;
  show(pointed, false);
  name(pointed);
});

document.addEventListener("pointerup", (event) => {
  if (!event.defaultPrevented && event.target.closest?.(".layers-of")) goTo(layerAt(event).layer);
});
