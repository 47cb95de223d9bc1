package dev.tranche.core.sequence;

/**
 * What it costs to go from one paint to another.
 *
 * @param purge mm³ to push through
 * @param money of it, in the user's currency
 * @param swap whether a spool is swapped for it; blends turn without
 */
public record Toll(double purge, double money, boolean swap) {
    /** Of a swap. */
    public Toll(double purge, double money) {
        this(purge, money, true);
    }
}
