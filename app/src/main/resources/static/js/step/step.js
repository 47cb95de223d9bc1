// STEP files are read in the browser, and go on as 3MF; those in an archive, too.
const HEAD = 256;

/** Larger archives are the server's to open. */
const LARGEST = 1 << 28;

/** Whether a file is one, or, where there may be {@code archives}, one that may hold some. */
export async function isStep(file, archives) {
  const head = await file.slice(0, HEAD).text();
  return /^\s*ISO-10303-21;/.test(head) || (archives && file.size < LARGEST && head.startsWith("PK") && /\.zip$/i.test(file.name));
}

/** A STEP file as 3MF, an archive with its STEP files as 3MF, and any other archive as it is; {@code hear} is told how far it is, and {@code signal} gives it up. */
export function converted(file, hear, signal) {
  return new Promise((done, fail) => {
    const worker = new Worker("/js/step/worker.js");
    const end = (what, value) => { worker.terminate(); what(value); };
    signal.addEventListener("abort", () => end(fail, null));
    worker.onerror = () => end(fail, new Error(`“${file.name}” could not be read here; export it as 3MF or STL, and give that.`));
    worker.onmessage = ({ data }) => {
      if (data.asItIs) end(done, file);
      else if (data.archive) end(done, new File([data.archive], file.name, { type: "application/zip" }));
      else if (data.model) end(done, new File([data.model], `${file.name.replace(/\.[^.]+$/, "")}.3mf`, { type: "model/3mf" }));
      else if (data.wrong) end(fail, new Error(`The STEP file “${data.of ?? file.name}” ${data.wrong}`));
      else hear(data.done, data.of);
    };
    file.arrayBuffer().then((bytes) => worker.postMessage(bytes, [bytes]));
  });
}
