package dev.tranche.app.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.support.BrowserTest;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.format.StlWriter;
import dev.tranche.core.format.ThreeMfWriter;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.web.multipart.MultipartFile;

/** Models in archives, as people download them. */
public class ArchiveTest extends BrowserTest {
    @Autowired
    private ModelImport imports;

    @Autowired
    private ModelCuts cuts;

    public static byte[] zip(Map<String, byte[]> entries) {
        return zip(StandardCharsets.UTF_8, entries);
    }

    public static byte[] zip(Charset names, Map<String, byte[]> entries) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out, names)) {
            for (Map.Entry<String, byte[]> entry : new TreeMap<>(entries).entrySet()) {
                zip.putNextEntry(new ZipEntry(entry.getKey()));
                zip.write(entry.getValue());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static byte[] box(double high) {
        return StlWriter.binary(new Shapes().box(0, 0, 0, 20, 10, high).mesh());
    }

    private static final byte[] NOTE = "Print the hook twice.".getBytes(StandardCharsets.US_ASCII);

    private List<String> unpacked(byte[] archive) throws IOException {
        Path file = file("a.zip", archive);
        List<String> names = new ArrayList<>();
        ModelArchive.unpack(
                file,
                1 << 26,
                (name, content) -> names.add(name + " " + content.readAllBytes().length),
                Progress.UNHEARD);
        return names;
    }

    /** Of UTF-8, as most archives have it, only some say that it is that (PKWARE, APPNOTE.TXT, 4.4.4, from memory). */
    @Test
    void names_in_archives_keep_their_letters_whether_or_not_it_is_said_how_they_are_written() throws IOException {
        byte[] apart =
                Normalizer.normalize("W\u00FCrfel.stl", Normalizer.Form.NFD).getBytes(StandardCharsets.UTF_8);
        String unsaid = new String(apart, StandardCharsets.ISO_8859_1);
        for (byte[] archive : List.of(
                zip(Map.of("W\u00FCrfel.stl", box(4))),
                zip(StandardCharsets.ISO_8859_1, Map.of("W\u00FCrfel.stl", box(4))),
                zip(StandardCharsets.ISO_8859_1, Map.of(unsaid, box(4))))) {
            assertThat(unpacked(archive)).containsExactly("W\u00FCrfel.stl 684");
        }
    }

    @Test
    void the_only_model_of_an_archive_is_begun_with_at_once() throws IOException {
        browser.open("/");
        give("#model-file", file("hook.zip", zip(Map.of("files/hook.stl", box(4), "README.txt", NOTE))));
        browser.see(".steps", "20.0 × 10.0 × 4.00 mm");
        assertThat(browser.text(".steps")).contains("hook");
    }

    private static final byte[] TETRA =
            "usemtl buoy\nv 0 0 0\nv 9 0 0\nv 0 9 0\nv 0 0 9\nf 1 3 2\nf 1 2 4\nf 1 4 3\nf 2 3 4\n"
                    .getBytes(StandardCharsets.US_ASCII);

    private static final byte[] COLOURS =
            "# colours\nnewmtl buoy\nKd 0.8 0.2 0.1\nmap_Kd none.png\n".getBytes(StandardCharsets.US_ASCII);

    @Test
    void an_obj_has_the_colours_that_are_given_with_it_or_lie_in_its_archive() throws IOException {
        List<MultipartFile> both = List.of(
                new MockMultipartFile("file", "buoy.mtl", null, COLOURS),
                new MockMultipartFile("file", "buoy.obj", null, TETRA));
        MultipartFile archive =
                new MockMultipartFile("file", "buoy.zip", null, zip(Map.of("x/b.mtl", COLOURS, "x/buoy.obj", TETRA)));
        for (List<MultipartFile> given : List.of(both, List.of(archive))) {
            assertThat(begun(given).parts()).singleElement().satisfies(p -> {
                assertThat(p.name()).isEqualTo("buoy");
                assertThat(p.colour().orElseThrow().hex()).isEqualTo("#CC331A");
            });
        }
    }

    @Test
    void an_obj_shows_the_pictures_that_its_library_names() throws IOException {
        BufferedImage halves = new BufferedImage(2, 1, BufferedImage.TYPE_INT_RGB);
        halves.setRGB(0, 0, 0xB03020);
        halves.setRGB(1, 0, 0x2F6C8C);
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(halves, "png", png);
        byte[] tetra = (new String(TETRA, StandardCharsets.US_ASCII).replaceAll("(?m)^f.*\n", "")
                        + "vt 0.2 0.5\nvt 0.8 0.5\nf 1/1 3/1 2/1\nf 1/2 2/2 4/2\nf 1/2 4/2 3/2\nf 2/2 3/2 4/2\n")
                .getBytes(StandardCharsets.US_ASCII);
        List<MultipartFile> each = new ArrayList<>(List.of(
                new MockMultipartFile("file", "Skin.png", null, png.toByteArray()),
                new MockMultipartFile("file", "buoy.obj", null, tetra),
                new MockMultipartFile("file", "buoy.mtl", null, SKIN)));
        for (int i = 0; i < PlanMaker.MOST_FILES; i++) {
            each.add(new MockMultipartFile("file", "more" + i + ".png", null, png.toByteArray()));
        }
        MultipartFile archive = new MockMultipartFile(
                "file",
                "skin.zip",
                null,
                zip(Map.of("a/skin.png", png.toByteArray(), "b.mtl", SKIN, "b.obj", tetra, "other.png", NOTE)));
        for (List<MultipartFile> given : List.of(each, List.of(archive))) {
            assertThat(begun(given).coats().get(0).hues())
                    .extracting(h -> h.colour().orElseThrow().hex())
                    .containsExactly("#2F6C8C", "#B03020");
        }
    }

    private static final byte[] SKIN =
            "newmtl buoy\nKd 1 1 1\nmap_Kd ..\\textures\\skin.png\n".getBytes(StandardCharsets.US_ASCII);

    private PartedModel begun(List<MultipartFile> given) throws IOException {
        Job job = imports.begin(given);
        assertThat(job.endsWithin(60_000)).isTrue();
        String plan = job.destination().orElseThrow().substring("/plans/".length());
        return cuts.model(plans.get(plan).content().files(), Progress.UNHEARD);
    }

    @Test
    void of_several_one_chooses_by_picture_and_each_may_become_a_plan_or_all_of_them_one() throws IOException {
        byte[] archive = zip(Map.of(
                "peg.stl",
                box(3),
                "../../lid.stl",
                box(5),
                "broken.stl",
                new byte[] {1, 2, 3},
                "photo.jpg",
                NOTE,
                "hook.obj",
                "v 0 0 0\nv 9 0 0\nv 0 9 0\nv 0 0 9\nf 1 3 2\nf 1 2 4\nf 1 4 3\nf 2 3 4\n"
                        .getBytes(StandardCharsets.US_ASCII)));
        browser.open("/");
        give("#model-file", file("shed.zip", archive));
        browser.see("h1", "Which of these?");
        assertThat(browser.text("#content"))
                .contains("holds 3 models")
                .contains("20.0 × 10.0 × 5.0 mm")
                .contains("hook.obj");
        browser.click("#take-each");
        browser.see("#notice, #refused", "Choose at least one");
        String offer = browser.path();
        browser.click(".offered:nth-of-type(1)");
        browser.click(".offered:nth-of-type(3)");
        browser.click("#take-together");
        browser.find("#ledger");
        assertThat(plans.get(browser.path().split("[/?]")[2]).content().files()).hasSize(2);

        browser.open(offer);
        browser.click(".offered:nth-of-type(1)");
        browser.click(".offered:nth-of-type(2)");
        browser.click("#take-each");
        browser.until(() -> browser.path().equals("/"));
        assertThat(plans.listed()).extracting(Plans.Listed::name).contains("hook", "lid");
    }

    /** A pot, its lid beside it, and a ball that hovers beside both, as a 3MF builds them. */
    private static byte[] plateful() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ThreeMfWriter.write(
                "Plateful",
                List.of(
                        thing("Pot", "#26272A", new Shapes().box(0, 0, 0, 20, 20, 10)),
                        thing("Handle", "#F2F1EC", new Shapes().box(20, 5, 4, 6, 4, 4)),
                        thing("Lid", "#F2F1EC", new Shapes().box(40, 0, 0, 20, 20, 2)),
                        thing("Knob", "#26272A", new Shapes().box(80, 0, 6, 8, 8, 3))),
                bytes);
        return bytes.toByteArray();
    }

    private static ThreeMfWriter.Thing thing(String name, String colour, Shapes shape) {
        return new ThreeMfWriter.Thing(name, name, Srgb.parse(colour), List.of(shape.mesh()));
    }

    @Test
    void things_of_one_file_that_stand_apart_are_chosen_by_picture_and_the_rest_is_left_out() throws IOException {
        browser.open("/");
        give("#model-file", file("plateful.3mf", plateful()));
        browser.see("h1", "Which of these?");
        // The handle touches its pot and goes with it.
        assertThat(browser.text("#content"))
                .contains("holds 3 things that stand apart")
                .contains("Pot and 1 more")
                .contains("26.0 × 20.0 × 10.0 mm")
                .contains("Lid")
                .contains("8.0 × 8.0 × 3.0 mm");
        String offer = browser.path();
        browser.click("#take-together");
        browser.see(".steps", "88.0 × 20.0 × 10.00 mm");

        browser.open(offer);
        browser.click("#offered-0");
        browser.click("#offered-1");
        browser.click("#take-each");
        // What hovered beside the others stands on the bed by itself.
        browser.see(".steps", "8.0 × 8.0 × 3.00 mm");
        assertThat(browser.text(".steps")).contains("Knob");
        assertThat(plans.get(browser.path().split("[/?]")[2]).content().parts().hidden())
                .containsExactlyInAnyOrder(0, 1, 2);
        assertThat(browser.text("#findings")).doesNotContain("Stop");

        browser.open(offer);
        browser.click("#take-each");
        browser.until(() -> browser.path().equals("/"));
        assertThat(plans.listed()).extracting(Plans.Listed::name).contains("Pot and 1 more", "Lid", "Knob");
    }

    @Test
    void an_archive_of_archives_one_without_models_and_one_that_swells_are_refused_in_a_sentence() throws IOException {
        assertThat(unpacked(zip(Map.of("a.stl", box(1), "inner.zip", zip(Map.of("b.stl", box(1)))))))
                .containsExactly("a.stl 684");
        assertThatThrownBy(() -> unpacked(zip(Map.of("inner.zip", zip(Map.of("b.stl", box(1)))))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("another one, “inner.zip”; unpack it once");
        assertThatThrownBy(() ->
                        unpacked(zip(Map.of("box.step", "ISO-10303-21;\nHEADER;".getBytes(StandardCharsets.US_ASCII)))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("“box.step” in the archive is a STEP file");
        assertThatThrownBy(() -> unpacked(zip(Map.of("README.txt", NOTE))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("holds no model");
        // Zeros shrink to a thousandth: more than anything that was ever a model.
        byte[] bomb = new byte[60 << 20];
        System.arraycopy("v 0 0 0\n".getBytes(StandardCharsets.US_ASCII), 0, bomb, 0, 8);
        assertThatThrownBy(() -> unpacked(zip(Map.of("bomb.obj", bomb))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Unpacked, the archive would take over");
        Map<String, byte[]> many = new TreeMap<>();
        for (int i = 0; i < 2_100; i++) {
            many.put(i + ".txt", NOTE);
        }
        assertThatThrownBy(() -> unpacked(zip(many)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("over 2000 files");
        byte[] cut = zip(Map.of("a.stl", box(1), "b.stl", box(2)));
        browser.open("/");
        give("#model-file", file("cut.zip", java.util.Arrays.copyOf(cut, cut.length - 60)));
        browser.see("#notice, #refused, #new-job", "3MF");
    }
}
