import { focusAfter } from "../web/focus.js";

// --- Steps of a macro: moved by key and by drag, tied to their lines -----------------------------------------
function moveStep(row, by, control) {
  moveStepTo(row, Number(row.dataset.step) + by, control);
}

function moveStepTo(row, to, control) {
  const list = row.closest(".step-list");
  const from = Number(row.dataset.step);
  if (to < 0 || to >= list.children.length || to === from) return;
  focusAfter(`step-${to}-${control}`);
  htmx.ajax("POST", `${list.dataset.base}/steps/${from}/move`, { source: row, target: "#rig", swap: "outerHTML", values: { to } });
}

document.addEventListener("row-dropped", (event) => {
  const { row, over } = event.detail;
  if (row.dataset.step !== undefined) moveStepTo(row, Number(over.dataset.step), "on");
});

const light = (target) => {
  if (!document.querySelector(".macro-page")) return;
  const step = target?.closest?.("[data-step]")?.dataset.step;
  document.querySelectorAll(".lit").forEach((e) => e.classList.remove("lit"));
  if (step !== undefined) document.querySelectorAll(`[data-step="${step}"]`).forEach((e) => e.classList.add("lit"));
};
document.addEventListener("pointerover", (event) => light(event.target));
document.addEventListener("focusin", (event) => light(event.target));

document.addEventListener("keydown", (event) => {
  const row = event.target.closest(".step-row");
  if (row && event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
    moveStep(row, event.key === "ArrowUp" ? -1 : 1, event.target.id.replace(/^step-\d+-/, ""));
    event.preventDefault();
  }
});

document.addEventListener("click", (event) => {
  const { target } = event;
  const shift = target.closest("[data-shift]");
  if (shift) moveStep(shift.closest(".step-row"), Number(shift.dataset.shift), shift.dataset.shift === "-1" ? "up" : "down");
  const fill = target.closest("[data-fill]");
  if (fill) {
    const [name, value] = fill.dataset.fill.split("=");
    const field = document.querySelector(`#printer-form [name=${name}]`);
    field.value = value;
    field.focus();
  }
});
