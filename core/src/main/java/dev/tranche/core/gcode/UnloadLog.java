package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Fed;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.gcode.SlicedFile.Unloading;
import dev.tranche.core.speech.Words;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * Where a file draws filament out of the nozzle and pushes it, or another, in again, as machines want it that change filament by
 * themselves. What is pushed until it is back lays no plastic.
 */
final class UnloadLog {
    /** Drawn back further than that, filament is out of the nozzle, mm; no retraction goes so far (common practice). */
    private static final double OUT = 20;
    /** A line of plastic takes less filament for its way, mm of it for each: one of 0.5 mm² does. */
    private static final double THICKEST = 0.2;

    private static final double NEAR = 0.001;
    /** Of one unloading and what follows until it is loaded. */
    private static final int MOST_LINES = 300;

    private static final int MOST = 100_000;

    private static final Pattern FILAMENT = Pattern.compile("\\s*[Ee] ?[-+.\\d]+");
    /** A move that leads nowhere. */
    private static final Pattern NOTHING = Pattern.compile("\\s*([Gg]0*[0-3])?\\s*");

    private final List<Unloading> found = new ArrayList<>();
    private final List<Moved> moved = new ArrayList<>();
    /** How far it is drawn back, mm, at most {@code furthest} since it came out last. */
    private double back;

    private double furthest;
    /** How far it was before the first of {@link #moved}, mm. */
    private double before;

    /** A line that has moved filament, after which the extruder has counted so far. */
    private record Moved(Span span, long line, byte[] code, double count) {
        Fed fed() {
            String text = new String(code, StandardCharsets.ISO_8859_1);
            String rest = FILAMENT.matcher(text).replaceFirst("");
            String counts = "G92 E" + Words.format("%.5f", count);
            return new Fed(span, line, text, NOTHING.matcher(rest).matches() ? List.of(counts) : List.of(rest, counts));
        }
    }

    /** A move has been made; answers whether filament is out of the nozzle, so that it lays none. */
    boolean isOutAfter(GcodeScanner line, Controller now) {
        double de = now.de();
        if (back == 0 && de >= 0) {
            return false;
        }
        boolean goes = now.dx() != 0 || now.dy() != 0;
        if (de == 0) {
            if (goes && !isOut()) {
                // What was drawn back before a way is an ordinary retraction.
                moved.clear();
            }
            return isOut();
        }
        boolean prints = isOut() && de > 0 && goes && de < THICKEST * now.length();
        if (prints || moved.size() == MOST_LINES) {
            forget();
            return false;
        }
        if (moved.isEmpty()) {
            before = back;
        }
        moved.add(new Moved(new Span(line.offset(), line.end()), line.line(), line.code(), now.count()));
        back -= de;
        furthest = Math.max(furthest, back);
        boolean isOut = isOut();
        if (back < NEAR) {
            if (isOut && found.size() < MOST) {
                found.add(new Unloading(
                        furthest - before,
                        before,
                        moved.stream().map(Moved::fed).toList()));
            }
            forget();
        }
        return isOut;
    }

    private boolean isOut() {
        return furthest > OUT;
    }

    private void forget() {
        back = 0;
        furthest = 0;
        moved.clear();
    }

    List<Unloading> found() {
        return found;
    }
}
