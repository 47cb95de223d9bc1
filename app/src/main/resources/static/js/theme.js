// Before the page is drawn: the theme chosen last.
document.documentElement.dataset.bsTheme = localStorage.getItem("tranche-theme") || "light";
