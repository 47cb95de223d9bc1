// One list of spools serves every menu of the desk: a menu takes it in when a hand comes near.
import { placeOf, standingAt } from "../web/places.js";

function fill(event) {
  const menu = event.target.closest?.("select[data-spools]");
  const all = document.getElementById("spool-options");
  if (!menu || !all) return;
  delete menu.dataset.spools;
  const [now] = menu.options;
  for (const option of [...all.content.cloneNode(true).children]) {
    if (option.value === now.value) now.textContent = option.textContent;
    else menu.append(option);
  }
}

for (const near of ["pointerover", "pointerdown", "focusin", "keydown"]) document.addEventListener(near, fill, true);

// A spool that the shelf has not yet is made on the spot, and chosen where it was asked for.
const dialog = () => document.getElementById("new-spool-dialog");
let asker = null;
let before = null;

document.addEventListener("focusin", ({ target }) => { if (target.matches?.("select")) before = target.value; });
document.addEventListener("change", (event) => {
  const menu = event.target;
  if (!menu.matches?.("select") || menu.value !== "new" || !dialog()) return;
  event.stopPropagation();
  asker = placeOf(menu);
  menu.value = before && before !== "new" ? before : menu.options[0].value;
  document.getElementById("new-spool").reset();
  dialog().showModal();
}, true);

document.addEventListener("htmx:afterRequest", (event) => {
  if (event.target.id !== "new-spool" || event.detail.xhr.status !== 200) return;
  const option = new DOMParser().parseFromString(event.detail.xhr.responseText, "text/html").querySelector("option");
  dialog().close();
  const menu = standingAt(asker);
  document.getElementById("spool-options")?.content.prepend(option.cloneNode(true));
  if (!menu) return;
  menu.prepend(option);
  menu.value = option.value;
  menu.focus();
  menu.dispatchEvent(new Event("change", { bubbles: true }));
});
