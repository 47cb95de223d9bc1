package dev.tranche.core.rehearse;

import java.util.Arrays;

/**
 * What is molten in a nozzle, as volume shares of filaments. Pushing ΔV of one through a dead volume V₀ turns the shares c into
 * n + (c − n)·exp(−ΔV/V₀), n being that filament alone. Not for two threads.
 */
final class NozzleMelt {
    /** Less of a filament than this is none. */
    private static final double TRACE = 1e-9;

    private final double deadVolume;
    private final double[] shares;
    private boolean pure = true;
    private int only;

    /**
     * @param deadVolume V₀, mm³
     * @param filaments how many there are
     * @param first the one it is full of
     */
    NozzleMelt(double deadVolume, int filaments, int first) {
        this.deadVolume = deadVolume;
        this.shares = new double[filaments];
        this.shares[first] = 1;
        this.only = first;
    }

    /** Pushes {@code volume} mm³ of {@code filament} through; true if the shares have changed. */
    boolean push(double volume, int filament) {
        if (pure && filament == only) {
            return false;
        }
        double left = Math.exp(-volume / deadVolume);
        for (int i = 0; i < shares.length; i++) {
            shares[i] *= left;
        }
        shares[filament] += 1 - left;
        if (shares[filament] > 1 - TRACE) {
            Arrays.fill(shares, 0);
            shares[filament] = 1;
            only = filament;
            pure = true;
        } else {
            pure = false;
        }
        return true;
    }

    /** Pushes {@code volume} mm³ of several at once through, in those shares. */
    void push(double volume, double[] blend) {
        double left = Math.exp(-volume / deadVolume);
        pure = false;
        for (int i = 0; i < shares.length; i++) {
            shares[i] = blend[i] + (shares[i] - blend[i]) * left;
            if (shares[i] > 1 - TRACE) {
                only = i;
                pure = true;
            }
        }
        if (pure) {
            Arrays.fill(shares, 0);
            shares[only] = 1;
        }
    }

    double share(int filament) {
        return shares[filament];
    }

    double[] shares() {
        return shares.clone();
    }
}
