package dev.tranche.core.plan;

import dev.tranche.core.units.Height;

/**
 * From this height on, this spool.
 *
 * @param wished the height as asked for; where it falls is the grid's to say
 */
public record ColourStart(Height wished, SpoolId spool) {}
