package dev.tranche.app.handoff;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.Patch.Insertion;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.rearrange.Rearranged;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What writing would change in a sliced file, block by block. */
@Component
class Changes {
    /** So many blocks are shown. */
    static final int MOST = 60;

    /**
     * @param summary how many of each kind, for people
     * @param more how many blocks are not shown
     * @param moved how many runs of the file change their places
     */
    record Listing(String summary, List<Block> blocks, int more, int moved) {}

    /**
     * One place in the file.
     *
     * @param line before which it is, from 1
     * @param out the file's line that is taken out; empty if none is
     * @param in lines that are put in
     */
    record Block(long line, String title, String out, List<String> in) {}

    Listing of(Workpiece work) {
        List<Insertion> all = work.reckoning().patch().insertions();
        Map<BlockStamp.What, Integer> counts = new TreeMap<>();
        all.forEach(i -> counts.merge(i.stamp().what(), 1, Integer::sum));
        int turns = (int) all.stream()
                .filter(i -> i.stamp().what() == BlockStamp.What.SWAP)
                .filter(i -> swap(work, i.stamp()).turns())
                .count();
        List<Block> blocks = new ArrayList<>();
        SlicedFile printed = work.match().orElseThrow().file();
        for (Insertion i : all.subList(0, Math.min(MOST, all.size()))) {
            String out = i.took().map(span -> line(printed, span)).orElse("");
            blocks.add(new Block(i.line(), title(work, i.stamp()), out, i.lines()));
        }
        int moved = work.reckoning()
                .brief()
                .rearranging()
                .made()
                .map(Rearranged::moved)
                .orElse(0);
        return new Listing(summary(counts, turns), blocks, Math.max(0, all.size() - MOST), moved);
    }

    private static Swap swap(Workpiece work, BlockStamp stamp) {
        return work.ledger().swaps().get(stamp.number() - 1);
    }

    /** @param turns which of the swaps clear the nozzle for another blend */
    private static String summary(Map<BlockStamp.What, Integer> counts, int turns) {
        List<String> words = new ArrayList<>();
        counts.forEach((what, count) -> words.add(
                switch (what) {
                    case LOAD -> "the first load";
                    case SWAP -> swaps(count - turns, turns);
                    case HALT -> Words.count(count, "halt");
                    case TOOL -> Words.count(count, "tool line") + " taken out";
                    case STOP -> Words.count(count, "stop") + " taken out";
                    case FEED -> Words.count(count, "line") + " of filament out or in taken out";
                    case MIX -> count == 1 ? "what to blend, once" : "what to blend, at " + count + " places";
                }));
        return words.isEmpty() ? "nothing" : String.join(", ", words);
    }

    private static String swaps(int swaps, int turns) {
        return Stream.of(
                        swaps == 0 ? "" : Words.count(swaps, "swap"),
                        turns == 0 ? "" : Words.count(turns, "change") + " of blend")
                .filter(w -> !w.isEmpty())
                .collect(Collectors.joining(", "));
    }

    private static String title(Workpiece work, BlockStamp stamp) {
        return switch (stamp.what()) {
            case LOAD -> "First load";
            case SWAP -> swap(work, stamp).name();
            case HALT -> "Halt " + stamp.number();
            case TOOL -> "For a tool the machine does not have";
            case STOP -> "A stop of the file's own";
            case FEED -> "Filament in or out, as the swap does it";
            case MIX -> stamp.number() == 1 ? "Blends, at the start" : "The blend turns";
        };
    }

    /** What a file is known to say there: what chooses or heats a tool, stops, or moves filament. */
    private static String line(SlicedFile file, Span span) {
        return file.toolLines().stream()
                .filter(l -> l.from() == span.from())
                .map(l -> l.heats() ? l.heat() + " T" + l.tool() : "T" + l.tool())
                .findFirst()
                .or(() -> file.stops().stream()
                        .filter(s -> s.span().equals(span))
                        .map(SlicedFile.Stop::text)
                        .findFirst())
                .or(() -> file.unloadings().stream()
                        .filter(u -> u.holds(span.from()))
                        .flatMap(u -> u.lines().stream())
                        .filter(f -> f.span().equals(span))
                        .map(SlicedFile.Fed::text)
                        .findFirst())
                .orElse("");
    }
}
