// --- Work under way --------------------------------------------------------------------------------------------
// A page that is loaded anew, or come back to, shows the work that was begun on it and goes on.
const slots = "[id$='-job']";
const key = (slot) => `job ${location.pathname} #${slot.id}`;
const anew = performance.getEntriesByType("navigation")[0]?.type === "reload";

/** Where a slot's progress is asked for, if work is under way in it. */
const asked = (within) => within.querySelector(".job [hx-get^='/jobs/']")?.getAttribute("hx-get");

document.addEventListener("htmx:load", ({ detail: { elt } }) => {
  const shown = elt.closest?.(slots);
  for (const slot of shown ? [shown] : elt.querySelectorAll?.(slots) ?? []) {
    const address = asked(slot);
    // Also where a file was dropped on a page on which the place for it is folded in.
    if (slot.querySelector(".job")) slot.closest("details")?.setAttribute("open", "");
    if (address) sessionStorage.setItem(key(slot), address);
    else if (slot.querySelector(".job")) sessionStorage.removeItem(key(slot));
    else if (sessionStorage.getItem(key(slot))) again(slot, sessionStorage.getItem(key(slot)));
  }
});

// Work that leads to another page is over.
document.addEventListener("htmx:beforeOnLoad", ({ detail: { elt, xhr } }) => {
  const slot = elt.closest(slots);
  if (slot && ["HX-Redirect", "HX-Refresh"].some((name) => xhr.getResponseHeader(name))) sessionStorage.removeItem(key(slot));
});

/** Work that ended meanwhile says why it failed, and leads on only where its page was loaded anew. */
async function again(slot, address) {
  sessionStorage.removeItem(key(slot));
  try {
    const answer = await fetch(address, { headers: { "HX-Request": "true" } });
    const said = document.createElement("div");
    said.innerHTML = await answer.text();
    if (slot.childElementCount) return;
    if (anew || asked(said) || said.querySelector("[role=alert]")) htmx.ajax("GET", address, { target: slot, swap: "innerHTML" });
  } catch {
    // Nobody answers: what the page asks for next says so.
  }
}
