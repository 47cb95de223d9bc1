package dev.tranche.core.speech;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Letters of files that do not say how they are written. */
class LettersTest {
    private static String unflagged(String name, Charset charset) {
        return Letters.archived(new String(name.getBytes(charset), Letters.OF_ARCHIVES));
    }

    /** A name without the flag for UTF-8 is written as DOS wrote it. Source: PKWARE, APPNOTE.TXT 6.3.10, appendix D. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "W\u00FCrfel/Stra\u00DFe.stl",
                "drag\u00F3n.stl",
                "pi\u00F1a \u00E9 caf\u00E9.gcode",
                "\u00C4nderung.3mf",
                "sm\u00F8rr\u00E9.obj"
            })
    void names_in_archives_are_read_as_programs_of_the_west_write_them(String name) {
        assertThat(unflagged(name, Charset.forName("IBM850"))).isEqualTo(name);
        assertThat(unflagged(name, StandardCharsets.UTF_8)).isEqualTo(name);
        assertThat(unflagged(Normalizer.normalize(name, Normalizer.Form.NFD), StandardCharsets.UTF_8))
                .isEqualTo(name);
        assertThat(unflagged(name, StandardCharsets.ISO_8859_1)).isEqualTo(name);
        assertThat(Letters.archived(name)).isEqualTo(name);
    }

    /** Letters that stand for others in ISO 8859-1 are those of DOS where nothing speaks against it. */
    @ParameterizedTest
    @ValueSource(strings = {"gro\u00DF.gcode", "m\u00E1s.stl", "\u00E1rbol.stl"})
    void a_single_letter_of_dos_is_told_too(String name) {
        assertThat(unflagged(name, Charset.forName("IBM850"))).isEqualTo(name);
        assertThat(unflagged(name, StandardCharsets.UTF_8)).isEqualTo(name);
        assertThat(Letters.archived(name)).isEqualTo(name);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "\u00A1hola!.stl",
                "5 \u00A3.stl",
                "\u041A\u0443\u0431.stl",
                "a\u00D7b.stl",
                "20\u00B0.stl",
                "3 m\u00B2.stl",
                "plain.stl"
            })
    void names_that_an_archive_gave_as_they_are_stay(String name) {
        assertThat(Letters.archived(name)).isEqualTo(name);
    }

    @Test
    void text_that_begins_with_the_mark_of_utf16_is_read_as_that() {
        assertThat(Letters.of("\uFEFFKreide;\u00FC".getBytes(StandardCharsets.UTF_16LE)))
                .isEqualTo("Kreide;\u00FC");
        assertThat(Letters.of("\uFEFFKreide;\u00FC".getBytes(StandardCharsets.UTF_16BE)))
                .isEqualTo("Kreide;\u00FC");
        assertThat(Letters.of("\uFEFF\u00FC".getBytes(StandardCharsets.UTF_8))).isEqualTo("\u00FC");
        assertThat(Letters.of(new byte[] {(byte) 0xFF})).isEqualTo("\u00FF");
    }
}
