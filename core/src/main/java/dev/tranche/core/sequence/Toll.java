package dev.tranche.core.sequence;

/**
 * What it costs to go from one paint to another.
 *
 * @param purge mm³ to push through
 * @param money of it, in the user's currency
 * @param swap whether a spool is swapped for it; blends turn without
 */
public record Toll(double purge, double money, boolean swap) {
    /** Where nothing is to be pushed through. */
    public static final Toll NONE = new Toll(0, 0, false);

    /** Of a swap. */
    public Toll(double purge, double money) {
        this(purge, money, true);
    }
}
