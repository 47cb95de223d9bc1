/** Beside a print on a real machine: what comes next, what was told of it, and what is learned from that. */
package dev.tranche.app.companion;
