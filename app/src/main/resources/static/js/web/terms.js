// A word's meaning beside the ? that was pressed; the page opens and closes it itself (popover), Escape too.
import { beside } from "./beside.js";

const box = document.getElementById("term");
let asked = null;

document.addEventListener("click", async ({ target }) => {
  const button = target.closest?.(".term");
  if (!button) return;
  asked = button;
  const answer = await fetch(`/words/${button.dataset.term}`).catch(() => null);
  if (asked !== button) return;
  box.innerHTML = answer?.ok ? await answer.text() : "Tranche does not answer; try again in a moment.";
  if (box.matches(":popover-open")) beside(box, button);
});
box.addEventListener("toggle", () => { if (box.matches(":popover-open") && asked?.isConnected) beside(box, asked); });
addEventListener("scroll", () => { if (box.matches(":popover-open")) box.hidePopover(); }, true);
