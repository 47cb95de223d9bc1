// What the server tells by itself. A browser holds six connections to a server at the most, whatever the number of its
// windows: a page listens while it is seen, and gives its connection back when it is not.
export function listen(address, told, lost, found) {
  let events = null;
  const hush = () => {
    events?.close();
    events = null;
  };
  const begin = () => {
    if (events || document.visibilityState !== "visible") return;
    events = new EventSource(address);
    Object.entries(told).forEach(([name, hear]) => events.addEventListener(name, (event) => hear(event.data)));
    events.addEventListener("open", found);
    events.addEventListener("error", ({ target }) => {
      lost();
      // Where it was refused it does not ask again by itself.
      if (target.readyState === EventSource.CLOSED && target === events) {
        hush();
        setTimeout(begin, 5000);
      }
    });
  };
  document.addEventListener("visibilitychange", () => (document.visibilityState === "visible" ? begin() : hush()));
  addEventListener("pagehide", hush);
  addEventListener("pageshow", begin);
  begin();
}
