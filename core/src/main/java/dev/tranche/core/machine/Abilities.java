package dev.tranche.core.machine;

import dev.tranche.core.speech.Refusal;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * What a firmware, and the host that may stand before it, understand.
 *
 * @param honoured for each understood command the letters it does not ignore
 * @param pausesHost commands on which a host computer pauses the print and runs its own scripts
 * @param commentsAfterCommands whether a comment may follow a command on its line
 * @param dialect how it reads what firmwares read differently
 */
public record Abilities(
        Map<Command, Set<Character>> honoured,
        Set<Command> pausesHost,
        boolean commentsAfterCommands,
        Dialect dialect) {
    public Abilities {
        EnumMap<Command, Set<Character>> copy = new EnumMap<>(Command.class);
        honoured.forEach((command, letters) -> copy.put(command, Collections.unmodifiableSet(new TreeSet<>(letters))));
        honoured = Collections.unmodifiableMap(copy);
        EnumSet<Command> pauses = EnumSet.noneOf(Command.class);
        for (Command command : pausesHost) {
            if (!command.stops()) {
                throw Refusal.of("%s stops nothing, so no host can pause on it.", command);
            }
            pauses.add(command);
        }
        pausesHost = Collections.unmodifiableSet(pauses);
    }

    /** Abilities from a command and its letters, such as {@code "M600 XYZ", "M117"}; no host. */
    public static Abilities of(String... commands) {
        Map<Command, Set<Character>> map = new EnumMap<>(Command.class);
        for (String text : commands) {
            String[] words = text.strip().split("\\s+", 2);
            Set<Character> letters = new TreeSet<>();
            if (words.length > 1) {
                words[1].chars().filter(Character::isUpperCase).forEach(c -> letters.add((char) c));
            }
            map.put(Command.parse(words[0]), letters);
        }
        return new Abilities(map, Set.of(), true, Dialect.COMMON);
    }

    /** The same firmware behind a host that pauses on {@code commands}. */
    public Abilities behindHost(Command... commands) {
        return new Abilities(honoured, Set.copyOf(Arrays.asList(commands)), commentsAfterCommands, dialect);
    }

    /** The same without comments on the lines of commands. */
    public Abilities withoutComments() {
        return new Abilities(honoured, pausesHost, false, dialect);
    }

    /** The same with another reading of G-code. */
    public Abilities reading(Dialect other) {
        return new Abilities(honoured, pausesHost, commentsAfterCommands, other);
    }

    /** The same firmware, which understands {@code more}, too. */
    public Abilities understanding(Command... more) {
        Map<Command, Set<Character>> all = new EnumMap<>(Command.class);
        all.putAll(honoured);
        for (Command command : more) {
            all.putIfAbsent(command, Set.of());
        }
        return new Abilities(all, pausesHost, commentsAfterCommands, dialect);
    }

    public boolean understands(Command command) {
        return honoured.containsKey(command);
    }

    public boolean honours(Command command, char parameter) {
        return honoured.getOrDefault(command, Set.of()).contains(parameter);
    }

    /** Whether a line with {@code command} makes the host run its scripts. */
    public boolean pausesHost(Command command) {
        return understands(command) && pausesHost.contains(command);
    }
}
