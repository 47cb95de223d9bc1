package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * Colours that a file gives to single corners or faces. {@value #MOST} are told apart to the last digit; what comes after them is
 * told by its first four bits.
 */
final class Tints {
    private static final int MOST = 4096;
    /** Of a corner that has none. */
    private static final int PLAIN = -1;

    /** By the numbers of corners, 0xRRGGBB, or {@link #PLAIN}; as many as there are up to the last that has one. */
    private int[] given = {};

    private final Set<Integer> met = new HashSet<>();

    void put(int corner, Srgb colour) {
        if (given.length <= corner) {
            int before = given.length;
            given = Arrays.copyOf(given, Math.max(1024, 2 * corner));
            Arrays.fill(given, before, given.length, PLAIN);
        }
        given[corner] = told(colour);
    }

    private int told(Srgb colour) {
        int exact = Picture.rgb(colour);
        int told = met.size() < MOST || met.contains(exact) ? exact : exact & 0xF0F0F0 | 0x080808;
        met.add(told);
        return told;
    }

    boolean isEmpty() {
        return given.length == 0;
    }

    /** A face's own. */
    Srgb of(Srgb colour) {
        return srgb(told(colour));
    }

    /** A triangle's: that of most of its corners, by their numbers. */
    Optional<Srgb> of(int a, int b, int c) {
        int most = most(given(a), given(b), given(c));
        return most == PLAIN ? Optional.empty() : Optional.of(srgb(most));
    }

    /** As {@link #of(int, int, int)}, of corners that have these. */
    Srgb of(Srgb a, Srgb b, Srgb c) {
        return srgb(most(told(a), told(b), told(c)));
    }

    private static int most(int a, int b, int c) {
        return b == c ? b : a;
    }

    private int given(int corner) {
        return corner < given.length ? given[corner] : PLAIN;
    }

    private static Srgb srgb(int rgb) {
        return new Srgb(rgb >> 16, rgb >> 8 & 0xFF, rgb & 0xFF);
    }
}
