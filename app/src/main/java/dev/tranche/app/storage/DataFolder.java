package dev.tranche.app.storage;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** The folder with the database and the files, held by one application at a time. */
public final class DataFolder implements AutoCloseable {
    private static final String LOCK = "in-use";

    private final FileChannel channel;

    private DataFolder(FileChannel channel) {
        this.channel = channel;
    }

    /** Why Tranche does not start, in one sentence. */
    public static final class CannotStart extends RuntimeException {
        private static final long serialVersionUID = 1L;

        public CannotStart(String sentence) {
            super(sentence, null, false, false);
        }
    }

    /**
     * Takes the folder, which is made if it is missing.
     *
     * @throws CannotStart if it cannot be written, or another has it
     */
    public static DataFolder claim(Path folder) {
        FileChannel channel;
        try {
            Files.createDirectories(folder);
            channel = FileChannel.open(folder.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        } catch (IOException e) {
            throw new CannotStart("Tranche cannot write to " + folder.toAbsolutePath()
                    + "; allow it there, or give another folder with TRANCHE_DATA.");
        }
        try {
            FileLock lock = channel.tryLock();
            if (lock != null) {
                return new DataFolder(channel);
            }
        } catch (IOException | OverlappingFileLockException e) {
            // Said below, as for a lock that another process has.
        }
        throw new CannotStart("Another Tranche is using " + folder.toAbsolutePath()
                + "; stop it, or give another folder with TRANCHE_DATA.");
    }

    @Override
    public void close() {
        try {
            channel.close();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
