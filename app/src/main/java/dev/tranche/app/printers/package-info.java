/**
 * The printers a hobbyist owns, with abilities, swap macros and measured purges.
 */
package dev.tranche.app.printers;
