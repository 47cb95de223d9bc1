package dev.tranche.core.sequence;

/**
 * What one swap costs besides itself.
 *
 * @param purge mm³ to push through
 * @param money of it, in the user's currency
 */
public record Toll(double purge, double money) {}
