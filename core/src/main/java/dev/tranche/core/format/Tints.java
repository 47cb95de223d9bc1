package dev.tranche.core.format;

import dev.tranche.core.colour.Srgb;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/** Colours that a file gives to corners, by the numbers of those; a triangle has the one that most of its corners have. */
final class Tints {
    /** Of a corner that has none. */
    private static final int PLAIN = -1;
    /** So many are told apart to the last digit; what comes after them is told by its first four bits. */
    private static final int MOST = 4096;

    /** 0xRRGGBB, or {@link #PLAIN}; as many as there are corners up to the last that has one. */
    private int[] rgb = {};

    private final Set<Integer> met = new HashSet<>();

    void put(int corner, Srgb colour) {
        if (rgb.length <= corner) {
            int before = rgb.length;
            rgb = Arrays.copyOf(rgb, Math.max(1024, 2 * corner));
            Arrays.fill(rgb, before, rgb.length, PLAIN);
        }
        int exact = Picture.rgb(colour);
        rgb[corner] = met.size() < MOST || met.contains(exact) ? exact : exact & 0xF0F0F0 | 0x080808;
        met.add(rgb[corner]);
    }

    boolean isEmpty() {
        return rgb.length == 0;
    }

    Optional<Srgb> of(int a, int b, int c) {
        int most = of(b) == of(c) ? of(b) : of(a);
        return most == PLAIN ? Optional.empty() : Optional.of(new Srgb(most >> 16, most >> 8 & 0xFF, most & 0xFF));
    }

    private int of(int corner) {
        return corner < rgb.length ? rgb[corner] : PLAIN;
    }
}
