package dev.tranche.core.purge;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Filament;
import dev.tranche.core.units.Volume;
import java.util.Optional;
import java.util.OptionalDouble;

/** Where purge goes. */
public sealed interface PurgePlace {

    /** What of a pair's purge is printed onto a tower. */
    Volume ontoTower(Volume purge);

    /** What is pushed out beside the print when a pair needs {@code purge}. */
    Volume beside(Volume purge, Filament filament);

    /** How wide the tower is, mm; nothing where there is none. */
    OptionalDouble towerWidth();

    /** The same with a small tower for the last of each purge; all of it stays on a tower that takes all. */
    PurgePlace with(SmallTower tower);

    /** The same with its tower so wide, mm; without one, the same. */
    PurgePlace wide(double width);

    /**
     * Into a bin beside the print: the swap macro, or the person, pushes as much as the pair of colours needs.
     *
     * @param last of each purge that a small tower takes
     */
    record Bin(Optional<SmallTower> last) implements PurgePlace {
        public Bin() {
            this(Optional.empty());
        }

        @Override
        public Volume ontoTower(Volume purge) {
            return last.map(t -> t.of(purge)).orElse(Volume.NONE);
        }

        @Override
        public Volume beside(Volume purge, Filament filament) {
            return purge.less(ontoTower(purge));
        }

        @Override
        public OptionalDouble towerWidth() {
            return SmallTower.width(last);
        }

        @Override
        public Bin with(SmallTower tower) {
            return new Bin(Optional.of(tower));
        }

        @Override
        public Bin wide(double width) {
            return new Bin(last.map(t -> t.wide(width)));
        }
    }

    /**
     * Wherever the machine's own routine lets it fall.
     *
     * @param length mm of filament it pushes at every swap, whatever the colours
     * @param last that a small tower takes after it
     */
    record Routine(double length, Optional<SmallTower> last) implements PurgePlace {
        /** What common routines push if nobody changes it, mm; from memory. */
        public static final double USUAL = 100;

        public Routine {
            if (!(length >= 0 && length <= 2000)) {
                throw Refusal.of("A routine that purges %s mm of filament is out of range; give 0 to 2000 mm.", length);
            }
        }

        public Routine(double length) {
            this(length, Optional.empty());
        }

        @Override
        public Volume ontoTower(Volume purge) {
            return last.map(SmallTower::volume).orElse(Volume.NONE);
        }

        @Override
        public Volume beside(Volume purge, Filament filament) {
            return filament.volume(length);
        }

        @Override
        public OptionalDouble towerWidth() {
            return SmallTower.width(last);
        }

        @Override
        public Routine with(SmallTower tower) {
            return new Routine(length, Optional.of(tower));
        }

        @Override
        public Routine wide(double width) {
            return new Routine(length, last.map(t -> t.wide(width)));
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
            requireWidth(width);
        }

        @Override
        public Volume ontoTower(Volume purge) {
            return purge;
        }

        @Override
        public Volume beside(Volume purge, Filament filament) {
            return Volume.NONE;
        }

        @Override
        public OptionalDouble towerWidth() {
            return OptionalDouble.of(width);
        }

        @Override
        public OnTower with(SmallTower tower) {
            return this;
        }

        @Override
        public OnTower wide(double other) {
            return new OnTower(other);
        }
    }

    /**
     * A tower that takes the last of a purge whose rest is pushed out beside the print, and the strand that hangs from the nozzle
     * on its way back.
     *
     * @param width mm
     * @param volume it takes of each purge
     */
    record SmallTower(double width, Volume volume) {
        /** Wide enough to be met on the way back, and a few mm³: common practice, with no source. */
        public static final SmallTower USUAL = new SmallTower(15, new Volume(15));

        private static final double MOST = 500;

        public SmallTower {
            requireWidth(width);
            if (!(volume.cubicMillimetres() > 0 && volume.cubicMillimetres() <= MOST)) {
                throw Refusal.of(
                        "A small tower that takes %s mm³ of each purge is out of range; give 1 to %.0f mm³, %s is usual.",
                        volume.cubicMillimetres(), MOST, USUAL.volume.cubicMillimetres());
            }
        }

        private static OptionalDouble width(Optional<SmallTower> tower) {
            return tower.map(t -> OptionalDouble.of(t.width)).orElseGet(OptionalDouble::empty);
        }

        private SmallTower wide(double other) {
            return new SmallTower(other, volume);
        }

        private Volume of(Volume purge) {
            return purge.cubicMillimetres() < volume.cubicMillimetres() ? purge : volume;
        }
    }

    private static void requireWidth(double width) {
        if (!(width >= 5 && width <= 300)) {
            throw Refusal.of("A tower %s mm wide is out of range; give 5 to 300 mm, 30 is usual.", width);
        }
    }
}
