package dev.tranche.core.estimate;

import java.util.List;

/**
 * A figure that explains itself.
 *
 * @param label what it is
 * @param value in {@code unit}
 * @param how in words or as a formula
 * @param parts what it was computed from, in order; empty for what was given or measured
 */
public record Derivation(String label, double value, Unit unit, String how, List<Derivation> parts) {
    public Derivation {
        parts = List.copyOf(parts);
    }

    public static Derivation of(String label, double value, Unit unit, String how) {
        return new Derivation(label, value, unit, how, List.of());
    }

    /** The sum of {@code parts}, which is what the figure then is to the last bit. */
    public static Derivation sum(String label, Unit unit, String how, List<Derivation> parts) {
        return new Derivation(
                label, parts.stream().mapToDouble(Derivation::value).sum(), unit, how, parts);
    }
}
