package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/**
 * How lines begin that mean something to one printer only, such as the name of a macro of its owner's. Capitals and small
 * letters are the same in it, and spaces however many they are; what follows are parameters.
 *
 * @param text at most {@value #LONGEST} letters of ASCII; {@value #NUMBER} in it stands for a whole number
 */
public record OwnLine(String text) {
    /** Where the number of a tool stands. */
    public static final char NUMBER = '#';

    static final int LONGEST = 60;
    /** Of one kind. */
    static final int MOST = 20;

    public OwnLine {
        text = Words.oneLine(text).replaceAll(" +", " ").toUpperCase(Locale.ROOT);
        if (text.isEmpty() || text.length() > LONGEST || !text.chars().allMatch(c -> c >= ' ' && c < 127)) {
            throw Refusal.of(
                    "“%s” cannot be how a line of G-code begins; give at most %d plain letters and digits.",
                    Words.quoted(text), LONGEST);
        }
        if (text.startsWith(";") || text.startsWith("(") || text.startsWith(String.valueOf(NUMBER))) {
            throw Refusal.of(
                    "“%s” would be a comment or a number; give the command or the name a line begins with.",
                    Words.quoted(text));
        }
    }

    /** Whether a number is part of it. */
    public boolean hasNumber() {
        return text.indexOf(NUMBER) >= 0;
    }

    /** One of each line of {@code typed}. */
    public static List<OwnLine> read(String typed) {
        return typed == null
                ? List.of()
                : typed.lines()
                        .filter(l -> !l.isBlank())
                        .map(OwnLine::new)
                        .distinct()
                        .toList();
    }

    /** As {@link #read} takes them. */
    public static String shown(List<OwnLine> lines) {
        return lines.stream().map(OwnLine::text).collect(Collectors.joining("\n"));
    }
}
