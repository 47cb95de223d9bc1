package dev.tranche.app.work;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.storage.FileStore;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Progress;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.stereotype.Service;

/** G-code files surveyed, kept by the hash of their content, the motion they were timed with and how they were read. */
@Service
public class SlicedFiles {
    private final FileStore files;
    private final Cache<Key, SlicedFile> surveys =
            Caffeine.newBuilder().maximumSize(50).build();

    SlicedFiles(FileStore files) {
        this.files = files;
    }

    private record Key(String hash, Motion motion, Dialect dialect) {}

    /** Surveys a kept file, or answers the survey at hand; {@code progress} hears bytes. */
    public SlicedFile survey(String hash, Printer printer, Progress progress) {
        Key key = new Key(hash, printer.motion(), printer.abilities().dialect());
        SlicedFile known = surveys.getIfPresent(key);
        if (known != null) {
            return known;
        }
        Path path = files.path(hash);
        try (InputStream in = Files.newInputStream(path)) {
            SlicedFile file = Survey.read(in, Files.size(path), key.motion(), key.dialect(), progress);
            surveys.put(key, file);
            return file;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
