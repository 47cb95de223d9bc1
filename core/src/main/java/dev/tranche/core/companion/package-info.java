/** A print that runs on a real machine: what it stops for, when, what people did there, and what is learned from it. */
package dev.tranche.core.companion;
