// What lies at a place of the piece, mm, is the server's to say.
export function tell(address, at) {
  const url = new URL(address, location.href);
  Object.entries(at).forEach(([k, v]) => url.searchParams.set(k, v.toFixed(4)));
  window.htmx.ajax("GET", url.pathname + url.search, { target: "#piece-pointed", swap: "innerHTML", select: "unset" });
}
