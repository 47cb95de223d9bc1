package dev.tranche.core.purge;

import dev.tranche.core.speech.Refusal;

/** Where purge goes. */
public sealed interface PurgePlace {
    /** Into a bin beside the print: the swap macro, or the person, pushes as much as the pair of colours needs. */
    record Bin() implements PurgePlace {}

    /**
     * Wherever the machine's own routine lets it fall.
     *
     * @param length mm of filament it pushes at every swap, whatever the colours
     */
    record Routine(double length) implements PurgePlace {
        /** What common routines push if nobody changes it, mm; from memory. */
        public static final double USUAL = 100;

        public Routine {
            if (!(length >= 0 && length <= 2000)) {
                throw Refusal.of("A routine that purges %s mm of filament is out of range; give 0 to 2000 mm.", length);
            }
        }
    }

    /**
     * Onto a tower on the bed, which grows with the print.
     *
     * @param width mm
     */
    record OnTower(double width) implements PurgePlace {
        /** As wide as most are made, mm; common practice. */
        public static final double USUAL = 30;

        public OnTower {
            if (!(width >= 5 && width <= 300)) {
                throw Refusal.of("A tower %s mm wide is out of range; give 5 to 300 mm, 30 is usual.", width);
            }
        }
    }
}
