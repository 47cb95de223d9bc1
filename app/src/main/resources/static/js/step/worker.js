// STEP solids as a 3MF model, read by a CAD kernel beside the page: each solid with its name and colour, and the faces that
// have colours of their own, in triangles that stay within a twentieth of a millimetre of it.
importScripts("/vendor/occt-import-js.js", "/vendor/fflate.js");

const FINE = { linearUnit: "millimeter", linearDeflectionType: "absolute_value", linearDeflection: 0.05, angularDeflection: 0.35 };
const escaped = (text) => text.replace(/[<>&"'\u0000-\u001f]/g, (c) => `&#${Math.max(32, c.charCodeAt(0))};`);

/** The kernel's colours are light; a file holds them as they are shown (IEC 61966-2-1). */
const level = (light) => Math.round(255 * (light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055));
const hex = (colour) => `#${colour.map((light) => level(Math.min(1, Math.max(0, light))).toString(16).padStart(2, "0")).join("").toUpperCase()}`;

/** The place of the colour of each triangle that lies in a face of another colour than its solid's. */
function painted({ brep_faces: faces, color }, colours) {
  const own = color && hex(color);
  const places = [];
  for (const face of faces) {
    if (face.color && hex(face.color) !== own) for (let i = face.first; i <= face.last; i++) places[i] = colours.indexOf(hex(face.color));
  }
  return places;
}

function mesh({ attributes, index }, paint) {
  const at = attributes.position.array;
  const corners = [];
  for (let i = 0; i < at.length; i += 3) corners.push(`<vertex x="${at[i].toFixed(4)}" y="${at[i + 1].toFixed(4)}" z="${at[i + 2].toFixed(4)}"/>`);
  const of = index.array;
  const triangles = [];
  for (let i = 0; i < of.length; i += 3) {
    const colour = i / 3 in paint ? ` pid="1" p1="${paint[i / 3]}"` : "";
    triangles.push(`<triangle v1="${of[i]}" v2="${of[i + 1]}" v3="${of[i + 2]}"${colour}/>`);
  }
  return `<mesh><vertices>${corners.join("")}</vertices><triangles>${triangles.join("")}</triangles></mesh>`;
}

function model(meshes) {
  const colours = [...new Set(meshes.flatMap((m) => [m, ...m.brep_faces]).filter((of) => of.color).map((of) => hex(of.color)))];
  const bases = colours.length ? `<basematerials id="1">${colours.map((c) => `<base name="${c}" displaycolor="${c}"/>`).join("")}</basematerials>` : "";
  const objects = meshes.map((m, i) => {
    if (i % 20 === 0) postMessage({ done: i, of: meshes.length });
    const colour = m.color ? ` pid="1" pindex="${colours.indexOf(hex(m.color))}"` : "";
    return `<object id="${i + 2}" type="model" name="${escaped(m.name || `Solid ${i + 1}`)}"${colour}>${mesh(m, painted(m, colours))}</object>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?><model unit="millimeter" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>${bases}${objects.join("")}</resources><build>${meshes.map((m, i) => `<item objectid="${i + 2}"/>`).join("")}</build></model>`;
}

const TYPES = '<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>';
const RELS = '<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>';

// What an archive may hold at most, as the server has it, too.
const LARGEST = 1 << 28;
const MOST = 60;

/** What a person can be told is wrong with a file. */
class Wrong extends Error {}
const DAMAGED = "is cut off or damaged; export it again.";

function threeMf(kernel, bytes) {
  const read = kernel.ReadStepFile(bytes, FINE);
  if (!read.success) throw new Wrong(DAMAGED);
  const solids = read.meshes.filter((m) => m.index.array.length >= 12);
  if (!solids.length) throw new Wrong("holds no solids; export solids, not surfaces.");
  return fflate.zipSync({ "[Content_Types].xml": fflate.strToU8(TYPES), "_rels/.rels": fflate.strToU8(RELS), "3D/3dmodel.model": fflate.strToU8(model(solids)) }, { level: 4 });
}

async function kernel() {
  try {
    return await occtimportjs({ locateFile: () => "/vendor/occt-import-js.wasm" });
  } catch (wrong) {
    console.warn(wrong);
    throw new Wrong("cannot be read by this browser; export it as 3MF or STL, and give that.");
  }
}

const isStepName = ({ name }) => /\.(step|stp)$/i.test(name);

/** Nothing in the archive gives way to another thing of its name. */
const free = (wanted, name, ...taken) => taken.some((names) => wanted in names) ? `${name}.3mf` : wanted;

/** What is wrong is said of the file within the archive. */
function named(name, make) {
  try {
    return make();
  } catch (wrong) {
    throw Object.assign(wrong instanceof Wrong ? wrong : new Wrong(DAMAGED), { of: name });
  }
}

/** An archive whose STEP files are 3MF, or nothing where it holds none. */
async function archive(bytes) {
  const names = [];
  let size = 0;
  fflate.unzipSync(bytes, { filter: (file) => { names.push(file); size += file.originalSize; return false; } });
  const steps = names.filter(isStepName);
  // What is too much is said by who reads it next.
  if (!steps.length || steps.length > MOST || size > LARGEST) return null;
  const entries = fflate.unzipSync(bytes);
  const reader = await kernel();
  const given = {};
  for (const [name, content] of Object.entries(entries)) {
    if (isStepName({ name })) given[free(name.replace(/[^.]+$/, "3mf"), name, entries, given)] = named(name, () => threeMf(reader, content)); else given[name] = content;
  }
  return fflate.zipSync(given, { level: 1 });
}

onmessage = async ({ data }) => {
  const bytes = new Uint8Array(data);
  try {
    if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
      const zip = await archive(bytes);
      if (zip) postMessage({ archive: zip.buffer }, [zip.buffer]); else postMessage({ asItIs: true });
    } else {
      const made = threeMf(await kernel(), bytes);
      postMessage({ model: made.buffer }, [made.buffer]);
    }
  } catch (wrong) {
    console.warn(wrong);
    // An archive that cannot be unpacked here is for the server to judge.
    if (!(wrong instanceof Wrong) && bytes[0] === 0x50) postMessage({ asItIs: true });
    else postMessage({ wrong: wrong instanceof Wrong ? wrong.message : DAMAGED, of: wrong.of });
  }
};
