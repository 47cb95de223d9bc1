// Sentences that the page itself has to say.
const notice = () => document.getElementById("notice");

export function say(sentence, kind = "") {
  const box = document.createElement("div");
  box.className = `notice ${kind}`;
  box.setAttribute("role", "alert");
  const words = document.createElement("span");
  words.textContent = sentence;
  box.append(words);
  notice().replaceChildren(box);
}

/** Somebody answers again. */
export const quiet = () => document.querySelector("#notice > .unanswered")?.remove();

// A sentence that was said is gone once the next thing worked; but not when it says that the page was stale.
document.addEventListener("htmx:beforeSwap", (event) => {
  if (event.detail.xhr.status === 200 && (event.target.id === "desk" || event.target.id === "rig") && event.detail.requestConfig.triggeringEvent?.type !== "desk-stale") {
    notice().replaceChildren();
  }
});
document.addEventListener("htmx:responseError", (event) => {
  if (event.detail.xhr.status >= 500) say("Something went wrong in Tranche itself; nothing was changed. The log has the details.");
  if (event.detail.xhr.status === 403) say("This page has grown old; reload it and do it again. Nothing was changed.");
});
document.addEventListener("click", ({ target }) => target.closest(".dismiss")?.closest("#notice").replaceChildren());
