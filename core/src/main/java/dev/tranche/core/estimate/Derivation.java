package dev.tranche.core.estimate;

import dev.tranche.core.speech.Shares;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * A figure that explains itself.
 *
 * @param label what it is
 * @param value in {@code unit}
 * @param how in words or as a formula
 * @param parts what it was computed from, in order; empty for what was given or measured
 */
public record Derivation(String label, double value, Unit unit, String how, List<Derivation> parts) {
    private static final int MOST_PARTS = 30;

    public Derivation {
        parts = List.copyOf(parts);
    }

    public static Derivation of(String label, double value, Unit unit, String how) {
        return new Derivation(label, value, unit, how, List.of());
    }

    /**
     * The sum of {@code parts}, which is what the figure then is to the last bit. Over {@value #MOST_PARTS} parts are
     * more than anyone reads: those of one name are taken together.
     */
    public static Derivation sum(String label, Unit unit, String how, List<Derivation> parts) {
        double sum = parts.stream().mapToDouble(Derivation::value).sum();
        return new Derivation(label, sum, unit, how, parts.size() <= MOST_PARTS ? parts : together(parts));
    }

    /**
     * As it is shown: rounded to what its unit is shown in, with the parts of every sum rounded so that they add up to it.
     */
    public Derivation rounded() {
        return rounded(Math.round(value / unit.shown()));
    }

    private Derivation rounded(long shown) {
        if (unit.shown() == 0) {
            return new Derivation(
                    label,
                    value,
                    unit,
                    how,
                    parts.stream().map(Derivation::rounded).toList());
        }
        List<Derivation> inside;
        if (isSum()) {
            long[] shares = Shares.of(
                    shown, parts.stream().mapToDouble(Derivation::value).toArray(), unit.shown());
            inside = IntStream.range(0, shares.length)
                    .mapToObj(i -> parts.get(i).rounded(shares[i]))
                    .toList();
        } else {
            inside = parts.stream().map(Derivation::rounded).toList();
        }
        return new Derivation(label, shown * unit.shown(), unit, how, inside);
    }

    private boolean isSum() {
        double sum = parts.stream().mapToDouble(Derivation::value).sum();
        return parts.size() > 1
                && parts.stream().allMatch(p -> p.unit == unit && p.value >= 0)
                && Math.abs(sum - value) <= 1e-9 * Math.max(1, Math.abs(value));
    }

    private static List<Derivation> together(List<Derivation> parts) {
        Map<String, List<Derivation>> byName = new LinkedHashMap<>();
        parts.forEach(
                p -> byName.computeIfAbsent(p.label, n -> new ArrayList<>()).add(p));
        return byName.values().stream()
                .map(same -> same.size() == 1
                        ? same.get(0)
                        : new Derivation(
                                same.get(0).label,
                                same.stream().mapToDouble(Derivation::value).sum(),
                                same.get(0).unit,
                                same.size() + " times; the first: " + same.get(0).how,
                                same.get(0).parts))
                .toList();
    }
}
