/**
 * The desk: section, layer plan, score, ledger and findings of one plan, and every edit made there. Controllers read
 * the request, {@link dev.tranche.app.desk.DeskEdits} turns it into an edit, {@link dev.tranche.app.desk.DeskViews} fills the templates.
 */
package dev.tranche.app.desk;
