// --- While nobody answers --------------------------------------------------------------------------------------
// What was sent to a server that is gone is kept, and sent in its order once it answers again. What takes longer than a
// moment shows that it is under way.
import { askLater } from "./queue.js";
import { quiet, say } from "./notices.js";

const kept = [];
let asking = null;

const many = () => `${kept.length} ${kept.length === 1 ? "change is" : "changes are"}`;

document.addEventListener("htmx:sendError", (event) => {
  const { requestConfig, elt, target } = event.detail;
  if (requestConfig.verb === "get") {
    if (!kept.length) say("Tranche does not answer; start it again. Nothing you typed is lost.", "unanswered");
    // A page that waits for work goes on asking: what it hears next may be that the work is gone.
    if (elt.closest(".job")) setTimeout(() => htmx.trigger(elt, "asked-again"), 1500);
    return;
  }
  const { verb, path, triggeringEvent, parameters } = requestConfig;
  const declared = elt.getAttribute(`hx-${verb}`) === path;
  const before = kept.findIndex((one) => one.elt === elt && declared);
  if (before >= 0) kept.splice(before, 1);
  const { seen, ...values } = Object.fromEntries(Object.entries(parameters));
  kept.push({ elt, verb, path, declared, said: null, context: { event: triggeringEvent, values: declared ? pressed(triggeringEvent) : values, target: target.id ? `#${target.id}` : undefined, swap: requestConfig.swapOverride ?? "outerHTML" } });
  say(`Tranche does not answer. ${many()} kept here and sent as soon as it does; leave this page open.`, "offline");
  asking ??= setInterval(knock, 1500);
});

document.addEventListener("htmx:afterOnLoad", quiet);

/** The button that was pressed, which is sent with its form. */
function pressed(event) {
  const button = event?.submitter;
  return button?.name ? { [button.name]: button.value } : {};
}

async function knock() {
  try {
    const answer = await fetch("/actuator/health/readiness", { cache: "no-store" });
    if (!answer.ok) return;
  } catch {
    return;
  }
  clearInterval(asking);
  asking = null;
  say(`Tranche answers again; ${many()} sent.`);
  kept.splice(0).forEach(askLater);
}

addEventListener("beforeunload", (event) => { if (kept.length) event.preventDefault(); });

// --- Something is under way
const under = new Set();
const busy = () => {
  const is = under.size > 0;
  document.getElementById("busy").hidden = !is;
  document.getElementById("content")?.setAttribute("aria-busy", String(is));
};
document.addEventListener("htmx:beforeRequest", ({ detail: { xhr, elt } }) => {
  if (elt.closest("[data-quietly]")) return;
  const timer = setTimeout(() => { under.add(xhr); busy(); }, 200);
  xhr.addEventListener("loadend", () => { clearTimeout(timer); if (under.delete(xhr)) busy(); });
});
