package dev.tranche.core.colour;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Many colours taken for few. */
public final class Fewer {
    private Fewer() {}

    /**
     * Those there is most of stand for themselves and for what hardly differs from them; of more than {@code most} the others are
     * taken for the nearest.
     *
     * @param amounts how much there is of each
     * @param most 1 or more
     * @param alike up to this difference colours are one, CIEDE2000
     * @return what stands for each, the one there is most of first
     */
    public static Map<Srgb, Srgb> of(Map<Srgb, Double> amounts, int most, double alike) {
        List<Srgb> widest = amounts.entrySet().stream()
                .sorted(Map.Entry.<Srgb, Double>comparingByValue().reversed())
                .map(Map.Entry::getKey)
                .toList();
        Map<Srgb, Lab> standing = new LinkedHashMap<>();
        Map<Srgb, Srgb> all = new LinkedHashMap<>();
        for (Srgb colour : widest) {
            Lab lab = colour.lab();
            Srgb nearest = null;
            double least = Double.MAX_VALUE;
            for (Map.Entry<Srgb, Lab> other : standing.entrySet()) {
                double difference = other.getValue().differenceTo(lab);
                nearest = difference < least ? other.getKey() : nearest;
                least = Math.min(least, difference);
            }
            if (standing.size() < most && !(least <= alike)) {
                standing.put(colour, lab);
                nearest = colour;
            }
            all.put(colour, nearest);
        }
        return all;
    }
}
