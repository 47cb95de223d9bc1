package dev.tranche.core.hostile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.ObjLibrary;
import dev.tranche.core.format.Svg;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.Survey;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.macro.Step;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Files damaged at random, always alike: each is read, or refused with a sentence; nothing else happens. */
class MutationsTest {
    private static final int TRIES = 400;
    private static final String[] SPICES = {
        "0",
        "-1",
        "1e308",
        "NaN",
        "99999999999999999999",
        "{{",
        "}}",
        "<",
        ">",
        "&",
        "\"",
        "'",
        "/",
        "\0",
        "\r\n",
        "M",
        "z",
        "{{{in}}}",
        "{{#in}}",
        "E",
        "G92",
        "T-1",
        "T65536",
        "; tranche begin plan=a state=b swap=1\n",
        "; tranche end\n",
        "url(#a)",
        "transform=\"matrix(0 0 0 0 0 0)\"",
        "%",
        ";"
    };

    private interface Reader {
        void read(byte[] file) throws IOException;
    }

    static Stream<Arguments> readers() {
        String obj = new String(Hostile.groupsOfOneFace(8), StandardCharsets.US_ASCII);
        return Stream.of(
                arguments("binary STL", Hostile.equalSolids(3), (Reader) MutationsTest::model),
                arguments("text STL", textStl(), (Reader) MutationsTest::model),
                arguments("OBJ", obj.getBytes(StandardCharsets.US_ASCII), (Reader) MutationsTest::model),
                arguments("3MF as an archive", Hostile.ordinary3mf(), (Reader) MutationsTest::model),
                arguments("PNG on an OBJ", picture("png"), (Reader) png -> shown(png, PICTURED)),
                arguments("JPEG on an OBJ", picture("jpg"), (Reader) jpg -> shown(jpg, PICTURED)),
                arguments("OBJ with a picture", PICTURED, (Reader) damaged -> shown(picture("png"), damaged)),
                arguments("SVG", drawing(), (Reader) MutationsTest::svg),
                arguments("G-code", gcode(), (Reader) MutationsTest::gcode),
                arguments(
                        "macro text",
                        "{{number}} of {{of}}: {{ out }} out, {{{in}}} in {{&purge}} mm"
                                .getBytes(StandardCharsets.UTF_8),
                        (Reader) MutationsTest::macro));
    }

    private static final byte[] PICTURED =
            ("vt 0.1 0.1\nvt 0.9 0.1\nvt 0.1 0.9\nusemtl skin\nv 0 0 0\nv 9 0 0\nv 0 9 0\nv 0 0 9\n"
                            + "f 1/1 3/2 2/3\nf 1/1 2/2 4/3\nf -4/-3 -1/-2 -2/-1\nf 2/1 3/2 4/3\n")
                    .getBytes(StandardCharsets.US_ASCII);

    private static byte[] picture(String format) {
        BufferedImage image = new BufferedImage(16, 16, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < 256; i++) {
            image.setRGB(i % 16, i / 16, i * 0x010203);
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, format, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static void shown(byte[] picture, byte[] obj) throws IOException {
        ObjLibrary library = new ObjLibrary();
        library.add(
                "a.mtl", new ByteArrayInputStream("newmtl skin\nmap_Kd p.png\n".getBytes(StandardCharsets.US_ASCII)));
        library.addPicture("p.png", new ByteArrayInputStream(picture));
        model(library.colours("", obj).before(new ByteArrayInputStream(obj)).readAllBytes());
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("readers")
    void a_damaged_file_is_read_or_refused(String what, byte[] whole, Reader reader) {
        Random random = new Random(what.hashCode());
        for (int i = 0; i < TRIES; i++) {
            byte[] damaged = damaged(whole, random);
            try {
                reader.read(damaged);
            } catch (Refusal said) {
                assertThat(said.getMessage()).doesNotContain("null").hasSizeLessThan(400);
            } catch (IOException | RuntimeException | Error e) {
                fail("try " + i + " of " + what + ": " + new String(damaged, StandardCharsets.ISO_8859_1), e);
            }
        }
    }

    /** The XML inside an archive is damaged apart from it, since a damaged archive rarely lets it through. */
    @org.junit.jupiter.api.Test
    void a_damaged_model_in_a_whole_archive_is_read_or_refused() throws IOException {
        byte[] xml;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(Hostile.ordinary3mf()))) {
            ZipEntry entry = zip.getNextEntry();
            while (!entry.getName().endsWith(".model")) {
                entry = zip.getNextEntry();
            }
            xml = zip.readAllBytes();
        }
        a_damaged_file_is_read_or_refused("3MF's XML", xml, damaged -> {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
                zip.putNextEntry(new ZipEntry("3D/model.model"));
                zip.write(damaged);
            }
            model(bytes.toByteArray());
        });
    }

