package dev.tranche.core.sequence;

import java.util.Arrays;

/**
 * Colours that have to be printed before the print goes on, each once: those of a layer, or of a band. Colours are
 * places in the palette, sets of them bits.
 */
final class Stage {
    private static final int[] ANY_ORDER = new int[0];

    private final int colours;
    /** For each colour those that have to come before it; empty where any order will do. */
    private final int[] before;

    private Stage(int colours, int[] before) {
        this.colours = colours;
        this.before = before;
    }

    /** Colours that may come in any order. */
    static Stage of(int colours) {
        return new Stage(colours, ANY_ORDER);
    }

    /** @param before for each colour of the palette those that must come before it; free of circles */
    static Stage of(int colours, int[] before) {
        return Arrays.stream(before).allMatch(b -> b == 0) ? of(colours) : new Stage(colours, before.clone());
    }

    int colours() {
        return colours;
    }

    int size() {
        return Integer.bitCount(colours);
    }

    /** What of this stage has to come before {@code colour}. */
    int before(int colour) {
        return before.length == 0 ? 0 : before[colour] & colours;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Stage s && s.colours == colours && Arrays.equals(s.before, before);
    }

    @Override
    public int hashCode() {
        return 31 * colours + Arrays.hashCode(before);
    }
}
