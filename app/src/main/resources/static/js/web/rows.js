// Rows that are lifted by their grip and dropped on another; what that means is said by who listens for it.
let lifted = null;

document.addEventListener("pointerdown", (event) => {
  const grip = event.target.closest?.(".step-row .grip, .region-row .grip");
  if (!grip) return;
  lifted = { row: grip.closest(".step-row, .region-row"), over: null };
  lifted.row.classList.add("lifted");
  event.preventDefault();
});

document.addEventListener("pointermove", (event) => {
  if (!lifted) return;
  const over = document.elementsFromPoint(event.clientX, event.clientY).map((e) => e.closest?.(".step-row, .region-row")).find(Boolean);
  if (over && over !== lifted.over) {
    lifted.over?.classList.remove("target");
    over.classList.add("target");
    lifted.over = over;
  }
});

document.addEventListener("pointerup", () => {
  if (!lifted) return;
  const { row, over } = lifted;
  lifted = null;
  document.querySelectorAll(".lifted, .step-row.target, .region-row.target").forEach((r) => r.classList.remove("lifted", "target"));
  if (over) document.dispatchEvent(new CustomEvent("row-dropped", { detail: { row, over } }));
});
