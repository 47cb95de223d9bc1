/**
 * What a printer does at a swap: a list of typed steps, the G-code they become on a given printer, and a dry run
 * of that G-code on the interpreter that also reads sliced files. The renderer, not the steps, sees to it that
 * the file goes on as if it had never been left: place, modes, feed and the extruder's count.
 */
package dev.tranche.core.macro;
