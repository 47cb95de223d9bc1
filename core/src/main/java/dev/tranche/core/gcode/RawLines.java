package dev.tranche.core.gcode;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * The lines of a file with their endings, as bytes, for marks to be looked for and all else to be copied. After {@link #next()}
 * it <em>is</em> the line. Not for two threads.
 */
public final class RawLines implements AutoCloseable {
    private static final int LONGEST = 1 << 20;

    private final InputStream in;
    private final byte[] line = new byte[LONGEST];
    private int length;

    public RawLines(InputStream in) {
        this.in = new BufferedInputStream(in, 1 << 16);
    }

    /** Moves on to the next line, or to the next part of one that is over a million bytes long; false at the end. */
    public boolean next() throws IOException {
        length = 0;
        int b;
        while (length < LONGEST && (b = in.read()) >= 0) {
            line[length++] = (byte) b;
            if (b == '\n') {
                break;
            }
        }
        return length > 0;
    }

    /** Bytes of the line. */
    public int length() {
        return length;
    }

    public boolean startsWith(byte[] mark) {
        return length >= mark.length && Arrays.equals(line, 0, mark.length, mark, 0, mark.length);
    }

    /** Whether the line ends so, before its line break. */
    public boolean endsWith(byte[] mark) {
        int end = length;
        while (end > 0 && (line[end - 1] == '\n' || line[end - 1] == '\r')) {
            end--;
        }
        return end >= mark.length && Arrays.equals(line, end - mark.length, end, mark, 0, mark.length);
    }

    /** What follows the first {@code skip} bytes, without blanks round it, read as ASCII. */
    public String textAfter(int skip) {
        return new String(line, skip, length - skip, StandardCharsets.US_ASCII).strip();
    }

    /** Writes the line but for its first {@code skip} bytes. */
    public void writeTo(OutputStream out, int skip) throws IOException {
        out.write(line, skip, length - skip);
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
