package dev.tranche.core.estimate;

import dev.tranche.core.plan.SpoolId;

/**
 * A spool or mixture printing without another in between.
 *
 * @param firstLayer from 1, as {@code lastLayer}
 * @param from seconds from the start of the print, when its swap is done, if there is one; {@code to} when the next begins
 */
public record Stretch(SpoolId spool, int firstLayer, int lastLayer, double from, double to) {}
