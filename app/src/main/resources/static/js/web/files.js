// --- Files: chosen or dropped anywhere -----------------------------------------------------------------------
import { converted, isStep } from "../step/step.js";
import { say } from "./notices.js";

const fileInput = () => document.querySelector("input[type=file][data-drop]");

document.addEventListener("change", (event) => {
  if (event.target.matches("input[type=file]") && event.target.files.length) give(event.target);
});

/** Sends what was chosen, where its form has no button for that; solids of CAD programs are read here first. */
async function give(input) {
  const files = [...input.files];
  const steps = await Promise.all(files.map((file) => isStep(file, input.matches("[data-drop]"))));
  if (steps.includes(true) && !await readSolids(input, files, steps)) return;
  if (input.matches("[data-drop]")) input.form.requestSubmit();
}

/** Also where the file was dropped on a page on which the place for it is folded in. */
function show(upload) {
  upload.hidden = false;
  upload.closest("details")?.setAttribute("open", "");
}

async function readSolids(input, files, steps) {
  const { form } = input;
  const giveUp = new AbortController();
  const button = form.querySelector("button:not([type=button])");
  const upload = form.querySelector(".upload");
  const bar = upload?.querySelector("progress");
  const stop = () => giveUp.abort();
  if (upload) {
    bar.removeAttribute("value");
    show(upload);
    form.addEventListener("htmx:abort", stop, { once: true });
  }
  if (button) button.disabled = true;
  try {
    const all = new DataTransfer();
    for (const [i, file] of files.entries()) {
      all.items.add(steps[i] ? await converted(file, (done, of) => { if (bar) { bar.max = of; bar.value = done; } }, giveUp.signal) : file);
    }
    input.files = all.files;
    return true;
  } catch (wrong) {
    input.value = "";
    if (wrong) say(wrong.message);
    return false;
  } finally {
    if (upload) upload.hidden = true;
    if (button) button.disabled = false;
    form.removeEventListener("htmx:abort", stop);
  }
}
document.addEventListener("dragover", (event) => {
  if (!fileInput() || !event.dataTransfer?.types.includes("Files")) return;
  event.preventDefault();
  document.body.classList.add("dropping");
});
document.addEventListener("dragleave", (event) => {
  if (!event.relatedTarget) document.body.classList.remove("dropping");
});
document.addEventListener("drop", (event) => {
  const input = fileInput();
  document.body.classList.remove("dropping");
  if (!input || !event.dataTransfer?.files.length) return;
  event.preventDefault();
  input.files = event.dataTransfer.files;
  give(input);
});

// While a file travels, its bar moves.
document.addEventListener("htmx:xhr:progress", (event) => {
  const upload = event.target.querySelector?.(".upload");
  if (upload && event.detail.lengthComputable) {
    const bar = upload.querySelector("progress");
    show(upload);
    bar.max = event.detail.total;
    bar.value = event.detail.loaded;
  }
});
document.addEventListener("htmx:afterRequest", (event) => {
  const upload = event.target.querySelector?.(".upload");
  if (upload) upload.hidden = true;
  if (event.detail.xhr.status && event.target.matches?.("form") && event.target.querySelector("input[type=file]")) event.target.reset();
});

// What was made for the asking is fetched at once.
document.addEventListener("htmx:load", ({ detail }) => detail.elt.querySelector?.("[data-fetch]")?.click());
