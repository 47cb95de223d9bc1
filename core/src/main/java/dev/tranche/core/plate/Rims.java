package dev.tranche.core.plate;

import dev.tranche.core.speech.Refusal;

/**
 * What a slicing program draws on the first layer round what is printed.
 *
 * @param brim how wide a brim is that lies round each copy, mm; 0 where there is none
 * @param skirt how far from the copies the outermost line of a skirt runs round all of them, mm; 0 where there is none
 */
public record Rims(double brim, double skirt) {
    public static final Rims NONE = new Rims(0, 0);

    private static final double WIDEST = 50;

    public Rims {
        check("A brim", brim);
        check("A skirt", skirt);
    }

    private static void check(String what, double millimetres) {
        if (!(millimetres >= 0 && millimetres <= WIDEST)) {
            throw Refusal.of(
                    "%s that reaches %s mm is out of range; give 0 to %.0f mm, 0 for none.", what, millimetres, WIDEST);
        }
    }

    /** So far copies have to stand apart, so that no brim runs into another, mm. */
    double between() {
        return 2 * brim;
    }

    /** So far from the edge of the bed copies have to stay, mm. */
    double margin() {
        return Math.max(brim, skirt);
    }
}
