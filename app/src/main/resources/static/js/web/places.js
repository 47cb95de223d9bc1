// Where something stands on a page, told so that it is found again on the page that replaces it: by its id, or as the
// so-and-so-many-th of its kind in the nearest thing around it that has one.
const kind = (elt) => elt.localName + (elt.name ? `[name="${CSS.escape(elt.name)}"]` : "") + (elt.title ? `[title="${CSS.escape(elt.title)}"]` : "");

export function placeOf(elt) {
  if (!elt || elt === document.body) return null;
  if (elt.id) return { id: elt.id };
  const around = elt.parentElement?.closest("[id]");
  const kin = around && [...around.querySelectorAll(kind(elt))];
  return around ? { within: around.id, kind: kind(elt), at: kin.indexOf(elt), of: kin.length } : null;
}

export function standingAt(place) {
  if (!place) return null;
  if (place.id) return document.getElementById(place.id);
  return document.getElementById(place.within)?.querySelectorAll(place.kind)[place.at] ?? null;
}

/** What stands there, or, where that is gone, what came nearest to its place. */
export function nearest(place) {
  const there = standingAt(place);
  if (there || !place?.within) return there;
  const kin = document.getElementById(place.within)?.querySelectorAll(place.kind) ?? [];
  return kin[Math.min(place.at, kin.length - 1)] ?? null;
}
