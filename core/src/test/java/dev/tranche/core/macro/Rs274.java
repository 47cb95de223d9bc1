package dev.tranche.core.macro;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.Modes;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A second interpreter, for tests alone: the meaning of G0, G1, G20, G21, G90, G91 and G92 as Kramer, Proctor and
 * Messina, "The NIST RS274NGC Interpreter, Version 3", NISTIR 6556 (2000), §3.5, give it, and M82 and M83 as open
 * firmware has them, under either of its two readings of G90 and G91 (common practice). It shares no code with the core's.
 */
final class Rs274 {
    private static final Pattern WORD = Pattern.compile("([A-Z])(-?[0-9.]+)");

    private final Map<Character, Double> axes = new HashMap<>();
    private double scale;
    private boolean incremental;
    private boolean incrementalExtruder;
    private double feed;

    /** Whether G90 and G91 count filament, too. */
    private final boolean together;

    Rs274(ControllerState entry, boolean together) {
        this.together = together;
        axes.put('X', entry.x());
        axes.put('Y', entry.y());
        axes.put('Z', entry.z());
        axes.put('E', entry.e());
        scale = entry.units().inches() ? 25.4 : 1;
        incremental = entry.modes().relativeMoves();
        incrementalExtruder = counts(entry);
        feed = entry.feed() * 60;
    }

    void obey(String line) {
        if (line.startsWith("M117")) {
            return;
        }
        Map<Character, Double> words = new HashMap<>();
        Matcher m = WORD.matcher(line);
        while (m.find()) {
            words.put(m.group(1).charAt(0), Double.parseDouble(m.group(2)));
        }
        switch (line.split(" ")[0]) {
            case "G0", "G1" -> move(words);
            case "G20" -> scale = 25.4;
            case "G21" -> scale = 1;
            case "G90" -> {
                incremental = false;
                incrementalExtruder &= !together;
            }
            case "G91" -> {
                incremental = true;
                incrementalExtruder |= together;
            }
            case "G92" -> words.forEach((axis, value) -> axes.replace(axis, value * scale));
            case "M82" -> incrementalExtruder = false;
            case "M83" -> incrementalExtruder = true;
            default -> {}
        }
    }

    private void move(Map<Character, Double> words) {
        for (char axis : "XYZE".toCharArray()) {
            if (words.containsKey(axis)) {
                boolean adds = axis == 'E' ? incrementalExtruder : incremental;
                axes.put(axis, words.get(axis) * scale + (adds ? axes.get(axis) : 0));
            }
        }
        feed = words.containsKey('F') ? words.get('F') * scale : feed;
    }

    private boolean counts(ControllerState entry) {
        Modes modes = entry.modes();
        return together && !modes.filamentLast() ? modes.relativeMoves() : modes.relativeFilament();
    }

    boolean isBackAt(ControllerState entry) {
        return Math.abs(axes.get('X') - entry.x()) < 0.002
                && Math.abs(axes.get('Y') - entry.y()) < 0.002
                && Math.abs(axes.get('Z') - entry.z()) < 0.002
                && Math.abs(axes.get('E') - entry.e()) < 0.002
                && Math.abs(feed - entry.feed() * 60) < 0.2
                && incremental == entry.modes().relativeMoves()
                && incrementalExtruder == counts(entry)
                && (scale != 1) == entry.units().inches();
    }
}
