package dev.tranche.core.macro;

import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Lines people write themselves, read as far as abilities go. */
final class OwnLine {
    /** Commands that every firmware has, or that do not matter to a swap (common practice). */
    private static final Set<String> EVERYWHERE = Set.of(
            "G0", "G1", "G2", "G3", "G20", "G21", "G28", "G90", "G91", "G92", "M82", "M83", "M105", "M106", "M107",
            "M114", "M118", "M140", "M190", "M204", "M220", "M221");

    private static final Pattern COMMAND = Pattern.compile("([GMTgmt])(\\d+)");
    private static final Pattern PARAMETER = Pattern.compile("([A-Za-z])([-+.\\d].*)?");

    private OwnLine() {}

    static RenderedLine read(String line, int step, Abilities abilities) {
        int comment = commentStart(line);
        String code = comment < 0 ? line : line.substring(0, comment).strip();
        Optional<Command> command = Command.startingLine(code);
        List<Word> words = new ArrayList<>();
        if (command.isPresent() && command.get() != Command.M117) {
            for (String word : code.split("\\s+")) {
                words.add(word(word, words.isEmpty(), command.get(), abilities));
            }
            if (comment >= 0) {
                words.add(Word.of(line.substring(comment)));
            }
        } else {
            words.add(Word.of(line, "written in the step"));
        }
        return new RenderedLine(words, step, command.map(abilities::understands).orElse(true), "written in the step");
    }

    private static Word word(String word, boolean first, Command command, Abilities abilities) {
        Matcher m = PARAMETER.matcher(word);
        char letter = Character.toUpperCase(word.charAt(0));
        // Of letters that cannot be ticked nothing is known.
        boolean ignored = !first
                && m.matches()
                && command.parameters().indexOf(letter) >= 0
                && !abilities.honours(command, letter);
        return new Word(word, "written in the step", ignored);
    }

    static boolean isUnderstood(String line, Abilities abilities) {
        return Command.startingLine(line).map(abilities::understands).orElse(true);
    }

    /** The command of a line that Tranche can say nothing about, if it has such a one. */
    static Optional<String> stranger(String line) {
        Matcher m = COMMAND.matcher(line);
        if (!m.lookingAt() || Command.startingLine(line).isPresent()) {
            return Optional.empty();
        }
        String code = m.group().toUpperCase(java.util.Locale.ROOT);
        return EVERYWHERE.contains(code) ? Optional.empty() : Optional.of(code);
    }

    /** Whether a command is followed by a comment on its line. */
    static boolean hasCommentAfterCommand(String line) {
        return commentStart(line) > 0 && COMMAND.matcher(line).lookingAt();
    }

    private static int commentStart(String line) {
        int semicolon = line.indexOf(';');
        int bracket = line.indexOf('(');
        return semicolon < 0 ? bracket : bracket < 0 ? semicolon : Math.min(semicolon, bracket);
    }
}
