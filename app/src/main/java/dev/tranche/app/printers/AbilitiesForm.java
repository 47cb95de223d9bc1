package dev.tranche.app.printers;

import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.OwnLine;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * Abilities as they are ticked.
 *
 * @param ability one entry a ticked box: {@code M600} for a command, {@code M600:X} for a parameter
 * @param host commands on which the host pauses
 * @param comments whether comments may follow commands
 * @param filament what decides whether numbers of filament are added
 * @param stopLines how lines begin at which it stops, one a line, and {@code toolLines} those that choose a tool
 */
record AbilitiesForm(
        List<String> ability,
        List<String> host,
        Boolean comments,
        Dialect.Counting filament,
        String stopLines,
        String toolLines) {
    Abilities abilities() {
        Map<Command, Set<Character>> ticked = new EnumMap<>(Command.class);
        for (String box : given(ability)) {
            if (!box.contains(":")) {
                ticked.put(Command.parse(box), new TreeSet<>());
            }
        }
        for (String box : given(ability)) {
            String[] parts = box.split(":", 2);
            Command command = Command.parse(parts[0]);
            if (parts.length == 2
                    && parts[1].length() == 1
                    && command.parameters().contains(parts[1])
                    && ticked.containsKey(command)) {
                ticked.get(command).add(parts[1].charAt(0));
            }
        }
        Set<Command> pauses = EnumSet.noneOf(Command.class);
        given(host).forEach(code -> pauses.add(Command.parse(code)));
        return new Abilities(ticked, pauses, Boolean.TRUE.equals(comments), dialect());
    }

    private Dialect dialect() {
        return new Dialect(
                filament == null ? Dialect.Counting.NOT_SAID : filament,
                OwnLine.read(stopLines),
                OwnLine.read(toolLines));
    }

    private static List<String> given(List<String> boxes) {
        return boxes == null ? List.of() : boxes;
    }
}
