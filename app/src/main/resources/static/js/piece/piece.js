// The finished piece: clicks on its pictures, and the body that can be turned.
import { Body } from "./body.js";
import { tell } from "./pointed.js";

let body = null;

async function begin() {
  const stage = document.getElementById("piece-body");
  if (body && body.stage !== stage) {
    body.end();
    body = null;
  }
  if (stage && !body) {
    body = new Body(stage);
    // Where nothing can be turned, the picture stays.
    if (!(await body.begin())) body.end();
  }
}

document.addEventListener("DOMContentLoaded", begin);
document.addEventListener("htmx:afterSettle", begin);
if (document.readyState !== "loading") begin();

// The desk's cursor in another window cuts the piece, as long as that is wanted.
new BroadcastChannel("tranche-cursor").addEventListener("message", ({ data }) => {
  const cut = document.getElementById("piece-cut");
  const follow = document.getElementById("piece-follow");
  if (!cut || !follow?.checked || follow.dataset.plan !== data.plan) return;
  cut.value = data.layer;
  cut.dispatchEvent(new Event("input", { bubbles: true }));
});

// From px to mm by the matrix the picture comes with; what lies there is the server's to say.
document.addEventListener("click", (event) => {
  const flat = event.target.closest?.("#piece-flat");
  const svg = flat?.querySelector("svg");
  if (!svg) return;
  const px = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
  const mm = px.matrixTransform(new DOMMatrix(flat.dataset.matrix.replace(/ /g, ",")).inverse());
  tell(flat.dataset.at, { x: mm.x, y: mm.y });
});
