/**
 * What the templates draw: paths and places in pixels, computed from the core's sections, tranches and ledger.
 * Nothing here decides anything about a print; templates hold the look.
 */
package dev.tranche.app.drawing;
