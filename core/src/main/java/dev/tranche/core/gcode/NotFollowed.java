package dev.tranche.core.gcode;

import dev.tranche.core.speech.Words;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A command that leads the nozzle, or says where it is, in a way that {@link Controller} does not follow: splines (G5, G6), arcs
 * in other planes (G18, G19), other origins (G55 to G59), turned places (G68), and G92 without an axis, which firmwares take as
 * nothing or as a zero for each. Planes, origins and G92.1 by Kramer, Proctor and Messina, "The NIST RS274NGC Interpreter,
 * Version 3", NISTIR 6556 (2000); the others by common practice.
 *
 * @param line from 1
 * @param command such as G92.1
 */
public record NotFollowed(long line, String command) {
    private static final Set<Integer> ALL = Set.of(5, 6, 18, 19, 55, 56, 57, 58, 59, 68);
    /** Variants with a number behind the point. */
    private static final Pattern VARIANT = Pattern.compile("(?i)G(0?5|59|92)\\.\\d+");

    static Optional<NotFollowed> in(GcodeScanner line) {
        if (line.letter() != 'G') {
            return Optional.empty();
        }
        if (line.number() == 92) {
            return line.has('X') || line.has('Y') || line.has('Z') || line.has('E')
                    ? Optional.empty()
                    : Optional.of(new NotFollowed(line.line(), "G92"));
        }
        if (ALL.contains(line.number())) {
            return Optional.of(new NotFollowed(line.line(), "G" + line.number()));
        }
        if (line.number() >= 0) {
            return Optional.empty();
        }
        Matcher variant = VARIANT.matcher(line.codeText());
        return variant.lookingAt()
                ? Optional.of(new NotFollowed(line.line(), variant.group().toUpperCase(Locale.ROOT)))
                : Optional.empty();
    }

    /** What it is and what to do, in one sentence. */
    public String sentence() {
        return command.equals("G92")
                ? Words.format(
                        "Line %d of the G-code is G92 without an axis, which one firmware takes as nothing and another as a zero for all; slice it with the axis that is meant, such as G92 E0.",
                        line)
                : Words.format(
                        "Line %d of the G-code (%s) leads the nozzle in a way that is not followed here, so nobody knows where it prints from there; slice it without that command.",
                        line, command);
    }
}
