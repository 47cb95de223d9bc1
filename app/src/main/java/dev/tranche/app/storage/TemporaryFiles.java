package dev.tranche.app.storage;

import java.io.IOException;
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

    public TemporaryFiles(TrancheProperties properties) throws IOException {
        folder = Files.createDirectories(properties.data().toAbsolutePath().resolve("temporary"));
        try (DirectoryStream<Path> left = Files.newDirectoryStream(folder)) {
            for (Path file : left) {
                Files.delete(file);
            }
        }
    }

    /** An empty file of that kind, which is whoever asks for it to delete. */
    public Path file(String kind) throws IOException {
        return Files.createTempFile(folder, kind + "-", ".part");
    }

    /** A copy of what was sent, likewise. */
    public Path copy(String kind, MultipartFile sent) throws IOException {
        Path copy = file(kind);
        try {
            sent.transferTo(copy);
            return copy;
        } catch (IOException | RuntimeException e) {
            Files.deleteIfExists(copy);
            throw e;
        }
    }

    Path folder() {
        return folder;
    }
}
