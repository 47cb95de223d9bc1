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

    /** Lines of all of them that are kept: nobody swaps ten thousand times. */
    private static final int MOST = 200_000;

    private static final Pattern FILAMENT = Pattern.compile("\\s*[Ee] ?[-+.\\d]+");
    /** A move that leads nowhere. */
    private static final Pattern NOTHING = Pattern.compile("\\s*([Gg]0*[0-3])?\\s*");

    private final List<Unloading> found = new ArrayList<>();
    private final List<Moved> moved = new ArrayList<>();
    /** How far it is drawn back, mm, at most {@code furthest} since it came out last. */
    private double back;

    private double furthest;
    private int kept;

    /**
     * A line that has moved filament.
     *
     * @param from how far it was drawn back before, mm
     * @param count of the extruder after it, as the file gives it
     */
    private record Moved(Span span, long line, byte[] code, double from, double count) {
        /** @param owed filament that it has to push all the same, in the file's unit, and {@code added} whether that is added up */
        Fed fed(double owed, boolean added) {
            String text = new String(code, StandardCharsets.ISO_8859_1);
            String rest = FILAMENT.matcher(text).replaceFirst("");
            List<String> lines = new ArrayList<>();
            if (!NOTHING.matcher(rest).matches()) {
                lines.add(rest);
            }
            lines.add("G92 E" + number(count - owed));
            if (owed > 0) {
                lines.add("G1 E" + number(added ? owed : count));
            }
            return new Fed(span, line, text, lines);
        }

        private static String number(double value) {
            return Words.format("%.5f", value);
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
            return goes ? isOutAfterWay(now) : isOut();
        }
        boolean prints = de > 0 && goes && (!isOut() || de < THICKEST * now.length());
        if (prints || moved.size() == MOST_LINES) {
            forget(0);
            return false;
        }
        moved.add(new Moved(new Span(line.offset(), line.end()), line.line(), line.code(), back, now.count()));
        back -= de;
        furthest = Math.max(furthest, back);
        boolean isOut = isOut();
        if (back < NEAR) {
            if (isOut) {
                found(0, now);
            }
            forget(0);
        }
        return isOut;
    }

    private boolean isOutAfterWay(Controller now) {
        if (!isOut()) {
            // What was drawn back before a way is an ordinary retraction.
            moved.clear();
            return false;
        }
        // It goes on as far drawn back as it was before all that.
        for (int i = 0; i < moved.size(); i++) {
            if (back < OUT && Math.abs(moved.get(i).from() - back) < NEAR) {
                found(i, now);
                forget(back);
                return false;
            }
        }
        return true;
    }

    /** From the {@code first} of the lines on, it is drawn out and pushed in again. */
    private void found(int first, Controller now) {
        if (kept + moved.size() > MOST) {
            return;
        }
        kept += moved.size();
        double before = moved.get(first).from();
        double owed = Math.max(0, before - Math.max(0, back));
        List<Fed> lines = new ArrayList<>();
        for (Moved m : moved.subList(first, moved.size())) {
            boolean last = lines.size() == moved.size() - first - 1;
            lines.add(m.fed(last && owed > NEAR ? now.counted(owed) : 0, now.addsFilament()));
        }
        found.add(new Unloading(furthest - before, before, lines));
    }

    private boolean isOut() {
        return furthest > OUT;
    }

    private void forget(double left) {
        back = left;
        furthest = left;
        moved.clear();
    }

    List<Unloading> found() {
        return found;
    }
}
