// What a screen reader says of what has just been swapped in: its data-heard, where that is not what it said before.
const heard = () => document.getElementById("heard");

document.addEventListener("htmx:afterSettle", ({ target }) => {
  const words = target.dataset?.heard;
  if (words && words !== heard().textContent) heard().textContent = words;
});
