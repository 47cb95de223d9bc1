package dev.tranche.core.macro;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.Map;

/**
 * How a host writes, in its own scripts, where the print was when it paused. Every host has its own way, so they
 * are typed as the host wants them.
 *
 * @param x mm, as {@code y}
 * @param e the extruder's count, mm
 * @param f feed, mm/min
 * @param mode the command that counts filament as the file did: M82, M83, or what the host puts there
 */
public record HostNames(String x, String y, String e, String f, String mode) {
    public static final HostNames COMMON = new HostNames("{x}", "{y}", "{e}", "{f}", "{mode}");

    public HostNames {
        x = name("X", x);
        y = name("Y", y);
        e = name("the extruder", e);
        f = name("the feed", f);
        mode = name("how filament is counted", mode);
    }

    private static String name(String what, String text) {
        String line = Words.oneLine(text);
        if (line.isEmpty() || line.length() > 60 || line.indexOf(';') >= 0) {
            throw Refusal.of(
                    "The host's name for %s must be 1 to 60 letters on one line, without a semicolon; copy it from the host's manual.",
                    what);
        }
        return line;
    }

    Spelling spelling() {
        return new Spelling(x, y, e, f, mode, "", Map.of());
    }
}
