package dev.tranche.core.gcode;

import dev.tranche.core.units.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Takes a stream of G-code apart, line by line, without making strings.
 *
 * <p>After {@link #next()} the scanner <em>is</em> the line: its command, its words, its comment and where it
 * stands in the file. Lines end with LF or CRLF; comments begin with a semicolon or stand in parentheses, and
 * may hold bytes of any encoding. Words are a letter and a decimal number, as NISTIR 6556 §3.3 has them, without
 * expressions and parameters. Not for two threads.
 */
public final class GcodeScanner {
    private static final int LONGEST_LINE = 1 << 20;
    private static final double[] TENTHS = new double[19];

    static {
        double power = 1;
        for (int i = 0; i < TENTHS.length; i++) {
            TENTHS[i] = power;
            power *= 10;
        }
    }

    private final InputStream in;
    private byte[] buffer = new byte[1 << 18];
    private int filled;
    private boolean exhausted;
    /** File offset of {@code buffer[0]}. */
    private long base;

    private int from;
    private int to;
    private int nextLine;
    private int commentFrom;
    private long line;
    private char letter;
    private int number;
    private int words;
    private final double[] values = new double[26];

    public GcodeScanner(InputStream in) {
        this.in = in;
    }

    /** Moves on to the next line; false at the end of the file. */
    public boolean next() throws IOException {
        from = nextLine;
        int at = from;
        while (true) {
            byte[] b = buffer;
            int end = filled;
            while (at < end && b[at] != '\n') {
                at++;
            }
            if (at < end) {
                nextLine = at + 1;
                break;
            }
            int scanned = at - from;
            if (exhausted || !refill()) {
                if (from == filled) {
                    return false;
                }
                at = filled;
                nextLine = at;
                break;
            }
            at = from + scanned;
        }
        to = at > from && buffer[at - 1] == '\r' ? at - 1 : at;
        line++;
        parse();
        return true;
    }

    /** Makes room by moving the unfinished line to the front, and reads on; false at the end of the stream. */
    private boolean refill() throws IOException {
        int kept = filled - from;
        if (kept == buffer.length) {
            if (kept >= LONGEST_LINE) {
                throw Refusal.of(
                        "Line %d of the G-code is over a million characters long; the file is damaged or no G-code.",
                        line + 1);
            }
            buffer = Arrays.copyOf(buffer, 2 * kept);
        } else if (from > 0) {
            System.arraycopy(buffer, from, buffer, 0, kept);
            base += from;
            from = 0;
        }
        int read = in.read(buffer, kept, buffer.length - kept);
        filled = kept + Math.max(0, read);
        exhausted = read < 0;
        return !exhausted;
    }

    private void parse() {
        words = 0;
        letter = 0;
        number = -1;
        commentFrom = to;
        byte[] b = buffer;
        int end = to;
        int at = from;
        while (at < end) {
            int c = b[at];
            if (c == ' ' || c == '\t') {
                at++;
                continue;
            }
            if (c >= 'a' && c <= 'z') {
                c -= 32;
            }
            if (c >= 'A' && c <= 'Z') {
                at = word((char) c, at + 1, end);
                if (letter == 'M' && (number == 117 || number == 118)) {
                    return;
                }
            } else if (c == ';') {
                commentFrom = at;
                return;
            } else if (c == '(') {
                at++;
                while (at < end && b[at] != ')') {
                    at++;
                }
                at++;
            } else if (c == '*') {
                return;
            } else {
                at++;
            }
        }
    }

    /** Reads the number after a letter and files it; answers where reading goes on. */
    private int word(char c, int at, int end) {
        byte[] b = buffer;
        boolean negative = false;
        if (at < end && (b[at] == '-' || b[at] == '+')) {
            negative = b[at] == '-';
            at++;
        }
        long mantissa = 0;
        int digits = 0;
        int decimals = 0;
        boolean point = false;
        while (at < end) {
            int d = b[at] - '0';
            if (d >= 0 && d <= 9) {
                if (digits < 18) {
                    mantissa = mantissa * 10 + d;
                    digits++;
                    if (point) {
                        decimals++;
                    }
                } else if (!point) {
                    mantissa = Long.MAX_VALUE / 10;
                }
            } else if (b[at] == '.' && !point) {
                point = true;
            } else {
                break;
            }
            at++;
        }
        if (letter == 0 && (c == 'G' || c == 'M' || c == 'T')) {
            letter = c;
            number = digits == 0 ? -1 : (int) Math.min(mantissa / (long) TENTHS[decimals], 1_000_000);
        } else if (c != 'N' || letter != 0) {
            double value = decimals == 0 ? mantissa : mantissa / TENTHS[decimals];
            values[c - 'A'] = negative ? -value : value;
            if (digits > 0) {
                words |= 1 << c - 'A';
            }
        }
        return at;
    }

    /** Whether the line's command is {@code letter} {@code number}, such as G 1. */
    public boolean is(char commandLetter, int commandNumber) {
        return letter == commandLetter && number == commandNumber;
    }

    /** G, M or T; 0 if the line has no command. */
    public char letter() {
        return letter;
    }

    /** The command's whole number; −1 if there is none. */
    public int number() {
        return number;
    }

    public boolean has(char word) {
        return (words & 1 << word - 'A') != 0;
    }

    /** Whether {@code word} is on the line at all, with a number or without, as in {@code G28 X}. */
    public boolean names(char word) {
        for (int at = from; at < commentFrom; at++) {
            if ((buffer[at] & ~0x20) == word) {
                return true;
            }
        }
        return false;
    }

    /** The number behind {@code word}; meaningful where {@link #has} says so. */
    public double get(char word) {
        return values[word - 'A'];
    }

    public double get(char word, double otherwise) {
        return has(word) ? get(word) : otherwise;
    }

    /** Whether the line is a comment and nothing else. */
    public boolean isComment() {
        return letter == 0 && words == 0 && commentFrom < to;
    }

    /** The comment with its semicolon, read as Latin-1; empty if there is none. */
    public String comment() {
        return new String(buffer, commentFrom, to - commentFrom, StandardCharsets.ISO_8859_1);
    }

    /** The line without its ending, read as Latin-1. */
    public String text() {
        return new String(buffer, from, to - from, StandardCharsets.ISO_8859_1);
    }

    /** Whether this line is ended by CR LF. */
    public boolean endsWithCrLf() {
        return nextLine - to == 2;
    }

    /** From 1. */
    public long line() {
        return line;
    }

    /** Offset of the line's first byte in the file. */
    public long offset() {
        return base + from;
    }

    /** Offset of the byte after the line and its ending. */
    public long end() {
        return base + nextLine;
    }

    byte[] buffer() {
        return buffer;
    }

    int commentStart() {
        return commentFrom;
    }

    int lineEnd() {
        return to;
    }
}
