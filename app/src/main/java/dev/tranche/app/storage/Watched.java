package dev.tranche.app.storage;

import dev.tranche.core.speech.Progress;
import java.io.IOException;
import java.io.OutputStream;

/** Bytes on their way to the disk: whether there is room for more is asked now and then, and it stops when it is cancelled. */
final class Watched extends OutputStream {
    /** Bytes. */
    private static final long ROOM_EACH = 16L << 20;

    private final OutputStream out;
    private final Room room;
    private final Progress progress;
    private long written;

    Watched(OutputStream out, Room room, Progress progress) {
        this.out = out;
        this.room = room;
        this.progress = progress;
    }

    @Override
    public void write(int letter) throws IOException {
        write(new byte[] {(byte) letter}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int from, int length) throws IOException {
        progress.beat();
        if (written / ROOM_EACH != (written + length) / ROOM_EACH) {
            room.require(ROOM_EACH);
        }
        out.write(bytes, from, length);
        written += length;
    }

    @Override
    public void flush() throws IOException {
        out.flush();
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
