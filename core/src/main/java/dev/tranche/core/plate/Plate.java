package dev.tranche.core.plate;

import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * How many copies are printed, and where.
 *
 * @param copies 1 or more
 * @param gap between them, mm: at least their skirts or brims
 * @param byHand where each stands, or nothing where they are arranged as the bed has room
 */
public record Plate(int copies, double gap, List<Spot> byHand) {
    /** Between copies without skirt or brim, mm; common practice. */
    public static final double USUAL_GAP = 2;

    public static final Plate ONE = new Plate(1, USUAL_GAP, List.of());

    public static final int MOST = 1000;
    private static final double WIDEST_GAP = 100;

    public Plate {
        byHand = List.copyOf(byHand);
        if (copies < 1 || copies > MOST) {
            throw Refusal.of("%d copies cannot be printed at once; give 1 to %d.", copies, MOST);
        }
        if (!(gap >= 0 && gap <= WIDEST_GAP)) {
            throw Refusal.of("A gap of %s mm between copies is out of range; give 0 to %.0f mm.", gap, WIDEST_GAP);
        }
        if (!byHand.isEmpty() && byHand.size() != copies) {
            throw new IllegalArgumentException(byHand.size() + " places for " + copies + " copies");
        }
    }

    /** As many, arranged anew. */
    public Plate times(int other) {
        return other == copies ? this : new Plate(other, gap, List.of());
    }

    /** Arranged anew, so far apart. */
    public Plate arranged(int number, double apart) {
        return new Plate(number, apart, List.of());
    }

    /** The same with each copy where it stands now; what had no room is left out. */
    public Plate standing(List<Spot> now) {
        return new Plate(now.size(), gap, now);
    }

    /**
     * One copy elsewhere, and all others where they stand.
     *
     * @param copy from 0
     * @throws Refusal if there is none
     */
    public Plate with(int copy, UnaryOperator<Spot> change) {
        if (copy < 0 || copy >= byHand.size()) {
            throw Refusal.of("There are %d copies on the plate, and no number %d.", byHand.size(), copy + 1);
        }
        List<Spot> spots = new ArrayList<>(byHand);
        spots.set(copy, change.apply(spots.get(copy)));
        return new Plate(copies, gap, spots);
    }
}
