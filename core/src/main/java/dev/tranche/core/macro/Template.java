package dev.tranche.core.macro;

import com.samskivert.mustache.Mustache;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Letters;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Text with Mustache names in it, an open template language (mustache(5)). A name that {@link MacroName} does not
 * list is refused when the text is typed, so that nothing comes out empty at the machine.
 */
final class Template {
    private static final int LONGEST = 4000;
    private static final int MOST_CACHED = 500;
    private static final Map<String, Template> CACHE = new HashMap<>();

    /** All that a text may hold of the language: a name, which that would write escaped or as it is. */
    private static final Pattern NAME =
            Pattern.compile("(?<!\\{)\\{\\{(?:\\s*(\\w+)\\s*|&\\s*(\\w+)\\s*|\\{\\s*(\\w+)\\s*})}}(?!})");

    private final com.samskivert.mustache.Template compiled;
    private final Set<MacroName> names = EnumSet.noneOf(MacroName.class);

    private Template(String text) {
        if (text.length() > LONGEST) {
            throw Refusal.of("The text is %d letters long; %d are allowed.", text.length(), LONGEST);
        }
        Matcher tag = NAME.matcher(text);
        int at = 0;
        while (tag.find()) {
            requireNoBraces(text.substring(at, tag.start()));
            at = tag.end();
            names.add(known(Stream.of(tag.group(1), tag.group(2), tag.group(3))
                    .filter(Objects::nonNull)
                    .findFirst()
                    .orElseThrow()));
        }
        requireNoBraces(text.substring(at));
        compiled = Mustache.compiler().escapeHTML(false).compile(text);
    }

    /** Sections, texts put into others, other braces: whatever the language has beside names is nothing a macro needs. */
    private static void requireNoBraces(String between) {
        int open = between.indexOf("{{");
        int wrong = open >= 0 ? open : between.indexOf("}}");
        if (wrong >= 0) {
            throw Refusal.of(
                    "“%s” is not a name between braces, and macros know nothing else; write names as {{in}}.",
                    Words.quoted(between.substring(wrong)));
        }
    }

    private static MacroName known(String name) {
        return MacroName.find(name)
                .orElseThrow(() -> Refusal.of(
                        "{{%s}} is not a name that macros know; the list beside the editor has those that are.",
                        Words.quoted(name)));
    }

    /**
     * @throws Refusal if the text holds an unknown name or braces that do not match
     */
    static synchronized Template of(String text) {
        if (CACHE.size() > MOST_CACHED) {
            CACHE.clear();
        }
        return CACHE.computeIfAbsent(text, Template::new);
    }

    /** The names it holds. */
    Set<MacroName> names() {
        return names;
    }

    /** The text with its names filled in; their values hold no line break and nothing that begins a comment. */
    String fill(Moment moment, Printer printer) {
        return fill(moment, printer, Map.of());
    }

    /** @param words that stand for names instead of their values */
    String fill(Moment moment, Printer printer, Map<MacroName, String> words) {
        Map<String, String> values = new HashMap<>();
        for (MacroName name : names) {
            values.put(name.code(), words.containsKey(name) ? words.get(name) : plain(name.value(moment, printer)));
        }
        return compiled.execute(values);
    }

    /** Its lines with their names filled in, without blank ones. */
    List<String> lines(Moment moment, Printer printer, Map<MacroName, String> words) {
        return Letters.plain(fill(moment, printer, words))
                .lines()
                .map(String::strip)
                .filter(l -> !l.isEmpty())
                .toList();
    }

    /** Letters every display can show, on one line, without what would begin a comment. */
    static String plain(String text) {
        return Letters.plain(Words.oneLine(text))
                .replaceAll("[;()*\\\\\"\\s]+", " ")
                .strip();
    }
}
