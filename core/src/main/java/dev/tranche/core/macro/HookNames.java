package dev.tranche.core.macro;

import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.EnumMap;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * How a slicing program writes, in the texts that it runs at certain moments, what is so then. Every program has its own way,
 * so they are typed as it wants them; what it has no word for stays empty.
 *
 * @param old number of the tool that goes, and {@code next} of the one that comes
 * @param layer that is printed next
 * @param x where the print is left, mm, as {@code y} and {@code z}
 * @param e the extruder's count, mm
 * @param mode the command that counts filament as the file does
 * @param purge mm of filament to push through
 * @param ifTools begins what is done between two tools only, with {@value #NUMBER} for the number of the old one and then of
 *     the new one
 * @param ifLayer begins what is done before one layer only, with {@value #NUMBER} for its number
 * @param end ends either
 * @param firstLayer what it calls the first layer, 0 or 1
 */
public record HookNames(
        String old,
        String next,
        String layer,
        String x,
        String y,
        String z,
        String e,
        String mode,
        String purge,
        String ifTools,
        String ifLayer,
        String end,
        int firstLayer) {
    public static final char NUMBER = '#';

    static final int LONGEST = 120;

    public static final HookNames COMMON =
            new HookNames("{old}", "{new}", "{layer}", "{x}", "{y}", "{z}", "{e}", "{mode}", "", "", "", "", 1);

    public HookNames {
        old = needed("the old tool", old);
        next = needed("the new tool", next);
        layer = needed("the layer", layer);
        x = needed("X", x);
        y = needed("Y", y);
        z = needed("Z", z);
        e = line("the extruder's count", e);
        mode = needed("how filament is counted", mode);
        purge = line("the purge", purge);
        ifTools = numbered("a condition on tools", ifTools, 2);
        ifLayer = numbered("a condition on the layer", ifLayer, 1);
        end = line("the end of a condition", end);
        if (firstLayer != 0 && firstLayer != 1) {
            throw Refusal.of("The first layer is number 0 or 1 in programs, not %d.", firstLayer);
        }
    }

    private static String needed(String what, String text) {
        String line = line(what, text);
        if (line.isEmpty()) {
            throw Refusal.of("How the program writes %s is missing; copy it from the program's manual.", what);
        }
        return line;
    }

    private static String numbered(String what, String text, int numbers) {
        String line = line(what, text);
        if (!line.isEmpty() && line.chars().filter(c -> c == NUMBER).count() != numbers) {
            throw Refusal.of(
                    "%s needs %s for its number%s; “%s” has another count of them.",
                    capital(what), numbers == 1 ? "one #" : "two #", numbers == 1 ? "" : "s", Words.quoted(line));
        }
        return line;
    }

    private static String capital(String what) {
        return Character.toUpperCase(what.charAt(0)) + what.substring(1);
    }

    private static String line(String what, String text) {
        String line = Words.oneLine(text == null ? "" : text);
        if (line.length() > LONGEST) {
            throw Refusal.of("How the program writes %s is over %d letters long; shorten it.", what, LONGEST);
        }
        return line;
    }

    /** Lines that are run between those tools only. */
    public String between(int oldTool, int newTool, String lines) {
        return filled(ifTools, oldTool, newTool) + "\n" + lines + end + "\n";
    }

    /** Lines that are run before that layer only, from 1. */
    public String before(int number, String lines) {
        return filled(ifLayer, number - 1 + firstLayer) + "\n" + lines + end + "\n";
    }

    private static String filled(String pattern, int... numbers) {
        String[] parts = pattern.split(String.valueOf(NUMBER), -1);
        return IntStream.range(0, parts.length)
                .mapToObj(i -> parts[i] + (i < numbers.length && i + 1 < parts.length ? numbers[i] : ""))
                .collect(Collectors.joining());
    }

    public boolean knowsTools() {
        return !ifTools.isEmpty();
    }

    public boolean knowsLayers() {
        return !ifLayer.isEmpty();
    }

    /** Where one text is for one place of one plan, so that all but where the print is left is known. */
    Spelling spellingOfPlaces() {
        return new Spelling(x, y, e, "", mode, "", Map.of(MacroName.X, x, MacroName.Y, y, MacroName.Z, z));
    }

    /** Where the program knows by itself between which tools it is. */
    Spelling spellingOfTools() {
        Map<MacroName, String> words = new EnumMap<>(MacroName.class);
        words.put(MacroName.OUT, old);
        words.put(MacroName.IN, next);
        words.put(MacroName.LAYER, layer);
        words.put(MacroName.LAYER_FROM_0, layer);
        words.put(MacroName.NUMBER, "at layer " + layer);
        words.put(MacroName.OF, "the print");
        words.put(MacroName.X, x);
        words.put(MacroName.Y, y);
        words.put(MacroName.Z, z);
        if (!purge.isEmpty()) {
            words.put(MacroName.PURGE, purge);
        }
        return new Spelling(x, y, e, "", mode, purge, words);
    }
}
