/**
 * The printer as far as a swap can tell: its bed, its nozzle, how filament reaches it, where it may wait, and
 * which commands its firmware understands.
 */
package dev.tranche.core.machine;
