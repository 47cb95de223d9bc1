// One list of spools serves every menu of the desk: a menu takes it in when a hand comes near.
function fill(event) {
  const menu = event.target.closest?.("select[data-spools]");
  const all = document.getElementById("spool-options");
  if (!menu || !all) return;
  delete menu.dataset.spools;
  const [now] = menu.options;
  for (const option of [...all.content.cloneNode(true).children]) {
    if (option.value === now.value) now.textContent = option.textContent;
    else menu.append(option);
  }
}

for (const near of ["pointerover", "pointerdown", "focusin", "keydown"]) document.addEventListener(near, fill, true);
