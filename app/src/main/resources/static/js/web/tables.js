// --- Tables ------------------------------------------------------------------------------------------------------
// Whatever is a list with rows (data-table names it) is sorted by its heads, filtered, copied, and goes out as CSV. What
// belongs to the row above it (class acts) goes with it.
const NUMBER = /^[-+–]?\s*[\d,]*\.?\d+/;

const shown = (cell) => {
  const field = cell.querySelector("input:not([type=hidden]):not([type=checkbox]), select");
  if (field) return field.localName === "select" ? field.selectedOptions[0]?.textContent ?? "" : field.value;
  const copy = cell.cloneNode(true);
  copy.querySelectorAll("svg, button:not(.sorts), .visually-hidden, .caption.clear").forEach((one) => one.remove());
  return copy.textContent.replace(/\s+/g, " ").trim();
};
const cells = (row) => [...row.children].filter((cell) => !cell.matches(".row-actions"));
const heads = (table) => cells(table.tHead.rows[0]).filter((head) => !head.querySelector(".visually-hidden:only-child"));

/** Rows with what belongs to each. */
function groups(table) {
  const all = [];
  for (const row of table.tBodies[0].rows) {
    if (row.matches(".acts") && all.length) all[all.length - 1].push(row); else all.push([row]);
  }
  return all;
}

const lines = (table) => [heads(table).map(shown), ...groups(table).filter(([row]) => !row.hidden).map(([row]) => cells(row).slice(0, heads(table).length).map(shown))];

// What a spreadsheet would take for a formula is kept a text.
const quoted = (text) => `"${(/^[=+@\t]|^-(?!\d)/.test(text) ? `'${text}` : text).replaceAll('"', '""')}"`;

function worth(text) {
  const hours = /(\d+) h (\d+) min/.exec(text);
  if (hours) return 3600 * hours[1] + 60 * hours[2];
  const minutes = /^(\d+) min(?: (\d+) s)?/.exec(text);
  if (minutes) return 60 * minutes[1] + Number(minutes[2] ?? 0);
  const number = NUMBER.exec(text);
  return number ? Number(number[0].replace(/[,\s]/g, "").replace("–", "-")) : NaN;
}

function compare(a, b) {
  const [x, y] = [worth(a), worth(b)];
  if (!Number.isNaN(x) && !Number.isNaN(y) && x !== y) return x - y;
  return a.localeCompare(b, undefined, { numeric: true, sensitivity: "base" });
}

function sort(table, head) {
  const at = heads(table).indexOf(head);
  const up = head.getAttribute("aria-sort") !== "ascending";
  heads(table).forEach((other) => other.removeAttribute("aria-sort"));
  head.setAttribute("aria-sort", up ? "ascending" : "descending");
  groups(table).map((rows) => ({ rows, key: shown(cells(rows[0])[at] ?? rows[0].cells[0]) }))
    .sort((a, b) => (up ? 1 : -1) * compare(a.key, b.key))
    .forEach(({ rows }) => table.tBodies[0].append(...rows));
}

function filter(table, words) {
  const wanted = words.toLowerCase().split(/\s+/);
  for (const rows of groups(table)) {
    const text = rows.map((row) => cells(row).map(shown).join(" ")).join(" ").toLowerCase();
    rows.forEach((row) => { row.hidden = !wanted.every((word) => text.includes(word)); });
  }
}

function button(title, icon, act) {
  const one = document.createElement("button");
  one.type = "button";
  one.className = "quiet";
  one.innerHTML = `<i class="bi ${icon}" aria-hidden="true"></i> `;
  one.append(title);
  one.addEventListener("click", () => act(one));
  return one;
}

function download(table) {
  const csv = lines(table).map((line) => line.map(quoted).join(",")).join("\r\n");
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob(["\ufeff", csv, "\r\n"], { type: "text/csv" }));
  link.download = `${table.dataset.table}.csv`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

async function copy(table, pressed) {
  const text = lines(table).map((line) => line.map((cell) => cell.replace(/\t/g, " ")).join("\t")).join("\n");
  try {
    await navigator.clipboard.writeText(text);
    pressed.lastChild.textContent = "Copied";
  } catch {
    pressed.lastChild.textContent = "Not allowed here";
  }
  setTimeout(() => { pressed.lastChild.textContent = "Copy"; }, 1500);
}

/** What each cell is, for screens on which a row is a card. */
function label(table) {
  const names = [...table.tHead.rows[0].cells].map((head) => head.textContent.trim());
  for (const row of [...table.tBodies[0].rows, ...(table.tFoot?.rows ?? [])]) {
    let at = 0;
    for (const cell of row.cells) {
      if (!row.matches(".acts") && cell.colSpan === 1) cell.dataset.label = names[at] ?? "";
      at += cell.colSpan;
    }
  }
}

/** What can be done with a table as a whole; one that is bare has no room for it. */
function tools(table) {
  const row = document.createElement("div");
  row.className = "table-tools";
  if (table.dataset.sorts !== undefined && groups(table).length > 5) {
    const field = document.createElement("input");
    field.type = "search";
    field.className = "form-control form-control-sm";
    field.placeholder = "rows with";
    field.setAttribute("aria-label", "Only rows with");
    field.addEventListener("input", () => filter(table, field.value));
    row.append(field);
  }
  row.append(button("Copy", "bi-clipboard", (one) => copy(table, one)), button("CSV", "bi-filetype-csv", () => download(table)));
  return row;
}

function equip(table) {
  table.dataset.equipped = "";
  label(table);
  if (table.dataset.bare === undefined) table.before(tools(table));
  if (table.dataset.sorts === undefined) return;
  for (const head of heads(table)) {
    const sorter = document.createElement("button");
    sorter.type = "button";
    sorter.className = "sorts";
    sorter.append(...head.childNodes);
    sorter.addEventListener("click", () => sort(table, head));
    head.append(sorter);
  }
}

// What was ticked stays ticked on this device, as long as the plan's stops are the same.
const ticksOf = (table) => `ticked ${table.dataset.ticks}`;
function recall(table) {
  const [plan] = table.dataset.ticks.split(" ");
  for (const key of Object.keys(localStorage)) if (key.startsWith(`ticked ${plan} `) && key !== ticksOf(table)) localStorage.removeItem(key);
  const ticked = JSON.parse(localStorage.getItem(ticksOf(table)) ?? "[]");
  table.querySelectorAll("[data-tick]").forEach((box) => { box.checked = ticked.includes(box.dataset.tick); });
}
document.addEventListener("change", ({ target }) => {
  const table = target.dataset?.tick && target.closest("[data-ticks]");
  if (table) localStorage.setItem(ticksOf(table), JSON.stringify([...table.querySelectorAll("[data-tick]:checked")].map((box) => box.dataset.tick)));
});

const equipAll = () => document.querySelectorAll("table[data-table]:not([data-equipped])").forEach((table) => {
  equip(table);
  if (table.dataset.ticks) recall(table);
});
equipAll();
document.addEventListener("htmx:afterSettle", equipAll);
