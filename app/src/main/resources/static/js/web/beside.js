/** Lays a box that floats over the page beneath something, or above it where there is no room, and never beyond the window. */
export function beside(box, elt) {
  const at = elt.getBoundingClientRect();
  box.style.left = `${Math.max(6, Math.min(at.left, innerWidth - box.offsetWidth - 6))}px`;
  box.style.top = `${at.bottom + 4 + box.offsetHeight > innerHeight ? Math.max(6, at.top - box.offsetHeight - 4) : at.bottom + 4}px`;
}
