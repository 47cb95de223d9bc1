package dev.tranche.core.gcode;

import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.regex.Pattern;

/**
 * Takes a stream of G-code apart, line by line, without making strings.
 *
 * <p>After {@link #next()} the scanner <em>is</em> the line: its command, its words, its comment and where it
 * stands in the file. Lines end with LF or CRLF; comments begin with a semicolon or stand in parentheses, and
 * may hold bytes of any encoding. Words are a letter and a decimal number, as NISTIR 6556 §3.3 has them, without
 * expressions and parameters. Not for two threads.
 */
public final class GcodeScanner {
    /** The letter of commands that have none. */
    static final char IN_WORDS = '_';

    private static final Pattern PAUSE = Pattern.compile("PAUSE(?!\\w)", Pattern.CASE_INSENSITIVE);
    private static final int LONGEST_LINE = 1 << 20;
    /** As many digits as a long holds for certain. */
    private static final int MOST_DIGITS = 18;

    /** Whatever a number means. */
    private static final double LARGEST = 1e18;

    private static final double[] TENTHS = new double[MOST_DIGITS + 1];

    static {
        double power = 1;
        for (int i = 0; i < TENTHS.length; i++) {
            TENTHS[i] = power;
            power *= 10;
        }
    }

    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long ZEROS = 0x3030303030303030L;
    private static final long LOWER = 0x7F7F7F7F7F7F7F7FL;
    private static final long NINE_TO_HIGH = 0x7676767676767676L;
    private static final long HIGH = 0x8080808080808080L;
    /** Room behind the last line, for its end and for reading eight bytes at once. */
    private static final int SLACK = 9;

    private final InputStream in;
    private byte[] buffer;
    private int filled;
    /** Up to here the buffer holds whole lines. */
    private int whole;

    private boolean exhausted;
    /** File offset of {@code buffer[0]}. */
    private long base;

    private int from;
    /** Where what Tranche wrote before the line begins; {@link #from} where nothing is. */
    private int outset;

    private int to;
    private int nextLine;
    private int commentFrom;
    private long line;
    private char letter;
    private int number;
    private int words;
    private final double[] values = new double[26];

    public GcodeScanner(InputStream in) {
        this(in, 1 << 18);
    }

    /** @param room bytes to begin with, for streams known to be short */
    public GcodeScanner(InputStream in, int room) {
        this.in = in;
        this.buffer = new byte[Math.max(64, room)];
    }

    /** Moves on to the next line; false at the end of the file. */
    public boolean next() throws IOException {
        from = nextLine;
        if (from >= whole && !refill()) {
            return false;
        }
        line++;
        outset = from;
        if (buffer[from] == ';' && beginsWith(BlockStamp.TOOK)) {
            from += BlockStamp.TOOK.length();
        }
        parse();
        return true;
    }

