package dev.tranche.core.layer;

import dev.tranche.core.units.Height;

/**
 * A height at which the model is flat, where a colour could start.
 *
 * @param height of the flat
 * @param area mm² of it, both kinds of top together
 */
public record Surface(Height height, double area, Kind kind) {
    /** What lies there. */
    public enum Kind {
        /** Seen from above, with nothing higher beside it. */
        TOP("top"),
        /** Seen from above, with the model going on higher round it: the floor of an engraving, the top of a base. */
        FLOOR("floor"),
        /** Seen from below, above the bed. */
        UNDERSIDE("underside");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }
}
