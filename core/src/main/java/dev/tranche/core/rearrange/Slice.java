package dev.tranche.core.rearrange;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;

/** Some bytes of a file that can be read from anywhere; closing it leaves the file open. */
final class Slice extends InputStream {
    private final SeekableByteChannel file;
    private long at;
    private final long to;

    Slice(SeekableByteChannel file, long from, long to) {
        this.file = file;
        this.at = from;
        this.to = to;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
        if (at >= to) {
            return -1;
        }
        file.position(at);
        int read = file.read(ByteBuffer.wrap(into, offset, (int) Math.min(length, to - at)));
        at += Math.max(0, read);
        return read;
    }
}
