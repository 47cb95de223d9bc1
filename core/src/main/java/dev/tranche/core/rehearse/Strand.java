package dev.tranche.core.rehearse;

import java.util.HashMap;
import java.util.Map;

/**
 * The filament in a printer: which one it is, how far back of the nozzle's tip its own tip is, and what is molten in the nozzle.
 * Not for two threads.
 */
final class Strand {
    private static final int NOTHING = -1;
    /** Not further back than this, it is at the tip, mm: rounding. */
    private static final double NEAR = 0.01;
    /** Shares are told again when one has changed by so much of itself; less than a millionth is not looked at. */
    private static final double TOLD = 0.05;

    private static final double LEAST = 1e-6;

    private final double gears;
    private final double area;
    private final int filaments;
    private final NozzleMelt melt;
    private final double[] told;
    private final Map<Integer, Double> ends = new HashMap<>();
    private int loaded;
    /** mm; 0 at the nozzle's tip, below it further back. */
    private double tip;

    private boolean ended;
    /** Shares of what several inputs feed; none where there is one. */
    private double[] blend;

    /**
     * @param gears mm from the gears to the nozzle's tip
     * @param area mm² of the filament
     * @param deadVolume V₀ of the nozzle, mm³
     * @param first of {@code filaments}, which is loaded to the tip
     */
    Strand(double gears, double area, double deadVolume, int filaments, int first) {
        this.gears = gears;
        this.area = area;
        this.filaments = filaments;
        this.melt = new NozzleMelt(deadVolume, filaments, first);
        this.told = melt.shares();
        this.loaded = first;
    }

    boolean isThere() {
        return loaded != NOTHING;
    }

    int loaded() {
        return loaded;
    }

    /** What comes from here on is several at once, in those shares. */
    void blends(double[] shares) {
        blend = shares;
    }

    /** Whether there is one of that number. */
    boolean has(int filament) {
        return filament >= 0 && filament < filaments;
    }

    /** Whether it reaches beyond the gears, so that a hand has to pull it out of the heat. */
    boolean isInTheHeat() {
        return isThere() && tip > -gears;
    }

    void pullOut() {
        loaded = NOTHING;
    }

    /** Puts one in, with its tip at the nozzle's. */
    void putToNozzle(int filament) {
        loaded = filament;
        tip = 0;
    }

    /** Puts one in, up to the gears. */
    void putToGears(int filament) {
        loaded = filament;
        tip = -gears;
    }

    /** Another one takes the place of what was there, as far back as that was. */
    void present(int filament) {
        loaded = has(filament) ? filament : NOTHING;
    }

    /** Drawn out by a routine, so many mm from where it is. */
    void drawOut(double mm) {
        tip -= mm;
        if (tip <= -gears) {
            loaded = NOTHING;
        }
    }

    /** So many mm of that filament from now, it ends. */
    void endsAfter(int filament, double mm) {
        ends.put(filament, mm);
    }

    /** Whether it has ended since that was asked last. */
    boolean hasEnded() {
        boolean now = ended;
        ended = false;
        return now;
    }

    /**
     * The gears turn.
     *
     * @param mm forwards, or back where it is below 0
     * @return how much of it did not come out of the nozzle, mm
     */
    double feed(double mm) {
        if (!isThere() || ends(mm)) {
            return Math.max(0, mm);
        }
        double before = tip;
        tip += mm;
        if (tip > 0) {
            if (blend == null) {
                melt.push(tip * area, loaded);
            } else {
                melt.push(tip * area, blend);
            }
            tip = 0;
        } else if (tip <= -gears && mm < 0) {
            loaded = NOTHING;
        }
        return mm > 0 && before < -NEAR ? Math.min(mm, -before) : 0;
    }

    private boolean ends(double mm) {
        Double left = ends.get(loaded);
        if (left == null) {
            return false;
        }
        ends.put(loaded, left - mm);
        if (left - mm >= 0) {
            return false;
        }
        ends.remove(loaded);
        loaded = NOTHING;
        ended = true;
        return true;
    }

    /** Whether what is molten has changed enough to be told again. */
    boolean hasChanged() {
        for (int i = 0; i < filaments; i++) {
            double more = Math.max(melt.share(i), told[i]);
            if (more > LEAST && Math.abs(melt.share(i) - told[i]) > TOLD * more || melt.share(i) == 1 && told[i] != 1) {
                return true;
            }
        }
        return false;
    }

    /** The shares, with blanks before them. */
    String tell() {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < filaments; i++) {
            told[i] = melt.share(i);
            text.append(' ').append((float) told[i]);
        }
        return text.toString();
    }
}
