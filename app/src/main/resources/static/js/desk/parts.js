// Parts chosen many at once: all, none, by colour, by file, by name.
const tick = (test) => document.querySelectorAll(".part-row").forEach((row) => {
  const box = row.querySelector("[name=parts]");
  box.checked = test(row, box.checked);
});

document.addEventListener("change", ({ target }) => {
  if (target.id !== "choose-parts") return;
  const [how, ...what] = target.value.split(" ");
  const which = what.join(" ");
  const tests = {
    all: () => true, none: () => false, others: (row, now) => !now,
    colour: (row) => (row.dataset.colour ?? "") === which, file: (row) => row.dataset.file === which,
  };
  if (tests[how]) tick(tests[how]);
  target.value = "";
});

document.addEventListener("input", ({ target }) => {
  if (target.id !== "parts-named") return;
  const words = target.value.trim().toLowerCase();
  tick((row) => words !== "" && row.querySelector("[name=name]").value.toLowerCase().includes(words));
});
