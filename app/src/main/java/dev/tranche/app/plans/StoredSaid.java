package dev.tranche.app.plans;

import dev.tranche.core.handoff.Said;
import dev.tranche.core.handoff.StopTable;
import dev.tranche.core.plan.SpoolId;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What was said of a sliced file, as the columns of its plan hold it: pairs and words with spaces between. */
record StoredSaid(String tools, String stops, String accepted) {

    static StoredSaid of(Said said) {
        return new StoredSaid(
                pairs(said.tools(), s -> Long.toString(s.value())),
                pairs(said.stops(), StopTable.Choice::name),
                said.accepted().stream().sorted().collect(Collectors.joining(" ")));
    }

    Said said() {
        return new Said(
                map(tools, s -> new SpoolId(Long.parseLong(s))),
                map(stops, StopTable.Choice::valueOf),
                Set.copyOf(words(accepted).toList()));
    }

    private static <V> String pairs(Map<Integer, V> map, Function<V, String> written) {
        return map.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .map(e -> e.getKey() + "=" + written.apply(e.getValue()))
                .collect(Collectors.joining(" "));
    }

    private static <V> Map<Integer, V> map(String pairs, Function<String, V> read) {
        return words(pairs)
                .map(pair -> pair.split("=", 2))
                .collect(Collectors.toMap(p -> Integer.parseInt(p[0]), p -> read.apply(p[1])));
    }

    private static Stream<String> words(String text) {
        return Stream.of(text.split(" ")).filter(w -> !w.isEmpty());
    }
}