    private boolean beginsWith(String words) {
        for (int i = 0; i < words.length(); i++) {
            if (from + i >= filled || buffer[from + i] != words.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    /**
     * Moves the unfinished line to the front and reads on until a whole line is there. The last line gets a line
     * break of our own behind it, if it has none, so that parsing needs no other end; false when nothing is left.
     */
    private boolean refill() throws IOException {
        while (true) {
            int kept = filled - from;
            if (from > 0) {
                System.arraycopy(buffer, from, buffer, 0, kept);
                base += from;
                from = 0;
            }
            if (kept + SLACK >= buffer.length) {
                if (kept >= LONGEST_LINE) {
                    throw Refusal.of(
                            "Line %d of the G-code is over a million characters long; the file is damaged or no G-code.",
                            line + 1);
                }
                buffer = Arrays.copyOf(buffer, 2 * buffer.length);
            }
            int read = exhausted ? -1 : in.read(buffer, kept, buffer.length - SLACK - kept);
            filled = kept + Math.max(0, read);
            if (read < 0) {
                exhausted = true;
                buffer[filled] = '\n';
                whole = filled;
                return filled > 0;
            }
            whole = filled;
            while (whole > kept && buffer[whole - 1] != '\n') {
                whole--;
            }
            if (whole > kept) {
                return true;
            }
        }
    }

    private void parse() {
        words = 0;
        letter = 0;
        number = -1;
        commentFrom = -1;
        byte[] b = buffer;
        int at = from;
        if (b[at + 1] >= 'A' || (b[at] & ~0x20) == 'N') {
            int begin = codeStart();
            if (isLetter(b[begin]) && isOfWord(b[begin + 1])) {
                at = command(begin);
            }
        }
        while (true) {
            int c = b[at];
            if (c >= 'A' && c <= 'Z') {
                at = word((char) c, at + 1);
                if (b[at] == ' ') {
                    at++;
                }
                if (letter == 'M' && (number == 117 || number == 118)) {
                    break;
                }
            } else if (c == ' ') {
                at++;
            } else if (c == '\n' || c == '*') {
                break;
            } else if (c == ';') {
                commentFrom = at;
                break;
            } else if (c >= 'a' && c <= 'z') {
                at = word((char) (c - 32), at + 1);
            } else if (c == '(') {
                while (b[at] != ')' && b[at] != '\n') {
                    at++;
                }
            } else {
                at++;
            }
        }
        while (b[at] != '\n') {
            at++;
        }
        nextLine = Math.min(at + 1, filled);
        to = at > from && b[at - 1] == '\r' ? at - 1 : at;
        if (commentFrom < 0) {
            commentFrom = to;
        }
    }

    /** Passes over a command in words, up to its comment; none of the letters in it means anything. */
    private int command(int start) {
        letter = IN_WORDS;
        int at = start;
        while (buffer[at] != ';' && buffer[at] != '\n') {
            at++;
        }
        return at;
    }

    private static boolean isLetter(byte c) {
        return (c & ~0x20) >= 'A' && (c & ~0x20) <= 'Z';
    }

    private static boolean isOfWord(byte c) {
        return isLetter(c) || c == '_';
    }

    /** Reads the number after a letter and files it; answers where reading goes on. */
    private int word(char c, int start) {
        byte[] b = buffer;
        int at = start;
        if (letter == 0 && c == 'G' && b[at + 1] == ' ' && b[at] >= '0' && b[at] <= '9') {
            // Nearly every line is one of these.
            letter = c;
            number = b[at] - '0';
            return at + 1;
        }
        boolean negative = b[at] == '-';
        if (negative || b[at] == '+') {
            at++;
        }
        int begin = at;
        // Eight characters at once: which are digits, and where the point is among them.
        long eight = (long) EIGHT.get(b, at) ^ ZEROS;
        long others = ((eight & LOWER) + NINE_TO_HIGH | eight) & HIGH;
        int point = Long.numberOfTrailingZeros(others) >>> 3;
        int used = point;
        int decimals = 0;
        int digits = point;
        if (point < 8 && b[at + point] == '.') {
            used = Long.numberOfTrailingZeros(others & others - 1) >>> 3;
            digits = used - 1;
            decimals = digits - point;
            long before = (1L << (point << 3)) - 1;
            eight = eight & before | eight >>> 8 & ~before;
        }
        long mantissa = digits == 0 ? 0 : number(eight << 64 - (digits << 3));
        at += used;
        if (used == 8) {
            // A long number: one character after the other.
            boolean pointed = digits == 7;
            int d = b[at] - '0';
            while (d >= 0 && d <= 9 || d == '.' - '0' && !pointed) {
                if (d == '.' - '0') {
                    pointed = true;
                } else {
                    mantissa = mantissa * 10 + d;
                    digits++;
                    decimals += pointed ? 1 : 0;
                }
                d = b[++at] - '0';
            }
        }
        double value =
                digits > MOST_DIGITS ? longNumber(begin, at) : decimals == 0 ? mantissa : mantissa / TENTHS[decimals];
        if (letter == 0 && (c == 'G' || c == 'M' || c == 'T')) {
            if (b[at] == '_' && words == 0) {
                return command(at);
            }
            letter = c;
            // T-1 chooses no tool, and G92.1 is another command than G92.
            number = digits == 0 || negative || decimals > 0 && value != Math.rint(value)
                    ? -1
                    : (int) Math.min(value, 1_000_000);
        } else if (digits > 0 && (c != 'N' || letter != 0)) {
            values[c - 'A'] = negative ? -value : value;
            words |= 1 << c - 'A';
        }
        return at;
    }

    private double longNumber(int begin, int end) {
        double value = Double.parseDouble(new String(buffer, begin, end - begin, StandardCharsets.US_ASCII));
        if (value > LARGEST) {
            throw Refusal.of(
                    "Line %d of the G-code gives a number of %d digits, which is no length; the file is damaged.",
                    line, end - begin);
        }
        return value;
    }

    /** The number of eight digits, the first in the lowest byte (Lemire and others, common practice). */
    private static long number(long digits) {
        long pairs = digits * 10 + (digits >>> 8);
        long fours = (pairs & 0x000000FF000000FFL) * 0x000F424000000064L
                + (pairs >>> 16 & 0x000000FF000000FFL) * 0x0000271000000001L;
        return fours >>> 32;
    }

    /** Whether the line's command is {@code letter} {@code number}, such as G 1. */
    public boolean is(char commandLetter, int commandNumber) {
        return letter == commandLetter && number == commandNumber;
    }

    /** Whether the line is a command in words, as some firmwares have them and their owners add; common practice. */
    public boolean isInWords() {
        return letter == IN_WORDS;
    }

    /** Whether a machine stops there that no ability is asked for: M226, M601, and in words PAUSE; common practice. */
    public boolean pauses() {
        return isInWords() ? PAUSE.matcher(codeText()).lookingAt() : is('M', 226) || is('M', 601);
    }

    /** G, M or T, or what stands for a command in words; 0 if the line has no command. */
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

    /** Whether the line begins with its comment, as marks of Tranche do. */
    boolean beginsWithComment() {
        return commentFrom == from;
    }

    /** Whether the line is, or begins with, a comment in parentheses. */
    public boolean beginsWithParenthesis() {
        return letter == 0 && words == 0 && from < to && buffer[from] == '(';
    }

    /** Whether the line goes on with the move before it, as it may where no command is said (NISTIR 6556 §3.4). */
    public boolean goesOn() {
        if (letter != 0 || words == 0) {
            return false;
        }
        int at = from;
        boolean numbered = (buffer[at] & ~0x20) == 'N';
        while (at < to && (buffer[at] == ' ' || numbered && (at == from || isDigit(buffer[at])))) {
            at++;
        }
        int axis = buffer[at] & ~0x20;
        int next = at + 1 < to ? buffer[at + 1] : 0;
        return (axis >= 'X' && axis <= 'Z' || axis == 'E')
                && (isDigit((byte) next) || next == '-' || next == '+' || next == '.');
    }

    /** Whether the line begins with a number of its own, N and digits. */
    public boolean isNumbered() {
        return to - from > 1 && (buffer[from] & ~0x20) == 'N' && isDigit(buffer[from + 1]);
    }

    /** The number the line carries, N and digits; −1 if it carries none. */
    public long ownNumber() {
        if (!isNumbered()) {
            return -1;
        }
        long n = 0;
        for (int at = from + 1; at < to && isDigit(buffer[at]) && n < Long.MAX_VALUE / 100; at++) {
            n = 10 * n + buffer[at] - '0';
        }
        return n;
    }

    /** Whether the number behind an asterisk is the exclusive or of all bytes before it, as firmwares check; true without one. */
    public boolean sumIsRight() {
        int star = star();
        int sum = 0;
        for (int at = from; at < star; at++) {
            sum ^= buffer[at];
        }
        int said = 0;
        int digits = 0;
        for (int at = star + 1; at < to && isDigit(buffer[at]) && digits < 4; at++, digits++) {
            said = 10 * said + buffer[at] - '0';
        }
        return star == to || digits > 0 && said == (sum & 0xFF);
    }

    /** Where the asterisk of a numbered line stands; the end of the line if it has none. */
    private int star() {
        int at = to;
        while (isNumbered() && at > from && buffer[at - 1] != '*') {
            at--;
        }
        return at > from && isNumbered() ? at - 1 : to;
    }

    /** Bytes of what a controller obeys: without number, sum and comment. */
    public byte[] code() {
        int at = codeStart();
        int end = Math.min(commentFrom, star());
        while (end > at && buffer[end - 1] == ' ') {
            end--;
        }
        return Arrays.copyOfRange(buffer, Math.min(at, end), end);
    }

    /** What a controller obeys, read as Latin-1. */
    public String codeText() {
        return new String(code(), StandardCharsets.ISO_8859_1);
    }

    /** Behind the number of the line, if it has one, and blanks. */
    private int codeStart() {
        int at = from;
        if ((buffer[at] & ~0x20) == 'N' && isDigit(buffer[at + 1])) {
            at++;
            while (isDigit(buffer[at])) {
                at++;
            }
        }
        while (buffer[at] == ' ') {
            at++;
        }
        return at;
    }

    private static boolean isDigit(byte c) {
        return c >= '0' && c <= '9';
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

    /** Whether a line break ends it, as all but the last line of a file have one. */
    boolean hasEnding() {
        return nextLine > to;
    }

    /** From 1. */
    public long line() {
        return line;
    }

    /** Whether Tranche took the line out, so that it stands in the file as a comment; it is read as it stood. */
    public boolean taken() {
        return outset < from;
    }

    /** Offset of the line's first byte in the file; of one that was taken out, as it stood. */
    public long offset() {
        return base + from;
    }

    /** Offset of the byte after the line and its ending. */
    public long end() {
        return base + nextLine;
    }

    /** The line as it stands in the file, with its ending. */
    public void writeTo(OutputStream out) throws IOException {
        out.write(buffer, outset, nextLine - outset);
    }

    byte[] buffer() {
        return buffer;
    }

    /** Where the line begins in the buffer. */
    int start() {
        return from;
    }

    int commentStart() {
        return commentFrom;
    }

    int lineEnd() {
        return to;
    }
}
