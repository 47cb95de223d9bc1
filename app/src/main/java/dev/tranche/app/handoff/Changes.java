package dev.tranche.app.handoff;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.Patch.Insertion;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** What writing would change in a sliced file, block by block. */
@Component
class Changes {
    /** So many blocks are shown. */
    static final int MOST = 60;

    private static final int LONGEST = 200;

    private final FileStore files;

    Changes(FileStore files) {
        this.files = files;
    }

    /**
     * @param summary how many of each kind, for people
     * @param more how many blocks are not shown
     */
    record Listing(String summary, List<Block> blocks, int more) {}

    /**
     * One place in the file.
     *
     * @param line before which it is, from 1
     * @param out the file's line that is taken out; empty if none is
     * @param in lines that are put in
     */
    record Block(long line, String title, String out, List<String> in) {}

    Listing of(Workpiece work) throws IOException {
        List<Insertion> all = work.reckoning().patch().insertions();
        Map<BlockStamp.What, Integer> counts = new TreeMap<>();
        all.forEach(i -> counts.merge(i.stamp().what(), 1, Integer::sum));
        List<Block> blocks = new ArrayList<>();
        PlanState.Gcode gcode = work.plan().gcode().orElseThrow();
        try (RandomAccessFile file =
                new RandomAccessFile(files.path(gcode.hash()).toFile(), "r")) {
            for (Insertion i : all.subList(0, Math.min(MOST, all.size()))) {
                String out = i.took().isPresent() ? line(file, i.took().get()) : "";
                blocks.add(new Block(i.line(), title(i.stamp()), out, i.lines()));
            }
        }
        return new Listing(summary(counts), blocks, Math.max(0, all.size() - MOST));
    }

    private static String summary(Map<BlockStamp.What, Integer> counts) {
        List<String> words = new ArrayList<>();
        counts.forEach((what, count) -> words.add(
                switch (what) {
                    case LOAD -> "the first load";
                    case SWAP -> Words.count(count, "swap");
                    case HALT -> Words.count(count, "halt");
                    case TOOL -> Words.count(count, "tool line") + " taken out";
                    case STOP -> Words.count(count, "stop") + " taken out";
                }));
        return words.isEmpty() ? "nothing" : String.join(", ", words);
    }

    private static String title(BlockStamp stamp) {
        return switch (stamp.what()) {
            case LOAD -> "First load";
            case SWAP -> "Swap " + stamp.number();
            case HALT -> "Halt " + stamp.number();
            case TOOL -> "For a tool the machine does not have";
            case STOP -> "A stop of the file's own";
        };
    }

    private static String line(RandomAccessFile file, Span span) throws IOException {
        byte[] bytes = new byte[(int) Math.min(LONGEST, span.to() - span.from())];
        file.seek(span.from());
        file.readFully(bytes);
        return new String(bytes, StandardCharsets.ISO_8859_1).strip();
    }
}
