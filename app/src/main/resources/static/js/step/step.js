// STEP files are read in the browser, and go on as 3MF.
const HEAD = 256;

export async function isStep(file) {
  return /^\s*ISO-10303-21;/.test(await file.slice(0, HEAD).text());
}

/** A STEP file as 3MF; {@code hear} is told how far it is, and {@code signal} gives it up. */
export function converted(file, hear, signal) {
  return new Promise((done, fail) => {
    const worker = new Worker("/js/step/worker.js");
    const end = (what, value) => { worker.terminate(); what(value); };
    signal.addEventListener("abort", () => end(fail, null));
    worker.onerror = () => end(fail, new Error(`“${file.name}” could not be read here; export it as 3MF or STL, and give that.`));
    worker.onmessage = ({ data }) => {
      if (data.model) end(done, new File([data.model], `${file.name.replace(/\.[^.]+$/, "")}.3mf`, { type: "model/3mf" }));
      else if (data.wrong) end(fail, new Error(`The STEP file “${file.name}” ${data.wrong}`));
      else hear(data.done, data.of);
    };
    file.arrayBuffer().then((bytes) => worker.postMessage(bytes, [bytes]));
  });
}
