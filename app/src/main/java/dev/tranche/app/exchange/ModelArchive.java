package dev.tranche.app.exchange;

import dev.tranche.app.storage.FileNames;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.ObjLibrary;
import dev.tranche.core.speech.Letters;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.BufferedInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;

/**
 * Models as people download them: several in one archive, beside pictures and texts. What is in it is told by content, kept to
 * bounds whatever the archive says of itself, and never written to the paths it names.
 */
final class ModelArchive {
    private static final int MOST_ENTRIES = 2_000;
    private static final int MOST_MODELS = 60;
    private static final Pattern PICTURE = Pattern.compile("(?i).*\\.(png|jpe?g)");
    /** How many times as large as the archive what is in it may be. */
    private static final long RATIO = 200;

    private static final long SMALL = 1 << 20;

    private ModelArchive() {}

    /** Takes a model out. */
    @FunctionalInterface
    interface Taker {
        void take(String name, InputStream content) throws IOException;
    }

    /** Whether a packed file is an archive of files, and not one of the formats that are archives themselves. */
    static boolean is(Path file) throws IOException {
        try (ZipFile zip = open(file)) {
            return zip.stream()
                    .map(ZipEntry::getName)
                    .noneMatch(n -> n.equals(PlanFile.ENTRY) || n.equals("[Content_Types].xml") || n.startsWith("3D/"));
        } catch (ZipException e) {
            // Whoever reads it says what is wrong with it.
            return false;
        }
    }

    /**
     * Takes out every model in it.
     *
     * @param most bytes that all of it may have
     * @throws Refusal if there is none, it holds archives of archives, or more than it may
     */
    static void unpack(Path archive, long most, Taker taker, Progress progress) throws IOException {
        Meter meter = new Meter(Files.size(archive), most);
        int models = 0;
        String archived = null;
        String solids = null;
        try (ZipFile zip = open(archive)) {
            List<? extends ZipEntry> entries = zip.stream()
                    .limit(MOST_ENTRIES + 1)
                    .filter(e -> !e.isDirectory())
                    .toList();
            if (entries.size() > MOST_ENTRIES) {
                throw Refusal.of("The archive holds over %d files; unpack it, and give the model.", MOST_ENTRIES);
            }
            ObjLibrary library = library(zip, entries, meter);
            int done = 0;
            for (ZipEntry entry : entries) {
                progress.at(++done, entries.size());
                String name = FileNames.shown(name(entry));
                if (name.startsWith(".")) {
                    continue;
                }
                try (BufferedInputStream content =
                        new BufferedInputStream(meter.over(zip.getInputStream(entry)), ModelReader.HEAD + 1)) {
                    content.mark(ModelReader.HEAD + 1);
                    byte[] head = content.readNBytes(ModelReader.HEAD);
                    content.reset();
                    if (isPacked(head) && !name.toLowerCase(Locale.ROOT).endsWith(".3mf")) {
                        archived = name;
                    } else if (isSolids(head)) {
                        solids = name;
                    } else if (head.length > 0 && ModelReader.isModel(head, entry.getSize())) {
                        if (++models > MOST_MODELS) {
                            throw Refusal.of(
                                    "The archive holds over %d models; unpack it, and give those you want.",
                                    MOST_MODELS);
                        }
                        taker.take(
                                name,
                                ModelReader.isObj(head, entry.getSize())
                                        ? library.colours(name(entry), head).before(content)
                                        : content);
                    }
                }
            }
        } catch (ZipException e) {
            throw new Refusal("The archive is broken; download it again.");
        }
        if (models == 0 && solids != null) {
            throw Refusal.of(
                    "“%s” in the archive is a STEP file, and those are read by the browser; give the archive on Plans under a name that ends in .zip, or unpack it.",
                    Words.quoted(solids));
        }
        if (models == 0) {
            throw archived == null
                    ? new Refusal("The archive holds no model; Tranche reads 3MF, OBJ, STL, PLY, AMF and glTF.")
                    : Refusal.of(
                            "The archive holds another one, “%s”; unpack it once, and give that.",
                            Words.quoted(archived));
        }
    }

    /** The material libraries in it, and the pictures they name. */
    private static ObjLibrary library(ZipFile zip, List<? extends ZipEntry> entries, Meter meter) throws IOException {
        ObjLibrary library = new ObjLibrary();
        for (ZipEntry entry : entries) {
            if (entry.getName().toLowerCase(Locale.ROOT).endsWith(".mtl")) {
                try (InputStream content = meter.over(zip.getInputStream(entry))) {
                    library.add(name(entry), content);
                }
            }
        }
        for (ZipEntry entry : entries) {
            if (PICTURE.matcher(entry.getName()).matches()) {
                try (InputStream content = meter.over(zip.getInputStream(entry))) {
                    library.addPicture(name(entry), content);
                }
            }
        }
        return library;
    }

    /** The same, kept to the bounds of an archive of so many bytes. */
    static InputStream bounded(InputStream unpacked, long packed, long most) {
        return new Meter(packed, most).over(unpacked);
    }

    /** Names may be in any encoding. */
    static ZipFile open(Path file) throws IOException {
        return new ZipFile(file.toFile(), Letters.OF_ARCHIVES);
    }

    /** The path of an entry of an archive that was opened here. */
    static String name(ZipEntry entry) {
        return Letters.archived(entry.getName());
    }

    /** Whether a file that begins like this may be an archive. */
    static boolean isPacked(byte[] head) {
        return head.length > 3 && head[0] == 'P' && head[1] == 'K' && head[2] == 3 && head[3] == 4;
    }

    /** Whether it begins as a STEP file does; ISO 10303-21. */
    private static boolean isSolids(byte[] head) {
        return new String(head, StandardCharsets.ISO_8859_1).stripLeading().startsWith("ISO-10303-21;");
    }

    /** Counts what is unpacked, over all entries. */
    private static final class Meter {
        private final long allowed;
        private long read;

        Meter(long packed, long most) {
            this.allowed = Math.min(most, SMALL + packed * RATIO);
        }

        InputStream over(InputStream unpacked) {
            return new FilterInputStream(unpacked) {
                @Override
                public int read() throws IOException {
                    int b = super.read();
                    count(b < 0 ? 0 : 1);
                    return b;
                }

                @Override
                public int read(byte[] into, int from, int length) throws IOException {
                    int n = super.read(into, from, length);
                    count(Math.max(0, n));
                    return n;
                }
            };
        }

        private void count(int more) {
            read += more;
            if (read > allowed) {
                throw Refusal.of(
                        "Unpacked, the archive would take over %d MB; unpack it yourself, and give what is in it.",
                        Math.max(1, allowed >> 20));
            }
        }
    }
}
