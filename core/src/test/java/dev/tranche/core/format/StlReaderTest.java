package dev.tranche.core.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shapes;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class StlReaderTest {
    private static final Shapes BOX = new Shapes().box(-3, 2, 1.5, 20, 10, 3);
    private static final byte[] BINARY = StlWriter.binary(BOX.mesh());

    private static Mesh read(byte[] bytes) throws IOException {
        return StlReader.read(new ByteArrayInputStream(bytes), bytes.length, Progress.UNHEARD);
    }

    private static void refuses(byte[] bytes, String... words) {
        assertThatThrownBy(() -> read(bytes)).isInstanceOf(Refusal.class).hasMessageContainingAll(words);
    }

    @Test
    void both_kinds_give_the_same_box_standing_on_the_bed() throws IOException {
        Mesh ascii = read(BOX.ascii().getBytes(StandardCharsets.US_ASCII));
        Mesh binary = read(BINARY);
        for (Mesh mesh : new Mesh[] {ascii, binary}) {
            assertThat(mesh.triangles()).isEqualTo(12);
            assertThat(mesh.height()).isEqualTo(Height.ofMillimetres(3));
            assertThat(mesh.footprint().getMinX()).isEqualTo(-3);
            assertThat(mesh.footprint().getWidth()).isEqualTo(20);
            assertThat(mesh.volume()).isCloseTo(600, within(1e-3));
        }
        assertThat(ascii.lifted()).isEqualTo(-1.5);
    }

    @Test
    void a_binary_file_whose_header_says_solid_is_read_as_binary() throws IOException {
        byte[] bytes = BINARY.clone();
        System.arraycopy("solid".getBytes(StandardCharsets.US_ASCII), 0, bytes, 0, 5);
        assertThat(read(bytes).triangles()).isEqualTo(12);
    }

    @Test
    void ascii_in_capitals_with_crlf_and_exponents_is_read() throws IOException {
        String text = BOX.ascii()
                .toUpperCase(java.util.Locale.ROOT)
                .replace("\n", "\r\n")
                .replace("17.0", "1.7e+1");
        assertThat(read(text.getBytes(StandardCharsets.US_ASCII)).footprint().getMaxX())
                .isEqualTo(17);
    }

    /** Source: as the reader's: "whitespace may be used anywhere in the file except within numbers or words". */
    @Test
    void ascii_is_words_whatever_lines_they_stand_on() throws IOException {
        String text = BOX.ascii();
        Mesh mesh = read(text.getBytes(StandardCharsets.US_ASCII));
        String two = text.replace("solid shapes", "solid a solid facet of it")
                .replace("endsolid shapes", "endsolid a facet");
        for (String other : List.of(
                text.replaceAll("\\s+", " "),
                text.replace("endloop", "end loop").replace("endfacet", "end facet"),
                two)) {
            Mesh again = read(other.getBytes(StandardCharsets.US_ASCII));
            assertThat(again.triangles()).isEqualTo(mesh.triangles());
            assertThat(again.footprint()).isEqualTo(mesh.footprint());
        }
    }

    @Test
    void a_model_is_told_from_other_files_by_its_content() {
        assertThat(StlReader.isStl(Arrays.copyOf(BINARY, 84), BINARY.length)).isTrue();
        assertThat(StlReader.isStl("solid box".getBytes(StandardCharsets.US_ASCII), 900))
                .isTrue();
        assertThat(StlReader.isStl("; sliced\nG28\n".getBytes(StandardCharsets.US_ASCII), 900))
                .isFalse();
        assertThat(StlReader.isStl(new byte[0], 0)).isFalse();
    }

    @Test
    void an_empty_file_is_refused() {
        refuses(new byte[0], "empty");
    }

    @Test
    void text_that_is_no_model_is_refused() {
        refuses("Dear Sir".getBytes(StandardCharsets.US_ASCII), "no STL model");
        refuses(
                "solid reasons to grow leeks, among them soup and so on and so forth, at length, for pages\n"
                        .getBytes(StandardCharsets.US_ASCII),
                "no facets");
        refuses(
                "solid\n  leeks and other things which go on for quite a while so that the head is full enough\nendsolid"
                        .getBytes(StandardCharsets.US_ASCII),
                "Line 2",
                "leeks");
    }

    @ParameterizedTest
    @ValueSource(ints = {10, 84, 100, 600})
    void a_truncated_binary_is_refused(int length) {
        refuses(Arrays.copyOf(BINARY, length), length < 84 ? "no STL model" : "cut short");
    }

    @Test
    void a_count_that_lies_is_refused_with_both_numbers() {
        byte[] more = BINARY.clone();
        ByteBuffer.wrap(more).order(ByteOrder.LITTLE_ENDIAN).putInt(80, 1_000_000_000);
        refuses(more, "1000000000", "room for 12");
        byte[] fewer = BINARY.clone();
        ByteBuffer.wrap(fewer).order(ByteOrder.LITTLE_ENDIAN).putInt(80, 5);
        refuses(fewer, "5 triangles", "7 more");
        byte[] unsigned = BINARY.clone();
        ByteBuffer.wrap(unsigned).order(ByteOrder.LITTLE_ENDIAN).putInt(80, -1);
        refuses(unsigned, "4294967295");
    }

    @ParameterizedTest
    @ValueSource(floats = {Float.NaN, Float.POSITIVE_INFINITY, Float.NEGATIVE_INFINITY, 3e38f})
    void coordinates_that_are_no_place_are_refused_with_their_triangle(float value) {
        byte[] bytes = BINARY.clone();
        ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).putFloat(84 + 50 * 3 + 12, value);
        refuses(bytes, "Triangle 4");
        refuses(
                BOX.ascii().replaceFirst("vertex -3.0", "vertex " + value).getBytes(StandardCharsets.US_ASCII),
                "Line 4");
    }

    @Test
    void an_ascii_file_cut_short_is_refused() {
        String text = BOX.ascii();
        refuses(text.substring(0, text.length() / 2).getBytes(StandardCharsets.US_ASCII), "Line");
        refuses(text.replace("endsolid shapes", "").getBytes(StandardCharsets.US_ASCII), "endsolid");
    }

    @Test
    void a_flat_model_is_refused() {
        Shapes flat = new Shapes().triangle(new double[] {0, 0, 1}, new double[] {1, 0, 1}, new double[] {0, 1, 1});
        refuses(flat.ascii().getBytes(StandardCharsets.US_ASCII), "flat");
    }

    @Test
    void reading_can_be_cancelled() {
        assertThatThrownBy(() -> StlReader.read(new ByteArrayInputStream(BINARY), BINARY.length, (done, total) -> {
                    throw new CancellationException();
                }))
                .isInstanceOf(CancellationException.class);
    }
}
