// What is taken hold of, moved along and let go, by mouse, pen or finger. It goes back where it was when Escape is pressed, and when
// the browser takes the pointer for itself, as it does where a finger scrolls the page.
let hold = null;

/** px that a hand stirs without meaning to move anything. */
export const STIRRED = 5;

/**
 * @param selector what can be taken hold of
 * @param take of the event and what was found answers what is held, or nothing where it is not to be
 * @param move of the event and what is held
 * @param drop of the event and what is held, where it is let go
 * @param giveUp of what is held puts it back
 */
export function draggable(selector, { take, move, drop, giveUp }) {
  document.addEventListener("pointerdown", (event) => {
    const found = event.button === 0 && event.isPrimary && event.target.closest?.(selector);
    const held = found && take(event, found);
    if (!held) return;
    hold = { held, move, drop, giveUp, from: { x: event.clientX, y: event.clientY }, stirred: false };
    event.preventDefault();
  });
}

export const holding = () => hold !== null;

function letGo() {
  const last = hold;
  hold = null;
  return last;
}

// A finger that holds something does not scroll the page.
document.addEventListener("touchstart", (event) => hold && event.preventDefault(), { passive: false });

document.addEventListener("pointermove", (event) => {
  if (!hold) return;
  hold.stirred ||= Math.hypot(event.clientX - hold.from.x, event.clientY - hold.from.y) >= STIRRED;
  hold.move(event, hold.held);
});

document.addEventListener("pointerup", (event) => {
  if (!hold) return;
  const { held, drop, stirred } = letGo();
  // Whoever hears of it afterwards knows that it was no press.
  event.preventDefault();
  drop(event, held);
  // One that only taps it presses it, which the browser, told not to scroll, leaves out.
  if (event.pointerType === "touch" && !stirred) {
    const { clientX, clientY } = event;
    event.target.dispatchEvent(new MouseEvent("click", { bubbles: true, cancelable: true, clientX, clientY }));
  }
});

document.addEventListener("pointercancel", () => {
  if (!hold) return;
  const { held, giveUp } = letGo();
  giveUp(held);
});

const nothing = () => {};

// What is given up stays in hand, empty, until the hand lets go: that is no press of what lies beneath.
document.addEventListener("keydown", (event) => {
  if (!hold || event.key !== "Escape") return;
  hold.giveUp(hold.held);
  Object.assign(hold, { move: nothing, drop: nothing, giveUp: nothing });
  event.preventDefault();
  event.stopImmediatePropagation();
}, true);
