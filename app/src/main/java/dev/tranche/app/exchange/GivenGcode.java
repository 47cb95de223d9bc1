package dev.tranche.app.exchange;

import dev.tranche.app.storage.FileNames;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import org.springframework.stereotype.Component;
import org.springframework.util.unit.DataSize;
import org.springframework.web.multipart.MultipartFile;

/** G-code as people give it: plain, packed by gzip (RFC 1952), or the only one in an archive of files. */
@Component
public class GivenGcode {
    private static final Pattern GCODE = Pattern.compile("(?i)(.*/)?[^./][^/]*\\.(gcode|gco|g|nc|ngc)");
    private static final Pattern MODEL = Pattern.compile("(?i).*\\.(stl|obj|3mf|model|step|stp)");

    private final TemporaryFiles temporary;

    GivenGcode(TemporaryFiles temporary) {
        this.temporary = temporary;
    }

    /** What is done with it. */
    @FunctionalInterface
    public interface Use<T> {
        T of(InputStream gcode, String name) throws IOException;
    }

    /**
     * Opens it for as long as it is used.
     *
     * @param most bytes that it may have, unpacked
     * @throws Refusal if it is a model, an archive without one G-code file, broken, or text that no printer reads
     */
    public <T> T open(MultipartFile file, DataSize most, Use<T> use) throws IOException {
        String name = FileNames.shown(file.getOriginalFilename());
        try (BufferedInputStream in = new BufferedInputStream(file.getInputStream(), ModelReader.HEAD + 1)) {
            in.mark(ModelReader.HEAD + 1);
            byte[] head = in.readNBytes(ModelReader.HEAD);
            in.reset();
            if (ModelArchive.isPacked(head)) {
                return unzipped(file, most, use);
            }
            if (begins(head, 0x1F, 0x8B)) {
                String plain = name.replaceFirst("(?i)\\.(gz|gzip)$", "");
                try (InputStream unpacked = new GZIPInputStream(in)) {
                    return use.of(ModelArchive.bounded(unpacked, file.getSize(), most.toBytes()), plain);
                }
            }
            if (begins(head, 0xFF, 0xFE) || begins(head, 0xFE, 0xFF)) {
                throw Refusal.of(
                        "“%s” is text of two bytes a letter (UTF-16), which no printer reads; save it as plain text, UTF-8, and give that.",
                        Words.quoted(name));
            }
            if (ModelReader.isModel(head, file.getSize())) {
                throw Refusal.of(
                        "“%s” is a model and no G-code; slice it, and give what your slicing program wrote.",
                        Words.quoted(name));
            }
            return use.of(in, name);
        } catch (ZipException | EOFException e) {
            throw new Refusal("The archive is broken; fetch or pack it again.");
        }
    }

    /** Whether it is an archive of files that holds G-code and no model. */
    boolean isArchived(MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            if (!ModelArchive.isPacked(in.readNBytes(4))) {
                return false;
            }
        }
        try {
            return inArchive(
                    file,
                    zip -> zip.stream().anyMatch(e -> GCODE.matcher(e.getName()).matches())
                            && zip.stream()
                                    .noneMatch(e -> MODEL.matcher(e.getName()).matches()));
        } catch (ZipException e) {
            return false;
        }
    }

    private static boolean begins(byte[] head, int first, int second) {
        return head.length > 1 && head[0] == (byte) first && head[1] == (byte) second;
    }

    private <T> T unzipped(MultipartFile file, DataSize most, Use<T> use) throws IOException {
        return inArchive(file, zip -> {
            List<? extends ZipEntry> found = zip.stream()
                    .filter(e -> GCODE.matcher(e.getName()).matches())
                    .limit(2)
                    .toList();
            if (found.isEmpty()) {
                throw new Refusal("The archive holds no G-code; give the file your slicing program wrote.");
            }
            if (found.size() > 1) {
                throw Refusal.of(
                        "The archive holds several, “%s” and “%s”; unpack it, and give the one of this plan.",
                        Words.quoted(FileNames.shown(ModelArchive.name(found.get(0)))),
                        Words.quoted(FileNames.shown(ModelArchive.name(found.get(1)))));
            }
            try (InputStream unpacked = zip.getInputStream(found.get(0))) {
                return use.of(
                        ModelArchive.bounded(unpacked, file.getSize(), most.toBytes()),
                        FileNames.shown(ModelArchive.name(found.get(0))));
            }
        });
    }

    @FunctionalInterface
    private interface Look<T> {
        T at(ZipFile zip) throws IOException;
    }

    private <T> T inArchive(MultipartFile file, Look<T> look) throws IOException {
        Path copy = temporary.copy("given", file);
        try (ZipFile zip = ModelArchive.open(copy)) {
            return look.at(zip);
        } finally {
            Files.deleteIfExists(copy);
        }
    }
}
