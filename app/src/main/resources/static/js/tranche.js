// Keys, pointing and dropping. What they mean for a print is the server's to say.
(() => {
  "use strict";

  const typing = (target) => target.closest("input, select, textarea, dialog[open]");
  const desk = () => document.getElementById("desk");
  const layerPlan = () => document.getElementById("layer-plan");

  // --- Theme and keys list -------------------------------------------------------------------------------------
  document.getElementById("night")?.addEventListener("click", () => {
    const next = document.documentElement.dataset.bsTheme === "dark" ? "light" : "dark";
    document.documentElement.dataset.bsTheme = next;
    localStorage.setItem("tranche-theme", next);
  });
  document.getElementById("keys-button")?.addEventListener("click", () => document.getElementById("keys").showModal());

  // --- The cursor ----------------------------------------------------------------------------------------------
  let wanted = null;
  let underway = false;

  function goTo(layer) {
    const plan = layerPlan();
    if (!plan) return;
    wanted = Math.max(1, Math.min(Number(plan.dataset.of), layer));
    if (!underway) fetchCursor();
  }

  function fetchCursor() {
    const layer = wanted;
    const zoom = document.getElementById("score")?.dataset.zoom || 1;
    const beside = document.getElementById("cursor-beside").value;
    underway = true;
    const state = ["side", "region", "drawn"].map((name) => `&${name}=${document.querySelector(`#desk-state [name=${name}]`).value}`).join("");
    htmx.ajax("GET", `/plans/${desk().dataset.plan}/cursor?at=${layer}&zoom=${zoom}&beside=${beside}${state}`, {
      source: "#layer-plan", target: "#layer-plan", swap: "outerHTML",
    }).finally(() => {
      underway = false;
      history.replaceState(history.state, "", beside ? `?layer=${layer}&beside=${beside}` : `?layer=${layer}`);
      if (wanted !== layer) fetchCursor(); else wanted = null;
    });
  }

  /** Keeps a layer in sight beside the one under the cursor, or, with nothing, puts it away. */
  function keepBeside(layer) {
    document.getElementById("cursor-beside").value = layer;
    goTo(here());
  }

  const here = () => wanted ?? Number(layerPlan().dataset.layer);

  document.addEventListener("keydown", (event) => {
    if (event.key === "?" && !typing(event.target)) {
      document.getElementById("keys").showModal();
      event.preventDefault();
      return;
    }
    const row = event.target.closest(".step-row");
    if (row && event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      moveStep(row, event.key === "ArrowUp" ? -1 : 1, event.target.id.replace(/^step-\d+-/, ""));
      event.preventDefault();
      return;
    }
    const undo = document.getElementById(event.shiftKey ? "redo" : "undo");
    if (undo && !typing(event.target) && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
      undo.click();
      event.preventDefault();
      return;
    }
    const region = event.target.closest(".region-row");
    if (region && event.altKey && !event.shiftKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      rankRegion(region, event.key === "ArrowUp" ? -1 : 1);
      event.preventDefault();
      return;
    }
    if (corners && (event.key === "Enter" || event.key === "Escape")) {
      finishPolygon(event.key === "Enter");
      event.preventDefault();
      return;
    }
    if (!layerPlan() || typing(event.target)) return;
    if (event.shiftKey && nudges[event.key] && chosenZone()) {
      const by = event.altKey ? 0.1 : 0.5;
      const [dx, dy] = nudges[event.key];
      post(`regions/${chosenZone().dataset.zone}/nudge`, { dx: dx * by, dy: dy * by });
      event.preventDefault();
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const moves = {
      ArrowUp: () => here() + 1, ArrowDown: () => here() - 1,
      PageUp: () => here() + 10, PageDown: () => here() - 10,
      Home: () => 1, End: () => Number(layerPlan().dataset.of),
      "[": () => Number(layerPlan().dataset.lower || here()), "]": () => Number(layerPlan().dataset.higher || here()),
    };
    if (moves[event.key]) {
      goTo(moves[event.key]());
      event.preventDefault();
    } else if (event.key === "b") {
      keepBeside(document.getElementById("cursor-beside").value ? "" : String(here()));
      event.preventDefault();
    } else if (event.key === "s") {
      document.getElementById("start-height").select();
      event.preventDefault();
    }
  });

  document.addEventListener("click", (event) => {
    const target = event.target;
    const dismiss = target.closest(".dismiss");
    if (dismiss) dismiss.closest("#notice").replaceChildren();
    const fill = target.closest("[data-fill]");
    if (fill) {
      const [name, value] = fill.dataset.fill.split("=");
      const field = document.querySelector(`#printer-form [name=${name}]`);
      field.value = value;
      field.focus();
    }
    const keep = target.closest("[data-keep]");
    if (keep) keepBeside(keep.dataset.keep);
    const shift = target.closest("[data-shift]");
    if (shift) moveStep(shift.closest(".step-row"), Number(shift.dataset.shift), shift.dataset.shift === "-1" ? "up" : "down");
    const abort = target.closest("[data-abort]");
    if (abort) htmx.trigger(abort.form, "htmx:abort");
    const go = target.closest("[data-go]");
    if (go) goTo(Number(go.dataset.go));
    const move = target.closest("[data-move]");
    if (move) goTo(here() + Number(move.dataset.move));
    const drawn = target.closest("[data-drawn]");
    if (drawn) {
      document.getElementById("drawn").value = drawn.dataset.drawn;
      goTo(here());
    }
    const rank = target.closest("[data-rank]");
    if (rank) rankRegion(rank.closest(".region-row"), Number(rank.dataset.rank));
    if (target.closest("#draw-polygon")) startPolygon();
    const plan = target.closest("svg.layer-plan[data-layer]");
    if (plan && corners) addCorner(plan, event);
    else if (plan && target.closest(".plastic")) {
      const at = millimetres(plan, event);
      htmx.ajax("GET", `/plans/${desk().dataset.plan}/piece?layer=${plan.dataset.layer}&x=${at.x}&y=${at.y}`, { source: "#layer-plan", target: "#piece", swap: "outerHTML" });
    }
    const chip = target.closest("[data-start]");
    if (chip) {
      document.getElementById("start-height").value = chip.dataset.start;
      document.getElementById("start-spool").focus();
    }
    document.querySelectorAll("details.step[open]").forEach((step) => {
      if (!step.contains(target)) step.open = false;
    });
  });

  document.addEventListener("keyup", (event) => {
    if (event.key === "Escape") document.querySelectorAll("details.step[open]").forEach((step) => { step.open = false; });
  });

  // The layer under the pointer is named at once, where the section's own caption stands.
  let captionOfSection = null;
  document.addEventListener("pointerover", (event) => {
    const caption = document.getElementById("pointed");
    if (!caption) return;
    const band = event.target.closest?.(".band");
    if (band) {
      captionOfSection ??= caption.textContent;
      caption.textContent = band.dataset.name;
    } else if (captionOfSection !== null) {
      caption.textContent = captionOfSection;
      captionOfSection = null;
    }
  });

  // --- Pointing at layers, dragging borders --------------------------------------------------------------------
  let dragged = null;

  const bandAt = (event) => document.elementsFromPoint(event.clientX, event.clientY).find((e) => e.matches?.(".band"));

  document.addEventListener("pointerdown", (event) => {
    const handle = event.target.closest?.(".border-handle");
    if (!handle) return;
    dragged = { index: handle.dataset.index, band: null };
    handle.classList.add("dragged");
    event.preventDefault();
  });

  document.addEventListener("pointermove", (event) => {
    if (!dragged) return;
    const band = bandAt(event);
    if (band && band !== dragged.band) {
      dragged.band?.classList.remove("target");
      band.classList.add("target");
      dragged.band = band;
    }
  });

  document.addEventListener("pointerup", (event) => {
    if (dragged) {
      const { index, band } = dragged;
      dragged = null;
      document.querySelector(".dragged")?.classList.remove("dragged");
      if (band) {
        htmx.ajax("POST", `/plans/${desk().dataset.plan}/starts/${index}/move`, {
          source: "#desk", target: "#desk", swap: "outerHTML", values: { height: band.dataset.bottom },
        });
      }
      return;
    }
    const band = event.target.closest?.(".band");
    if (band) goTo(Number(band.dataset.layer));
  });

  // --- Zones on the layer plan: drawn, dragged, nudged, ranked -------------------------------------------------
  const nudges = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
  const chosenZone = () => document.querySelector("svg.layer-plan[data-layer] .zone.chosen");
  const post = (path, values) => htmx.ajax("POST", `/plans/${desk().dataset.plan}/${path}`, { source: "#desk", target: "#desk", swap: "outerHTML", values });

  /** Where a pointer is, in mm of the model: the drawing's own matrix knows. */
  function millimetres(plan, event) {
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(plan.querySelector(".mm").getScreenCTM().inverse());
    return { x: at.x.toFixed(3), y: at.y.toFixed(3) };
  }

  let corners = null;

  function startPolygon() {
    corners = [];
    document.body.classList.add("drawing");
    document.getElementById("piece").textContent = "Click the corners; Enter closes the polygon, Esc gives it up.";
  }

  function addCorner(plan, event) {
    const at = millimetres(plan, event);
    corners.push(at);
    const dot = document.createElementNS("http://www.w3.org/2000/svg", "circle");
    const here = new DOMPoint(event.clientX, event.clientY).matrixTransform(plan.getScreenCTM().inverse());
    dot.setAttribute("class", "corner");
    dot.setAttribute("r", "3.5");
    dot.setAttribute("cx", here.x);
    dot.setAttribute("cy", here.y);
    plan.append(dot);
  }

  function finishPolygon(keep) {
    const given = corners;
    corners = null;
    document.body.classList.remove("drawing");
    document.querySelectorAll(".corner").forEach((dot) => dot.remove());
    document.getElementById("piece").textContent = "";
    if (keep) {
      post("regions/polygon", { corners: given.map((c) => `${c.x} ${c.y}`).join(", "), spool: document.getElementById("region-spool").value });
    }
  }

  /** The list shows the winner first, the order ends with it. */
  function rankRegion(row, by) {
    const from = Number(row.dataset.index);
    rankRegionTo(row, from - by);
  }

  function rankRegionTo(row, to) {
    const list = row.closest(".region-list");
    const from = Number(row.dataset.index);
    if (to < 0 || to >= list.children.length || to === from) return;
    focusNext = `region-${to}`;
    post(`regions/${from}/move`, { to });
  }

  let zoneDragged = null;

  document.addEventListener("pointerdown", (event) => {
    const zone = event.target.closest?.(".zone.chosen");
    const plan = zone?.closest("svg.layer-plan[data-layer]");
    if (!plan || corners) return;
    zoneDragged = { zone, plan, from: millimetres(plan, event), start: { x: event.clientX, y: event.clientY } };
    event.preventDefault();
  });

  document.addEventListener("pointermove", (event) => {
    if (!zoneDragged) return;
    const scale = zoneDragged.plan.getScreenCTM().a;
    zoneDragged.zone.setAttribute("transform", `translate(${(event.clientX - zoneDragged.start.x) / scale} ${(event.clientY - zoneDragged.start.y) / scale})`);
  });

  document.addEventListener("pointerup", (event) => {
    if (!zoneDragged) return;
    const { zone, plan, from } = zoneDragged;
    zoneDragged = null;
    const to = millimetres(plan, event);
    const dx = to.x - from.x;
    const dy = to.y - from.y;
    if (Math.hypot(dx, dy) >= 0.05) post(`regions/${zone.dataset.zone}/drag`, { dx, dy });
  });

  // --- One thing after another ---------------------------------------------------------------------------------
  // What is asked of a page while an answer is on its way waits for it, and is then asked by what stands for the same
  // thing on the page that arrived: the element that was clicked is gone by then, and another may have its place. The
  // very same asked again is a double click, and is asked once; but for what is marked data-repeats.
  const PAGES = "#desk, #rig, main[hx-target]";
  const waiting = [];
  let answering = null;

  const own = (elt, verb) => elt.getAttribute(`hx-${verb}`)?.replace(/([?&])seen=\d+/, "$1");
  const label = (elt) => elt.localName === "button" && elt.dataset.repeats === undefined ? (elt.getAttribute("aria-label") ?? elt.textContent).trim() : "";
  const FIELDS = "input, select, textarea";
  const said = (elt) => (elt.matches(FIELDS) ? [elt] : [...elt.querySelectorAll(FIELDS)])
    .map((field) => ["checkbox", "radio"].includes(field.type) ? field.checked : field.value).join("\n");

  function standIn({ elt, verb, declared }) {
    if (elt.isConnected) return elt;
    if (!declared) return document.getElementById(elt.id);
    return [...document.querySelectorAll(elt.localName)].find((e) => own(e, verb) === own(elt, verb)
      && e.getAttribute("hx-vals") === elt.getAttribute("hx-vals") && label(e) === label(elt));
  }

  document.addEventListener("htmx:confirm", (event) => {
    const { elt, verb, path, triggeringEvent, etc } = event.detail;
    if (!answering || !elt.closest(PAGES)) return;
    event.preventDefault();
    const declared = elt.getAttribute(`hx-${verb}`) === path;
    const again = (before) => before.elt === elt && before.said === said(elt);
    if (declared && elt.dataset.repeats === undefined && (again(answering) || waiting.some(again))) return;
    if (triggeringEvent?.type === "change" && waiting.some((w) => w.elt.id === elt.id && w.path === path)) return;
    const button = triggeringEvent?.submitter;
    const values = { ...etc.values, ...(button?.name ? { [button.name]: button.value } : {}) };
    const target = etc.targetOverride && `#${etc.targetOverride.id}`;
    const context = { event: triggeringEvent, values, target, swap: etc.swapOverride, select: etc.select };
    waiting.push({ elt, verb, path, declared, said: said(elt), context });
  });

  document.addEventListener("htmx:beforeRequest", (event) => {
    const { elt, xhr } = event.detail;
    if (elt.closest(PAGES)) answering = { xhr, elt, said: said(elt) };
  });

  function answered(event) {
    if (event.detail.xhr !== answering?.xhr) return;
    answering = null;
    if (event.detail.failed && event.detail.xhr.status === 0) waiting.length = 0;
    queueMicrotask(askNext);
  }

  function askNext() {
    while (!answering && waiting.length) {
      const next = waiting.shift();
      const source = standIn(next);
      if (source) htmx.ajax(next.verb, next.declared ? source.getAttribute(`hx-${next.verb}`) : next.path, { ...next.context, source });
    }
  }

  document.addEventListener("htmx:afterRequest", answered);
  document.addEventListener("htmx:onLoadError", answered);

  // --- Typing goes on while an answer arrives ------------------------------------------------------------------
  // What was typed and not yet sent outlives the replacement of its page, and is sent afterwards.
  let unsent = [];

  document.addEventListener("htmx:beforeSwap", (event) => {
    const target = event.detail.target;
    if (!target.matches(PAGES)) return;
    const sender = event.detail.requestConfig.elt.closest("form");
    const sent = event.detail.requestConfig.parameters;
    unsent = [...target.querySelectorAll("input[id]:not([type=checkbox]):not([type=radio]):not([type=hidden]):not([type=file]), textarea[id]")]
      .filter((field) => field.value !== (field.form === sender ? sent[field.name] : field.defaultValue))
      .map((field) => ({ id: field.id, value: field.value, at: field.selectionStart }));
  });

  document.addEventListener("htmx:afterSettle", () => {
    for (const { id, value, at } of unsent.splice(0)) {
      const field = document.getElementById(id);
      if (!field) continue;
      field.value = value;
      const send = () => { if (field.value !== field.defaultValue) field.dispatchEvent(new Event("change", { bubbles: true })); };
      if (document.activeElement === field) {
        field.setSelectionRange?.(at, at);
        field.addEventListener("blur", send, { once: true });
      } else {
        send();
      }
    }
  });

  // --- Steps of a macro: moved by key and by drag, tied to their lines -----------------------------------------
  let focusNext = null;
  let lifted = null;

  function moveStep(row, by, control) {
    moveStepTo(row, Number(row.dataset.step) + by, control);
  }

  function moveStepTo(row, to, control) {
    const list = row.closest(".step-list");
    const from = Number(row.dataset.step);
    if (to < 0 || to >= list.children.length || to === from) return;
    focusNext = `step-${to}-${control}`;
    htmx.ajax("POST", `${list.dataset.base}/steps/${from}/move`, { source: row, target: "#rig", swap: "outerHTML", values: { to } });
  }

  document.addEventListener("htmx:afterSettle", () => {
    const control = focusNext && document.getElementById(focusNext);
    if (control) (control.disabled ? control.closest(".step-row")?.querySelector("input[name=on]") : control)?.focus();
    focusNext = null;
  });

  document.addEventListener("pointerdown", (event) => {
    const grip = event.target.closest?.(".step-row .grip, .region-row .grip");
    if (!grip) return;
    lifted = { row: grip.closest(".step-row, .region-row"), over: null };
    lifted.row.classList.add("lifted");
    event.preventDefault();
  });

  document.addEventListener("pointermove", (event) => {
    if (!lifted) return;
    const over = document.elementsFromPoint(event.clientX, event.clientY).map((e) => e.closest?.(".step-row, .region-row")).find(Boolean);
    if (over && over !== lifted.over) {
      lifted.over?.classList.remove("target");
      over.classList.add("target");
      lifted.over = over;
    }
  });

  document.addEventListener("pointerup", () => {
    if (!lifted) return;
    const { row, over } = lifted;
    lifted = null;
    document.querySelectorAll(".lifted, .step-row.target, .region-row.target").forEach((r) => r.classList.remove("lifted", "target"));
    if (over && row.dataset.index !== undefined) rankRegionTo(row, Number(over.dataset.index));
    else if (over) moveStepTo(row, Number(over.dataset.step), "on");
  });

  const light = (target) => {
    if (!document.querySelector(".macro-page")) return;
    const step = target?.closest?.("[data-step]")?.dataset.step;
    document.querySelectorAll(".lit").forEach((e) => e.classList.remove("lit"));
    if (step !== undefined) document.querySelectorAll(`[data-step="${step}"]`).forEach((e) => e.classList.add("lit"));
  };
  document.addEventListener("pointerover", (event) => light(event.target));
  document.addEventListener("focusin", (event) => light(event.target));

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
    if (event.target.matches?.("form") && event.target.querySelector("input[type=file]")) event.target.reset();
  });

  // A sentence that was said is gone once the next thing worked; but not when it says that the page was stale.
  document.addEventListener("htmx:beforeSwap", (event) => {
    const notice = document.getElementById("notice");
    if (event.detail.xhr.status === 200 && (event.target.id === "desk" || event.target.id === "rig") && event.detail.requestConfig.triggeringEvent?.type !== "desk-stale") {
      notice.replaceChildren();
    }
  });
  const say = (sentence) => {
    const box = document.createElement("div");
    box.className = "notice";
    box.setAttribute("role", "alert");
    box.append(sentence);
    document.getElementById("notice").replaceChildren(box);
  };
  document.addEventListener("htmx:sendError", () => say("Tranche does not answer; start it again. Nothing you typed is lost."));
  document.addEventListener("htmx:responseError", (event) => {
    if (event.detail.xhr.status >= 500) say("Something went wrong in Tranche itself; nothing was changed. The log has the details.");
    if (event.detail.xhr.status === 403) say("This page has grown old; reload it and do it again. Nothing was changed.");
  });

  document.addEventListener("click", (event) => {
    if (event.target.closest("#print-page")) window.print();
  });
})();
