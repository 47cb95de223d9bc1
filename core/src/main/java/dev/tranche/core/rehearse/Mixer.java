package dev.tranche.core.rehearse;

import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.rig.Rack;
import java.util.Arrays;

/**
 * What a firmware knows of a nozzle with several inputs, as open firmware has it (common practice): M163 collects weights, M164
 * keeps them as a virtual extruder, T chooses one, and M166 turns one into another between two heights. Not for two threads.
 */
final class Mixer {
    private final int[] feeds;
    private final int filaments;
    private final double[] collected;
    private final double[][] kept;
    private int chosen;

    private boolean turns;
    private double from;
    private double to;
    private int first;
    private int last;

    /**
     * @param inputs how many there are; each extruder begins as all of one
     * @param filaments how many there are to feed
     */
    Mixer(int inputs, int filaments) {
        this.feeds = new int[inputs];
        this.filaments = filaments;
        this.collected = new double[inputs];
        this.kept = new double[Rack.MOST][inputs];
        for (int t = 0; t < kept.length; t++) {
            kept[t][t % inputs] = 1;
        }
    }

    /** Filament {@code filament} comes from {@code input}, both from 0. */
    void feeds(int input, int filament) {
        feeds[input] = filament;
    }

    void choose(int extruder) {
        if (extruder >= 0 && extruder < kept.length) {
            chosen = extruder;
        }
    }

    void obey(GcodeScanner line) {
        if (line.is('M', 163)) {
            int input = (int) line.get('S', 0);
            if (input >= 0 && input < collected.length) {
                collected[input] = Math.max(0, line.get('P', 0));
            }
        } else if (line.is('M', 164)) {
            keep((int) line.get('S', 0));
        } else if (line.is('M', 166)) {
            from = line.get('A', from);
            to = line.get('Z', to);
            first = (int) line.get('I', first);
            last = (int) line.get('J', last);
            turns = line.get('S', turns ? 1 : 0) > 0 && isKept(first) && isKept(last);
        }
    }

    private boolean isKept(int extruder) {
        return extruder >= 0 && extruder < kept.length;
    }

    /** Weights count by what they are of all that was collected. */
    private void keep(int extruder) {
        double sum = 0;
        for (double w : collected) {
            sum += w;
        }
        for (int i = 0; isKept(extruder) && sum > 0 && i < collected.length; i++) {
            kept[extruder][i] = collected[i] / sum;
        }
        Arrays.fill(collected, 0);
    }

    /** How much of each filament comes out at {@code z}, mm. */
    double[] shares(double z) {
        double[] shares = new double[filaments];
        double way = turns ? Math.max(0, Math.min(1, (z - from) / Math.max(1e-9, to - from))) : 0;
        for (int i = 0; i < feeds.length; i++) {
            shares[feeds[i]] += turns ? (1 - way) * kept[first][i] + way * kept[last][i] : kept[chosen][i];
        }
        return shares;
    }
}
