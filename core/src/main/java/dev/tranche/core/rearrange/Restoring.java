package dev.tranche.core.rearrange;

import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.speech.Refusal;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Puts the pieces of a rearranged file back where they were and takes out what was put in: the file that came in, byte for byte. */
public final class Restoring {
    private static final byte[] PIECE = BlockStamp.PIECE.getBytes(StandardCharsets.US_ASCII);
    private static final Pattern MARK = Pattern.compile("(\\d{1,9}) at (\\d{1,15}) of (\\d{1,15})");
    private static final byte[] TOOK = BlockStamp.TOOK.getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ADDED = BlockStamp.ADDED.getBytes(StandardCharsets.US_ASCII);
    private static final int LONGEST_LINE = 1 << 20;

    private final Source file;
    private final byte[] line = new byte[LONGEST_LINE];
    private int length;

    private Restoring(Source file) {
        this.file = file;
    }

    /**
     * @param rearranged file, whose swaps are passed over
     * @throws Refusal if it is not whole any more
     */
    public static void copy(Source rearranged, OutputStream out) throws IOException {
        new Restoring(rearranged).copy(out);
    }

    /** @param at where it was, and {@code of} how many bytes in all */
    private record Part(long from, long to, long at, long of) {}

    private void copy(OutputStream out) throws IOException {
        TreeMap<Long, Part> parts = new TreeMap<>();
        long[] mark = {0, 0, -1};
        long from = 0;
        long at = 0;
        InputStream in = new BufferedInputStream(file.open(), 1 << 16);
        while (next(in)) {
            if (begins(PIECE)) {
                parts.put(mark[0], new Part(from, at, mark[1], mark[2]));
                mark = mark();
                from = at + length;
            }
            at += length;
        }
        parts.put(mark[0], new Part(from, at, mark[1], mark[2]));
        long written = 0;
        for (Part part : parts.values()) {
            requireWhole(written == part.at());
            InputStream piece = new BufferedInputStream(file.open(part.from(), part.to()), 1 << 16);
            while (next(piece)) {
                if (!ends()) {
                    int skip = begins(TOOK) ? TOOK.length : 0;
                    out.write(line, skip, length - skip);
                    written += length - skip;
                }
            }
        }
        requireWhole(written == mark[2]);
    }

    private static void requireWhole(boolean whole) {
        if (!whole) {
            throw new Refusal(
                    "The file was put into another order by Tranche, and lines of it were changed or lost since; use an undamaged copy of it.");
        }
    }

    private boolean next(InputStream in) throws IOException {
        length = 0;
        int b;
        while (length < LONGEST_LINE && (b = in.read()) >= 0) {
            line[length++] = (byte) b;
            if (b == '\n') {
                return true;
            }
        }
        return length > 0;
    }

    private boolean begins(byte[] with) {
        return length >= with.length && Arrays.equals(line, 0, with.length, with, 0, with.length);
    }

    /** Whether it was added. */
    private boolean ends() {
        int end = length;
        while (end > 0 && (line[end - 1] == '\n' || line[end - 1] == '\r')) {
            end--;
        }
        return end >= ADDED.length && Arrays.equals(line, end - ADDED.length, end, ADDED, 0, ADDED.length);
    }

    /** The piece's number, where it was, and of how many bytes. */
    private long[] mark() {
        String text = new String(line, PIECE.length, length - PIECE.length, StandardCharsets.US_ASCII).strip();
        Matcher m = MARK.matcher(text);
        requireWhole(m.matches());
        return new long[] {Long.parseLong(m.group(1)), Long.parseLong(m.group(2)), Long.parseLong(m.group(3))};
    }
}
