package dev.tranche.core.format;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Counts the bytes that go by, for what shows how far reading is or bounds it; leaves what it reads from open. */
class Counting extends FilterInputStream {
    protected long count;

    Counting(InputStream in) {
        super(in);
    }

    /** Hears that {@link #count} has grown. */
    void counted() {}

    @Override
    public void close() {}

    @Override
    public int read() throws IOException {
        int b = super.read();
        count += b < 0 ? 0 : 1;
        counted();
        return b;
    }

    @Override
    public int read(byte[] bytes, int from, int length) throws IOException {
        int read = super.read(bytes, from, length);
        count += Math.max(0, read);
        counted();
        return read;
    }
}
