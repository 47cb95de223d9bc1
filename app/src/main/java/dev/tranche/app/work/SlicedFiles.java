package dev.tranche.app.work;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Source;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.job.Wish;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.Pace;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.rearrange.Rearranged;
import dev.tranche.core.rearrange.Rearranging;
import dev.tranche.core.rearrange.Restoring;
import dev.tranche.core.sequence.Painting;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.BufferedOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import org.springframework.stereotype.Service;

/**
 * G-code files surveyed, kept by the hash of their content, the motion they were timed with and how they were read, and given up
 * where memory becomes scarce.
 */
@Service
public class SlicedFiles {
    private final FileStore files;
    private final TemporaryFiles temporary;
    private final Cache<Key, SlicedFile> surveys =
            Caffeine.newBuilder().maximumSize(50).softValues().build();

    SlicedFiles(FileStore files, TemporaryFiles temporary) {
        this.files = files;
        this.temporary = temporary;
    }

    private record Key(String hash, Motion motion, Dialect dialect, boolean changesItself) {
        /** A survey's times are those of the motion alone, whatever was measured. */
        static Key of(String hash, Printer printer) {
            return new Key(
                    hash,
                    printer.motion().with(Pace.AS_RECKONED),
                    printer.abilities().dialect(),
                    printer.abilities().understands(Command.T));
        }

        SlicedFile read(InputStream in, long size, Progress progress) throws IOException {
            return Survey.read(in, size, motion, dialect, changesItself, progress);
        }
    }

    /** What a file is put into another order by. */
    private record Order(Key key, Printer printer, PrintOrder wanted) {}

    private final Cache<Order, Rearranging> rearranged =
            Caffeine.newBuilder().maximumSize(20).softValues().build();
    private final Cache<Key, SlicedFile> plain =
            Caffeine.newBuilder().maximumSize(20).softValues().build();

    /** Surveys a kept file, or answers the survey at hand; {@code progress} hears bytes. */
    public SlicedFile survey(String hash, Printer printer, Progress progress) {
        Key key = Key.of(hash, printer);
        SlicedFile known = surveys.getIfPresent(key);
        if (known != null) {
            return known;
        }
        Path path = files.path(hash);
        try (InputStream in = Files.newInputStream(path)) {
            SlicedFile file = key.read(in, Files.size(path), progress);
            surveys.put(key, file);
            return file;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The survey of a kept file as its program wrote it: with what Tranche put in passed over. */
    SlicedFile plain(String hash, Printer printer, Progress progress) {
        SlicedFile whole = survey(hash, printer, progress);
        if (whole.blocks().isEmpty()) {
            return whole;
        }
        Key key = Key.of(hash, printer);
        SlicedFile known = plain.getIfPresent(key);
        if (known != null) {
            return known;
        }
        try (Source source = source(hash, whole);
                InputStream in = source.open()) {
            SlicedFile file = key.read(in, source.size(), progress);
            plain.put(key, file);
            return file;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The hash of a kept file without what Tranche put in: that of the file as its program wrote it. */
    public String bare(String hash, Printer printer, Progress progress) {
        SlicedFile whole = survey(hash, printer, progress);
        if (whole.blocks().isEmpty()) {
            return hash;
        }
        try (Source source = source(hash, whole);
                InputStream in = source.open()) {
            return FileStore.hash(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Puts a kept file into the order that is wished, or answers what came of it before; {@code progress} hears bytes. */
    Rearranging rearranged(String hash, Wish wish, Printer printer, Progress progress) {
        Order order = new Order(Key.of(hash, printer), printer, wish.order());
        Rearranging known = rearranged.getIfPresent(order);
        if (known != null) {
            return known;
        }
        try (Source source = source(hash, survey(hash, printer, progress))) {
            Rearranging made = wish.fulfil(source, printer, progress);
            rearranged.put(order, made);
            return made;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Source source(String hash, SlicedFile survey) throws IOException {
        return Source.of(FileChannel.open(files.path(hash)), survey);
    }

    /** The bytes of a plan's file in the order in which it is printed. */
    public InputStream printed(Workpiece work) throws IOException {
        String hash = work.plan().gcode().orElseThrow().hash();
        Optional<Rearranged> made = work.reckoning().brief().rearranging().made();
        if (made.isEmpty()) {
            return Files.newInputStream(files.path(hash));
        }
        Source source = source(hash, work.file().orElseThrow());
        return new FilterInputStream(made.get().open(source)) {
            @Override
            public void close() throws IOException {
                source.close();
            }
        };
    }

    /** Where a plan's file prints the model with which tool. */
    public Painting painting(Workpiece work, Progress progress) throws IOException {
        SlicedFile file = work.file().orElseThrow(() -> new Refusal("The plan has no sliced file any more."));
        String hash = work.plan().gcode().orElseThrow().hash();
        Printer printer = work.machine().printer();
        GridMatch plain = GridMatch.of(plain(hash, printer, progress), work.grid());
        try (Source source = source(hash, file)) {
            return Painting.of(
                    source,
                    work.reckoning().facts().surroundings().in(plain),
                    printer.abilities().dialect(),
                    progress);
        }
    }

    /** The bytes of a kept file that Tranche rearranged, as it was before. */
    public InputStream restored(String hash, SlicedFile survey) throws IOException {
        Path restored = temporary.file("restored", survey.size());
        try (Source source = source(hash, survey);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(restored), 1 << 16)) {
            Restoring.copy(source, out);
        } catch (RuntimeException | IOException e) {
            Files.delete(restored);
            throw e;
        }
        return Files.newInputStream(restored, StandardOpenOption.DELETE_ON_CLOSE);
    }
}
