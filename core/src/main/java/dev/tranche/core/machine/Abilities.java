package dev.tranche.core.machine;

import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * Which commands a firmware understands, and which of their parameters it honours.
 *
 * @param honoured for each understood command the letters it does not ignore
 */
public record Abilities(Map<Command, Set<Character>> honoured) {
    public Abilities {
        EnumMap<Command, Set<Character>> copy = new EnumMap<>(Command.class);
        honoured.forEach((command, letters) -> copy.put(command, Collections.unmodifiableSet(new TreeSet<>(letters))));
        honoured = Collections.unmodifiableMap(copy);
    }

    /** Abilities from a command and its letters, such as {@code "M600 XYZ", "M117"}. */
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
        return new Abilities(map);
    }

    public boolean understands(Command command) {
        return honoured.containsKey(command);
    }

    public boolean honours(Command command, char parameter) {
        return honoured.getOrDefault(command, Set.of()).contains(parameter);
    }
}
