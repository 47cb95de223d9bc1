// Beside the machine: counts down, rings, sends what was pressed, and keeps it where the connection is lost.
import { listen } from "../web/told.js";

const page = document.querySelector(".companion");
if (page) {
  const beside = () => document.getElementById("beside");
  const KEY = `tranche-presses ${page.dataset.at}`;
  const offline = document.getElementById("offline");
  const two = (n) => String(n).padStart(2, "0");
  const clock = (ms) => {
    const s = Math.floor(Math.abs(ms) / 1000);
    return `${s >= 3600 ? `${Math.floor(s / 3600)}:` : ""}${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
  };

  // --- The count-down goes by the server's clock, whatever this device's says.
  let ahead = 0;
  let rung = "";
  const setClock = () => { ahead = Number(beside().dataset.now || Date.now()) - Date.now(); };
  const tick = () => {
    document.querySelectorAll("[data-count]").forEach((count) => {
      const left = Number(count.dataset.until) - Date.now() - ahead;
      const words = document.createElement("small");
      words.textContent = left >= 0 ? count.dataset.before : count.dataset.after;
      count.replaceChildren(words, clock(left));
      count.classList.toggle("due", left < 0);
      if (count.dataset.rings === undefined) return;
      const when = left < 0 ? "now" : left < 300000 ? "soon" : "";
      const which = `${count.dataset.until} ${when}`;
      if (when && rung !== which) {
        rung = which;
        ring(when);
      }
    });
  };

  // --- Rings where that is allowed, and keeps the screen awake where the browser can.
  let sound = null;
  let awake = null;
  const stayAwake = async () => {
    try {
      awake = sound && document.visibilityState === "visible" ? await navigator.wakeLock?.request("screen") : null;
    } catch { awake = null; }
  };
  const ring = (when) => {
    if (!sound) return;
    const title = document.getElementById("next-title")?.textContent ?? "The print";
    [0, 0.35, 0.7].slice(0, when === "now" ? 3 : 1).forEach((at) => {
      const tone = sound.createOscillator();
      tone.connect(sound.destination);
      tone.frequency.value = when === "now" ? 880 : 660;
      tone.start(sound.currentTime + at);
      tone.stop(sound.currentTime + at + 0.2);
    });
    if (window.Notification?.permission === "granted") new Notification(when === "now" ? `${title}: the machine waits` : `${title} in a few minutes`);
  };
  const showRing = () => {
    const button = document.getElementById("ring");
    if (button) button.setAttribute("aria-pressed", Boolean(sound));
    const says = document.getElementById("ring-says");
    if (says) says.textContent = !sound ? "" : `Rings five minutes before and when it stops${awake ? "; the screen stays awake" : "; this browser lets the screen sleep"}.`;
  };
  page.addEventListener("click", async (event) => {
    if (!event.target.closest("#ring")) return;
    if (sound) {
      sound.close();
      awake?.release();
      sound = awake = null;
    } else {
      sound = new AudioContext();
      if (window.Notification?.permission === "default") Notification.requestPermission();
      await stayAwake();
    }
    showRing();
  });
  document.addEventListener("visibilitychange", stayAwake);

  // --- What was pressed is kept here until the server has it.
  const kept = () => JSON.parse(localStorage.getItem(KEY) ?? "[]");
  const keep = (presses) => localStorage.setItem(KEY, JSON.stringify(presses));
  const say = (text) => {
    offline.hidden = !text;
    offline.querySelector("span").textContent = text;
  };
  const waiting = () => {
    const n = kept().length;
    if (n) say(`No connection: ${n === 1 ? "1 press waits" : `${n} presses wait`} here and will be sent, with ${n === 1 ? "its" : "their"} time, when it is back.`);
  };
  const headers = () => ({ ...JSON.parse(document.body.getAttribute("hx-headers")), "HX-Request": "true" });
  const show = (html) => {
    const open = [...page.querySelectorAll("details[open]")].map((d) => d.className);
    const focus = document.activeElement?.id;
    const typed = [...beside().querySelectorAll("input:not([type=hidden])")].filter((i) => i.id && i.value !== i.defaultValue).map((i) => [i.id, i.value]);
    beside().outerHTML = html;
    open.forEach((c) => page.querySelector(`details.${c.split(" ")[0]}`)?.setAttribute("open", ""));
    typed.forEach(([id, value]) => { const field = document.getElementById(id); if (field) field.value = value; });
    if (focus) document.getElementById(focus)?.focus();
    setClock();
    tick();
    showRing();
  };
  let sending = false;
  const send = async () => {
    if (sending) return;
    sending = true;
    try {
      while (kept().length) {
        const [press] = kept();
        const body = new URLSearchParams({ ...press.values, ago: Math.max(0, Date.now() - press.at) });
        const answer = await fetch(`${page.dataset.at}/told`, { method: "POST", body, headers: headers() });
        if (!answer.ok && ![400, 404, 409, 422].includes(answer.status)) throw new Error("not now");
        keep(kept().filter((p) => p.values.token !== press.values.token));
        const text = await answer.text();
        if (answer.ok) {
          say("");
          show(text);
        } else {
          say(new DOMParser().parseFromString(text, "text/html").querySelector(".notice span, .notice p")?.textContent.trim() || "That did not work; reload the page.");
        }
      }
    } catch {
      waiting();
    }
    sending = false;
  };
  document.addEventListener("submit", (event) => {
    const form = event.target.closest("form.press");
    if (!form) return;
    event.preventDefault();
    const values = Object.fromEntries(new FormData(form));
    const token = Array.from(crypto.getRandomValues(new Uint8Array(12)), (b) => b.toString(16).padStart(2, "0")).join("");
    keep([...kept(), { at: Date.now(), values: { ...values, print: beside().dataset.print, token } }]);
    form.classList.add("waiting-press");
    form.reset();
    send();
  });
  window.addEventListener("online", send);
  setInterval(() => { if (kept().length) send(); }, 3000);

  // --- Other windows, and the server after a restart.
  const renew = async () => {
    try {
      const answer = await fetch(`${page.dataset.at}/stage`, { headers: headers() });
      if (answer.ok) show(await answer.text());
    } catch { /* the events say when it is back */ }
  };
  if (beside().dataset.state !== "none") {
    listen(`${page.dataset.at}/events`, {
      told: (mark) => {
        send();
        if (mark !== (beside().dataset.mark ?? "")) renew();
        if (!kept().length && offline.querySelector("span").textContent.startsWith("No connection")) say("");
      },
    }, () => {
      if (!kept().length) say("No connection to Tranche; the count-down goes on, and what you press is kept.");
    }, () => {
      if (!kept().length) say("");
    });
  }
  setClock();
  tick();
  setInterval(tick, 1000);
  // What has come due is shown as the server sees it: it delays what follows.
  setInterval(() => { if (beside().dataset.state === "running" || beside().dataset.state === "planned") renew(); }, 30000);
  send();
}
