package dev.tranche.app.storage;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.stereotype.Component;
import org.springframework.web.multipart.MultipartFile;

/**
 * Files of a moment. They lie in a folder beside those that are kept, where the room is that the data has; what a process left
 * there that was killed is gone when the next one starts.
 */
@Component
public class TemporaryFiles {
    private final Path folder;
    private final Room room;

    public TemporaryFiles(TrancheProperties properties, Room room) throws IOException {
        this.room = room;
        folder = Files.createDirectories(properties.data().toAbsolutePath().resolve("temporary"));
        try (DirectoryStream<Path> left = Files.newDirectoryStream(folder)) {
            for (Path file : left) {
                Files.delete(file);
            }
        }
    }

    /**
     * An empty file of that kind; whoever asks for it deletes it.
     *
     * @param bytes that are to be written into it
     * @throws Refusal if the disk has no room for them
     */
    public Path file(String kind, long bytes) throws IOException {
        room.require(bytes);
        return Files.createTempFile(folder, kind + "-", ".part");
    }

    /** A copy of what was sent, likewise. */
    public Path copy(String kind, MultipartFile sent) throws IOException {
        Path copy = file(kind, sent.getSize());
        try {
            sent.transferTo(copy);
            return copy;
        } catch (IOException | RuntimeException e) {
            Files.deleteIfExists(copy);
            throw e;
        }
    }

    /**
     * Fills such a file, however much it comes to.
     *
     * @param progress stops it
     * @throws Refusal if the disk has no room for more
     */
    public OutputStream filling(Path file, Progress progress) throws IOException {
        return new Watched(Files.newOutputStream(file), room, progress);
    }

    Path folder() {
        return folder;
    }
}
