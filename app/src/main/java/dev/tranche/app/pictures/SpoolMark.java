package dev.tranche.app.pictures;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.plan.Mixture;
import dev.tranche.core.plan.Paints;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import java.util.stream.IntStream;

/**
 * How a spool of a plan is told apart without colour: a letter and a hatch.
 *
 * @param letter A, B, C…
 * @param hex its colour
 * @param ink what its marks are drawn in, dark on light and light on dark
 * @param angle of its hatch, degrees
 * @param kind 0 lines, 1 dots, 2 crossed lines
 * @param pitch of its hatch, px
 * @param fade colours from what it begins with to what it ends with, if it is a fade
 * @param strength of its ink, 0…1: enough to be told, too little to change the colour
 */
public record SpoolMark(
        char letter,
        long id,
        String name,
        String hex,
        String ink,
        int angle,
        int kind,
        int pitch,
        List<String> fade,
        double strength) {
    /** So many colours tell a fade. */
    private static final int TONES = 9;

    private static final int[] ANGLES = {45, 0, -45, 0, 45, 90, 20, 0, -20};
    private static final int[] KINDS = {0, 1, 0, 0, 2, 0, 0, 2, 0};

    public static SpoolMark of(char letter, Spool spool) {
        return of(letter, spool, List.of());
    }

    private static SpoolMark of(char letter, Spool spool, List<String> fade) {
        int i = letter - 'A';
        return new SpoolMark(
                letter,
                spool.id().value(),
                spool.name(),
                spool.colour().hex(),
                spool.colour().isLight() ? "#22262B" : "#FFFFFF",
                ANGLES[i % ANGLES.length],
                KINDS[i % KINDS.length],
                10 + 3 * (i / ANGLES.length),
                fade,
                spool.colour().isLight() ? 0.22 : 0.3);
    }

    public static SpoolMark of(Workpiece work, SpoolId id) {
        return of(work.colours().letter(id), work.spool(id), fade(work, id));
    }

    private static List<String> fade(Workpiece work, SpoolId id) {
        return work.colours()
                .mixtures()
                .find(id)
                .filter(m -> m instanceof Mixture.Fade)
                .map(m -> IntStream.range(0, TONES)
                        .mapToObj(i -> new Paints.Shaded(id, i * Mixture.TURNED / (TONES - 1)))
                        .map(tone -> work.paints().of(tone).colour().hex())
                        .toList())
                .orElse(List.of());
    }

    /** The marks of all spools in the plan's palette. */
    public static List<SpoolMark> palette(Workpiece work) {
        return work.colours().palette().stream().map(id -> of(work, id)).toList();
    }
}
