package dev.tranche.core.format;

import dev.tranche.core.colour.Fewer;
import dev.tranche.core.colour.Srgb;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The colours that a file paints the outside of a solid with, triangle for triangle. Colours that hardly differ are taken for one,
 * and where there are more than {@value #MOST} those that cover least for the nearest of the others.
 */
public final class Coat {
    public static final int MOST = 8;
    /** Kinds of colour that are many, and the share that one covers to be one of them. */
    private static final int MANY = 17;

    private static final double SEEN = 0.01;
    /** CIEDE2000. */
    private static final double ALIKE = 6;

    private final List<Hue> hues;
    private final byte[] numbers;
    private final int told;
    private final boolean many;

    /** A colour, and what the file calls it; without a colour where the file gives none to some of the outside. */
    public record Hue(Optional<Srgb> colour, String called) {}

    private Coat(List<Hue> hues, byte[] numbers, int told, boolean many) {
        this.hues = List.copyOf(hues);
        this.numbers = numbers;
        this.told = told;
        this.many = many;
    }

    /**
     * @param hues that {@code numbers} name, one or more for each colour
     * @param numbers of the triangles
     * @param areas of the triangles, mm²
     * @return empty if that is one colour
     */
    static Optional<Coat> of(List<Hue> hues, int[] numbers, double[] areas) {
        Map<Optional<Srgb>, Double> covered = new LinkedHashMap<>();
        for (int t = 0; t < numbers.length; t++) {
            covered.merge(hues.get(numbers[t]).colour(), areas[t], Double::sum);
        }
        Map<Srgb, Double> colours = new LinkedHashMap<>();
        covered.forEach((colour, area) -> colour.ifPresent(c -> colours.put(c, area)));
        Map<Srgb, Srgb> fewer = Fewer.of(colours, covered.containsKey(Optional.empty()) ? MOST - 1 : MOST, ALIKE);
        Map<Optional<Srgb>, Double> taken = new LinkedHashMap<>();
        covered.forEach((colour, area) -> taken.merge(colour.map(fewer::get), area, Double::sum));
        List<Optional<Srgb>> kinds = taken.entrySet().stream()
                .sorted(Map.Entry.<Optional<Srgb>, Double>comparingByValue().reversed())
                .map(Map.Entry::getKey)
                .toList();
        if (kinds.size() == 1) {
            return Optional.empty();
        }
        Map<Optional<Srgb>, Byte> kind = new HashMap<>();
        covered.keySet().forEach(c -> kind.put(c, (byte) kinds.indexOf(c.map(fewer::get))));
        byte[] own = new byte[numbers.length];
        String[] called = new String[kinds.size()];
        for (int t = 0; t < numbers.length; t++) {
            Hue hue = hues.get(numbers[t]);
            own[t] = kind.get(hue.colour());
            if (called[own[t]] == null && hue.colour().equals(kinds.get(own[t]))) {
                called[own[t]] = hue.called();
            }
        }
        List<Hue> mixed = new ArrayList<>();
        for (int i = 0; i < called.length; i++) {
            mixed.add(new Hue(kinds.get(i), called[i]));
        }
        return Optional.of(new Coat(mixed, own, covered.size(), areMany(colours)));
    }

    private static boolean areMany(Map<Srgb, Double> colours) {
        Map<Srgb, Double> taken = new HashMap<>();
        Fewer.of(colours, MANY, ALIKE).forEach((colour, kind) -> taken.merge(kind, colours.get(colour), Double::sum));
        double all = taken.values().stream().mapToDouble(Double::doubleValue).sum();
        return taken.values().stream().filter(area -> area >= SEEN * all).count() == MANY;
    }

    /** The one that covers most first. */
    public List<Hue> hues() {
        return hues;
    }

    /** The number of a triangle's among {@link #hues}. */
    public int hue(int triangle) {
        return numbers[triangle];
    }

    public int triangles() {
        return numbers.length;
    }

    /** Whether its colours are so many kinds of colour that it is a painting rather than a pattern. */
    public boolean isOfMany() {
        return many;
    }

    /** How many colours the file has there. */
    public int told() {
        return told;
    }
}
