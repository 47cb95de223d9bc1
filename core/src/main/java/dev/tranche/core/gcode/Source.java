package dev.tranche.core.gcode;

import dev.tranche.core.gcode.SlicedFile.Block;
import dev.tranche.core.gcode.SlicedFile.Span;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** The bytes of a sliced file as its program wrote it, read from anywhere: what Tranche put in is passed over. Not for two threads. */
public final class Source implements Closeable {
    /** Bytes held of what is read line by line. */
    private static final int ROOM = 1 << 16;

    private final SeekableByteChannel file;
    private final List<Span> kept;
    /** Offset of each of {@link #kept} without what is passed over. */
    private final long[] offsets;

    private final long size;

    private Source(SeekableByteChannel file, List<Span> kept) {
        this.file = file;
        this.kept = kept;
        this.offsets = new long[kept.size()];
        long at = 0;
        for (int i = 0; i < offsets.length; i++) {
            offsets[i] = at;
            at += kept.get(i).to() - kept.get(i).from();
        }
        this.size = at;
    }

    /** All of a file in which Tranche has put nothing. */
    public static Source of(SeekableByteChannel file) throws IOException {
        return new Source(file, List.of(new Span(0, file.size())));
    }

    /** @param survey of all of {@code file} */
    public static Source of(SeekableByteChannel file, SlicedFile survey) {
        List<Span> kept = new ArrayList<>();
        long at = 0;
        for (Block block : survey.blocks()) {
            kept.add(new Span(at, block.from()));
            kept.addAll(block.kept());
            at = block.to();
        }
        kept.add(new Span(at, survey.size()));
        return new Source(file, kept.stream().filter(s -> s.to() > s.from()).toList());
    }

    public long size() {
        return size;
    }

    /** All of it. */
    public InputStream open() {
        return open(0, size);
    }

    /** The lines of a part of it; their offsets count from where that begins. */
    public GcodeScanner lines(Span of) {
        return new GcodeScanner(open(of.from(), of.to()), (int) Math.min(ROOM, of.to() - of.from() + 64));
    }

    /** Bytes from one offset to before another. */
    public InputStream open(long from, long to) {
        return new InputStream() {
            private long at = from;

            @Override
            public int read() throws IOException {
                byte[] one = new byte[1];
                return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
            }

            @Override
            public int read(byte[] into, int offset, int length) throws IOException {
                if (length == 0) {
                    return 0;
                }
                int read = at >= to ? -1 : Source.this.read(at, into, offset, (int) Math.min(length, to - at));
                at += Math.max(0, read);
                return read;
            }
        };
    }

    private int read(long at, byte[] into, int offset, int length) throws IOException {
        int found = Arrays.binarySearch(offsets, at);
        int i = found >= 0 ? found : -found - 2;
        long within = at - offsets[i];
        Span span = kept.get(i);
        file.position(span.from() + within);
        return file.read(ByteBuffer.wrap(into, offset, (int) Math.min(length, span.to() - span.from() - within)));
    }

    @Override
    public void close() throws IOException {
        file.close();
    }
}
