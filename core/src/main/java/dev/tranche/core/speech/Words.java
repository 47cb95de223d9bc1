package dev.tranche.core.speech;

import java.util.List;
import java.util.Locale;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** How text that came from outside may be repeated in a sentence or written into a line of a file. */
public final class Words {
    private static final int MOST_NAMED = 3;

    private Words() {}

    /** A name that is not taken: as it is given, or else with a number after it, and cut so that it has at most {@code longest} letters. */
    public static String free(String name, int longest, Predicate<String> taken) {
        return IntStream.iterate(1, i -> i + 1)
                .mapToObj(i -> i == 1 ? "" : " " + i)
                .map(number -> name.substring(0, Math.min(name.length(), longest - number.length())) + number)
                .filter(taken.negate())
                .findFirst()
                .orElseThrow();
    }

    /** At most 40 characters of {@code text} on one line, for quoting in a message. */
    public static String quoted(String text) {
        String line = oneLine(text == null ? "" : text);
        return line.length() <= 40 ? line : line.substring(0, 39) + "…";
    }

    /** Names for a sentence, each {@link #quoted}, and of many how many more there are: {@code “A”, “B”, “C” and 12 others}. */
    public static String some(List<String> names) {
        String first =
                names.stream().limit(MOST_NAMED).map(n -> "“" + quoted(n) + "”").collect(Collectors.joining(", "));
        int more = names.size() - MOST_NAMED;
        return more <= 0 ? first : first + " and " + count(more, "other");
    }

    /** {@code text} with every run of control characters, line breaks included, made one space. */
    public static String oneLine(String text) {
        return text.replaceAll("[\\p{Cntrl}\\u2028\\u2029]+", " ").strip();
    }

    /** As {@link String#format}, with a decimal point wherever Tranche runs: the one way in which sentences hold numbers. */
    public static String format(String format, Object... arguments) {
        return String.format(Locale.ROOT, format, arguments);
    }

    /** A number to the thousandth, without zeros at its end: {@code 0.67}, {@code 1}. */
    public static String thousandths(double value) {
        String text = format("%.3f", value).replaceAll("0+$", "");
        return text.endsWith(".") ? text.substring(0, text.length() - 1) : text;
    }

    /** A count with its noun: {@code 1 swap}, {@code 3 swaps}. */
    public static String count(long number, String noun) {
        return count(number, noun, noun + "s");
    }

    /** Layers that follow one another: {@code layer 3}, {@code layers 3–5}. */
    public static String layers(int first, int last) {
        return first == last ? "layer " + first : "layers " + first + "–" + last;
    }

    /** As {@link #count(long, String)}, of a noun that has a plural of its own. */
    public static String count(long number, String noun, String plural) {
        return number + " " + (number == 1 ? noun : plural);
    }
}
