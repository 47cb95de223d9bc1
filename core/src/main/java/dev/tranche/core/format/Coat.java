package dev.tranche.core.format;

import dev.tranche.core.colour.Lab;
import dev.tranche.core.colour.Srgb;
import java.util.ArrayList;
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
    /** CIEDE2000. */
    private static final double ALIKE = 6;

    private final List<Hue> hues;
    private final byte[] numbers;
    private final int told;

    /** A colour, and what the file calls it; without a colour where the file gives none to some of the outside. */
    public record Hue(Optional<Srgb> colour, String called) {}

    private Coat(List<Hue> hues, byte[] numbers, int told) {
        this.hues = List.copyOf(hues);
        this.numbers = numbers;
        this.told = told;
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
        List<Optional<Srgb>> widest = covered.entrySet().stream()
                .sorted(Map.Entry.<Optional<Srgb>, Double>comparingByValue().reversed())
                .map(Map.Entry::getKey)
                .toList();
        Kinds kinds = new Kinds();
        Map<Optional<Srgb>, Byte> kind = new LinkedHashMap<>();
        widest.forEach(colour -> kind.put(colour, (byte) kinds.of(colour)));
        if (kinds.all.size() == 1) {
            return Optional.empty();
        }
        byte[] own = new byte[numbers.length];
        String[] called = new String[kinds.all.size()];
        for (int t = 0; t < numbers.length; t++) {
            Hue hue = hues.get(numbers[t]);
            own[t] = kind.get(hue.colour());
            if (called[own[t]] == null && hue.colour().equals(kinds.all.get(own[t]))) {
                called[own[t]] = hue.called();
            }
        }
        List<Hue> mixed = new ArrayList<>();
        for (int i = 0; i < called.length; i++) {
            mixed.add(new Hue(kinds.all.get(i), called[i]));
        }
        return Optional.of(new Coat(mixed, own, covered.size()));
    }

    /** Those that stand for all the others, the one that covers most first. */
    private static final class Kinds {
        private final List<Optional<Srgb>> all = new ArrayList<>();
        private final List<Lab> labs = new ArrayList<>();

        int of(Optional<Srgb> colour) {
            if (colour.isEmpty()) {
                return add(colour, null);
            }
            Lab lab = colour.get().lab();
            int nearest = nearest(lab);
            return nearest >= 0 && (all.size() >= MOST || labs.get(nearest).differenceTo(lab) <= ALIKE)
                    ? nearest
                    : add(colour, lab);
        }

        private int nearest(Lab lab) {
            int nearest = -1;
            for (int i = 0; i < labs.size(); i++) {
                if (labs.get(i) != null
                        && (nearest < 0
                                || labs.get(i).differenceTo(lab)
                                        < labs.get(nearest).differenceTo(lab))) {
                    nearest = i;
                }
            }
            return nearest;
        }

        private int add(Optional<Srgb> colour, Lab lab) {
            all.add(colour);
            labs.add(lab);
            return all.size() - 1;
        }
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

    /** How many colours the file has there. */
    public int told() {
        return told;
    }
}
