// Shows how far a rehearsal is, as the server tells it; when its state changes, the server draws what can be done.
import { quiet, say } from "../web/notices.js";
import { listen } from "../web/told.js";

const page = document.querySelector(".rehearsal");
if (page) {
  const at = (id) => document.getElementById(id);
  const two = (n) => String(Math.floor(n)).padStart(2, "0");
  const clock = (s) => `${s < 3600 ? "" : `${Math.floor(s / 3600)} h `}${two(s / 60 % 60)} min ${two(s % 60)} s`;
  const show = (now) => {
    const none = now.state === "none";
    const read = (id, what) => { at(id).textContent = none ? "–" : what; };
    at("nozzle").toggleAttribute("hidden", none || now.lines === 0);
    at("nozzle").setAttribute("transform", `translate(${now.x} ${now.y})`);
    read("now-layer", now.layer || "–");
    read("now-z", now.z.toFixed(2));
    read("now-heat", Math.round(now.temperature));
    read("now-time", clock(now.seconds));
    read("now-line", now.line || "–");
    at("rehearsal-progress").value = now.whole ? page.dataset.lines : now.lines;
    const cover = at("not-printed");
    const { bottom, first, each } = cover.dataset;
    const above = now.layer ? bottom - first - each * (now.layer - 1) : bottom;
    cover.setAttribute("height", none || now.whole ? 0 : Math.max(0, above));
    const score = at("now-score");
    const { left, right, total } = score.dataset;
    const x = Number(left) + (right - left) * Math.min(1, now.seconds / total);
    score.setAttribute("x1", x);
    score.setAttribute("x2", x);
  };
  // What the stage shows is asked for until it is what the server told last.
  let latest = "";
  let asking = false;
  const shown = () => `${at("stage").dataset.state} ${at("stage").dataset.stop ?? ""}`;
  const renew = async () => {
    if (asking) return;
    asking = true;
    while (shown() !== latest) {
      const before = shown();
      await htmx.ajax("GET", page.dataset.stage, { values: { was: at("stage").dataset.state }, target: "#stage", swap: "outerHTML" });
      await new Promise((later) => setTimeout(later, shown() === before ? 1500 : 150));
    }
    asking = false;
  };
  const hear = (data) => {
    const now = JSON.parse(data);
    if (now.lines || now.state === "none") show(now);
    latest = `${now.state} ${now.stop}`;
    renew();
  };
  listen(page.dataset.events, { now: hear }, () => say("Tranche does not answer; what is seen here is how far it was.", "unanswered"), quiet);
}
