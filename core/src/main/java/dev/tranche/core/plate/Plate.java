package dev.tranche.core.plate;

import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * How many copies are printed, and where.
 *
 * @param copies 1 or more
 * @param gap between them, mm
 * @param byHand where each stands, or nothing where they are arranged as the bed has room; they are printed in this order
 * @param tower where its middle stands, if somebody has said so; else it is put where it helps most
 * @param rims that are drawn round them
 */
public record Plate(int copies, double gap, List<Spot> byHand, Optional<Spot> tower, Rims rims) {
    /** Between copies without a brim, mm; common practice. */
    public static final double USUAL_GAP = 2;

    public static final Plate ONE = new Plate(1, USUAL_GAP, List.of());

    public static final int MOST = 1000;
    private static final double WIDEST_GAP = 500;

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

    /** Without rims. */
    public Plate(int copies, double gap, List<Spot> byHand, Optional<Spot> tower) {
        this(copies, gap, byHand, tower, Rims.NONE);
    }

    /** With its tower where it helps most, and without rims. */
    public Plate(int copies, double gap, List<Spot> byHand) {
        this(copies, gap, byHand, Optional.empty());
    }

    /** How far copies have to stand apart, mm: by its gap, and so that no brim runs into another. */
    public double room() {
        return Math.max(gap, rims.between());
    }

    /** As many, arranged anew. */
    public Plate times(int other) {
        return other == copies ? this : new Plate(other, gap, List.of(), tower, rims);
    }

    /** Arranged anew, so far apart. */
    public Plate arranged(int number, double apart) {
        return new Plate(number, apart, List.of(), tower, rims);
    }

    /** The same with each copy where it stands now; what had no room is left out. */
    public Plate standing(List<Spot> now) {
        return new Plate(now.size(), gap, now, tower, rims);
    }

    /**
     * With each copy where it stands now, though the middle of the model's rectangle lies elsewhere in it: by so many mm as the
     * model has it.
     */
    public Plate standing(List<Spot> now, double dx, double dy) {
        return standing(now.stream().map(spot -> spot.along(dx, dy)).toList());
    }

    /**
     * One copy elsewhere, and all others where they stand.
     *
     * @param copy from 0
     * @throws Refusal if there is none
     */
    public Plate with(int copy, UnaryOperator<Spot> change) {
        requireCopy(copy);
        List<Spot> spots = new ArrayList<>(byHand);
        spots.set(copy, change.apply(spots.get(copy)));
        return new Plate(copies, gap, spots, tower, rims);
    }

    private void requireCopy(int copy) {
        if (copy < 0 || copy >= byHand.size()) {
            throw Refusal.of("There are %d copies on the plate, and no number %d.", byHand.size(), copy + 1);
        }
    }

    /** At least so far apart, mm. */
    public Plate apart(double least) {
        return least <= gap ? this : new Plate(copies, least, byHand, tower, rims);
    }

    /** With its tower there. */
    public Plate withTower(Spot spot) {
        return new Plate(copies, gap, byHand, Optional.of(spot), rims);
    }

    /** With its tower wherever it helps most. */
    public Plate withTowerAnywhere() {
        return new Plate(copies, gap, byHand, Optional.empty(), rims);
    }

    /** With other rims round what stands there. */
    public Plate with(Rims other) {
        return new Plate(copies, gap, byHand, tower, other);
    }

    /**
     * With another copy printed before the rest.
     *
     * @param copy from 0
     */
    public Plate startingWith(int copy) {
        requireCopy(copy);
        List<Spot> spots = new ArrayList<>(byHand);
        spots.add(0, spots.remove(copy));
        return new Plate(copies, gap, spots, tower, rims);
    }
}