    /** A few bytes changed, a stretch cut out, doubled or put elsewhere, or something odd put in. */
    private static byte[] damaged(byte[] whole, Random random) {
        byte[] file = whole.clone();
        int times = 1 + random.nextInt(3);
        for (int i = 0; i < times && file.length > 2; i++) {
            int at = random.nextInt(file.length);
            int length = Math.min(file.length - at, 1 + random.nextInt(1 + random.nextInt(40)));
            switch (random.nextInt(5)) {
                case 0 -> file[at] = (byte) random.nextInt(256);
                case 1 -> file = spliced(file, at, length, new byte[0]);
                case 2 -> file =
                        spliced(file, random.nextInt(file.length), 0, Arrays.copyOfRange(file, at, at + length));
                case 3 -> file = Arrays.copyOf(file, at);
                default -> file = spliced(
                        file,
                        at,
                        random.nextInt(2) * length,
                        SPICES[random.nextInt(SPICES.length)].getBytes(StandardCharsets.UTF_8));
            }
        }
        return file;
    }

    private static byte[] spliced(byte[] file, int at, int without, byte[] with) {
        byte[] spliced = new byte[file.length - without + with.length];
        System.arraycopy(file, 0, spliced, 0, at);
        System.arraycopy(with, 0, spliced, at, with.length);
        System.arraycopy(file, at + without, spliced, at + with.length, file.length - at - without);
        return spliced;
    }

    private static void model(byte[] file) throws IOException {
        var body = ModelReader.read(new ByteArrayInputStream(file), file.length, Progress.UNHEARD)
                .body();
        // Coarse, as a damaged number may make it hundreds of metres high.
        int layer = Math.max(200, Math.min(5_000, body.height().micrometres() / 100));
        CutModel.of(
                body,
                new LayerGrid(Height.ofMicrometres(layer), Height.ofMicrometres(layer), body.height()),
                Progress.UNHEARD);
    }

    private static void svg(byte[] file) {
        assertThat(Svg.read(new ByteArrayInputStream(file), Progress.UNHEARD)
                        .area()
                        .isValid())
                .isTrue();
    }

    private static void gcode(byte[] file) throws IOException {
        SlicedFile sliced;
        try (InputStream in = new ByteArrayInputStream(file)) {
            sliced = Survey.read(in, file.length, Motion.COMMON, Dialect.COMMON, Progress.UNHEARD);
        }
        assertThat(sliced.seconds()).isFinite();
        Patch.removing(sliced).applyTo(file);
        GridMatch.of(sliced, new LayerGrid(Height.parse("0.2"), Height.parse("0.2"), Height.parse("0.6")));
    }

    private static void macro(byte[] file) {
        new Step.Message(new String(file, StandardCharsets.UTF_8));
    }

    private static byte[] textStl() {
        return """
                solid tag
                facet normal 0 0 1
                outer loop
                vertex 0 0 0
                vertex 10 0 0
                vertex 0 10 5
                endloop
                endfacet
                facet normal 0 0 1
                outer loop
                vertex 0 0 0
                vertex 0 10 5
                vertex 10 0 0
                endloop
                endfacet
                endsolid tag
                """
                .getBytes(StandardCharsets.US_ASCII);
    }

    private static byte[] drawing() {
        return Hostile.svg("<g transform='translate(3,4) rotate(20)' style='fill:#000;fill-rule:evenodd'>"
                + "<path d='M0,0 h40 v30 h-40 z M10,10 c5,5 10,-5 15,0 s5,5 9,9 a4,4 0 1 0 3,3 z'/>"
                + "<rect x='50' y='5' width='9' height='12mm' rx='2'/><circle cx='90' cy='9' r='7'/>"
                + "<polygon points='0,60 20,90 40,60 0,80 40,80'/></g>");
    }

    private static byte[] gcode() {
        StringBuilder text = new StringBuilder("; made up\nM82\nG21\nG90\nG28\nM109 S200\nT0\nG92 E0\n");
        double e = 0;
        for (int layer = 1; layer <= 3; layer++) {
            text.append("; layer ").append(layer).append('\n');
            text.append("G0 F6000 X10 Y10 Z").append(String.format(java.util.Locale.ROOT, "%.2f", 0.2 * layer));
            for (int i = 0; i < 4; i++) {
                e += 0.7;
                text.append(String.format(
                        java.util.Locale.ROOT, "%nG1 F1800 X%d Y%d E%.4f", 10 + 20 * (i % 2), 10 + 20 * (i / 2), e));
            }
            text.append("\nG1 E")
                    .append(e - 2)
                    .append(" F2400\nG2 X12 Y12 I1 J1\nG1 E")
                    .append(e)
                    .append('\n');
        }
        return text.append("M104 S0\nM0\n").toString().getBytes(StandardCharsets.US_ASCII);
    }
}
