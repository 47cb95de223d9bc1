package dev.tranche.core.rearrange;

import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.RawLines;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Puts the pieces of a rearranged file back where they were and takes out what was put in: the file that came in, byte for byte. */
public final class Restoring {
    private static final byte[] PIECE = BlockStamp.PIECE.getBytes(StandardCharsets.US_ASCII);
    private static final byte[] TOOK = BlockStamp.TOOK.getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ADDED = BlockStamp.ADDED.getBytes(StandardCharsets.US_ASCII);
    private static final Pattern MARK = Pattern.compile("(\\d{1,9}) at (\\d{1,15}) of (\\d{1,15})");

    private Restoring() {}

    /** A piece's number, where it was, and of how many bytes in all. */
    private record Mark(long number, long at, long of) {
        static Mark of(String text) {
            Matcher m = MARK.matcher(text);
            requireWhole(m.matches());
            return new Mark(Long.parseLong(m.group(1)), Long.parseLong(m.group(2)), Long.parseLong(m.group(3)));
        }
    }

    /** Bytes that follow a mark. */
    private record Part(Mark mark, long from, long to) {}

    /**
     * @param rearranged file, whose swaps are passed over
     * @throws Refusal if it is not whole any more
     */
    public static void copy(Source rearranged, OutputStream out) throws IOException {
        long written = 0;
        long all = -1;
        for (Part part : parts(rearranged).values()) {
            requireWhole(written == part.mark().at());
            written += copy(rearranged, part, out);
            all = Math.max(all, part.mark().of());
        }
        requireWhole(written == all);
    }

    private static TreeMap<Long, Part> parts(Source file) throws IOException {
        TreeMap<Long, Part> parts = new TreeMap<>();
        Mark mark = new Mark(0, 0, -1);
        long from = 0;
        long at = 0;
        try (RawLines lines = new RawLines(file.open())) {
            while (lines.next()) {
                if (lines.startsWith(PIECE)) {
                    parts.put(mark.number(), new Part(mark, from, at));
                    mark = Mark.of(lines.textAfter(PIECE.length));
                    from = at + lines.length();
                }
                at += lines.length();
            }
        }
        parts.put(mark.number(), new Part(mark, from, at));
        return parts;
    }

    private static long copy(Source file, Part part, OutputStream out) throws IOException {
        long written = 0;
        try (RawLines lines = new RawLines(file.open(part.from(), part.to()))) {
            while (lines.next()) {
                if (!lines.endsWith(ADDED)) {
                    int skip = lines.startsWith(TOOK) ? TOOK.length : 0;
                    lines.writeTo(out, skip);
                    written += lines.length() - skip;
                }
            }
        }
        return written;
    }

    private static void requireWhole(boolean whole) {
        if (!whole) {
            throw new Refusal(
                    "The file was put into another order by Tranche, and lines of it were changed or lost since; use an undamaged copy of it.");
        }
    }
}
