// Cards that are chosen, to do something with all of them.
const count = () => {
  const chosen = document.querySelectorAll(".card-plan input[name=plan]:checked").length;
  document.body.classList.toggle("choosing", chosen > 0);
  const shown = document.getElementById("chosen-count");
  if (shown) shown.textContent = chosen;
};
document.addEventListener("change", ({ target }) => { if (target.matches(".card-plan input[name=plan]")) count(); });
document.addEventListener("htmx:afterSettle", () => { if (document.getElementById("many")) count(); });
// What was chosen before this script had arrived.
if (document.getElementById("many")) count();
