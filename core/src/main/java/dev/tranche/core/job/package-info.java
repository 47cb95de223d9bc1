/**
 * One reckoning of a plan. A {@link dev.tranche.core.job.Brief} says what a print is made of (colours on a cut model, a
 * rig, a shelf, perhaps a sliced file, terms), and {@link dev.tranche.core.job.Reckoning} says what comes of it: order,
 * ledger, clock, findings, and what would be written. Pages, checks, the HTTP interface and tests use the same.
 */
package dev.tranche.core.job;
