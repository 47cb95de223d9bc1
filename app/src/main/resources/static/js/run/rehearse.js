// Shows how far a rehearsal is, as the server tells it; when its state changes, the server draws what can be done.
const page = document.querySelector(".rehearsal");
if (page) {
  const at = (id) => document.getElementById(id);
  const clock = (s) => `${Math.floor(s / 3600)} h ${String(Math.floor(s / 60) % 60).padStart(2, "0")} min ${String(Math.floor(s) % 60).padStart(2, "0")} s`;
  const show = (now) => {
    at("nozzle").toggleAttribute("hidden", now.state === "none" || now.lines === 0);
    at("nozzle").setAttribute("transform", `translate(${now.x} ${now.y})`);
    at("now-layer").textContent = now.layer || "–";
    at("now-z").textContent = now.z.toFixed(2);
    at("now-heat").textContent = Math.round(now.temperature);
    at("now-time").textContent = clock(now.seconds);
    at("now-line").textContent = now.line;
    at("rehearsal-progress").value = now.whole ? page.dataset.lines : now.lines;
    const cover = at("not-printed");
    const { bottom, first, each } = cover.dataset;
    const above = now.layer ? bottom - first - each * (now.layer - 1) : bottom;
    cover.setAttribute("height", now.whole ? 0 : Math.max(0, above));
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
      await htmx.ajax("GET", page.dataset.stage, { target: "#stage", swap: "outerHTML" });
      await new Promise((later) => setTimeout(later, 150));
    }
    asking = false;
  };
  const events = new EventSource(page.dataset.events);
  events.addEventListener("now", (event) => {
    const now = JSON.parse(event.data);
    if (now.lines) show(now);
    latest = `${now.state} ${now.stop}`;
    renew();
  });
  window.addEventListener("pagehide", () => events.close());
}
