// Rows that are lifted by their grip and dropped on another; what that means is said by who listens for it.
import { draggable } from "./drag.js";

const rows = ".step-row, .region-row";

function putDown() {
  document.querySelectorAll(":is(.step-row, .region-row):is(.lifted, .target)").forEach((r) => r.classList.remove("lifted", "target"));
}

draggable(":is(.step-row, .region-row) .grip", {
  take(event, grip) {
    const row = grip.closest(rows);
    row.classList.add("lifted");
    return { row, over: null };
  },
  move(event, lifted) {
    const over = document.elementsFromPoint(event.clientX, event.clientY).map((e) => e.closest?.(rows)).find(Boolean);
    if (over && over !== lifted.over) {
      lifted.over?.classList.remove("target");
      over.classList.add("target");
      lifted.over = over;
    }
  },
  drop(event, { row, over }) {
    putDown();
    if (over) document.dispatchEvent(new CustomEvent("row-dropped", { detail: { row, over } }));
  },
  giveUp: putDown,
});
