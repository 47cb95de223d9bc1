package dev.tranche.core.format;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * Reads 3MF: an archive whose start part lists objects, meshes or components of them, and what of them is to be
 * built where. Everything that is to be built makes one model, with the names and colours of its objects; units become
 * millimetres.
 *
 * <p>Source: 3MF Consortium, "3D Manufacturing Format Core Specification", version 1.3 (2021), "3MF Materials and
 * Properties Extension", version 1.2.1 (2021), and "3MF Production Extension" (objects in model parts of their own). Archives are read as
 * they stream, never written anywhere; entries, their size and how far they may unpack are limited; XML without
 * DTDs and external entities.
 */
final class ThreeMf {
    private static final int MOST_ENTRIES = 2_000;
    private static final long MOST_UNPACKED = 2L << 30;
    /** XML packs about tenfold; a thousandfold is a trap. */
    private static final int FURTHEST_UNPACKED = 400;

    private static final Pattern PICTURE = Pattern.compile("(?i).*\\.(png|jpe?g|texture)");
    private static final String RELATIONS = "_rels/.rels";
    private static final String START_PART = "http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel";

    private final long size;
    private final Progress progress;
    private final ThreeMfBuild build;
    private Optional<String> start = Optional.empty();
    /** Bytes of all pictures so far. */
    private int pictures;

    private ThreeMf(long size, Progress progress) {
        this.size = size;
        this.progress = progress;
        this.build = new ThreeMfBuild(progress);
    }

    static PartedModel read(InputStream in, long size, Progress progress) throws IOException {
        ThreeMf file = new ThreeMf(size, progress);
        Counting packed = new Counting(in);
        // Names that are not UTF-8 are read as they come: those that matter are plain letters.
        try (ZipInputStream zip = Archives.open(packed)) {
            file.entries(zip, packed);
        } catch (ZipException | java.io.EOFException e) {
            throw new Refusal("The archive is damaged or cut short; copy or export the 3MF file again.");
        }
        return file.build.model(file.start);
    }

    private void entries(ZipInputStream zip, Counting packed) throws IOException {
        Counting unpacked = new Counting(zip) {
            @Override
            void counted() {
                if (count > MOST_UNPACKED || count > 1_000_000 && count > FURTHEST_UNPACKED * size) {
                    throw Refusal.of(
                            "The archive unpacks to over %d MB, which no model of its size does; it was not read.",
                            count / 1_000_000);
                }
                progress.at(Math.min(packed.count, size), size);
            }
        };
        int entries = 0;
        for (ZipEntry entry = Archives.next(zip); entry != null; entry = Archives.next(zip)) {
            if (++entries > MOST_ENTRIES) {
                throw Refusal.of("The archive holds over %d files; it was not read.", MOST_ENTRIES);
            }
            String name = entry.getName().replaceFirst("^/", "");
            if (name.equals(RELATIONS)) {
                start = startPart(unpacked);
            } else if (name.toLowerCase(java.util.Locale.ROOT).endsWith(".model")) {
                build.part(name, ThreeMfPart.read(unpacked));
            } else if (PICTURE.matcher(name).matches() && !name.startsWith("Metadata/")) {
                byte[] picture = unpacked.readNBytes(Picture.MOST - pictures);
                pictures += picture.length;
                build.picture(name, picture);
            }
            // What is passed over has to be unpacked too, and counts.
            unpacked.transferTo(OutputStream.nullOutputStream());
        }
    }

    private static Optional<String> startPart(InputStream in) {
        try {
            XMLStreamReader xml = xml(in);
            while (xml.hasNext()) {
                if (xml.next() == XMLStreamReader.START_ELEMENT
                        && xml.getLocalName().equals("Relationship")
                        && START_PART.equals(xml.getAttributeValue(null, "Type"))) {
                    return Optional.ofNullable(xml.getAttributeValue(null, "Target"));
                }
            }
            return Optional.empty();
        } catch (XMLStreamException e) {
            throw new Refusal("The archive's list of relations is damaged; export the 3MF file again.");
        }
    }

    /** A reader that looks nothing up outside the file. */
    static XMLStreamReader xml(InputStream in) throws XMLStreamException {
        XMLInputFactory factory = XMLInputFactory.newFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        return factory.createXMLStreamReader(in);
    }
}
