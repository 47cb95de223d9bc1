package dev.tranche.core.rearrange;

import dev.tranche.core.gcode.BlockStamp;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.TreeMap;

/** Puts the pieces of a rearranged file back where they were and takes out what was put in: the file that came in, byte for byte. */
public final class Restoring {
    private static final byte[] PIECE = BlockStamp.PIECE.getBytes(StandardCharsets.US_ASCII);
    private static final byte[] TOOK = BlockStamp.TOOK.getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ADDED = BlockStamp.ADDED.getBytes(StandardCharsets.US_ASCII);
    private static final int LONGEST_LINE = 1 << 20;

    private final Source file;
    private final byte[] line = new byte[LONGEST_LINE];
    private int length;

    private Restoring(Source file) {
        this.file = file;
    }

    /** @param rearranged file, whose swaps are passed over */
    public static void copy(Source rearranged, OutputStream out) throws IOException {
        new Restoring(rearranged).copy(out);
    }

    private record Part(long from, long to) {}

    private void copy(OutputStream out) throws IOException {
        TreeMap<Integer, Part> parts = new TreeMap<>();
        int number = 0;
        long from = 0;
        long at = 0;
        InputStream in = new BufferedInputStream(file.open(), 1 << 16);
        while (next(in)) {
            if (begins(PIECE)) {
                parts.put(number, new Part(from, at));
                number = number();
                from = at + length;
            }
            at += length;
        }
        parts.put(number, new Part(from, at));
        for (Part part : parts.values()) {
            InputStream piece = new BufferedInputStream(file.open(part.from(), part.to()), 1 << 16);
            while (next(piece)) {
                if (!ends()) {
                    int skip = begins(TOOK) ? TOOK.length : 0;
                    out.write(line, skip, length - skip);
                }
            }
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

    private int number() {
        String text = new String(line, PIECE.length, length - PIECE.length, StandardCharsets.US_ASCII).strip();
        return text.matches("\\d{1,9}") ? Integer.parseInt(text) : 0;
    }
}
