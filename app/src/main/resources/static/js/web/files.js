// --- Files: chosen or dropped anywhere -----------------------------------------------------------------------
const fileInput = () => document.querySelector("input[type=file][data-drop]");

document.addEventListener("change", (event) => {
  if (event.target.matches("input[type=file][data-drop]") && event.target.files.length) {
    event.target.form.requestSubmit();
  }
});
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
  input.form.requestSubmit();
});

// While a file travels, its bar moves.
document.addEventListener("htmx:xhr:progress", (event) => {
  const upload = event.target.querySelector?.(".upload");
  if (upload && event.detail.lengthComputable) {
    const bar = upload.querySelector("progress");
    upload.hidden = false;
    bar.max = event.detail.total;
    bar.value = event.detail.loaded;
  }
});
document.addEventListener("htmx:afterRequest", (event) => {
  const upload = event.target.querySelector?.(".upload");
  if (upload) upload.hidden = true;
  if (event.detail.xhr.status && event.target.matches?.("form") && event.target.querySelector("input[type=file]")) event.target.reset();
});
