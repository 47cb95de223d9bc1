package dev.tranche.core.estimate;

import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.Purge;

/**
 * What another print left in the nozzle, pushed out before the first layer. It is no swap.
 *
 * @param out spool whose filament is there, {@code in} that prints first
 */
public record Cleared(Spool out, Spool in, Purge purge) {}
