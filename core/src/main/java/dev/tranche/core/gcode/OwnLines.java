package dev.tranche.core.gcode;

import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.OwnLine;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Finds the lines that mean something to one printer only. */
public final class OwnLines {
    private static final int NONE = -1;
    private static final int MOST = 1_000_000;

    private final byte[][] stops;
    private final byte[][] tools;
    /** By what lines begin with, so that the others are passed over. */
    private final boolean[] beginnings = new boolean[256];

    public OwnLines(Dialect dialect) {
        stops = bytes(dialect.stops());
        tools = bytes(dialect.tools());
    }

    private byte[][] bytes(List<OwnLine> lines) {
        byte[][] all = new byte[lines.size()][];
        for (int i = 0; i < all.length; i++) {
            all[i] = lines.get(i).text().getBytes(StandardCharsets.US_ASCII);
            beginnings[all[i][0]] = true;
        }
        return all;
    }

    public boolean isEmpty() {
        return stops.length == 0 && tools.length == 0;
    }

    /** Whether the machine stops at a line. */
    public boolean stops(GcodeScanner line) {
        return number(stops, line) > NONE;
    }

    /** The tool that a line chooses; −1 if it chooses none. */
    public int tool(GcodeScanner line) {
        return number(tools, line);
    }

    private int number(byte[][] all, GcodeScanner line) {
        byte[] bytes = line.buffer();
        int from = line.start();
        int to = line.lineEnd();
        if (line.isNumbered()) {
            from++;
            while (from < to && bytes[from] >= '0' && bytes[from] <= '9') {
                from++;
            }
        }
        while (from < to && bytes[from] == ' ') {
            from++;
        }
        if (from == to || !beginnings[capital(bytes[from])]) {
            return NONE;
        }
        for (byte[] own : all) {
            int number = number(own, bytes, from, to);
            if (number > NONE) {
                return number;
            }
        }
        return NONE;
    }

    /** The number in a line that begins as {@code own} does, 0 where none is asked for; −1 if it begins otherwise. */
    private static int number(byte[] own, byte[] line, int from, int to) {
        int at = from;
        int number = 0;
        for (byte wanted : own) {
            if (wanted == OwnLine.NUMBER) {
                int first = at;
                number = 0;
                while (at < to && line[at] >= '0' && line[at] <= '9') {
                    number = Math.min(MOST, number * 10 + line[at++] - '0');
                }
                if (at == first) {
                    return NONE;
                }
            } else if (at == to || capital(line[at]) != wanted) {
                return NONE;
            } else {
                at++;
                while (wanted == ' ' && at < to && line[at] == ' ') {
                    at++;
                }
            }
        }
        return at < to && goesOn(line[at]) ? NONE : number;
    }

    /** Whether the word or number before it does not end here. */
    private static boolean goesOn(byte c) {
        return Character.isLetterOrDigit(c & 0xFF) || c == '_' || c == '.';
    }

    private static int capital(byte c) {
        return c >= 'a' && c <= 'z' ? c - 32 : c & 0xFF;
    }
}
